import {
  mostRoots,
  mulchContacts,
  probeClasses,
  soilClasses,
  stakeStates,
  stockKinds,
  type GroundFacts,
  type Inspection,
  type Measure,
  type PlantingFacts,
  type Stock,
} from '@sombra/core';
import * as z from 'zod';
import { isoDate, measure } from '../measures';
import { fieldRecordSchema, inspectionSchema, plantingSchema, stockSchema } from '../records';

/** Empty cells and absent properties mean "not measured". */
const cell = <T extends z.ZodType>(schema: T) =>
  z.preprocess((value) => (value === '' || value === undefined ? null : value), schema.nullable());

const asNumber = (value: unknown): unknown =>
  typeof value === 'string' && /^-?\d+(\.\d+)?$/.test(value.trim()) ? Number(value) : value;

const number = (name: Measure) =>
  z.preprocess(asNumber, z.number({ error: 'must be a number, decimal point, no unit' }).pipe(measure(name)));

const numberOr = <W extends string>(word: W, name: Measure) =>
  z.preprocess(
    asNumber,
    z.union([z.literal(word), measure(name)], { error: (issue) => wordOrNumber(word, name, issue.input) }),
  );

function wordOrNumber(word: string, name: Measure, input: unknown): string {
  const { minValue, maxValue } = measure(name);
  const got = typeof input === 'number' ? `, got ${input}` : '';
  return `must be '${word}' or a number within ${minValue}–${maxValue}${got}`;
}

const yesNo = z.preprocess(
  (value) => {
    if (typeof value === 'boolean') return value;
    if (value === null || value === '' || value === undefined) return null;
    const text = String(value).trim().toLowerCase();
    if (text === 'yes' || text === 'true') return true;
    return text === 'no' || text === 'false' ? false : value;
  },
  z.boolean({ error: 'must be yes or no, or empty where nobody looked' }).nullable(),
);

const choice = <const T extends readonly [string, ...string[]]>(options: T) =>
  z.enum(options, { error: `must be one of ${options.join(', ')}` });

/** `0:300 30:262 60:225`: minute and water level in mm. */
const percolationCell = z.preprocess(
  (value) => {
    if (typeof value !== 'string' || value.trim() === '')
      return value === null || value === '' || value === undefined ? [] : value;
    const parts = value
      .trim()
      .split(/\s+/)
      .map((part) => /^(\d+(?:\.\d+)?):(\d+(?:\.\d+)?)$/.exec(part));
    return parts.every((m) => m !== null) ? parts.map((m) => ({ minute: Number(m[1]), levelMm: Number(m[2]) })) : value;
  },
  z
    .array(z.strictObject({ minute: measure('percolationMinute'), levelMm: measure('waterLevelMm') }), {
      error: 'must be pairs minute:level in mm, as in 0:300 30:262 60:225',
    })
    .max(60),
);

/** `350-40:18 200-230:12:clear`: from-to in degrees, thickness in mm, how near the trunk; `none` when none were found. */
const rootsCell = z.preprocess(
  (value) => {
    if (value === null || value === '' || value === undefined) return null;
    if (typeof value !== 'string') return value;
    if (value.trim() === 'none') return [];
    const parts = value
      .trim()
      .split(/\s+/)
      .map((part) => /^(\d+(?:\.\d+)?)-(\d+(?:\.\d+)?):(\d+(?:\.\d+)?)(?::(\w+))?$/.exec(part));
    return parts.every((m) => m !== null)
      ? parts.map((m) => ({
          arc: { fromDeg: Number(m[1]), toDeg: Number(m[2]) },
          diameterMm: Number(m[3]),
          ...(m[4] ? { touch: m[4] } : {}),
        }))
      : value;
  },
  z
    .array(inspectionSchema.shape.circlingRoots.unwrap().element, {
      error: "must be 'none' or from-to:thickness, as in 350-40:18",
    })
    .max(mostRoots)
    .nullable(),
);

