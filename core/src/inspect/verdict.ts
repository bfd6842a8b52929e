import { addDaysTo, addMonthsTo, daysBetween, earliest, monthsBetween, type IsoDate } from '../calendar';
import { InvalidInputError, requireWithin } from '../errors';
import type { PercolationClass } from '../ground';
import { limits } from '../limits';
import { deepTreeRules, type Practice, type RemedyCode } from '../practice';
import { worstLevel, type Level } from '../reason';
import { caliperAfter } from '../stock';
import { clearingBowl, mulchLacks } from './earthwork';
import { finding, type LookFinding } from './finding';
import { because, type InspectReason } from './reasons';
import { judgeBark, judgeFixtures, judgeWholeTree } from './judge-tree';
import { judgeRoots } from './judge-roots';
import { worstWood, type Inspection } from './look';
import { requireRoots } from './root-arcs';

export interface NextLook {
  readonly on: IsoDate;
  readonly because: InspectReason;
}

export interface InspectionVerdict {
  /** The worst finding's; `null` where nothing was looked at. */
  readonly level: Level | null;
  /** Worst first. */
  readonly findings: readonly LookFinding[];
  /** Remedies asked for, worst first, each with its last day. */
  readonly remedies: readonly { readonly remedy: RemedyCode; readonly level: Level; readonly dueOn: IsoDate }[];
  readonly nextLook: NextLook;
}

export interface InspectionContext {
  readonly practice: Practice;
  readonly plantedOn: IsoDate;
  readonly percolation: PercolationClass | undefined;
  /** Of its trunk as it was planted; left out where nobody measured it. mm */
  readonly caliperMm?: number | undefined;
}

const severity: Readonly<Record<Level, number>> = { urgent: 0, act: 1, watch: 2, good: 3 };

/**
 * What a look at a tree means: a finding for each thing looked at, the remedy and its last day, and the
 * date of the next look. Limits are the practice's. A share of circumference is of the roots exposed.
 * @throws InvalidInputError for a measure outside `limits`, or a look before the planting.
 */
export function judgeInspection(look: Inspection, context: InspectionContext): InspectionVerdict {
  requireInspection(look);
  if (look.inspectedOn < context.plantedOn) {
    const message = `inspectedOn must not be before the planting on ${context.plantedOn}, got ${look.inspectedOn}`;
    throw new InvalidInputError(message, 'inspectedOn');
  }
  const months = monthsBetween(context.plantedOn, look.inspectedOn);
  const findings = [
    ...judgeWholeTree(look, { months, caliperMm: context.caliperMm && caliperAfter(context.caliperMm, months) }),
    ...judgeFixtures(look),
    judgeFlareDepth(look, context, months),
    look.flareBy === 'guessed' ? finding('flare', 'watch', because('flare_guessed', {})) : undefined,
    ...judgeBark(look),
    ...judgeMulch(look, context.practice),
    judgeStake(look, context.practice, months),
    judgeProbe(look, context.percolation),
    ...judgeRoots(look, context.practice),
  ]
    .filter((f) => f !== undefined)
    .sort((a, b) => severity[a.level] - severity[b.level]);
  // Worst first: what two findings ask for is asked once, by the day of the worse.
  const remedies = findings
    .filter(({ remedy, level }) => remedy !== 'none' && level !== 'good')
    .filter(({ remedy }, i, all) => all.findIndex((other) => other.remedy === remedy) === i)
    .map(({ remedy, level }) => ({
      remedy,
      level,
      dueOn: addDaysTo(look.inspectedOn, remedyDays(remedy, level, context.practice)),
    }));
  return {
    level: findings.length > 0 ? worstLevel(findings.map((f) => f.level)) : null,
    findings,
    remedies,
    nextLook: nextLook(
      look,
      context,
      remedies.map((r) => r.remedy),
    ),
  };
}

/** Whether what a look found leaves root cuts to a crew: never where it is for an arborist. */
export function cutByCrew(verdict: Pick<InspectionVerdict, 'findings'> | null): boolean {
  const asked = (verdict?.findings ?? []).filter(({ aspect }) => aspect === 'roots').map(({ remedy }) => remedy);
  return !asked.includes('refer_arborist') && asked.some((one) => one === 'cut_root' || one === 'stage_root_cuts');
}

/** Where a practice does not say: what cannot wait for the yearly look, though nothing is urgent about it. Days */
const usualDays: Partial<Readonly<Record<RemedyCode, number>>> = {
  probe_first: 3,
  protect_trunk: 60,
  clear_turf: 60,
  refit_guard: 60,
};

/** Days a remedy may take: its own time where the practice names one, else that of its level. */
export function remedyDays(remedy: RemedyCode, level: Level, practice: Practice): number {
  const { remedyDays: byLevel, remedyDaysOf } = practice.inspection;
  const own = remedyDaysOf[remedy];
  if (own !== undefined) return own;
  if (level === 'watch' && usualDays[remedy] !== undefined) return usualDays[remedy];
  return level === 'urgent' ? byLevel.urgent : level === 'act' ? byLevel.act : byLevel.watch;
}

