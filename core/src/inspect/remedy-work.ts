import type { RemedyCode } from '../practice';
import type { WeatherDay } from '../weather';

/** Who may carry a remedy out. */
export const remedyHands = ['crew', 'arborist', 'office'] as const;
export type RemedyHands = (typeof remedyHands)[number];

export const workTools = [
  'spade',
  'trowel',
  'rake',
  'hand_pruner',
  'lopper',
  'root_saw',
  'wire_cutter',
  'knife',
  'mallet',
  'probe',
  'straight_edge',
  'water',
  'barrier',
  'air_tool',
] as const;
export type WorkTool = (typeof workTools)[number];

/** What is used up at one tree. Mulch and soil in litres. */
export const workNeeds = ['stakes', 'ties', 'guards', 'mulchL', 'soilL', 'trees'] as const;
export type WorkNeed = (typeof workNeeds)[number];

export interface RemedyWork {
  readonly hands: RemedyHands;
  readonly tools: readonly WorkTool[];
  /** At one tree, walking apart; an estimate. */
  readonly minutes: number;
  /** `cool`: while trees may be planted. */
  readonly season: 'any' | 'cool';
  /** `cool_cloudy`: roots that are laid open dry in sun and wind. */
  readonly weather: 'any' | 'cool_cloudy';
  readonly needs: Partial<Readonly<Record<WorkNeed, number>>>;
}

const crew = (minutes: number, tools: readonly WorkTool[], more: Partial<RemedyWork> = {}): RemedyWork => ({
  ...{ hands: 'crew', season: 'any', weather: 'any', needs: {} },
  ...{ minutes, tools },
  ...more,
});
const roots = { weather: 'cool_cloudy' } as const;
const cool = { season: 'cool', weather: 'cool_cloudy' } as const;

/** What each remedy takes: hands, tools, time, season, weather, things used up. Times and amounts are estimates of ours. */
export const remedyWork: Readonly<Record<RemedyCode, RemedyWork>> = {
  none: crew(0, []),
  replant_higher: crew(60, ['spade', 'straight_edge', 'water'], cool),
  widen_hole: crew(30, ['spade']),
  give_rest_of_soak: crew(15, ['water']),
  level_the_ball: crew(15, ['spade', 'mallet']),
  watch_yearly_clear: crew(5, ['trowel']),
  clear_to_flare: crew(20, ['trowel', 'spade', 'straight_edge'], roots),
  examine_roots: crew(25, ['trowel', 'straight_edge'], roots),
  lift_and_replant: crew(120, ['spade', 'straight_edge', 'water'], cool),
  collar_excavation: crew(90, ['air_tool'], { hands: 'arborist', ...roots }),
  replace_tree: crew(120, ['spade', 'straight_edge', 'water'], { season: 'cool', needs: { trees: 1, mulchL: 60 } }),
  cover_roots: crew(15, ['spade'], { needs: { soilL: 40, mulchL: 40 } }),
  top_up_mulch: crew(10, ['rake'], { needs: { mulchL: 60 } }),
  thin_mulch: crew(8, ['rake']),
  pull_back_mulch: crew(5, ['trowel']),
  remove_stake: crew(8, ['mallet', 'wire_cutter']),
  loosen_tie: crew(5, ['knife'], { needs: { ties: 1 } }),
  free_tie_now: crew(8, ['knife', 'wire_cutter'], { needs: { ties: 1 } }),
  mend_stake: crew(20, ['mallet'], { needs: { stakes: 1, ties: 1 } }),
  water_now: crew(10, ['probe', 'water']),
  water_soon: crew(10, ['probe', 'water']),
  skip_water: crew(2, ['probe']),
  find_drainage: crew(15, ['probe', 'spade']),
  cut_root: crew(20, ['trowel', 'hand_pruner', 'lopper', 'root_saw'], roots),
  stage_root_cuts: crew(30, ['trowel', 'hand_pruner', 'lopper', 'root_saw'], roots),
  refer_arborist: crew(15, [], { hands: 'arborist' }),
  cut_stem_roots: crew(15, ['trowel', 'hand_pruner', 'lopper'], roots),
  cut_stubs: crew(8, ['hand_pruner']),
  refit_guard: crew(6, ['knife'], { needs: { guards: 1 } }),
  take_guard_off: crew(4, ['knife']),
  take_off_device: crew(3, []),
  probe_first: crew(3, ['probe']),
  prune_structure: crew(15, ['hand_pruner', 'lopper']),
  prune_broken: crew(10, ['hand_pruner', 'lopper']),
  protect_trunk: crew(8, ['knife'], { needs: { guards: 1 } }),
  name_pest: crew(10, [], { hands: 'office' }),
  fence_roots: crew(30, ['mallet', 'barrier']),
  take_things_off: crew(5, ['knife', 'wire_cutter']),
  clear_turf: crew(15, ['spade', 'rake'], { needs: { mulchL: 30 } }),
};

/** Up to so warm, under cloud or with rain, and without frost, roots may be laid open. Estimates */
const coolMostC = 22;
const cloudMostMj = 12;
const cloudHumidPct = 65;

/** Whether a day is one for work at roots. */
export function isCoolCloudy({ tMaxC, tMinC, rainMm, radiationMj, humidityMinPct }: WeatherDay): boolean {
  const cloudy =
    rainMm > 0 ||
    (radiationMj !== null && radiationMj <= cloudMostMj) ||
    (humidityMinPct !== null && humidityMinPct >= cloudHumidPct);
  return tMinC > 0 && tMaxC <= coolMostC && cloudy;
}

/** Things used up at so many trees; mulch by what was measured there, where it was. Mulch and soil in litres. */
export function needsOf(
  batches: readonly { readonly remedy: RemedyCode; readonly count: number; readonly mulchL: number | null }[],
): ReadonlyMap<WorkNeed, number> {
  const sums = new Map<WorkNeed, number>();
  for (const { remedy, count, mulchL } of batches) {
    for (const need of workNeeds) {
      const each = (remedyWork[remedy].needs[need] ?? 0) * count;
      const amount = need === 'mulchL' && mulchL !== null ? mulchL : each;
      if (amount > 0) sums.set(need, (sums.get(need) ?? 0) + amount);
    }
  }
  return sums;
}
