import { spotColumns, type SpotRow } from './spot-row';

export interface ColumnNote {
  readonly columns: readonly (keyof SpotRow)[];
  /** What its cells hold, and in which unit. */
  readonly holds: string;
}

/** What each column of a file of spots holds, in the order of the file: for whoever writes one. */
export const columnNotes: readonly ColumnNote[] = [
  { columns: ['ref', 'place', 'lng', 'lat'], holds: 'required: number of the spot, street or park, degrees WGS 84' },
  { columns: ['species'], holds: 'botanical name' },
  { columns: ['soil'], holds: 'sand, sandy_loam, loam, clay_loam, clay' },
  { columns: ['stony', 'compacted'], holds: 'yes or no; empty where nobody looked' },
  { columns: ['percolation'], holds: 'minute:level pairs in mm, as 0:300 30:280 60:262' },
  { columns: ['slope_pct', 'falls_towards_deg'], holds: '%, degrees clockwise from north' },
  { columns: ['strip_width_mm'], holds: 'mm or open' },
  { columns: ['wire_height_m'], holds: 'm or none' },
  { columns: ['stock_kind'], holds: 'container, balled, bare_root' },
  {
    columns: ['ball_diameter_mm', 'ball_height_mm', 'top_roots_depth_mm', 'surplus_left_mm'],
    holds: 'container and balled, mm; of the surplus over the topmost roots, what could not come off',
  },
  { columns: ['root_spread_mm', 'root_depth_mm'], holds: 'bare-root, mm' },
  {
    columns: ['caliper_mm', 'height_m', 'first_branch_m', 'graft_height_mm'],
    holds: 'all kinds; branch and graft above the flare',
  },
  {
    columns: ['planted_on', 'flare_above_grade_mm', 'hole_width_mm', 'first_water_l', 'stakes_set', 'put_back_mm'],
    holds:
      'as built: a day as 2026-11-27; one to four flare heights in mm, separated by spaces; mm; litres; a number; mm',
  },
  {
    columns: ['taken_over_on', 'taken_over_from'],
    holds: 'of a tree that others planted: the day and from whom; of its planting only planted_on is needed then',
  },
  {
    columns: ['inspected_on', 'flare_depth_mm', 'mulch_depth_mm', 'mulch_contact', 'stake', 'probe', 'circling_roots'],
    holds:
      'the newest look; roots as from-to:thickness, 350-40:18, with how near they are, 350-40:18:clear (clear, touching, pressing, grown_in), or none',
  },
  {
    columns: ['added_on', 'withdrawn_on'],
    holds: 'since when the spot is in the programme, and out of it again; read for new spots only',
  },
  { columns: ['spot_id', 'tree_id', 'records'], holds: 'written by an export: leave them empty in a file of your own' },
];

/** Columns that people fill, as the first line of a file to begin with. */
export const templateColumns: readonly (keyof SpotRow)[] = spotColumns.filter(
  (column) => column !== 'spot_id' && column !== 'tree_id' && column !== 'records',
);