/** First scheduled look after `after`, then one a year. */
export function scheduledLook(plantedOn: IsoDate, after: IsoDate, practice: Practice): NextLook {
  const early = earlyLook(plantedOn, after, practice);
  const schedule = practice.inspection.looksAfterMonths;
  for (const month of schedule) {
    const on = addMonthsTo(plantedOn, month);
    if (on > after) {
      const scheduled = { on, because: because('look_scheduled', { monthAfterPlanting: month }) };
      return early && early.on < on ? early : scheduled;
    }
  }
  if (early) return early;
  return { on: addMonthsTo(after, 12), because: because('look_yearly', {}) };
}

/** The next of the looks in the first weeks; `null` once they are over, or where the practice has none. */
function earlyLook(plantedOn: IsoDate, after: IsoDate, practice: Practice): NextLook | null {
  const { everyDays, weeks } = practice.inspection.firstLooks;
  if (everyDays < 1) return null;
  const gone = Math.max(0, daysBetween(plantedOn, after));
  const next = (Math.floor(gone / everyDays) + 1) * everyDays;
  if (next > weeks * 7) return null;
  return { on: addDaysTo(plantedOn, next), because: because('look_first_weeks', { everyDays, weeks }) };
}

function nextLook(look: Inspection, context: InspectionContext, remedies: readonly RemedyCode[]): NextLook {
  const scheduled = scheduledLook(context.plantedOn, look.inspectedOn, context.practice);
  const followUps = remedies.flatMap((remedy) => {
    const inDays = context.practice.inspection.followUpDays[remedy];
    return inDays === undefined ? [] : [{ remedy, inDays, on: addDaysTo(look.inspectedOn, inDays) }];
  });
  const first = earliest(followUps.map((f) => f.on));
  const followUp = followUps.find((f) => f.on === first);
  if (!followUp || followUp.on >= scheduled.on) return scheduled;
  return { on: followUp.on, because: because('look_follow_up', { inDays: followUp.inDays, remedy: followUp.remedy }) };
}

function requireInspection(look: Inspection): void {
  if (look.flareDepthMm !== null) requireWithin('flareDepthMm', look.flareDepthMm, limits.flareDepthMm);
  look.flareRoundMm?.forEach((depth, i) => requireWithin(`flareRoundMm[${i}]`, depth, limits.flareDepthMm));
  if (look.flareRoundMm && look.flareDepthMm !== Math.max(...look.flareRoundMm))
    throw new InvalidInputError('flareDepthMm must be the deepest of the points round the trunk', 'flareDepthMm');
  if (look.aliveAt && look.alive !== worstWood(look.aliveAt))
    throw new InvalidInputError('alive must be the worst of the heights wood was felt at', 'alive');
  if (look.mulchDepthMm !== null) requireWithin('mulchDepthMm', look.mulchDepthMm, limits.mulchDepthMm);
  if (look.diebackPct !== undefined) requireWithin('diebackPct', look.diebackPct, limits.sharePct);
  if (look.barkPct !== undefined) requireWithin('barkPct', look.barkPct, limits.sharePct);
  if (look.shootMm !== undefined) requireWithin('shootMm', look.shootMm, limits.shootMm);
  if (look.shootBeforeMm !== undefined) requireWithin('shootBeforeMm', look.shootBeforeMm, limits.shootMm);
  look.instruments?.forEach(({ value }, i) => requireWithin(`instruments[${i}].value`, value, limits.instrumentValue));
  requireRoots(look.circlingRoots ?? [], look.anchors);
}

function judgeFlareDepth(look: Inspection, context: InspectionContext, months: number): LookFinding | undefined {
  if (look.flareDepthMm === null) return undefined;
  const rules = context.practice.inspection;
  const depthMm = look.flareDepthMm;
  if (depthMm < -rules.exposedMm) {
    return finding('flare', 'act', because('flare_exposed', { aboveMm: -depthMm }), 'cover_roots');
  }
  const { clearFromMm, examineFromMm, liftOverMm } = rules.flare;
  if (depthMm <= 0) return finding('flare', 'good', because('flare_visible', { depthMm, limitMm: clearFromMm }));
  if (depthMm < clearFromMm) {
    return finding('flare', 'watch', because('flare_visible', { depthMm, limitMm: clearFromMm }), 'watch_yearly_clear');
  }
  if (depthMm < examineFromMm) {
    return finding(
      'flare',
      'act',
      because('flare_covered', { depthMm, limitMm: clearFromMm, ...bowlFacts(depthMm) }),
      'clear_to_flare',
    );
  }
  if (depthMm <= liftOverMm) {
    return finding(
      'flare',
      'act',
      because('flare_buried', { depthMm, limitMm: examineFromMm, ...bowlFacts(depthMm) }),
      afterExamining(look, context.practice),
    );
  }
  const replantMonths = rules.replantWithinMonths;
  const rule = deepTreeRules[rules.deepTree];
  const remedy = months < replantMonths ? rule.young : rule.old;
  const facts = { depthMm, limitMm: liftOverMm, monthsSincePlanting: months, replantMonths };
  return finding('flare', 'urgent', because('flare_deep', facts), remedy);
}

