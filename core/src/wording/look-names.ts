import type {
  AliveClass,
  BarkState,
  Cause,
  CheckCode,
  CohortMeasure,
  CutTool,
  Evidence,
  GuardState,
  InstrumentKind,
  LeftOn,
  LastFound,
  LookAspect,
  ProofTap,
  WorkNeed,
  WorkTool,
  ReferWhy,
  TwigHeight,
  RockingClass,
  RootTouch,
  LookSign,
} from '../inspect';

/** Words of a look at a tree, as they stand on buttons. */
export const aliveNames: Readonly<Record<AliveClass, string>> = {
  green: 'green under the bark',
  dry: 'dry, no green',
  brittle: 'dry and brittle, it snaps',
};

export const lookSignNames: Readonly<Record<LookSign, string>> = {
  wilting: 'leaves hang',
  pale_leaves: 'leaves pale or yellow',
  yellow_between_veins: 'leaves yellow between green veins',
  scorched_edges: 'leaf edges brown',
  small_leaves: 'leaves small for its kind',
  thin_crown: 'crown thin',
  leafless: 'no leaves in leaf time',
  shedding: 'shedding leaves',
  early_colour: 'autumn colour weeks early',
  sprouts_at_base: 'sprouts at the base',
  leader_lost: 'leader lost or doubled',
  leans: 'leans',
  trunk_wound: 'wound on the trunk',
  broken_branches: 'broken branches',
  pests: 'pests or their traces',
  traffic_on_roots: 'feet or machines on the roots',
  works_nearby: 'works nearby',
};

export const twigHeightNames: Readonly<Record<TwigHeight, string>> = {
  top: 'at the tip',
  middle: 'half-way down',
  base: 'at the foot',
};

/** What an instrument measures, and in what. */
export const instrumentNames: Readonly<Record<InstrumentKind, string>> = {
  electrical: 'electrical resistance',
  sonic: 'speed of sound',
};
export const instrumentUnits: Readonly<Record<InstrumentKind, string>> = { electrical: 'kΩ', sonic: 'm/s' };

export const rockingNames: Readonly<Record<RockingClass, string>> = {
  firm: 'nothing moves',
  trunk_bends: 'the trunk bends, the ball stands',
  ball_moves: 'the ball moves in the soil',
};

export const guardNames: Readonly<Record<GuardState, string>> = {
  none: 'no guard',
  fits: 'fits',
  tight: 'tight or rubbing',
  damaged: 'damaged',
};

export const leftOnNames: Readonly<Record<LeftOn, string>> = {
  nursery_stake: 'nursery stake',
  tags: 'tags or labels on a tie',
  wrap: 'trunk wrap',
  bag: 'watering bag',
  wire: 'wire or string',
};

export const turfNames: Readonly<Record<'clear' | 'creeping', string>> = {
  clear: 'free of grass',
  creeping: 'grass creeps in',
};

/** How a trunk meets the ground, for the eye to compare. */
export const flareShapeNames = {
  widens: 'It widens: the flare shows.',
  straight: 'No taper, like a post: it lies below.',
} as const;

export const flareByNames: Readonly<Record<'scraped' | 'guessed', string>> = {
  scraped: 'scraped and measured',
  guessed: 'guessed',
};

export const barkNames: Readonly<Record<BarkState, string>> = {
  sound: 'sound',
  soft: 'soft',
  cracked: 'cracked',
  decayed: 'decayed',
};

export const rootTouchNames: Readonly<Record<RootTouch, string>> = {
  clear: 'clear of the trunk',
  touching: 'touches it',
  pressing: 'presses on it',
  grown_in: 'grown into it',
};

export const lookAspectNames: Readonly<Record<LookAspect, string>> = {
  tree: 'Whole tree',
  stake: 'Stake',
  guard: 'Guard and tags',
  mulch: 'Mulch',
  flare: 'Flare',
  roots: 'Roots',
  moisture: 'Moisture',
};

export const cutToolNames: Readonly<Record<CutTool, string>> = {
  hand_pruner: 'hand pruner',
  lopper: 'lopper',
  saw: 'root saw',
};

export const referWhyNames: Readonly<Record<ReferWhy, string>> = {
  grown_in: 'grown into the trunk',
  too_thick: 'too thick for the crew',
  over_cap: 'over the share of one season by itself',
};