const flareCell = z.preprocess((value) => {
  if (value === null || value === '' || value === undefined) return null;
  if (typeof value === 'number') return [value];
  if (typeof value !== 'string') return value;
  return value.trim().split(/\s+/).map(asNumber);
}, plantingSchema.shape.flareAboveGradeMm.min(1).nullable());

const recordsCell = z.preprocess(
  (value) => {
    if (value === null || value === '' || value === undefined) return [];
    if (typeof value !== 'string') return value;
    try {
      return JSON.parse(value) as unknown;
    } catch {
      return value;
    }
  },
  z
    .array(
      z.intersection(fieldRecordSchema, z.object({ recordedBy: z.string().max(120), device: z.string().max(80) })),
      { error: 'must be the list of records Sombra wrote' },
    )
    .max(500),
);

const stockColumns = {
  stock_kind: cell(choice(stockKinds)),
  ball_diameter_mm: cell(number('ballDiameterMm')),
  ball_height_mm: cell(number('ballHeightMm')),
  top_roots_depth_mm: cell(number('topRootsDepthMm')),
  surplus_left_mm: cell(number('topRootsDepthMm')),
  root_spread_mm: cell(number('rootSpreadMm')),
  root_depth_mm: cell(number('rootDepthMm')),
  caliper_mm: cell(number('caliperMm')),
  height_m: cell(number('treeHeightM')),
  first_branch_m: cell(number('firstBranchM')),
  graft_height_mm: cell(number('graftHeightMm')),
};

const text = (max: number) =>
  z.string({ error: 'must be text' }).trim().min(1, 'must not be empty').max(max, `must be at most ${max} characters`);

/** One spot with its tree, as a row of CSV or the properties of a GeoJSON feature. */
export const spotRowSchema = z.object({
  ref: text(24),
  place: text(80),
  lng: number('lng'),
  lat: number('lat'),
  species: cell(text(80)),
  soil: cell(choice(soilClasses)),
  stony: yesNo,
  compacted: yesNo,
  percolation: percolationCell,
  slope_pct: cell(number('slopePct')),
  falls_towards_deg: cell(number('bearingDeg')),
  strip_width_mm: cell(numberOr('open', 'stripWidthMm')),
  wire_height_m: cell(numberOr('none', 'wireHeightM')),
  ...stockColumns,
  planted_on: cell(isoDate),
  flare_above_grade_mm: flareCell,
  hole_width_mm: cell(number('holeWidthMm')),
  first_water_l: cell(number('firstWaterL')),
  stakes_set: cell(z.preprocess(asNumber, plantingSchema.shape.stakes.unwrap())),
  put_back_mm: cell(number('putBackMm')),
  taken_over_on: cell(isoDate),
  taken_over_from: cell(text(80)),
  inspected_on: cell(isoDate),
  flare_depth_mm: cell(number('flareDepthMm')),
  mulch_depth_mm: cell(number('mulchDepthMm')),
  mulch_contact: cell(choice(mulchContacts)),
  stake: cell(choice(stakeStates)),
  probe: cell(choice(probeClasses)),
  circling_roots: rootsCell,
  added_on: cell(isoDate),
  withdrawn_on: cell(isoDate),
  spot_id: cell(z.uuid('must be the id Sombra wrote')),
  tree_id: cell(z.uuid('must be the id Sombra wrote')),
  records: recordsCell,
});
export type SpotRow = z.infer<typeof spotRowSchema>;

export const spotColumns = Object.keys(spotRowSchema.shape) as (keyof SpotRow)[];
export const requiredColumns = ['ref', 'place', 'lng', 'lat'] as const satisfies readonly (keyof SpotRow)[];

