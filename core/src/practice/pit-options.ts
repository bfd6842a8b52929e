/** Options of the hole and its fill. */
import type { Option, Pack } from './option';

/** How soil and drainage allowances for the flare count together. */
export const allowanceRules = {
  largest: { name: 'the largest alone counts', held: 'Sombra: clay is often slow, and would count twice.', sum: false },
  sum: {
    name: 'they add up',
    held: 'Planters in wet clay who would rather mound too much than too little.',
    sum: true,
  },
} as const satisfies Record<string, Option & { sum: boolean }>;
export type AllowanceRule = keyof typeof allowanceRules;

/**
 * Soil drawn up where the ball stands above the ground. It runs out over `runPerHeight` times that height, and over
 * `leastRunMm` at least. `mounds`: a step of its own, not the end of the filling.
 */
export const shoulders = {
  apron: {
    name: 'drawn up to the shoulder of the ball',
    held: 'Most programmes: the side of the ball does not dry, and nothing slopes towards the trunk.',
    runPerHeight: 2,
    leastRunMm: 120,
    mounds: false,
  },
  mound: {
    name: 'a mound, falling one in four',
    held: 'Planters in hot or wet clay: roots grow out into soil that drains.',
    runPerHeight: 4,
    leastRunMm: 300,
    mounds: true,
  },
  none: {
    name: 'none; mulch alone covers the side',
    held: 'Planters who fear that soil drawn up creeps over the flare.',
    runPerHeight: 0,
    leastRunMm: 0,
    mounds: false,
  },
} as const satisfies Record<string, Option & { runPerHeight: number; leastRunMm: number; mounds: boolean }>;
export type Shoulder = keyof typeof shoulders;

/** `fromFlare`: whether the flare itself is looked for. */
export const levelRules = {
  flare: {
    name: 'the flare, wherever it lies in the ball',
    held: 'Nearly everybody who has dug up a tree that failed.',
    fromFlare: true,
  },
  surface: {
    name: 'the surface of the container as it came',
    held: 'Growers who trust their own stock; where it was potted too deep, the tree is buried with it.',
    fromFlare: false,
  },
} as const satisfies Record<string, Option & { fromFlare: boolean }>;
export type LevelRule = keyof typeof levelRules;

/**
 * `cavedIn`: a hole no wider than its base is dug, and its sides are broken in around the standing tree: they are the
 * fill. `straight`: the base is as wide as the top. `open`: how sides that were dug are opened.
 */
export const pitSides = {
  sloped: {
    name: 'sloped',
    held: 'Most programmes: roots meet loosened soil in the top 300 mm.',
    straight: false,
    cavedIn: false,
    open: 'Rough up glazed sides with fork or pick.',
  },
  straight: {
    name: 'straight',
    held: 'Bare-root planters and narrow strips.',
    straight: true,
    cavedIn: false,
    open: 'Rough up glazed sides with fork or pick.',
  },
  broken_down: {
    name: 'straight, broken down inward',
    held: 'Clay planters with hand tools: least to dig.',
    straight: false,
    cavedIn: true,
    open: 'Break the sides down inward with a bar, a little all round at a time.',
  },
} as const satisfies Record<string, Option & { straight: boolean; cavedIn: boolean; open: string }>;
export type PitSides = keyof typeof pitSides;

/** `fillMm`: soil put back and firmed under the ball. `drains`: a hole is bored through the base where water stands. */
export const pitBases = {
  undisturbed: {
    name: 'undisturbed, firm',
    held: 'Nearly everybody: loose soil sinks the tree.',
    fillMm: 0,
    drains: false,
  },
  dug_deeper: {
    name: 'dug 75 mm deeper, put back and firmed',
    held: 'Some planters in hard pans; the fill still settles.',
    fillMm: 75,
    drains: false,
  },
  drain_if_stands: {
    name: 'undisturbed, a drain hole bored where water stands',
    held: 'Planters over a thin pan with free soil below; elsewhere the hole fills too.',
    fillMm: 0,
    drains: true,
  },
} as const satisfies Record<string, Option & { fillMm: number; drains: boolean }>;
export type PitBase = keyof typeof pitBases;

