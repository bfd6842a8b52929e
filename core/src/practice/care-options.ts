/** Options of berm, mulch and water, and of what is found later. */
import type { RemedyCode } from './remedy';
import type { Option } from './option';

/** `at`: whose edge the ring stands on; `null` for none. */
export const bermPlaces = {
  ball_edge: {
    name: 'ring at the edge of the ball',
    held: 'Most: the dose goes into the ball, where the roots are.',
    at: 'ball',
    of: 'soil',
  },
  pit_edge: {
    name: 'ring at the edge of the pit',
    held: 'Who wants roots drawn outward; more water to fill.',
    at: 'pit',
    of: 'soil',
  },
  turf: {
    name: 'turf, upside down, as the ring',
    held: 'Volunteers on lawns: uses what was cut, lasts a season.',
    at: 'ball',
    of: 'turf',
  },
  none: { name: 'none', held: 'Clay planters: it ponds and drowns.', at: null, of: 'soil' },
} as const satisfies Record<string, Option & { at: 'ball' | 'pit' | null; of: 'soil' | 'turf' }>;
export type BermPlace = keyof typeof bermPlaces;

/** The circle kept free of grass. `dripLine`: as wide as the crown. `sodBack`: lifted turf lies on it, upside down. */
export const ringRules = {
  least: {
    name: 'a circle, at least as wide as said',
    held: 'Most programmes: grass competes and invites mowers.',
    dripLine: false,
    sodBack: false,
  },
  drip_line: {
    name: 'out to the drip line',
    held: 'Park keepers with room: as far as the crown reaches.',
    dripLine: true,
    sodBack: false,
  },
  sod_back: {
    name: 'sod back on top, upside down, under the mulch',
    held: 'Volunteers: nothing to cart away; it comes through where mulch is thin.',
    dripLine: false,
    sodBack: true,
  },
} as const satisfies Record<string, Option & { dripLine: boolean; sodBack: boolean }>;
export type RingRule = keyof typeof ringRules;

/** `caution`: what to mind with it, shown with the step. */
export const mulchMaterials = {
  chips: { name: 'wood chips', held: 'Most programmes: cheapest and longest.', caution: null },
  bark: { name: 'bark', held: 'Gardens, for looks; sheds water when fine.', caution: null },
  leaf: { name: 'shredded leaf', held: 'Parks with their own: feeds the soil, gone in a year.', caution: null },
  needles: {
    name: 'needles',
    held: 'Acid-loving trees near pines.',
    caution: 'Needles burn: not beside buildings or where fires start.',
  },
  dyed_chips: { name: 'dyed chips', held: 'Landscapers, for an even look; often of waste wood.', caution: null },
  gravel: { name: 'gravel', held: 'Arid towns: no fire, no wind; hard to keep clean.', caution: null },
} as const satisfies Record<string, Option & { caution: string | null }>;
export type MulchMaterial = keyof typeof mulchMaterials;

/** `tapers`: thinner over the ball than outside it. */
export const mulchProfiles = {
  tapered: {
    name: 'thin over the ball, full outside it',
    held: 'Most programmes today: water reaches the ball, the flare stays dry.',
    tapers: true,
  },
  even: { name: 'even to the gap', held: 'Contractors paid by depth; simple to check.', tapers: false },
} as const satisfies Record<string, Option & { tapers: boolean }>;
export type MulchProfile = keyof typeof mulchProfiles;

export const herbicideUses = {
  no: { name: 'no', held: 'Most programmes: label, licence and young roots.', applied: false },
  yes: {
    name: 'pre-emergent, under the mulch',
    held: 'Contractors without weeding visits; label and licence rule.',
    applied: true,
  },
} as const satisfies Record<string, Option & { applied: boolean }>;
export type HerbicideUse = keyof typeof herbicideUses;