/** Measures behind the columns, for limits in messages. */
export const columnMeasures: Partial<Record<keyof SpotRow, Measure>> = {
  lng: 'lng',
  lat: 'lat',
  slope_pct: 'slopePct',
  falls_towards_deg: 'bearingDeg',
  strip_width_mm: 'stripWidthMm',
  wire_height_m: 'wireHeightM',
  ball_diameter_mm: 'ballDiameterMm',
  ball_height_mm: 'ballHeightMm',
  top_roots_depth_mm: 'topRootsDepthMm',
  surplus_left_mm: 'topRootsDepthMm',
  root_spread_mm: 'rootSpreadMm',
  root_depth_mm: 'rootDepthMm',
  caliper_mm: 'caliperMm',
  height_m: 'treeHeightM',
  first_branch_m: 'firstBranchM',
  graft_height_mm: 'graftHeightMm',
  flare_above_grade_mm: 'flareAboveGradeMm',
  hole_width_mm: 'holeWidthMm',
  first_water_l: 'firstWaterL',
  put_back_mm: 'putBackMm',
  flare_depth_mm: 'flareDepthMm',
  mulch_depth_mm: 'mulchDepthMm',
  percolation: 'waterLevelMm',
};

/** Facts a row's cells state; `null` where the row says nothing of them. */
export interface RowFacts {
  readonly ground: GroundFacts | null;
  readonly stock: Stock | null;
  readonly planting: Omit<PlantingFacts, 'practiceId' | 'practiceVersion'> | null;
  readonly inspection: Inspection | null;
}

export type RowFactsResult =
  | { readonly ok: true; readonly facts: RowFacts }
  | { readonly ok: false; readonly column: keyof SpotRow; readonly message: string };

/** Gathers a row's cells into facts; groups that are started but not complete are refused by column. */
export function rowFacts(row: SpotRow): RowFactsResult {
  const stock = rowStock(row);
  if (!stock.ok) return stock;
  const planting = rowPlanting(row);
  if (!planting.ok) return planting;
  const inspection = rowInspection(row);
  const stray = inspectionColumns.find((column) => row.inspected_on === null && row[column] !== null);
  if (stray) return { ok: false, column: 'inspected_on', message: `must be given where ${stray} is given` };
  if (inspection && !planting.value)
    return { ok: false, column: 'planted_on', message: 'must be given where a look is given' };
  if (inspection && planting.value && inspection.inspectedOn < planting.value.plantedOn) {
    return { ok: false, column: 'inspected_on', message: `must not be before planted_on, ${planting.value.plantedOn}` };
  }
  return { ok: true, facts: { ground: rowGround(row), stock: stock.value, planting: planting.value, inspection } };
}

function rowGround(row: SpotRow): GroundFacts | null {
  const ground: GroundFacts = {
    soil: row.soil,
    stony: row.stony,
    compacted: row.compacted,
    percolation: row.percolation,
    slopePct: row.slope_pct,
    fallsTowardsDeg: row.falls_towards_deg,
    stripWidthMm: row.strip_width_mm,
    wireHeightM: row.wire_height_m,
  };
  const said = [
    row.soil,
    row.stony,
    row.compacted,
    row.slope_pct,
    row.falls_towards_deg,
    row.strip_width_mm,
    row.wire_height_m,
  ].some((v) => v !== null);
  return said || row.percolation.length > 0 ? ground : null;
}

type Group<T> = { ok: true; value: T | null } | { ok: false; column: keyof SpotRow; message: string };

/** A fact that may be left out is left out where its cell is empty. */
const given = <K extends string>(key: K, value: number | null): Partial<Record<K, number>> =>
  value === null ? {} : ({ [key]: value } as Record<K, number>);

