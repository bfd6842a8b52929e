/** Options of roots, wrap, stakes, guard and pruning. */
import type { Option } from './option';

/** `minutes`: hand work at one ball. `cuts`: what is cut, as it is drawn. */
export const rootCorrections = {
  shave_or_slits: {
    name: 'shave if circling covers more than a fifth of the face, else slits',
    held: 'Programmes that judge each ball.',
    minutes: 8,
    cuts: ['shave', 'slits'],
  },
  tease: {
    name: 'tease the surface',
    held: 'Least loss of fine roots; leaves the old circle.',
    minutes: 8,
    cuts: [],
  },
  slits: {
    name: 'four vertical slits, 25–50 mm deep',
    held: 'Quick, and stops most circling.',
    minutes: 6,
    cuts: ['slits'],
  },
  shave: {
    name: 'shave 25 mm off sides and base',
    held: 'Research on pot-bound stock: best new radial roots.',
    minutes: 8,
    cuts: ['shave'],
  },
  wash: {
    name: 'wash bare',
    held: 'Shows every root; the tree then needs water like bare-root stock.',
    minutes: 24,
    cuts: [],
  },
  leave: { name: 'leave', held: 'Where shock is feared more than circling.', minutes: 3, cuts: [] },
} as const satisfies Record<string, Option & { minutes: number; cuts: readonly ('shave' | 'slits')[] }>;
export type RootCorrection = keyof typeof rootCorrections;

/** `offShare`: how far down the wrap comes off, of the ball. */
export const wrapRemovals = {
  top_two_thirds: {
    name: 'top two thirds cut away in the hole, all strings',
    held: 'Most: the ball holds, the upper roots are free.',
    offShare: 2 / 3,
  },
  all: { name: 'all off', held: 'Who has dug up girdled trees; a soft ball may break.', offShare: 1 },
  leave: { name: 'left on', held: 'Some balled-stock growers; wire and synthetic wrap girdle.', offShare: 0 },
} as const satisfies Record<string, Option & { offShare: number }>;
export type WrapRemoval = keyof typeof wrapRemovals;

export const nurseryTies = {
  off_label_kept: {
    name: 'off; a loose label goes on the stake or in the ground',
    held: 'Nearly everybody: ties strangle and trunk wrap hides decay, and a name is worth keeping.',
  },
  off: { name: 'all off, label too', held: 'Programmes whose register holds the name.' },
} as const satisfies Record<string, Option>;
export type NurseryTies = keyof typeof nurseryTies;

/** `when`: whether a tree is staked at all; `needed` weighs height, crown and gust against the ball. */
export const stakeRules = {
  never: { name: 'never, unless it will not stand', held: 'Movement builds taper and roots.', when: 'never' },
  nobody_returns: {
    name: 'none where nobody comes back to take it off',
    held: 'Volunteers with no aftercare: a forgotten tie strangles.',
    when: 'never',
  },
  where_needed: {
    name: 'only where height, crown and gust outweigh the ball',
    held: 'Most programmes: a rocking ball tears new roots, a firm one needs nothing.',
    when: 'needed',
  },
  always: {
    name: 'always, the first year',
    held: 'Windy coasts, vandals, warranty contracts.',
    when: 'always',
  },
} as const satisfies Record<string, Option & { when: 'never' | 'needed' | 'always' }>;
export type StakeRule = keyof typeof stakeRules;

/** `stakes`: how many the layout sets, `null` by ball and height. `stand`: how they stand to the winds. */
export const stakeLayouts = {
  by_size: {
    name: 'one or two, by ball and height',
    held: 'Fits the means to the tree.',
    stakes: null,
    stand: 'across',
  },
  windward: {
    name: 'one, to windward',
    held: 'The tree is pulled from the stake, not pushed onto it.',
    stakes: 1,
    stand: 'across',
  },
  across: { name: 'two, across the prevailing wind', held: 'Both straps share the pull.', stakes: 2, stand: 'across' },
  two_winds: {
    name: 'two, in line with the two seasonal winds',
    held: 'Where the wind turns by season.',
    stakes: 2,
    stand: 'in_line',
  },
  guys: { name: 'three guys', held: 'Large balled stock.', stakes: 3, stand: 'across' },
} as const satisfies Record<string, Option & { stakes: 1 | 2 | 3 | null; stand: 'across' | 'in_line' }>;
export type StakeLayout = keyof typeof stakeLayouts;

/** `first`: kinds of stock whose stake goes in before the tree. */
export const stakeOrders = {
  bare_root_first: {
    name: 'before the tree for bare-root stock, after it for others, outside the ball',
    held: 'Nearly everybody: no stake is driven through roots.',
    first: ['bare_root'],
  },
  first: {
    name: 'always before the tree',
    held: 'Crews who set out a row of stakes first and plant to them.',
    first: ['bare_root', 'container', 'balled'],
  },
} as const satisfies Record<string, Option & { first: readonly ('container' | 'balled' | 'bare_root')[] }>;
export type StakeOrder = keyof typeof stakeOrders;

/** `when`: whether a trunk gets one; `recorded` where deer or mowers are recorded at the place. */
export const guardRules = {
  where_recorded: {
    name: 'where deer or mowers are recorded',
    held: 'Most programmes: guards themselves rub and hide rot.',
    when: 'recorded',
    season: null,
  },
  none: { name: 'none', held: 'Where nothing rubs or gnaws.', when: 'never', season: null },
  deer_season: {
    name: 'against deer in the rut while the bark is thin',
    held: 'Edges of woods and fields.',
    when: 'always',
    season: 'On by autumn, off in late winter.',
  },
  always: { name: 'all year, against mowers', held: 'Parks cut by contract.', when: 'always', season: null },
} as const satisfies Record<string, Option & { when: 'never' | 'recorded' | 'always'; season: string | null }>;
export type GuardRule = keyof typeof guardRules;

export const plantingPrunings = {
  broken: {
    name: 'broken, dead and diseased only',
    held: 'Most, and most trials: leaves feed new roots.',
    avoid: 'Shaping the crown now: the tree needs its leaves.',
  },
  shape: {
    name: 'shaped and raised',
    held: 'Nurseries and contractors: form at once.',
    avoid: 'Taking more than a quarter of the leaves, or any stub.',
  },
} as const satisfies Record<string, Option & { avoid: string }>;
export type PlantingPruning = keyof typeof plantingPrunings;

export const structuralPrunings = {
  yearly_light: {
    name: 'yearly, light, on leader and temporary branches',
    held: 'Street programmes: small cuts close.',
  },
  none: { name: 'none until established', held: 'Who counts every leaf while roots are short.' },
  raise: { name: 'raised fast', held: 'Streets that need clearance.' },
} as const satisfies Record<string, Option>;
export type StructuralPruning = keyof typeof structuralPrunings;