/** `by`: what the litres are worked out from. */
export const soakRules = {
  ball_store: {
    name: 'doses of what the ball takes up',
    held: 'Sombra: closes air gaps by the ball at hand.',
    by: 'ball',
  },
  fill_berm: { name: 'the berm filled so many times', held: 'Volunteers: nothing to measure.', by: 'berm' },
  by_caliper: { name: 'one dose by caliper', held: 'Contractors with a truck meter.', by: 'caliper' },
  depth: {
    name: 'a depth of water over the pit',
    held: 'Who reckons in rain: so many millimetres over what was dug.',
    by: 'depth',
  },
  fixed: { name: 'a fixed volume', held: 'Hand-outs with buckets.', by: 'volume' },
  none: { name: 'none', held: 'Dormant stock in wet, cold soil.', by: 'nothing' },
} as const satisfies Record<string, Option & { by: 'ball' | 'berm' | 'caliper' | 'depth' | 'volume' | 'nothing' }>;
export type SoakRule = keyof typeof soakRules;

/** `halfway`: the share of the soak that is given while the pit is half full. */
export const soakTimes = {
  during: {
    name: 'half of it while filling, the rest at the end',
    held: 'Most: water carries soil into every gap.',
    halfway: 0.5,
  },
  after: {
    name: 'all of it once the pit is full',
    held: 'Planters in clay: worked wet, it sets like brick.',
    halfway: 0,
  },
} as const satisfies Record<string, Option & { halfway: number }>;
export type SoakTime = keyof typeof soakTimes;

/** Watering while the tree rests. */
export const dormantWaterings = {
  none: { name: 'none', held: 'Most, where winters are wet: a resting tree uses little.' },
  until_freeze: {
    name: 'until the ground freezes',
    held: 'Cold dry towns: roots grow on in autumn, and evergreens drink in winter.',
  },
  growing_months: {
    name: 'in the growing months only, whatever the weather',
    held: 'Contracts with fixed months.',
  },
  dry_spells: { name: 'in dry spells only', held: 'Dry-winter towns: after weeks without rain.' },
} as const satisfies Record<string, Option>;
export type DormantWatering = keyof typeof dormantWaterings;

/** Weeks of a growing season with so many visits in each. */
export interface WateringPhase {
  readonly weeks: number;
  readonly visitsPerWeek: number;
}

/**
 * `by`: what a visit's litres are worked out from; `nothing`: no rule, balance or probe decide. `bySoil`: slow soil gets
 * the practice's share of the visits, and fast soil its more. `phases`: visits that thin out over the season, instead of the practice's number.
 * `fromGrowth`: nothing is given before growth begins.
 */
