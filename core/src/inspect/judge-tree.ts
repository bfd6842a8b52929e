import type { RemedyCode } from '../practice';
import type { Level } from '../reason';
import { finding, type LookFinding } from './finding';
import { twigHeights, type AliveClass, type Inspection, type LookSign, type TwigHeight } from './look';
import { because } from './reasons';

/** A tree is not given up before its first year is round. Months */
export const waitedForMonths = 12;
/** Of a crown, what may be dead before an arborist is asked. %, an estimate */
const diebackReferPct = 25;
/** Shoots under half of last year's tell of trouble; an estimate. */
const shortShoots = 0.5;
/** Whether they are; `null` where nobody measured both. */
export const shootsAreShort = ({ shootMm, shootBeforeMm }: Inspection): boolean | null =>
  shootMm === undefined || !shootBeforeMm ? null : shootMm < shootBeforeMm * shortShoots;
/** Of the girth, from where unsound bark is for an arborist. %, an estimate */
const barkReferPct = 25;

interface SignRow {
  readonly level: Level;
  readonly remedy: RemedyCode;
  /** What many causes share: felt for at the ball before anything is done. */
  readonly ambiguous?: true;
  /** Usual in the first year, and waited for until it is round. */
  readonly waits?: true;
}

/** What each sign asks for by itself; which cause is behind it is not told by one sign. */
export const signTable: Readonly<Record<LookSign, SignRow>> = {
  wilting: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  pale_leaves: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  yellow_between_veins: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  scorched_edges: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  small_leaves: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  thin_crown: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  leafless: { level: 'act', remedy: 'refer_arborist', waits: true },
  shedding: { level: 'act', remedy: 'probe_first', ambiguous: true, waits: true },
  early_colour: { level: 'watch', remedy: 'probe_first', ambiguous: true },
  sprouts_at_base: { level: 'watch', remedy: 'refer_arborist', waits: true },
  leader_lost: { level: 'act', remedy: 'prune_structure' },
  leans: { level: 'act', remedy: 'level_the_ball' },
  trunk_wound: { level: 'watch', remedy: 'protect_trunk' },
  broken_branches: { level: 'act', remedy: 'prune_broken' },
  pests: { level: 'act', remedy: 'name_pest' },
  traffic_on_roots: { level: 'act', remedy: 'fence_roots' },
  works_nearby: { level: 'act', remedy: 'fence_roots' },
};

/** Whether it lives and thrives: wood, signs, dieback, shoots, and how it stands. */
export function judgeWholeTree(
  look: Inspection,
  { months, caliperMm }: { readonly months: number; readonly caliperMm: number | undefined },
): LookFinding[] {
  return [
    ...judgeAlive(look, months),
    ...judgeSigns(look, { months, caliperMm }),
    ...judgeVigour(look, months),
    ...judgeRocking(look),
  ];
}

/** Green below dead wood it lives on; green above dead bark at its foot it is cut off from its roots. */
function judgeAlive(look: Inspection, months: number): LookFinding[] {
  const felt = twigHeights.filter((height) => look.aliveAt?.[height] !== undefined);
  const at = (height: TwigHeight | undefined): AliveClass | undefined => height && look.aliveAt?.[height];
  const green = felt.findLast((height) => at(height) === 'green');
  const lowest = felt.at(-1);
  if (green === undefined) return judgeWood(lowest ? at(lowest) : look.alive, months);
  if (green !== lowest) return [finding('tree', 'act', because('wood_dead_below', {}), 'refer_arborist')];
  const dead = felt.findLast((height) => at(height) !== 'green');
  if (!dead) return judgeWood('green', months);
  if (at(dead) === 'dry' && months < waitedForMonths) {
    const facts = { height: dead, monthsSincePlanting: months, waitMonths: waitedForMonths };
    return [finding('tree', 'watch', because('wood_dry_above', facts), 'probe_first')];
  }
  return [finding('tree', 'act', because('wood_dead_above', { height: dead }), 'prune_structure')];
}

function judgeWood(alive: AliveClass | undefined, months: number): LookFinding[] {
  switch (alive) {
    case undefined:
      return [];
    case 'green':
      return [finding('tree', 'good', because('wood_green', {}))];
    case 'brittle':
      return [finding('tree', 'act', because('wood_brittle', {}), 'replace_tree')];
    case 'dry': {
      const facts = { monthsSincePlanting: months, waitMonths: waitedForMonths };
      return months < waitedForMonths
        ? [finding('tree', 'watch', because('wood_dry_waits', facts), 'probe_first')]
        : [finding('tree', 'act', because('wood_dry', facts), 'replace_tree')];
    }
  }
}

