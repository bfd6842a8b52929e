/**
 * The options of each choice a practice makes, with who holds it and why. What an option does to the arithmetic
 * stands in its own fields, so that adding one is a change in this file alone.
 */
export interface Option {
  readonly name: string;
  /** Who holds it, and their reason. */
  readonly held: string;
}

/** Soil mixed into the fill. `wicks`: holds water against the soil around it, and is refused in slow soil. */
export interface MaterialOption extends Option {
  readonly wicks: boolean;
  readonly waterHolding: 'low' | 'medium' | 'high';
  readonly ph: string;
  readonly fertilised: boolean;
}
export const fillMaterials = {
  site_soil: {
    name: 'site soil only',
    held: 'Most research trials: an amended hole in tight soil fills like a basin and keeps the roots inside.',
    wicks: false,
    waterHolding: 'medium',
    ph: 'as the site',
    fertilised: false,
  },
  coarse_compost: {
    name: 'coarse compost',
    held: 'Garden planters in poor or rubble soil: a faster start.',
    wicks: false,
    waterHolding: 'medium',
    ph: '7–8',
    fertilised: false,
  },
  fine_compost: {
    name: 'fine compost',
    held: 'Used where nothing coarser is at hand; settles and wicks.',
    wicks: true,
    waterHolding: 'high',
    ph: '7–8',
    fertilised: false,
  },
  bark_fines: {
    name: 'bark fines',
    held: 'Planters in hot clay: opens the soil for years and stays low in salts.',
    wicks: false,
    waterHolding: 'low',
    ph: '5–6',
    fertilised: false,
  },
  peat: {
    name: 'peat',
    held: 'Old nursery habit; hard to wet again once dry.',
    wicks: true,
    waterHolding: 'high',
    ph: '3.5–4.5',
    fertilised: false,
  },
  manure: {
    name: 'rotted manure',
    held: 'Orchard custom; salts burn young roots.',
    wicks: true,
    waterHolding: 'high',
    ph: '7–8.5',
    fertilised: true,
  },
  potting_mix: {
    name: 'potting mix',
    held: 'Resembles what the roots knew; they stay in it.',
    wicks: true,
    waterHolding: 'high',
    ph: '5.5–6.5',
    fertilised: true,
  },
  topsoil: {
    name: 'bagged topsoil',
    held: 'Where the site soil is rubble; its pH and weed seed are unknown.',
    wicks: false,
    waterHolding: 'medium',
    ph: 'unknown: test',
    fertilised: false,
  },
} as const satisfies Record<string, MaterialOption>;
export type FillMaterial = keyof typeof fillMaterials;

export const pitSides = {
  sloped: { name: 'sloped', held: 'Most programmes: roots meet loosened soil in the top 300 mm.' },
  straight: { name: 'straight', held: 'Bare-root planters and narrow strips.' },
  broken_down: { name: 'straight, broken down inward', held: 'Clay planters with hand tools: least to dig.' },
} as const satisfies Record<string, Option>;
export type PitSides = keyof typeof pitSides;

/** `fillMm`: soil put back and firmed under the ball. */
export const pitBases = {
  undisturbed: { name: 'undisturbed, firm', held: 'Nearly everybody: loose soil sinks the tree.', fillMm: 0 },
  dug_deeper: {
    name: 'dug 75 mm deeper, put back and firmed',
    held: 'Some planters in hard pans; the fill still settles.',
    fillMm: 75,
  },
} as const satisfies Record<string, Option & { fillMm: number }>;
export type PitBase = keyof typeof pitBases;

export const settlings = {
  water: { name: 'water only', held: 'Gentlest on structure; leaves pockets under big clods.' },
  tool: { name: 'hands or tool, layer by layer, then water', held: 'Street programmes: no pockets, no pan.' },
  foot: { name: 'light foot at the edge of the ball', held: 'Crews with heavy balls that must not rock.' },
  heel: { name: 'hard heel', held: 'Bare-root planters: air dries roots sooner than firming harms them.' },
} as const satisfies Record<string, Option>;
export type Settling = keyof typeof settlings;