/** Soil mixed in. `wicks`: holds water against the soil around it, and is refused in slow soil. */
export interface MaterialOption extends Option {
  readonly wicks: boolean;
  readonly waterHolding: 'low' | 'medium' | 'high';
  /** Between which it mostly lies; `null` for what nobody can say without a test. */
  readonly ph: readonly [from: number, to: number] | null;
  /** Holds fertiliser, whether the bag says so or not. */
  readonly fertilised: boolean;
  /** How it is sold, litres a bag; `null` for what is dug on the spot. */
  readonly bagL: number | null;
}
export const fillMaterials = {
  site_soil: {
    name: 'site soil only',
    held: 'Most research trials: an amended hole in tight soil fills like a basin and keeps the roots inside.',
    wicks: false,
    waterHolding: 'medium',
    ph: null,
    fertilised: false,
    bagL: null,
  },
  coarse_compost: {
    name: 'coarse compost',
    held: 'Garden planters in poor or rubble soil: a faster start.',
    wicks: false,
    waterHolding: 'medium',
    ph: [7, 8],
    fertilised: false,
    bagL: 40,
  },
  fine_compost: {
    name: 'fine compost',
    held: 'Used where nothing coarser is at hand; settles and wicks.',
    wicks: true,
    waterHolding: 'high',
    ph: [7, 8],
    fertilised: false,
    bagL: 40,
  },
  bark_fines: {
    name: 'bark fines',
    held: 'Planters in hot clay: opens the soil for years and stays low in salts.',
    wicks: false,
    waterHolding: 'low',
    ph: [5, 6],
    fertilised: false,
    bagL: 60,
  },
  peat: {
    name: 'peat',
    held: 'Old nursery habit; hard to wet again once dry.',
    wicks: true,
    waterHolding: 'high',
    ph: [3.5, 4.5],
    fertilised: false,
    bagL: 60,
  },
  manure: {
    name: 'rotted manure',
    held: 'Orchard custom; salts burn young roots.',
    wicks: true,
    waterHolding: 'high',
    ph: [7, 8.5],
    fertilised: true,
    bagL: 40,
  },
  potting_mix: {
    name: 'potting mix',
    held: 'Resembles what the roots knew; they stay in it.',
    wicks: true,
    waterHolding: 'high',
    ph: [5.5, 6.5],
    fertilised: true,
    bagL: 50,
  },
  garden_mix: {
    name: 'planting mix with fertiliser',
    held: 'Gardeners who buy what the shop calls tree soil; what is in it feeds a tree that should rest.',
    wicks: false,
    waterHolding: 'medium',
    ph: [6, 7],
    fertilised: true,
    bagL: 40,
  },
  topsoil: {
    name: 'bagged topsoil',
    held: 'Where the site soil is rubble; its pH and weed seed are unknown.',
    wicks: false,
    waterHolding: 'medium',
    ph: null,
    fertilised: false,
    bagL: 30,
  },
} as const satisfies Record<string, MaterialOption>;
export type FillMaterial = keyof typeof fillMaterials;

/**
 * Where what is mixed in goes. `into`: what its share is a share of: the fill, the soil of the ring outside the pit, or
 * of the whole ring before the hole is dug through it. `fromShare`: where in the depth of the fill it begins, 0 at
 * grade; `null` where it lies on top of it and takes none of its room.
 */
