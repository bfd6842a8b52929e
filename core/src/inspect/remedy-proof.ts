import type { RemedyCode } from '../practice';
import type { LookAspect } from './finding';
import type { Inspection } from './look';

/** What somebody saw or measured once a remedy was carried out: some of what a look may find. */
export type RemedySeen = Partial<Omit<Inspection, 'inspectedOn'>>;

/** What shows in one tap that a remedy was carried out. */
export const proofTapCodes = [
  'off_and_firm',
  'off_ball_moves',
  'tie_loose',
  'staked_firm',
  'upright_firm',
  'mulch_clear',
  'guard_fits',
  'guard_off',
  'nothing_left_on',
  'ring_clear',
  'felt_dry',
  'felt_slightly_dry',
  'felt_moist',
  'felt_wet',
  'felt_saturated',
] as const;
export type ProofTap = (typeof proofTapCodes)[number];

/** What each tap says was seen. */
export const tapSeen: Readonly<Record<ProofTap, RemedySeen>> = {
  off_and_firm: { stake: 'none', rocks: 'firm' },
  off_ball_moves: { stake: 'none', rocks: 'ball_moves' },
  tie_loose: { stake: 'in_place' },
  staked_firm: { stake: 'in_place', rocks: 'firm' },
  upright_firm: { rocks: 'firm' },
  mulch_clear: { mulchContact: 'clear' },
  guard_fits: { guard: 'fits' },
  guard_off: { guard: 'none' },
  nothing_left_on: { leftOn: [] },
  ring_clear: { turf: 'clear' },
  felt_dry: { probe: 'dry' },
  felt_slightly_dry: { probe: 'slightly_dry' },
  felt_moist: { probe: 'moist' },
  felt_wet: { probe: 'wet' },
  felt_saturated: { probe: 'saturated' },
};

/** The measure that closes a remedy, the taps one of which does, the roots that are left; or nothing can show it. */
export type RemedyProof =
  | { readonly kind: 'measure'; readonly fact: 'flareDepthMm' | 'mulchDepthMm' }
  | { readonly kind: 'taps'; readonly taps: readonly ProofTap[] }
  | { readonly kind: 'roots' }
  | { readonly kind: 'word' };

const flare: RemedyProof = { kind: 'measure', fact: 'flareDepthMm' };
const mulch: RemedyProof = { kind: 'measure', fact: 'mulchDepthMm' };
const roots: RemedyProof = { kind: 'roots' };
const word: RemedyProof = { kind: 'word' };
const taps = (...codes: ProofTap[]): RemedyProof => ({ kind: 'taps', taps: codes });
const felt = taps('felt_dry', 'felt_slightly_dry', 'felt_moist', 'felt_wet', 'felt_saturated');

/** What shows that each remedy was carried out. */
export const remedyProofs: Readonly<Record<RemedyCode, RemedyProof>> = {
  none: word,
  replant_higher: flare,
  widen_hole: word,
  give_rest_of_soak: word,
  level_the_ball: taps('upright_firm'),
  watch_yearly_clear: flare,
  clear_to_flare: flare,
  examine_roots: roots,
  lift_and_replant: flare,
  collar_excavation: flare,
  replace_tree: word,
  cover_roots: flare,
  top_up_mulch: mulch,
  thin_mulch: mulch,
  pull_back_mulch: taps('mulch_clear'),
  remove_stake: taps('off_and_firm', 'off_ball_moves'),
  loosen_tie: taps('tie_loose', 'off_and_firm'),
  free_tie_now: taps('off_and_firm', 'off_ball_moves', 'tie_loose'),
  mend_stake: taps('staked_firm', 'off_and_firm'),
  water_now: word,
  water_soon: word,
  skip_water: word,
  find_drainage: felt,
  cut_root: roots,
  stage_root_cuts: roots,
  refer_arborist: word,
  cut_stem_roots: word,
  cut_stubs: word,
  refit_guard: taps('guard_fits', 'guard_off'),
  take_guard_off: taps('guard_off'),
  take_off_device: word,
  probe_first: felt,
  prune_structure: word,
  prune_broken: word,
  protect_trunk: word,
  name_pest: word,
  fence_roots: word,
  take_things_off: taps('nothing_left_on'),
  clear_turf: taps('ring_clear'),
};

/** What each thing that is looked at is about. */
export const aspectOf: Readonly<Record<keyof RemedySeen, LookAspect>> = {
  alive: 'tree',
  aliveAt: 'tree',
  signs: 'tree',
  diebackPct: 'tree',
  shootMm: 'tree',
  shootBeforeMm: 'tree',
  stake: 'stake',
  rocks: 'stake',
  guard: 'guard',
  leftOn: 'guard',
  mulchContact: 'mulch',
  mulchDepthMm: 'mulch',
  turf: 'mulch',
  flareDepthMm: 'flare',
  flareRoundMm: 'flare',
  flareBy: 'flare',
  bark: 'flare',
  barkPct: 'flare',
  circlingRoots: 'roots',
  anchors: 'roots',
  instruments: 'tree',
  probe: 'moisture',
  finger: 'moisture',
};

/** What was seen at a remedy as a look by itself: the rest was not looked at. */
export const seenAsLook = (seen: RemedySeen, inspectedOn: string): Inspection => ({
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
  ...seen,
  inspectedOn,
});

/** What one tap says of a remedy, where one tap can say it: nothing more than that it was done, or what shows it. */
export function oneTap(remedy: RemedyCode): { readonly seen: RemedySeen | undefined } | null {
  const proof = remedyProofs[remedy];
  if (proof.kind === 'word') return { seen: undefined };
  const [only, second] = proof.kind === 'taps' ? proof.taps : [];
  return only && !second ? { seen: tapSeen[only] } : null;
}