function rowStock(row: SpotRow): Group<Stock> {
  if (row.stock_kind === null) {
    const stray = (Object.keys(stockColumns) as (keyof typeof stockColumns)[]).find(
      (c) => c !== 'stock_kind' && row[c] !== null,
    );
    return stray
      ? { ok: false, column: 'stock_kind', message: `must be given where ${stray} is given` }
      : { ok: true, value: null };
  }
  const top = {
    caliperMm: row.caliper_mm,
    heightM: row.height_m,
    ...given('firstBranchM', row.first_branch_m),
    ...given('graftHeightMm', row.graft_height_mm),
  };
  const parsed = stockSchema.safeParse(
    row.stock_kind === 'bare_root'
      ? {
          kind: row.stock_kind,
          ...top,
          rootSpreadMm: row.root_spread_mm,
          rootDepthMm: row.root_depth_mm,
        }
      : {
          kind: row.stock_kind,
          ...top,
          ballDiameterMm: row.ball_diameter_mm,
          ballHeightMm: row.ball_height_mm,
          topRootsDepthMm: row.top_roots_depth_mm,
          ...given('surplusLeftMm', row.surplus_left_mm),
        },
  );
  if (parsed.success) return { ok: true, value: parsed.data };
  const issue = parsed.error.issues[0];
  const column = stockColumnOf[String(issue?.path[0])] ?? 'stock_kind';
  const missing = row[column] === null;
  return {
    ok: false,
    column,
    message: missing ? `must be given for ${row.stock_kind} stock` : (issue?.message ?? 'is wrong'),
  };
}

const stockColumnOf: Readonly<Record<string, keyof SpotRow>> = {
  caliperMm: 'caliper_mm',
  heightM: 'height_m',
  ballDiameterMm: 'ball_diameter_mm',
  ballHeightMm: 'ball_height_mm',
  topRootsDepthMm: 'top_roots_depth_mm',
  surplusLeftMm: 'surplus_left_mm',
  firstBranchM: 'first_branch_m',
  graftHeightMm: 'graft_height_mm',
  rootSpreadMm: 'root_spread_mm',
  rootDepthMm: 'root_depth_mm',
};

function rowPlanting(row: SpotRow): Group<NonNullable<RowFacts['planting']>> {
  const { planted_on: plantedOn, flare_above_grade_mm: flare, hole_width_mm: hole, first_water_l: water } = row;
  const { taken_over_on: on, taken_over_from: from } = row;
  if (plantedOn === null && flare === null && hole === null && water === null && on === null && from === null)
    return { ok: true, value: null };
  if ((on === null) !== (from === null))
    return {
      ok: false,
      column: on === null ? 'taken_over_on' : 'taken_over_from',
      message: 'must be given with the other',
    };
  const cells = { planted_on: plantedOn, flare_above_grade_mm: flare, hole_width_mm: hole, first_water_l: water };
  const beside = { ...given('stakes', row.stakes_set), ...given('putBackMm', row.put_back_mm) };
  if (on !== null && from !== null) {
    if (plantedOn === null)
      return {
        ok: false,
        column: 'planted_on',
        message: 'must be given for a tree that was taken over, as near as it is known',
      };
    if (on < plantedOn)
      return { ok: false, column: 'taken_over_on', message: `must not be before planted_on, ${plantedOn}` };
    const known = { ...given('holeWidthMm', hole), ...given('firstWaterL', water), ...beside };
    return { ok: true, value: { plantedOn, takenOver: { on, from }, flareAboveGradeMm: flare ?? [], ...known } };
  }
  if (plantedOn === null || flare === null || hole === null || water === null) {
    const column = (Object.keys(cells) as (keyof typeof cells)[]).find((c) => cells[c] === null) ?? 'planted_on';
    return { ok: false, column, message: 'must be given for a planted tree' };
  }
  const built = { plantedOn, flareAboveGradeMm: flare, holeWidthMm: hole, firstWaterL: water };
  return { ok: true, value: { ...built, ...beside } };
}

const inspectionColumns = [
  'flare_depth_mm',
  'mulch_depth_mm',
  'mulch_contact',
  'stake',
  'probe',
  'circling_roots',
] as const;

function rowInspection(row: SpotRow): Inspection | null {
  if (row.inspected_on === null) return null;
  return {
    inspectedOn: row.inspected_on,
    flareDepthMm: row.flare_depth_mm,
    mulchDepthMm: row.mulch_depth_mm,
    mulchContact: row.mulch_contact,
    stake: row.stake,
    probe: row.probe,
    circlingRoots: row.circling_roots,
  };
}