/** Roots reach at least so far, as times of the trunk's thickness: the usual rule of thumb of who protects trees at works. */
const fenceTimes = 12;

function judgeSigns(
  { signs, probe, finger }: Inspection,
  { months, caliperMm }: { readonly months: number; readonly caliperMm: number | undefined },
): LookFinding[] {
  if (signs === undefined) return [];
  if (signs.length === 0) return [finding('tree', 'good', because('signs_none', {}))];
  const felt = probe !== null || finger !== undefined;
  return signs.map((sign) => {
    const { level, remedy, ambiguous, waits } = signTable[sign];
    if (waits && months < waitedForMonths) {
      const facts = { sign, monthsSincePlanting: months, waitMonths: waitedForMonths };
      return finding('tree', 'watch', because('sign_waits', facts), felt ? 'none' : 'probe_first');
    }
    if (remedy === 'fence_roots' && caliperMm !== undefined) {
      const facts = { sign, caliperMm, times: fenceTimes, radiusM: (caliperMm * fenceTimes) / 1000 };
      return finding('tree', level, because('roots_in_danger', facts), remedy);
    }
    // Too dry and too wet look alike: once the ball was felt, that finding says what to do.
    return finding('tree', level, because('sign_seen', { sign }), ambiguous && felt ? 'none' : remedy);
  });
}

function judgeVigour(look: Inspection, months: number): LookFinding[] {
  const { diebackPct, shootMm, shootBeforeMm } = look;
  const found: LookFinding[] = [];
  if (diebackPct !== undefined && diebackPct > 0) {
    const refer = diebackPct >= diebackReferPct;
    const reason = because('dieback', { sharePct: diebackPct, limitPct: diebackReferPct });
    found.push(finding('tree', refer ? 'act' : 'watch', reason, refer ? 'refer_arborist' : 'none'));
  }
  // Slow growth is usual in the first year.
  if (shootMm !== undefined && shootBeforeMm !== undefined && shootBeforeMm > 0 && months >= waitedForMonths) {
    const facts = { shootMm, beforeMm: shootBeforeMm };
    found.push(
      shootsAreShort(look)
        ? finding('tree', 'watch', because('shoots_short', facts), 'none')
        : finding('tree', 'good', because('shoots_normal', facts)),
    );
  }
  return found;
}

function judgeRocking({ rocks }: Inspection): LookFinding[] {
  if (rocks === undefined) return [];
  return rocks === 'ball_moves'
    ? [finding('stake', 'act', because('ball_moves', {}), 'mend_stake')]
    : [finding('stake', 'good', because('stands_firm', {}))];
}

/** Guard, and what should be off the tree. */
export function judgeFixtures({ guard, leftOn }: Inspection): LookFinding[] {
  const found: LookFinding[] = [];
  if (guard === 'fits') found.push(finding('guard', 'good', because('guard_fits', {})));
  if (guard === 'tight') found.push(finding('guard', 'act', because('guard_tight', {}), 'refit_guard'));
  if (guard === 'damaged') found.push(finding('guard', 'watch', because('guard_damaged', {}), 'refit_guard'));
  if (leftOn?.length === 0) found.push(finding('guard', 'good', because('nothing_left_on', {})));
  for (const thing of leftOn ?? []) {
    found.push(finding('guard', 'act', because('left_on', { thing }), 'take_things_off'));
  }
  return found;
}

/** Bark below the old line of the soil. */
export function judgeBark({ bark, barkPct = 0 }: Inspection): LookFinding[] {
  switch (bark) {
    case undefined:
      return [];
    case 'sound':
      return [finding('flare', 'good', because('bark_sound', {}))];
    case 'decayed':
      return [finding('flare', 'urgent', because('bark_decayed', { sharePct: barkPct }), 'refer_arborist')];
    case 'soft':
    case 'cracked': {
      const refer = barkPct >= barkReferPct;
      const reason = because('bark_unsound', { sharePct: barkPct, limitPct: barkReferPct });
      return [finding('flare', refer ? 'act' : 'watch', reason, refer ? 'refer_arborist' : 'watch_yearly_clear')];
    }
  }
}
