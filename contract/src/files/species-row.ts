import {
  crownForms,
  foliageKinds,
  grades,
  growthClasses,
  plantingTimes,
  pollinations,
  sunNeeds,
  transplantGrades,
  wetGrades,
  type Species,
} from '@sombra/core';
import type * as z from 'zod';
import { problemIssues } from '../problem';
import { offerRowSchema, speciesSchema, type OfferRow } from '../match';

/** Columns of a species file, in the order they are written. */
export const speciesColumns = [
  'botanical',
  'common',
  'family',
  'height_min_m',
  'height_max_m',
  'spread_min_m',
  'spread_max_m',
  'growth',
  'form',
  'foliage',
  'water_use',
  'wet',
  'drought',
  'salt',
  'ph_min',
  'ph_max',
  'sun',
  'frost_c',
  'heat',
  'wind_firm',
  'root_aggression',
  'litter',
  'thorns',
  'pollen',
  'toxic',
  'pests',
  'native',
  'pollinators',
  'birds',
  'flower',
  'fruit',
  'autumn_colour',
  'pollination',
  'container',
  'balled',
  'bare_root',
  'planting',
  'notes',
  'source',
] as const;
export type SpeciesCells = Readonly<Record<(typeof speciesColumns)[number], string>>;

const months = (list: readonly number[]): string => list.join(' ');

/** A species as the cells of a row; reading them again gives the same species. */
export function speciesCells(species: Species): SpeciesCells {
  return {
    botanical: species.botanical,
    common: species.common,
    family: species.family,
    height_min_m: String(species.heightM.min),
    height_max_m: String(species.heightM.max),
    spread_min_m: String(species.spreadM.min),
    spread_max_m: String(species.spreadM.max),
    growth: species.growth,
    form: species.form,
    foliage: species.foliage,
    water_use: species.waterUse,
    wet: species.wet,
    drought: species.drought,
    salt: species.salt,
    ph_min: String(species.ph.min),
    ph_max: String(species.ph.max),
    sun: species.sun,
    frost_c: String(species.frostC),
    heat: species.heat,
    wind_firm: species.windFirm,
    root_aggression: species.rootAggression,
    litter: species.litter,
    thorns: species.thorns ? 'yes' : 'no',
    pollen: species.pollen,
    toxic: species.toxic,
    pests: species.pests,
    native: species.native,
    pollinators: species.pollinators,
    birds: species.birds,
    flower: months(species.flower),
    fruit: months(species.fruit),
    autumn_colour: months(species.autumnColour),
    pollination: species.pollination,
    container: species.transplant.container,
    balled: species.transplant.balled,
    bare_root: species.transplant.bare_root,
    planting: species.planting,
    notes: species.notes,
    source: species.source,
  };
}

/** Words each column may hold, for the help beside a form and a file. */
export const speciesChoices = {
  growth: growthClasses,
  form: crownForms,
  foliage: foliageKinds,
  water_use: grades,
  wet: wetGrades,
  drought: grades,
  salt: grades,
  sun: sunNeeds,
  heat: grades,
  wind_firm: grades,
  root_aggression: grades,
  litter: grades,
  thorns: ['no', 'yes'],
  pollen: grades,
  toxic: grades,
  pollinators: grades,
  birds: grades,
  pollination: pollinations,
  container: transplantGrades,
  balled: transplantGrades,
  bare_root: transplantGrades,
  planting: plantingTimes,
} as const satisfies Partial<Record<(typeof speciesColumns)[number], readonly string[]>>;

export interface CellFault {
  readonly column: string;
  readonly message: string;
}
export type RowRead<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: readonly CellFault[] };

const number = (text: string | undefined): number | string | undefined => {
  const clean = (text ?? '').trim().replace(',', '.');
  if (clean === '') return undefined;
  return Number.isNaN(Number(clean)) ? clean : Number(clean);
};
const list = (text: string | undefined): (number | string)[] =>
  (text ?? '')
    .split(/[\s;,]+/)
    .filter((part) => part !== '')
    .map((part) => (Number.isNaN(Number(part)) ? part : Number(part)));
const word = (text: string | undefined): string => (text ?? '').trim();

/** Reads the cells of a row; every fault names its column. */
export function readSpeciesCells(cells: Readonly<Partial<Record<string, string>>>): RowRead<Species> {
  const thorns = word(cells['thorns']).toLowerCase();
  const parsed = speciesSchema.safeParse(
    {
      botanical: word(cells['botanical']),
      common: word(cells['common']),
      family: word(cells['family']),
      heightM: { min: number(cells['height_min_m']), max: number(cells['height_max_m']) },
      spreadM: { min: number(cells['spread_min_m']), max: number(cells['spread_max_m']) },
      growth: word(cells['growth']),
      form: word(cells['form']),
      foliage: word(cells['foliage']),
      waterUse: word(cells['water_use']),
      wet: word(cells['wet']),
      drought: word(cells['drought']),
      salt: word(cells['salt']),
      ph: { min: number(cells['ph_min']), max: number(cells['ph_max']) },
      sun: word(cells['sun']),
      frostC: number(cells['frost_c']),
      heat: word(cells['heat']),
      windFirm: word(cells['wind_firm']),
      rootAggression: word(cells['root_aggression']),
      litter: word(cells['litter']),
      thorns: thorns === 'yes' ? true : thorns === 'no' ? false : thorns,
      pollen: word(cells['pollen']),
      toxic: word(cells['toxic']),
      pests: word(cells['pests']),
      native: word(cells['native']),
      pollinators: word(cells['pollinators']),
      birds: word(cells['birds']),
      flower: list(cells['flower']),
      fruit: list(cells['fruit']),
      autumnColour: list(cells['autumn_colour']),
      pollination: word(cells['pollination']),
      transplant: {
        container: word(cells['container']),
        balled: word(cells['balled']),
        bare_root: word(cells['bare_root']),
      },
      planting: word(cells['planting']),
      notes: word(cells['notes']),
      source: word(cells['source']),
    },
    { reportInput: true },
  );
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}

const columnOfPath: Readonly<Record<string, string>> = {
  'heightM.min': 'height_min_m',
  'heightM.max': 'height_max_m',
  'spreadM.min': 'spread_min_m',
  'spreadM.max': 'spread_max_m',
  'ph.min': 'ph_min',
  'ph.max': 'ph_max',
};

function faultsOf(error: z.ZodError): CellFault[] {
  return problemIssues(error).map(({ path, message }) => {
    const [first = '', second] = path.split('.');
    const snake = (text: string) => text.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
    const column =
      columnOfPath[`${first}.${second ?? ''}`] ?? (first === 'transplant' ? (second ?? first) : snake(first));
    return { column, message };
  });
}

export const offerColumns = ['species', 'stock_kind', 'caliper_mm', 'height_m', 'price', 'available'] as const;

/** Reads a line of a nursery's availability list. */
export function readOfferCells(cells: Readonly<Partial<Record<string, string>>>): RowRead<OfferRow> {
  const parsed = offerRowSchema.safeParse(
    {
      species: word(cells['species']),
      stock_kind: word(cells['stock_kind']),
      caliper_mm: number(cells['caliper_mm']),
      height_m: number(cells['height_m']) ?? null,
      price: number(cells['price']),
      available: number(cells['available']),
    },
    { reportInput: true },
  );
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, faults: faultsOf(parsed.error) };
}