const bowlFacts = (depthMm: number): { bowlL: number; bowlMm: number } => {
  const { litres, widthMm } = clearingBowl(depthMm);
  return { bowlL: Math.ceil(litres), bowlMm: widthMm };
};

/** Roots come first; once they were looked at, the flare is cleared, unless they are for an arborist. */
function afterExamining(look: Inspection, practice: Practice): RemedyCode {
  if (look.circlingRoots === null) return 'examine_roots';
  const referred = judgeRoots(look, practice).some(({ remedy }) => remedy === 'refer_arborist');
  return referred ? 'refer_arborist' : 'clear_to_flare';
}

function judgeMulch(look: Inspection, practice: Practice): LookFinding[] {
  const found: LookFinding[] = [];
  const lies = look.mulchContact === 'heaped' || look.mulchContact === 'touching';
  if (look.mulchContact === 'heaped')
    found.push(finding('mulch', 'act', because('mulch_heaped', {}), 'pull_back_mulch'));
  if (look.mulchContact === 'touching')
    found.push(finding('mulch', 'act', because('mulch_touching', {}), 'pull_back_mulch'));
  if (look.turf === 'creeping') found.push(finding('mulch', 'watch', because('turf_creeping', {}), 'clear_turf'));
  if (look.turf === 'clear') found.push(finding('mulch', 'good', because('turf_clear', {})));
  const depthMm = look.mulchDepthMm;
  if (depthMm === null) return found;
  const { min: minMm, max: maxMm } = practice.mulch.acceptedDepthMm;
  const lacksL = mulchLacks(depthMm, practice);
  if (depthMm > maxMm)
    found.push(
      finding(
        'mulch',
        'act',
        because('mulch_thick', { depthMm, maxMm, offL: Math.max(0, Math.round(-lacksL)) }),
        'thin_mulch',
      ),
    );
  else if (depthMm < minMm) {
    // What lies heaped at the trunk is what the ring lacks: it is pulled back and spread, nothing is brought.
    const remedy = lies ? 'none' : 'top_up_mulch';
    found.push(
      finding(
        'mulch',
        'watch',
        because('mulch_thin', { depthMm, minMm, addL: Math.max(0, Math.round(lacksL)) }),
        remedy,
      ),
    );
  } else if (!lies) found.push(finding('mulch', 'good', because('mulch_in_range', { depthMm, minMm, maxMm })));
  return found;
}

function judgeStake(look: Inspection, practice: Practice, months: number): LookFinding | undefined {
  // A ball that moves has said already what is to be done; a stake is not taken from it because its time is over.
  if (look.rocks === 'ball_moves' && (look.stake === 'none' || look.stake === 'in_place' || look.stake === 'broken')) {
    return undefined;
  }
  const facts = { monthsSincePlanting: months, offAfterMonths: practice.staking.offAfterMonths };
  switch (look.stake) {
    case null:
      return undefined;
    case 'none':
      return finding('stake', 'good', because('stake_none', {}));
    case 'biting':
      return finding('stake', 'urgent', because('stake_biting', {}), 'free_tie_now');
    case 'tight':
      return finding('stake', 'act', because('stake_tight', {}), 'loosen_tie');
    case 'broken':
      return finding('stake', 'act', because('stake_broken', {}), 'mend_stake');
    case 'in_place':
      return months >= practice.staking.offAfterMonths
        ? finding('stake', 'act', because('stake_overdue', facts), 'remove_stake')
        : finding('stake', 'good', because('stake_in_place', facts));
  }
}

function judgeProbe(look: Inspection, percolation: PercolationClass | undefined): LookFinding | undefined {
  switch (look.probe) {
    case null:
      return judgeFinger(look);
    case 'dry':
      return finding('moisture', 'urgent', because('probe_dry', {}), 'water_now');
    case 'slightly_dry':
      return finding('moisture', 'watch', because('probe_slightly_dry', {}), 'water_soon');
    case 'moist':
      return finding('moisture', 'good', because('probe_good', {}));
    case 'wet':
      return finding('moisture', 'watch', because('probe_wet', {}), 'skip_water');
    case 'saturated':
      return finding(
        'moisture',
        'urgent',
        because('probe_saturated', { percolation: percolation ?? 'unknown' }),
        'find_drainage',
      );
  }
}

/** A finger reaches a knuckle deep: dry there asks for the probe soon, moist says nothing of the base of the ball. */
function judgeFinger({ finger }: Inspection): LookFinding | undefined {
  if (finger === undefined) return undefined;
  return finger === 'finger_dry'
    ? finding('moisture', 'act', because('finger_dry', {}), 'water_soon')
    : finding('moisture', 'good', because('finger_moist', {}));
}