export interface PlaceOption extends Option {
  readonly into: 'fill' | 'ring' | 'ring_and_pit';
  readonly fromShare: number | null;
  readonly act: string;
  readonly check: string;
  readonly avoid: string;
}
export const fillPlaces = {
  in_fill: {
    name: 'through the fill',
    held: 'Those who amend at all: one even mix leaves no layer for water to stop at.',
    into: 'fill',
    fromShare: 0,
    act: 'evenly into the site soil.',
    check: 'One colour, no layers.',
    avoid: 'A layer on top or in the base.',
  },
  on_base: {
    name: 'at the base, beside the foot of the ball',
    held: 'Orchard custom with bone and manure: food where the lower roots come out.',
    into: 'fill',
    fromShare: 5 / 6,
    act: 'into the lowest hand of soil around the foot of the ball, never under it.',
    check: 'The ball stands on firm soil, not on the mix.',
    avoid: 'A ball set on it: it rots without air and the tree sinks.',
  },
  in_base: {
    name: 'in the lowest third of the fill',
    held: 'Orchard custom, manure beside the lower roots; it rots without air and sinks.',
    into: 'fill',
    fromShare: 2 / 3,
    act: 'into the lowest third of the fill, beside the ball, never under it.',
    check: 'The ball stands on firm soil, not on the mix.',
    avoid: 'A ball set on it: it rots and the tree sinks.',
  },
  whole_area: {
    name: 'over the whole ring, not into the hole',
    held: 'Who amends the ground rather than the hole: no edge between mix and soil.',
    into: 'ring',
    fromShare: null,
    act: 'into the soil of the whole ring, outside the pit; the pit is filled with what came out of it.',
    check: 'The ring is loose to its depth and the fill is site soil.',
    avoid: 'Digging among roots of standing trees.',
  },
  area_then_hole: {
    name: 'over the whole area first, then the hole is dug in it',
    held: 'Gardeners who make a bed before they plant: one soil inside the hole and out.',
    into: 'ring_and_pit',
    fromShare: 0,
    act: 'into the soil of the whole ring before the hole is dug; what comes out of the hole goes back in.',
    check: 'The ring is loose to its depth, and the fill has the colour of the ground beside it.',
    avoid: 'Digging among roots of standing trees.',
  },
  on_top: {
    name: 'on top of the fill, under the mulch',
    held: 'Who leaves mixing to the worms: it feeds from above and makes no basin.',
    into: 'fill',
    fromShare: null,
    act: 'over the fill outside the ball, without digging it in.',
    check: 'None lies on the ball or against the trunk.',
    avoid: 'Digging it in afterwards.',
  },
} as const satisfies Record<string, PlaceOption>;
export type FillPlace = keyof typeof fillPlaces;

/** One thing mixed in: a share of what it goes into, or so many bags a tree, which count instead where there are some. */
export interface MixedIn {
  readonly material: FillMaterial;
  readonly share: number;
  readonly bags: number;
  readonly place: FillPlace;
}

/** `timeShare`: how long filling takes beside filling in layers with a tool. */
export const settlings = {
  water: { name: 'water only', held: 'Gentlest on structure; leaves pockets under big clods.', timeShare: 0.8 },
  tool: {
    name: 'hands or tool, layer by layer, then water',
    held: 'Street programmes: no pockets, no pan.',
    timeShare: 1,
  },
  foot: {
    name: 'light foot at the edge of the ball',
    held: 'Crews with heavy balls that must not rock.',
    timeShare: 1,
  },
  heel: {
    name: 'hard heel',
    held: 'Bare-root planters: air dries roots sooner than firming harms them.',
    timeShare: 1.2,
  },
} as const satisfies Record<string, Option & { timeShare: number }>;
export type Settling = keyof typeof settlings;

export const stoneUses = {
  out: { name: 'taken out', held: 'Where mowers and gaps are feared.' },
  fist_back: { name: 'fist size and less back in', held: 'Most: they drain and anchor.' },
  surface: { name: 'kept on the surface', held: 'Dry-land planters: cool refuges, less evaporation.' },
} as const satisfies Record<string, Option>;
export type StoneUse = keyof typeof stoneUses;

