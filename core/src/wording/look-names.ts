import type {
  AliveClass,
  BarkState,
  CutTool,
  GuardState,
  LeftOn,
  LookAspect,
  ReferWhy,
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
  scorched_edges: 'leaf edges brown',
  small_leaves: 'leaves small for its kind',
  thin_crown: 'crown thin',
  leafless: 'no leaves in leaf time',
  shedding: 'shedding leaves',
  sprouts_at_base: 'sprouts at the base',
  leader_lost: 'leader lost or doubled',
  leans: 'leans',
  trunk_wound: 'wound on the trunk',
  broken_branches: 'broken branches',
  pests: 'pests or their traces',
  traffic_on_roots: 'feet or machines on the roots',
  works_nearby: 'works nearby',
};

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
