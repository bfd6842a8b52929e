import { InvalidInputError, requireWithin, type NumberRange } from '../errors';
import type { StockKind } from '../stock';

/** Three steps, used for tolerances (high = bears much) and for burdens (high = much of it). */
export const grades = ['low', 'medium', 'high'] as const;
export type Grade = (typeof grades)[number];

export const growthClasses = ['slow', 'medium', 'fast'] as const;
export type GrowthClass = (typeof growthClasses)[number];

export const foliageKinds = ['evergreen', 'semi', 'deciduous'] as const;
export type Foliage = (typeof foliageKinds)[number];

export const crownForms = [
  'round',
  'spreading',
  'oval',
  'columnar',
  'conical',
  'vase',
  'weeping',
  'irregular',
] as const;
export type CrownForm = (typeof crownForms)[number];

/** How long roots bear standing water: not at all, for days, for weeks. */
export const wetGrades = ['no', 'brief', 'yes'] as const;
export type WetGrade = (typeof wetGrades)[number];

/** Least light: full sun, half a day, shade. */
export const sunNeeds = ['full', 'part', 'shade'] as const;
export type SunNeed = (typeof sunNeeds)[number];

export const pollinations = ['self', 'cross', 'dioecious'] as const;
/** Whether fruit needs another tree: no, one of another kin, one of the other sex. */
export type Pollination = (typeof pollinations)[number];

export const transplantGrades = ['easy', 'fair', 'hard', 'no'] as const;
export type TransplantGrade = (typeof transplantGrades)[number];

export const plantingTimes = ['autumn', 'spring', 'any'] as const;
export type PlantingTime = (typeof plantingTimes)[number];

export interface Range {
  readonly min: number;
  readonly max: number;
}

/** One species of the library: what it becomes, bears, gives and asks. */
export interface Species {
  /** Genus and epithet, the key of the library. */
  readonly botanical: string;
  readonly common: string;
  readonly family: string;
  readonly heightM: Range;
  readonly spreadM: Range;
  readonly growth: GrowthClass;
  readonly form: CrownForm;
  readonly foliage: Foliage;
  readonly waterUse: Grade;
  readonly wet: WetGrade;
  readonly drought: Grade;
  readonly salt: Grade;
  readonly ph: Range;
  readonly sun: SunNeed;
  /** Lowest temperature an established tree lives through. °C */
  readonly frostC: number;
  readonly heat: Grade;
  readonly windFirm: Grade;
  readonly rootAggression: Grade;
  readonly litter: Grade;
  readonly thorns: boolean;
  readonly pollen: Grade;
  readonly toxic: Grade;
  readonly pests: string;
  readonly native: string;
  readonly pollinators: Grade;
  readonly birds: Grade;
  /** Months 1–12. */
  readonly flower: readonly number[];
  readonly fruit: readonly number[];
  readonly autumnColour: readonly number[];
  readonly pollination: Pollination;
  readonly transplant: Readonly<Record<StockKind, TransplantGrade>>;
  readonly planting: PlantingTime;
  readonly notes: string;
  readonly source: string;
}

export const genusOf = (botanical: string): string => botanical.split(' ')[0] ?? botanical;

/** Typical mature height and spread: the middle of their ranges. m */
export const matureHeightM = ({ heightM }: Pick<Species, 'heightM'>): number => (heightM.min + heightM.max) / 2;
export const matureSpreadM = ({ spreadM }: Pick<Species, 'spreadM'>): number => (spreadM.min + spreadM.max) / 2;

export const speciesRanges = {
  heightM: { min: 1, max: 80, unit: 'm' },
  spreadM: { min: 0.5, max: 50, unit: 'm' },
  ph: { min: 3, max: 10, unit: 'pH' },
  frostC: { min: -50, max: 5, unit: '°C' },
  month: { min: 1, max: 12, unit: 'month' },
} as const satisfies Record<string, NumberRange>;

/** Genus, epithet, and perhaps a subspecies, hybrid sign or cultivar. */
export const botanicalPattern = /^[A-Z][a-z-]+( ×)? [a-z-]+( (subsp\.|var\.) [a-z-]+)?( '[^']{1,40}')?$/;

/** @throws InvalidInputError for a name that is no botanical name, a range upside down or outside `speciesRanges` */
export function requireSpecies(species: Species): void {
  if (!botanicalPattern.test(species.botanical)) {
    throw new InvalidInputError('botanical must be genus and epithet, such as Quercus suber', 'botanical');
  }
  for (const field of ['heightM', 'spreadM', 'ph'] as const) {
    const { min, max } = species[field];
    requireWithin(`${field}.min`, min, speciesRanges[field]);
    requireWithin(`${field}.max`, max, speciesRanges[field]);
    if (min > max)
      throw new InvalidInputError(`${field}.min must not exceed ${field}.max ${max}, got ${min}`, `${field}.min`);
  }
  requireWithin('frostC', species.frostC, speciesRanges.frostC);
  for (const field of ['flower', 'fruit', 'autumnColour'] as const) {
    species[field].forEach((month, i) => requireWithin(`${field}[${i}]`, month, speciesRanges.month));
  }
}