export interface RoutineOption extends Option {
  readonly by: 'caliper' | 'week' | 'rain_on_ring' | 'rain_on_ball' | 'nothing';
  readonly bySoil: boolean;
  readonly fromGrowth: boolean;
  readonly phases: readonly WateringPhase[] | null;
  /** A probe is asked at the practice's interval, and decides. */
  readonly probeDecides: boolean;
}
export const routineRules = {
  balance: {
    name: 'by the soil-moisture balance, corrected by the probe',
    held: 'Sombra: fits ball, soil and weather.',
    by: 'nothing',
    bySoil: false,
    fromGrowth: false,
    phases: null,
    probeDecides: false,
  },
  small_by_caliper: {
    name: 'a small dose by caliper, visits by percolation',
    held: 'Frequent light watering: the ball dries first.',
    by: 'caliper',
    bySoil: true,
    fromGrowth: false,
    phases: null,
    probeDecides: false,
  },
  large_by_caliper: {
    name: 'a large dose by caliper, once a week',
    held: 'Who waters deep and seldom, to draw roots down.',
    by: 'caliper',
    bySoil: false,
    fromGrowth: false,
    phases: [{ weeks: 26, visitsPerWeek: 1 }],
    probeDecides: false,
  },
  weekly_volume: {
    name: 'a fixed weekly volume, more in summer',
    held: 'Volunteers can keep it.',
    by: 'week',
    bySoil: false,
    fromGrowth: false,
    phases: null,
    probeDecides: false,
  },
  rain_equal: {
    name: 'a depth of rain or its equal a week, over the ring',
    held: 'Extension advice for lawns and beds.',
    by: 'rain_on_ring',
    bySoil: false,
    fromGrowth: false,
    phases: [{ weeks: 26, visitsPerWeek: 1 }],
    probeDecides: false,
  },
  rain_equal_ball: {
    name: 'a depth of rain or its equal a week, over the ball',
    held: 'The same advice, read as what the ball itself receives.',
    by: 'rain_on_ball',
    bySoil: false,
    fromGrowth: false,
    phases: [{ weeks: 26, visitsPerWeek: 1 }],
    probeDecides: false,
  },
  tapering: {
    name: 'daily, then every other day, then weekly, a dose by caliper',
    held: 'Research on fresh balled and container stock: the ball is the only store at first.',
    by: 'caliper',
    bySoil: true,
    fromGrowth: false,
    phases: [
      { weeks: 2, visitsPerWeek: 7 },
      { weeks: 10, visitsPerWeek: 3.5 },
      { weeks: 14, visitsPerWeek: 1 },
    ],
    probeDecides: false,
  },
  probe_only: {
    name: 'by probe only',
    held: 'Inspectors who come often.',
    by: 'nothing',
    bySoil: false,
    fromGrowth: false,
    phases: null,
    probeDecides: true,
  },
  until_growth: {
    name: 'none before growth begins, then a dose by caliper',
    held: 'Planters of dormant bare-root stock in moist soil.',
    by: 'caliper',
    bySoil: true,
    fromGrowth: true,
    phases: null,
    probeDecides: false,
  },
} as const satisfies Record<string, RoutineOption>;
export type RoutineRule = keyof typeof routineRules;

export const aftercareTimes = {
  by_caliper: {
    name: 'by caliper and climate',
    held: 'Research: roots must regain the spread they lost.',
    fixed: false,
  },
  months: { name: 'for a fixed time', held: 'Budgets and volunteer rosters.', fixed: true },
} as const satisfies Record<string, Option & { fixed: boolean }>;
export type AftercareTime = keyof typeof aftercareTimes;

/** A tree found too deep later on: `young` while it may still be lifted, `old` after that. */
export const deepTreeRules = {
  by_depth: {
    name: 'by depth and age: lifted while young, later a collar excavation',
    held: 'Sombra: a young tree moves, an old one does not.',
    young: 'lift_and_replant',
    old: 'collar_excavation',
  },
  clear: {
    name: 'cleared and regraded',
    held: 'Crews with a spade and little time; a deep bowl fills again.',
    young: 'clear_to_flare',
    old: 'clear_to_flare',
  },
  excavate: {
    name: 'collar excavation by an arborist',
    held: 'Arborists with air tools: every root is seen.',
    young: 'collar_excavation',
    old: 'collar_excavation',
  },
  replace: {
    name: 'replaced',
    held: 'Programmes under warranty: a new tree costs less than a doubtful one.',
    young: 'replace_tree',
    old: 'replace_tree',
  },
} as const satisfies Record<string, Option & { young: RemedyCode; old: RemedyCode }>;
export type DeepTreeRule = keyof typeof deepTreeRules;

/** A root that girdles: `light` under the share from which cuts are staged, `heavy` above it. */
export const girdlingRules = {
  in_stages: {
    name: 'in stages over seasons',
    held: 'Most arborists: it may still carry load and supply.',
    light: 'cut_root',
    heavy: 'stage_root_cuts',
  },
  at_once: {
    name: 'all at once',
    held: 'Who finds that trees seldom come back for a second cut.',
    light: 'cut_root',
    heavy: 'cut_root',
  },
  leave: {
    name: 'left where it carries too much',
    held: 'Who fears a fall more than a slow decline: an arborist decides.',
    light: 'cut_root',
    heavy: 'refer_arborist',
  },
} as const satisfies Record<string, Option & { light: RemedyCode; heavy: RemedyCode }>;
export type GirdlingRule = keyof typeof girdlingRules;
