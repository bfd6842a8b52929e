import type { Cause, CheckCode, Evidence } from './cause-table';

/** A tree in trouble as it is told, what is most likely behind it, and what to look at next. */
export interface DiagnosisCase {
  readonly said: string;
  readonly seen: readonly Evidence[];
  /** Looked for and not found. */
  readonly absent?: readonly Evidence[];
  readonly cause?: Cause;
  readonly nextCheck?: CheckCode;
}

/** Written by what practitioners hold, before any number of the table was: the table has to answer them. */
export const diagnosisCases: readonly DiagnosisCase[] = [
  { said: 'Leaves hang, nobody probed', seen: ['wilting'], nextCheck: 'probe' },
  { said: 'Leaves pale, nobody probed', seen: ['pale_leaves'], nextCheck: 'probe' },
  { said: 'Leaves hang, probe dry', seen: ['wilting', 'probe_dry'], cause: 'too_dry' },
  { said: 'Leaves hang, probe waterlogged', seen: ['wilting', 'probe_wet'], cause: 'drowned' },
  { said: 'Leaves hang, probe wet, hole drains slowly', seen: ['wilting', 'probe_wet', 'slow_soil'], cause: 'drowned' },
  { said: 'Leaf edges brown, probe dry', seen: ['scorched_edges', 'probe_dry'], cause: 'too_dry' },
  {
    said: 'Leaf edges brown after a heat wave, moist by now',
    seen: ['scorched_edges', 'stress_days', 'probe_moist'],
    cause: 'too_dry',
  },
  { said: 'Shedding, probe dry', seen: ['shedding', 'probe_dry'], cause: 'too_dry' },
  {
    said: 'Small leaves, weeks in water by its balance, nobody probed',
    seen: ['small_leaves', 'waterlogged_days'],
    cause: 'drowned',
    nextCheck: 'probe',
  },
  {
    said: 'Pale and thin, moist, flare 120 mm down',
    seen: ['pale_leaves', 'thin_crown', 'probe_moist', 'flare_deep'],
    cause: 'planted_deep',
  },
  {
    said: 'Sprouts at the base, some dieback, flare deep, moist',
    seen: ['sprouts_at_base', 'dieback', 'flare_deep', 'probe_moist'],
    cause: 'planted_deep',
  },
  {
    said: 'Thin crown, roots press on two fifths, moist, flare visible',
    seen: ['thin_crown', 'roots_pressing', 'probe_moist', 'flare_visible'],
    cause: 'girdled',
  },
  {
    said: 'Short shoots and thin crown, pot-bound when it came, flare visible, moist: look at the roots',
    seen: ['short_shoots', 'thin_crown', 'pot_bound', 'flare_visible', 'probe_moist'],
    cause: 'girdled',
    nextCheck: 'expose_roots',
  },
  {
    said: 'Small leaves in its first year, moist, flare visible, nothing else',
    seen: ['small_leaves', 'first_year', 'probe_moist', 'flare_visible'],
    absent: ['pests', 'trunk_wound', 'traffic'],
    cause: 'establishing',
  },
  {
    said: 'Short shoots in its first year, moist',
    seen: ['short_shoots', 'first_year', 'probe_moist'],
    absent: ['pests', 'trunk_wound', 'traffic'],
    cause: 'establishing',
  },
  { said: 'Dieback above a wound, moist', seen: ['dieback', 'trunk_wound', 'probe_moist'], cause: 'wounded' },
  { said: 'Leaves hang, traces of pests, moist', seen: ['wilting', 'pests', 'probe_moist'], cause: 'pest' },
  {
    said: 'Thin crown where machines stand on the roots, moist, flare visible',
    seen: ['thin_crown', 'traffic', 'probe_moist', 'flare_visible'],
    cause: 'compacted',
  },
  {
    said: 'Leaf edges brown, moist, salty water or soil',
    seen: ['scorched_edges', 'salt_found', 'probe_moist'],
    cause: 'salt',
  },
  {
    said: 'Pale leaves, moist, flare and roots sound, no pests: a soil test before any feeding',
    seen: ['pale_leaves', 'probe_moist', 'flare_visible', 'roots_clear'],
    absent: ['pests', 'trunk_wound', 'traffic', 'first_year'],
    nextCheck: 'soil_test',
  },
  {
    said: 'Yellow between green veins, moist, flare and roots sound: a soil test, for the soil may withhold what is there',
    seen: ['yellow_between_veins', 'probe_moist', 'flare_visible', 'roots_clear'],
    absent: ['pests', 'trunk_wound', 'traffic', 'wilting'],
    cause: 'nutrient',
    nextCheck: 'soil_test',
  },
  {
    said: 'Autumn colour in August, roots press, moist, flare visible',
    seen: ['early_colour', 'roots_pressing', 'probe_moist', 'flare_visible'],
    cause: 'girdled',
  },
  {
    said: 'Autumn colour in August, nobody probed: the probe before anything else',
    seen: ['early_colour'],
    nextCheck: 'probe',
  },
];
