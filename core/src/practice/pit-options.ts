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

/** `digShare`: part of the digging a spade still has to do. `straight`: the base is as wide as the top. */
export const pitSides = {
  sloped: {
    name: 'sloped',
    held: 'Most programmes: roots meet loosened soil in the top 300 mm.',
    straight: false,
    digShare: 1,
    open: 'Rough up glazed sides with fork or pick.',
  },
  straight: {
    name: 'straight',
    held: 'Bare-root planters and narrow strips.',
    straight: true,
    digShare: 1,
    open: 'Rough up glazed sides with fork or pick.',
  },
  broken_down: {
    name: 'straight, broken down inward',
    held: 'Clay planters with hand tools: least to dig.',
    straight: false,
    digShare: 0.75,
    open: 'Break the sides down inward with a bar.',
  },
} as const satisfies Record<string, Option & { straight: boolean; digShare: number; open: string }>;
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
  readonly ph: string;
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
    ph: 'as the site',
    fertilised: false,
    bagL: null,
  },
  coarse_compost: {
    name: 'coarse compost',
    held: 'Garden planters in poor or rubble soil: a faster start.',
    wicks: false,
    waterHolding: 'medium',
    ph: '7–8',
    fertilised: false,
    bagL: 40,
  },
  fine_compost: {
    name: 'fine compost',
    held: 'Used where nothing coarser is at hand; settles and wicks.',
    wicks: true,
    waterHolding: 'high',
    ph: '7–8',
    fertilised: false,
    bagL: 40,
  },
  bark_fines: {
    name: 'bark fines',
    held: 'Planters in hot clay: opens the soil for years and stays low in salts.',
    wicks: false,
    waterHolding: 'low',
    ph: '5–6',
    fertilised: false,
    bagL: 60,
  },
  peat: {
    name: 'peat',
    held: 'Old nursery habit; hard to wet again once dry.',
    wicks: true,
    waterHolding: 'high',
    ph: '3.5–4.5',
    fertilised: false,
    bagL: 60,
  },
  manure: {
    name: 'rotted manure',
    held: 'Orchard custom; salts burn young roots.',
    wicks: true,
    waterHolding: 'high',
    ph: '7–8.5',
    fertilised: true,
    bagL: 40,
  },
  potting_mix: {
    name: 'potting mix',
    held: 'Resembles what the roots knew; they stay in it.',
    wicks: true,
    waterHolding: 'high',
    ph: '5.5–6.5',
    fertilised: true,
    bagL: 50,
  },
  topsoil: {
    name: 'bagged topsoil',
    held: 'Where the site soil is rubble; its pH and weed seed are unknown.',
    wicks: false,
    waterHolding: 'medium',
    ph: 'unknown: test',
    fertilised: false,
    bagL: 30,
  },
} as const satisfies Record<string, MaterialOption>;
export type FillMaterial = keyof typeof fillMaterials;

/**
 * Where what is mixed in goes. `fromShare`: where in the depth of the fill it begins, 0 at grade. `areaDepthMm`: how deep it is dug into the whole ring instead; `null`:
 * into the fill.
 */
export const fillPlaces = {
  in_fill: {
    name: 'through the fill',
    held: 'Those who amend at all: one even mix leaves no layer for water to stop at.',
    fromShare: 0,
    areaDepthMm: null,
    act: 'evenly into the site soil.',
    check: 'One colour, no layers.',
    avoid: 'A layer on top or in the base.',
  },
  in_base: {
    name: 'in the lowest third of the fill',
    held: 'Orchard custom, manure beside the lower roots; it rots without air and sinks.',
    fromShare: 2 / 3,
    areaDepthMm: null,
    act: 'into the lowest third of the fill, beside the ball, never under it.',
    check: 'The ball stands on firm soil, not on the mix.',
    avoid: 'A ball set on it: it rots and the tree sinks.',
  },
  whole_area: {
    name: 'over the whole ring, not into the hole',
    held: 'Who amends the ground rather than the hole: no edge between mix and soil.',
    fromShare: 0,
    areaDepthMm: 200,
    act: 'into the soil of the whole ring, outside the pit; the pit is filled with what came out of it.',
    check: 'The ring is loose to a spade’s depth and the fill is site soil.',
    avoid: 'Digging among roots of standing trees.',
  },
} as const satisfies Record<
  string,
  Option & { fromShare: number; areaDepthMm: number | null; act: string; check: string; avoid: string }
>;
export type FillPlace = keyof typeof fillPlaces;

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
export const fertilisers = {
  none: {
    name: 'none; soil test first',
    held: 'Research finds little gain in the first year; salts burn.',
    buys: null,
  },
  phosphate: {
    name: 'phosphate or bone meal',
    held: 'Garden tradition for roots; few soils lack it.',
    buys: { code: 'bone_meal', name: 'bone meal', unit: 'kg', perTree: 0.15, pack: { size: 5, word: 'bag' } },
  },
  slow_pellets: {
    name: 'slow pellets at the edge of the pit',
    held: 'Enrichers in poor sand or rubble.',
    buys: { code: 'pellets', name: 'slow pellets', unit: 'kg', perTree: 0.1, pack: { size: 5, word: 'bag' } },
  },
  root_drench: {
    name: 'root stimulant drench',
    held: 'Some contractors with warranty stock.',
    buys: { code: 'drench', name: 'root drench', unit: 'L', perTree: 0.05, pack: { size: 1, word: 'bottle' } },
  },
  mycorrhiza: {
    name: 'mycorrhiza',
    held: 'Where the soil is sterile fill; trials differ.',
    buys: { code: 'mycorrhiza', name: 'mycorrhiza', unit: 'kg', perTree: 0.05, pack: { size: 1, word: 'tub' } },
  },
} as const satisfies Record<string, Option & { buys: BoughtPerTree | null }>;
export type Fertiliser = keyof typeof fertilisers;

/** `kgPerM2`: worked into salty clay, for each m² of pit. */
export const gypsumUses = {
  no: { name: 'no', held: 'It helps only sodic soil.', kgPerM2: 0 },
  by_test: {
    name: 'in sodic or salty clay, after a soil test',
    held: 'Planters on reclaimed or irrigated clay: it exchanges sodium where there is some.',
    kgPerM2: 0.5,
  },
} as const satisfies Record<string, Option & { kgPerM2: number }>;
export type GypsumUse = keyof typeof gypsumUses;
