/** Options of roots, wrap, stakes, guard and pruning. */
import type { Option } from './option';

/**
 * `minutes`: hand work at one ball. `cuts`: what is cut, as it is drawn. `counted`: how many and how deep is the
 * practice's number.
 */
export const rootCorrections = {
  shave_or_slits: {
    name: 'shave where much of the face circles, else slits',
    held: 'Programmes that judge each ball.',
    minutes: 8,
    cuts: ['shave', 'slits'],
    counted: true,
  },
  tease: {
    name: 'tease the surface',
    held: 'Least loss of fine roots; leaves the old circle.',
    minutes: 8,
    cuts: [],
    counted: false,
  },
  slits: {
    name: 'vertical slits',
    held: 'Quick, and stops most circling; those who do it differ in how many and how deep.',
    minutes: 6,
    cuts: ['slits'],
    counted: true,
  },
  slice_and_score: {
    name: 'base sliced off, sides scored',
    held: 'Planters of pot-bound stock in a hurry: the worst roots lie at the bottom and the edge.',
    minutes: 7,
    cuts: ['base', 'slits'],
    counted: true,
  },
  base_only: {
    name: 'base sliced off, sides left alone',
    held: 'Who would disturb the ball least: the mat at the bottom goes, the rest holds.',
    minutes: 4,
    cuts: ['base'],
    counted: false,
  },
  shave: {
    name: 'shave 25 mm off sides and base',
    held: 'Research on pot-bound stock: best new radial roots.',
    minutes: 8,
    cuts: ['shave'],
    counted: false,
  },
  wash: {
    name: 'wash bare',
    held: 'Shows every root; the tree then needs water like bare-root stock.',
    minutes: 24,
    cuts: [],
    counted: false,
  },
  leave: {
    name: 'leave',
    held: 'Where shock is feared more than circling.',
    minutes: 3,
    cuts: [],
    counted: false,
  },
} as const satisfies Record<
  string,
  Option & { minutes: number; cuts: readonly ('shave' | 'slits' | 'base')[]; counted: boolean }
>;
export type RootCorrection = keyof typeof rootCorrections;

/**
 * `offShare`: how far down the wrap comes off, of the ball. `beforePlacing`: while the underside can still be reached.
 * `minutes`: hand work at one ball.
 */
export const wrapRemovals = {
  top_two_thirds: {
    name: 'top two thirds cut away in the hole, all strings',
    held: 'Most: the ball holds, the upper roots are free.',
    offShare: 2 / 3,
    beforePlacing: false,
    minutes: 10,
  },
  all: {
    name: 'all off, before the ball goes in',
    held: 'Who has dug up girdled trees; a soft ball may break.',
    offShare: 1,
    beforePlacing: true,
    minutes: 15,
  },
  bent_down: {
    name: 'basket bent flat, cloth rolled down into the hole',
    held: 'Crews without wire cutters: the top is free, and wire and cloth stay where roots meet them later.',
    offShare: 1 / 3,
    beforePlacing: false,
    minutes: 6,
  },
  leave: {
    name: 'left on',
    held: 'Some balled-stock growers; wire and synthetic wrap girdle.',
    offShare: 0,
    beforePlacing: false,
    minutes: 4,
  },
} as const satisfies Record<string, Option & { offShare: number; beforePlacing: boolean; minutes: number }>;
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

/** A strap of this sort: `perStakeM` for one stake; `stretch` and `rub` are what hands and bark find. */
export interface TieOption extends Option {
  readonly code: 'tie' | 'tie_tube' | 'tie_interlocking' | 'tie_fabric';
  readonly perStakeM: number;
  readonly stretch: 'none' | 'a little' | 'much';
  readonly rub: 'little' | 'some' | 'hard';
}
export const tieMaterials = {
  wide_strap: {
    name: 'wide strap',
    held: 'Most programmes: spreads the pull, does not stretch; it has to be let out.',
    code: 'tie',
    perStakeM: 1.2,
    stretch: 'none',
    rub: 'some',
  },
  tube: {
    name: 'soft tube',
    held: 'Gardeners and parks: gives as the stem thickens; slips on smooth stakes.',
    code: 'tie_tube',
    perStakeM: 1,
    stretch: 'much',
    rub: 'little',
  },
  interlocking: {
    name: 'interlocking strap',
    held: 'Nurseries: no nail or knot, let out a notch at a time; its edge is hard.',
    code: 'tie_interlocking',
    perStakeM: 0.9,
    stretch: 'a little',
    rub: 'hard',
  },
  fabric: {
    name: 'soft fabric',
    held: 'Volunteers with what is at hand: rots away by itself in a year or two.',
    code: 'tie_fabric',
    perStakeM: 1.4,
    stretch: 'a little',
    rub: 'little',
  },
} as const satisfies Record<string, TieOption>;
export type TieMaterial = keyof typeof tieMaterials;

/**
 * `when`: whether a trunk gets one; `recorded` where deer or mowers are recorded at the place. It goes on while the
 * trunk is thinner than the practice says, and is fitted anew each season until then.
 */
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

/** Short branches along the stem. `laterMonths`: after which those that were kept come off; `null` where none were. */
export const stubUses = {
  cut: { name: 'cut at once', held: 'Who wants the stem clean, and mowers off it.', laterMonths: null },
  kept: {
    name: 'kept for a season, to thicken the stem',
    held: 'Growers: leaves along the stem feed it and give it taper.',
    laterMonths: 12,
  },
} as const satisfies Record<string, Option & { laterMonths: number | null }>;
export type StubUse = keyof typeof stubUses;

/** `times`: from how long after planting on, and how often while the tree is young; `null` where it is left alone. Months */
export const structuralPrunings = {
  yearly_light: {
    name: 'yearly, light, on leader and temporary branches',
    held: 'Street programmes: small cuts close.',
    times: { fromMonths: 24, everyMonths: 12 },
  },
  none: { name: 'none until established', held: 'Who counts every leaf while roots are short.', times: null },
  raise: {
    name: 'raised fast',
    held: 'Streets that need clearance.',
    times: { fromMonths: 12, everyMonths: 12 },
  },
} as const satisfies Record<string, Option & { times: { fromMonths: number; everyMonths: number } | null }>;
export type StructuralPruning = keyof typeof structuralPrunings;