export const stoneUses = {
  out: { name: 'taken out', held: 'Where mowers and gaps are feared.' },
  fist_back: { name: 'fist size and less back in', held: 'Most: they drain and anchor.' },
  surface: { name: 'kept on the surface', held: 'Dry-land planters: cool refuges, less evaporation.' },
} as const satisfies Record<string, Option>;
export type StoneUse = keyof typeof stoneUses;

export const fertilisers = {
  none: { name: 'none; soil test first', held: 'Research finds little gain in the first year; salts burn.' },
  phosphate: { name: 'phosphate or bone meal', held: 'Garden tradition for roots; few soils lack it.' },
  slow_pellets: { name: 'slow pellets at the edge of the pit', held: 'Enrichers in poor sand or rubble.' },
  root_drench: { name: 'root stimulant drench', held: 'Some contractors with warranty stock.' },
  mycorrhiza: { name: 'mycorrhiza', held: 'Where the soil is sterile fill; trials differ.' },
} as const satisfies Record<string, Option>;
export type Fertiliser = keyof typeof fertilisers;

export const gypsumUses = {
  no: { name: 'no', held: 'It helps only sodic soil.' },
  by_test: { name: 'in sodic or salty clay, after a soil test', held: 'Exchanges sodium where there is some.' },
} as const satisfies Record<string, Option>;
export type GypsumUse = keyof typeof gypsumUses;

export const rootCorrections = {
  shave_or_slits: {
    name: 'shave if circling covers more than a fifth of the face, else slits',
    held: 'Programmes that judge each ball.',
  },
  tease: { name: 'tease the surface', held: 'Least loss of fine roots; leaves the old circle.' },
  slits: { name: 'four vertical slits, 25–50 mm deep', held: 'Quick, and stops most circling.' },
  shave: { name: 'shave 25 mm off sides and base', held: 'Research on pot-bound stock: best new radial roots.' },
  wash: { name: 'wash bare', held: 'Shows every root; the tree then needs water like bare-root stock.' },
  leave: { name: 'leave', held: 'Where shock is feared more than circling.' },
} as const satisfies Record<string, Option>;
export type RootCorrection = keyof typeof rootCorrections;

export const wrapRemovals = {
  top_two_thirds: {
    name: 'top two thirds cut away in the hole, all strings',
    held: 'Most: the ball holds, the upper roots are free.',
  },
  all: { name: 'all off', held: 'Who has dug up girdled trees; a soft ball may break.' },
  leave: { name: 'left on', held: 'Some balled-stock growers; wire and synthetic wrap girdle.' },
} as const satisfies Record<string, Option>;
export type WrapRemoval = keyof typeof wrapRemovals;

export const stakeRules = {
  never: { name: 'never, unless it will not stand', held: 'Movement builds taper and roots.' },
  nobody_returns: { name: 'none where nobody comes back to take it off', held: 'Volunteers with no aftercare.' },
  where_needed: {
    name: 'only where height, crown and gust outweigh the ball',
    held: 'Most programmes: a rocking ball tears new roots, a firm one needs nothing.',
  },
  always: { name: 'always, the first year', held: 'Windy coasts, vandals, warranty contracts.' },
} as const satisfies Record<string, Option>;
export type StakeRule = keyof typeof stakeRules;

/** `stakes`: how many the layout sets. */
export const stakeLayouts = {
  by_size: { name: 'one or two, by ball and height', held: 'Fits the means to the tree.', stakes: null },
  windward: { name: 'one, to windward', held: 'The tree is pulled from the stake, not pushed onto it.', stakes: 1 },
  across: { name: 'two, across the prevailing wind', held: 'Both straps share the pull.', stakes: 2 },
  two_winds: { name: 'two, in line with the two seasonal winds', held: 'Where the wind turns by season.', stakes: 2 },
  guys: { name: 'three guys', held: 'Large balled stock.', stakes: 3 },
} as const satisfies Record<string, Option & { stakes: number | null }>;
export type StakeLayout = keyof typeof stakeLayouts;

export const bermPlaces = {
  ball_edge: { name: 'ring at the edge of the ball', held: 'The dose goes into the ball, where the roots are.' },
  pit_edge: { name: 'ring at the edge of the pit', held: 'Draws roots outward; more water to fill.' },
  turf: { name: 'turf, upside down, as the ring', held: 'Uses what was cut; lasts a season.' },
  none: { name: 'none', held: 'In clay it ponds and drowns.' },
} as const satisfies Record<string, Option>;
export type BermPlace = keyof typeof bermPlaces;

