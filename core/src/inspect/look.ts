import type { IsoDate } from '../calendar';
import type { Anchor, CirclingRoot } from './root-arcs';

export const mulchContacts = ['clear', 'touching', 'heaped'] as const;
export type MulchContact = (typeof mulchContacts)[number];

export const stakeStates = ['none', 'in_place', 'tight', 'biting', 'broken'] as const;
export type StakeState = (typeof stakeStates)[number];

/** A finger in the top of the ball tells two things apart. */
export const fingerClasses = ['finger_dry', 'finger_moist'] as const;
export type FingerClass = (typeof fingerClasses)[number];

/** What a probe finds at ball depth. */
export const probeClasses = ['dry', 'slightly_dry', 'moist', 'wet', 'saturated'] as const;
export type ProbeClass = (typeof probeClasses)[number];

/** One look at one tree. `null` means not looked at; an empty list of roots means looked and none found. */
export interface Inspection {
  readonly inspectedOn: IsoDate;
  /** Flare below the surface; negative stands above it. */
  readonly flareDepthMm: number | null;
  readonly mulchDepthMm: number | null;
  readonly mulchContact: MulchContact | null;
  readonly stake: StakeState | null;
  readonly probe: ProbeClass | null;
  readonly circlingRoots: readonly CirclingRoot[] | null;
  /** What follows is left out where nobody looked. What a finger finds where there was no probe. */
  readonly finger?: FingerClass | undefined;
  /** A twig bent and the bark scratched at up to three heights: the worst of them. */
  readonly alive?: AliveClass | undefined;
  /** The heights one by one, where somebody told them apart; `alive` is the worst of them. */
  readonly aliveAt?: Partial<Readonly<Record<TwigHeight, AliveClass>>> | undefined;
  /** Seen on crown, trunk and the ground around; none where somebody looked and found nothing. */
  readonly signs?: readonly LookSign[] | undefined;
  /** Of the crown, what is dead. % */
  readonly diebackPct?: number | undefined;
  /** Length of this year's shoots, and of last year's. */
  readonly shootMm?: number | undefined;
  readonly shootBeforeMm?: number | undefined;
  /** The trunk rocked by hand. */
  readonly rocks?: RockingClass | undefined;
  readonly guard?: GuardState | undefined;
  /** What should be off by now and is not. */
  readonly leftOn?: readonly LeftOn[] | undefined;
  readonly turf?: 'clear' | 'creeping' | undefined;
  /** Depths at two to four points round the trunk; `flareDepthMm` is the deepest of them, and what is judged. */
  readonly flareRoundMm?: readonly number[] | undefined;
  /** How the depth of the flare is known. */
  readonly flareBy?: 'scraped' | 'guessed' | undefined;
  /** Bark below the old line of the soil, and over what share of the girth it is not sound. */
  readonly bark?: BarkState | undefined;
  readonly barkPct?: number | undefined;
  /** Roots that run away from the trunk, as far as they are exposed. */
  readonly anchors?: readonly Anchor[] | undefined;
  /** What instruments gave: kept with each device, compared with others of it, and never a finding by itself. */
  readonly instruments?: readonly InstrumentReading[] | undefined;
}

/** Electrical resistance of bark and cambium, kΩ; how fast sound runs through the trunk, m/s. */
export const instrumentKinds = ['electrical', 'sonic'] as const;
export type InstrumentKind = (typeof instrumentKinds)[number];

export interface InstrumentReading {
  readonly kind: InstrumentKind;
  /** Which one it was: values of two are never compared. */
  readonly device: string;
  readonly value: number;
}

/** Of one look. */
export const mostInstruments = 4;

export const aliveClasses = ['green', 'dry', 'brittle'] as const;
export type AliveClass = (typeof aliveClasses)[number];

/** Where wood is felt for life, from the top down: at the tip, half-way, at the foot of the trunk. */
export const twigHeights = ['top', 'middle', 'base'] as const;
export type TwigHeight = (typeof twigHeights)[number];

/** The worst of what was felt at some heights; `undefined` where nobody felt. */
export const worstWood = (at: Partial<Readonly<Record<TwigHeight, AliveClass>>>): AliveClass | undefined =>
  aliveClasses.findLast((one) => twigHeights.some((height) => at[height] === one));

export const lookSigns = [
  'wilting',
  'pale_leaves',
  'yellow_between_veins',
  'scorched_edges',
  'small_leaves',
  'thin_crown',
  'leafless',
  'shedding',
  'early_colour',
  'sprouts_at_base',
  'leader_lost',
  'leans',
  'trunk_wound',
  'broken_branches',
  'pests',
  'traffic_on_roots',
  'works_nearby',
] as const;
export type LookSign = (typeof lookSigns)[number];

export const rockingClasses = ['firm', 'trunk_bends', 'ball_moves'] as const;
export type RockingClass = (typeof rockingClasses)[number];

export const guardStates = ['none', 'fits', 'tight', 'damaged'] as const;
export type GuardState = (typeof guardStates)[number];

export const leftOnThings = ['nursery_stake', 'tags', 'wrap', 'bag', 'wire'] as const;
export type LeftOn = (typeof leftOnThings)[number];

export const barkStates = ['sound', 'soft', 'cracked', 'decayed'] as const;
export type BarkState = (typeof barkStates)[number];

/** What a tree was found to be at its last look; `unseen` where nobody has looked yet. */
export const lastFoundKinds = ['urgent', 'act', 'watch', 'good', 'unseen'] as const;
export type LastFound = (typeof lastFoundKinds)[number];

/** Whether a look says anything at all. */
export const isLook = ({ inspectedOn: _day, ...seen }: Inspection): boolean =>
  Object.values(seen).some((value) => value !== null && value !== undefined);