export const causeNames: Readonly<Record<Cause, string>> = {
  too_dry: 'too dry',
  drowned: 'too wet, drowning',
  planted_deep: 'planted too deep',
  girdled: 'girdled by roots',
  establishing: 'slow first years, as usual',
  wounded: 'wounded',
  pest: 'a pest or disease',
  compacted: 'soil pressed tight',
  salt: 'salt',
  nutrient: 'short of nutrients',
  other: 'something else',
};

export const evidenceNames: Readonly<Record<Evidence, string>> = {
  wilting: lookSignNames.wilting,
  pale_leaves: lookSignNames.pale_leaves,
  yellow_between_veins: lookSignNames.yellow_between_veins,
  early_colour: lookSignNames.early_colour,
  scorched_edges: lookSignNames.scorched_edges,
  small_leaves: lookSignNames.small_leaves,
  thin_crown: lookSignNames.thin_crown,
  leafless: lookSignNames.leafless,
  shedding: lookSignNames.shedding,
  sprouts_at_base: lookSignNames.sprouts_at_base,
  dieback: 'a tenth of the crown dead',
  short_shoots: 'shoots under half of last year’s',
  trunk_wound: lookSignNames.trunk_wound,
  pests: lookSignNames.pests,
  traffic: lookSignNames.traffic_on_roots,
  probe_dry: 'probe dry',
  probe_moist: 'probe moist',
  probe_wet: 'probe wet',
  flare_visible: 'flare at the surface',
  flare_deep: 'flare deep',
  roots_clear: 'no root presses',
  roots_pressing: 'roots press on a quarter and more',
  stress_days: 'days of stress in its balance',
  waterlogged_days: 'days in water in its balance',
  slow_soil: 'soil drains slowly',
  pot_bound: 'came pot-bound',
  salt_found: 'salt in soil or water',
  salt_low: 'little salt',
  nutrient_short: 'soil test: short',
  nutrient_enough: 'soil test: enough',
  first_year: 'in its first year',
};

export const checkNames: Readonly<Record<CheckCode, string>> = {
  probe: 'Probe the ball at its base',
  scrape_flare: 'Scrape to the flare',
  expose_roots: 'Uncover the roots at the collar',
  percolation: 'Run a percolation test beside it',
  soil_test: 'Send soil to a laboratory',
  salt_test: 'Test soil and water for salt',
};

/** What a tree was found to be at its last look. */
export const lastFoundNames: Readonly<Record<LastFound, string>> = {
  urgent: 'Last found urgent',
  act: 'Last found to ask for something',
  watch: 'Last found to be watched',
  good: 'Last found good',
  unseen: 'Never looked at since it was planted',
};

export const workToolNames: Readonly<Record<WorkTool, string>> = {
  spade: 'spade',
  trowel: 'trowel and brush',
  rake: 'rake',
  hand_pruner: 'hand pruner',
  lopper: 'lopper',
  root_saw: 'root saw',
  wire_cutter: 'wire cutter',
  knife: 'knife',
  mallet: 'mallet and bar',
  probe: 'soil probe',
  straight_edge: 'straight edge and rule',
  water: 'water',
  barrier: 'fence',
  air_tool: 'air tool',
};

export const workNeedNames: Readonly<Record<WorkNeed, string>> = {
  stakes: 'stakes',
  ties: 'ties',
  guards: 'guards',
  mulchL: 'mulch',
  soilL: 'soil',
  trees: 'trees',
};

export const cohortMeasureNames: Readonly<Record<CohortMeasure, string>> = {
  shootMm: 'Shoots this year',
  diebackPct: 'Crown dead',
  flareDepthMm: 'Flare below the surface',
  mulchDepthMm: 'Mulch',
  waterShare: 'Water in the ball',
};

/** What a tap says was seen once a remedy was carried out. */
export const proofTapNames: Readonly<Record<ProofTap, string>> = {
  off_and_firm: 'stake and ties are off, the tree stands firm',
  off_ball_moves: 'they are off, but the ball moves',
  tie_loose: 'the tie is loose again',
  staked_firm: 'staked anew, it stands firm',
  upright_firm: 'it stands upright and firm',
  mulch_clear: 'mulch is clear of the trunk',
  guard_fits: 'the guard fits',
  guard_off: 'the guard is off',
  nothing_left_on: 'nothing is left on it',
  ring_clear: 'the ring is free of grass',
  felt_dry: 'ball dry',
  felt_slightly_dry: 'ball slightly dry',
  felt_moist: 'ball moist',
  felt_wet: 'ball wet',
  felt_saturated: 'ball waterlogged',
};