export const mulchMaterials = {
  chips: { name: 'wood chips', held: 'Cheapest and longest; most programmes.' },
  bark: { name: 'bark', held: 'Looks; sheds water when fine.' },
  leaf: { name: 'shredded leaf', held: 'Feeds the soil; gone in a year.' },
  needles: { name: 'needles', held: 'Acid-loving trees; a fire risk.' },
  gravel: { name: 'gravel', held: 'Arid towns; hard to keep clean.' },
} as const satisfies Record<string, Option>;
export type MulchMaterial = keyof typeof mulchMaterials;

export const soakRules = {
  ball_store: { name: 'doses of what the ball takes up', held: 'Closes air gaps by the ball at hand.' },
  fill_berm: { name: 'the berm filled so many times', held: 'Volunteers: nothing to measure.' },
  by_caliper: { name: 'one dose by caliper', held: 'Contractors with a truck meter.' },
  fixed: { name: 'a fixed volume', held: 'Hand-outs with buckets.' },
  none: { name: 'none', held: 'Dormant stock in wet, cold soil.' },
} as const satisfies Record<string, Option>;
export type SoakRule = keyof typeof soakRules;

export const routineRules = {
  balance: { name: 'by the soil-moisture balance, corrected by the probe', held: 'Fits ball, soil and weather.' },
  small_by_caliper: {
    name: 'a small dose by caliper, visits by percolation',
    held: 'Frequent light watering: the ball dries first.',
  },
  large_by_caliper: { name: 'a large dose by caliper, once a week', held: 'Deep and seldom draws roots down.' },
  weekly_volume: { name: 'a fixed weekly volume', held: 'Volunteers can keep it.' },
  rain_equal: { name: '25 mm of rain or its equal a week, over the ring', held: 'Extension advice for lawns.' },
  probe_only: { name: 'by probe only', held: 'Inspectors who come often.' },
  until_growth: { name: 'none before growth begins', held: 'Dormant bare-root stock in moist soil.' },
} as const satisfies Record<string, Option>;
export type RoutineRule = keyof typeof routineRules;

export const aftercareTimes = {
  by_caliper: { name: 'by caliper and climate', held: 'Roots must regain the spread they lost.' },
  months: { name: 'for a fixed time', held: 'Budgets and volunteer rosters.' },
} as const satisfies Record<string, Option>;
export type AftercareTime = keyof typeof aftercareTimes;

export const guardRules = {
  where_recorded: { name: 'where deer or mowers are recorded', held: 'Guards themselves rub and hide rot.' },
  none: { name: 'none', held: 'Where nothing rubs or gnaws.' },
  deer_season: { name: 'against deer in the rut while the bark is thin', held: 'Edges of woods and fields.' },
  always: { name: 'all year, against mowers', held: 'Parks cut by contract.' },
} as const satisfies Record<string, Option>;
export type GuardRule = keyof typeof guardRules;

export const plantingPrunings = {
  broken: { name: 'broken, dead and diseased only', held: 'Leaves feed new roots.' },
  shape: { name: 'shaped and raised', held: 'Nurseries and contractors: form at once.' },
} as const satisfies Record<string, Option>;
export type PlantingPruning = keyof typeof plantingPrunings;

export const structuralPrunings = {
  yearly_light: { name: 'yearly, light, on leader and temporary branches', held: 'Small cuts close.' },
  none: { name: 'none until established', held: 'Every leaf is kept.' },
  raise: { name: 'raised fast', held: 'Streets that need clearance.' },
} as const satisfies Record<string, Option>;
export type StructuralPruning = keyof typeof structuralPrunings;

export const herbicideUses = {
  no: { name: 'no', held: 'Label, licence and young roots.' },
  yes: { name: 'pre-emergent, under the mulch', held: 'Contractors without weeding visits; label and licence rule.' },
} as const satisfies Record<string, Option>;
export type HerbicideUse = keyof typeof herbicideUses;
