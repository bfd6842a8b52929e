import { InvalidInputError } from '../../errors';
import type {
  CrownForm,
  Foliage,
  Grade,
  GrowthClass,
  PlantingTime,
  Pollination,
  Range,
  Species,
  SunNeed,
  TransplantGrade,
  WetGrade,
} from '../species';

const growths: Record<string, GrowthClass> = { s: 'slow', m: 'medium', f: 'fast' };
const forms: Record<string, CrownForm> = {
  R: 'round',
  S: 'spreading',
  O: 'oval',
  C: 'columnar',
  K: 'conical',
  V: 'vase',
  W: 'weeping',
  I: 'irregular',
};
const foliages: Record<string, Foliage> = { e: 'evergreen', s: 'semi', d: 'deciduous' };
const gradeCodes: Record<string, Grade> = { l: 'low', m: 'medium', h: 'high' };
const wets: Record<string, WetGrade> = { n: 'no', b: 'brief', y: 'yes' };
const suns: Record<string, SunNeed> = { f: 'full', p: 'part', s: 'shade' };
const pollinations: Record<string, Pollination> = { s: 'self', c: 'cross', d: 'dioecious' };
const transplants: Record<string, TransplantGrade> = { e: 'easy', f: 'fair', h: 'hard', n: 'no' };
const times: Record<string, PlantingTime> = { a: 'autumn', s: 'spring', y: 'any' };

/** Where the shipped facts come from. */
export const shippedSource = 'General botanical and extension knowledge; check locally';

/**
 * Reads one row of the shipped library. Columns, parted by |:
 * botanical, common, family, height and spread in metres; growth, form, foliage; water use, wet feet, drought,
 * salt; pH; sun; frost °C; heat, wind firmness, root aggression, litter, pollen, toxicity; thorns (t or -);
 * pollinators, birds; months of flower, fruit, autumn colour; pollination; transplanting as container, balled,
 * bare-root; planting time; pests; origin; notes. Single letters are the first letters of the words they stand for.
 * @throws InvalidInputError naming the row and column
 */
export function readRow(row: string): Species {
  const cells = row.split('|');
  const name = cells[0] ?? '';
  if (cells.length !== 22)
    throw new InvalidInputError(`row of ${name} must have 22 columns, got ${cells.length}`, name);
  const cell = (i: number): string => cells[i] ?? '';
  const code = <T>(map: Record<string, T>, i: number, at: number): T => {
    const found = map[cell(i).charAt(at)];
    if (found === undefined) throw new InvalidInputError(`${name}: column ${i + 1} holds an unknown code`, name);
    return found;
  };
  const range = (i: number): Range => {
    const [min, max] = cell(i).split('-').map(Number);
    return { min: min ?? NaN, max: max ?? NaN };
  };
  const months = (i: number): number[] => (cell(i) === '-' ? [] : cell(i).split(',').map(Number));
  return {
    botanical: name,
    common: cell(1),
    family: cell(2),
    heightM: range(3),
    spreadM: range(4),
    growth: code(growths, 5, 0),
    form: code(forms, 5, 1),
    foliage: code(foliages, 5, 2),
    waterUse: code(gradeCodes, 6, 0),
    wet: code(wets, 6, 1),
    drought: code(gradeCodes, 6, 2),
    salt: code(gradeCodes, 6, 3),
    ph: range(7),
    sun: code(suns, 8, 0),
    frostC: Number(cell(9)),
    heat: code(gradeCodes, 10, 0),
    windFirm: code(gradeCodes, 10, 1),
    rootAggression: code(gradeCodes, 10, 2),
    litter: code(gradeCodes, 10, 3),
    pollen: code(gradeCodes, 10, 4),
    toxic: code(gradeCodes, 10, 5),
    thorns: cell(11) === 't',
    pollinators: code(gradeCodes, 12, 0),
    birds: code(gradeCodes, 12, 1),
    flower: months(13),
    fruit: months(14),
    autumnColour: months(15),
    pollination: code(pollinations, 16, 0),
    transplant: {
      container: code(transplants, 17, 0),
      balled: code(transplants, 17, 1),
      bare_root: code(transplants, 17, 2),
    },
    planting: code(times, 18, 0),
    pests: cell(19),
    native: cell(20),
    notes: cell(21),
    source: shippedSource,
  };
}
