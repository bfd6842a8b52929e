import { spotColumns, type KeptRecord, type SpotRow } from '@sombra/contract';
import { ofKind, standing, type BallStock, type Stock } from '@sombra/core';
import type { SpotRow as StoredSpot } from '../spots/repository';

export type Cell = string | number | boolean | null | readonly unknown[];
export type Cells = Record<keyof SpotRow, Cell>;

/** Digits of a coordinate in a file: 1e-9° is a tenth of a millimetre. */
const coordinateDigits = 9;
const coordinate = (degrees: number): number => Number(degrees.toFixed(coordinateDigits));

/** A spot as the cells of an export: the present in plain columns, every record in the last one. */
export function spotCells(spot: StoredSpot, records: readonly KeptRecord[]): Cells {
  const empty = Object.fromEntries(spotColumns.map((column) => [column, null])) as Cells;
  const kept = standing(records);
  return {
    ...empty,
    ref: spot.ref,
    place: spot.place,
    lng: coordinate(spot.lng),
    lat: coordinate(spot.lat),
    species: spot.species,
    ...groundCells(kept),
    ...stockCells(ofKind(kept, 'stock').at(-1)?.facts),
    ...plantingCells(kept),
    ...inspectionCells(kept),
    added_on: spot.addedOn,
    withdrawn_on: spot.withdrawnOn,
    spot_id: spot.id,
    tree_id: spot.treeId,
    records: records.map(carried),
  };
}

/** What a file carries of a record: not how it came to this server. */
function carried(kept: KeptRecord) {
  const { receivedAt: _arrival, recordedById: _person, deviceSaid: _said, clock: _clock, ...record } = kept;
  return record;
}

type Kept = ReturnType<typeof standing>;

function groundCells(kept: Kept): Partial<Cells> {
  const ground = ofKind(kept, 'ground').at(-1)?.facts;
  if (!ground) return {};
  return {
    soil: ground.soil,
    stony: ground.stony,
    compacted: ground.compacted,
    percolation: ground.percolation.map(({ minute, levelMm }) => `${minute}:${levelMm}`).join(' '),
    slope_pct: ground.slopePct,
    falls_towards_deg: ground.fallsTowardsDeg,
    strip_width_mm: ground.stripWidthMm,
    wire_height_m: ground.wireHeightM,
  };
}

function stockCells(stock: Stock | undefined): Partial<Cells> {
  if (!stock) return {};
  const top = {
    stock_kind: stock.kind,
    caliper_mm: stock.caliperMm,
    height_m: stock.heightM,
    first_branch_m: stock.firstBranchM ?? null,
    graft_height_mm: stock.graftHeightMm ?? null,
  };
  return stock.kind === 'bare_root'
    ? { ...top, root_spread_mm: stock.rootSpreadMm, root_depth_mm: stock.rootDepthMm }
    : { ...top, ...ballCells(stock) };
}

const ballCells = (stock: BallStock): Partial<Cells> => ({
  ball_diameter_mm: stock.ballDiameterMm,
  ball_height_mm: stock.ballHeightMm,
  top_roots_depth_mm: stock.topRootsDepthMm,
  surplus_left_mm: stock.surplusLeftMm ?? null,
});

function plantingCells(kept: Kept): Partial<Cells> {
  const planting = ofKind(kept, 'planting').at(-1)?.facts;
  if (!planting) return {};
  return {
    planted_on: planting.plantedOn,
    flare_above_grade_mm: planting.flareAboveGradeMm.join(' ') || null,
    hole_width_mm: planting.holeWidthMm ?? null,
    first_water_l: planting.firstWaterL ?? null,
    taken_over_on: planting.takenOver?.on ?? null,
    taken_over_from: planting.takenOver?.from ?? null,
    stakes_set: planting.stakes ?? null,
    put_back_mm: planting.putBackMm ?? null,
  };
}

function inspectionCells(kept: Kept): Partial<Cells> {
  const looks = ofKind(kept, 'inspection').map(({ facts }) => facts);
  const last = looks.sort((a, b) => a.inspectedOn.localeCompare(b.inspectedOn)).at(-1);
  if (!last) return {};
  const roots = last.circlingRoots?.map(
    ({ arc, diameterMm, touch }) => `${arc.fromDeg}-${arc.toDeg}:${diameterMm}${touch ? `:${touch}` : ''}`,
  );
  return {
    inspected_on: last.inspectedOn,
    flare_depth_mm: last.flareDepthMm,
    mulch_depth_mm: last.mulchDepthMm,
    mulch_contact: last.mulchContact,
    stake: last.stake,
    probe: last.probe,
    circling_roots: roots ? roots.join(' ') || 'none' : null,
  };
}