/** What one tree takes of something that is bought. */
export interface BoughtPerTree {
  readonly code: string;
  readonly name: string;
  readonly unit: 'kg' | 'L';
  readonly perTree: number;
  readonly pack: Pack;
}
/** `usual`: where it goes by those who use it. */
export const fertilisers = {
  none: {
    name: 'none; soil test first',
    held: 'Research finds little gain in the first year; salts burn.',
    usual: null,
    buys: null,
  },
  phosphate: {
    name: 'phosphate or bone meal',
    held: 'Garden tradition for roots; few soils lack it.',
    usual: 'base',
    buys: { code: 'bone_meal', name: 'bone meal', unit: 'kg', perTree: 0.15, pack: { size: 5, word: 'bag' } },
  },
  slow_pellets: {
    name: 'slow pellets',
    held: 'Enrichers in poor sand or rubble, at the edge of the pit.',
    usual: 'edge',
    buys: { code: 'pellets', name: 'slow pellets', unit: 'kg', perTree: 0.1, pack: { size: 5, word: 'bag' } },
  },
  root_drench: {
    name: 'root stimulant drench',
    held: 'Some contractors with warranty stock.',
    usual: 'drench',
    buys: { code: 'drench', name: 'root drench', unit: 'L', perTree: 0.05, pack: { size: 1, word: 'bottle' } },
  },
  mycorrhiza: {
    name: 'mycorrhiza',
    held: 'Where the soil is sterile fill; trials differ.',
    usual: 'halfway',
    buys: { code: 'mycorrhiza', name: 'mycorrhiza', unit: 'kg', perTree: 0.05, pack: { size: 1, word: 'tub' } },
  },
  rock_lime: {
    name: 'lime with rock dust',
    held: 'Planters on sour ground whose soil test asks for it; it does nothing where the soil is not acid.',
    usual: 'surface',
    buys: {
      code: 'rock_lime',
      name: 'lime with rock dust',
      unit: 'kg',
      perTree: 0.5,
      pack: { size: 25, word: 'sack' },
    },
  },
} as const satisfies Record<string, Option & { usual: FeedPlace | null; buys: BoughtPerTree | null }>;
export type Fertiliser = keyof typeof fertilisers;

/** Where a feed goes: each place is a step of its own. `act` goes on after the amount. */
export const feedPlaces = {
  base: { name: 'at the base', act: 'over the base and a hand of soil over it, before the tree goes in.' },
  halfway: { name: 'halfway up the fill', act: 'over the fill when the pit is half full, off the side of the ball.' },
  edge: { name: 'at the edge of the pit', act: 'in small heaps along the edge of the pit, away from the ball.' },
  surface: { name: 'over the surface', act: 'over the finished soil, outside the ball, before the mulch.' },
  drench: { name: 'as a drench after the mulch', act: 'in a can of water, over the ball, after the mulch lies.' },
} as const satisfies Record<string, { name: string; act: string }>;
export type FeedPlace = keyof typeof feedPlaces;
/** Where a feed usually goes; `null` for none, and for what is no feed. */
export const fedWhere = (feed: string): FeedPlace | null =>
  feed in fertilisers ? fertilisers[feed as Fertiliser].usual : null;
export const feedPlaceCodes = Object.keys(feedPlaces) as readonly FeedPlace[];

/** `kgPerM2`: worked into clay, for each m² of pit; `byTest`: only where a soil test asks for it. */
export const gypsumUses = {
  no: { name: 'no', held: 'It helps only sodic soil.', kgPerM2: 0, byTest: false },
  always: {
    name: 'in all clay',
    held: 'Clay gardeners by habit: it opens sodic clay, and does nothing in other clay but add salt.',
    kgPerM2: 0.5,
    byTest: false,
  },
  by_test: {
    name: 'in sodic or salty clay, after a soil test',
    held: 'Planters on reclaimed or irrigated clay: it exchanges sodium where there is some.',
    kgPerM2: 0.5,
    byTest: true,
  },
} as const satisfies Record<string, Option & { kgPerM2: number; byTest: boolean }>;
export type GypsumUse = keyof typeof gypsumUses;
