import { addDaysTo, addMonthsTo, type IsoDate } from '../calendar';
import {
  aspectOf,
  compressedSharePct,
  isPressing,
  judgeInspection,
  mostRoots,
  remedyDays,
  remedyProofs,
  seenAsLook,
  type Inspection,
  type InspectionContext,
  type InspectionVerdict,
  type LookAspect,
  type RemedySeen,
} from '../inspect';
import type { AsBuiltJudgement } from '../day';
import { givesWater, type RemedyCode } from '../practice';
import type { Level } from '../reason';
import type { Decision } from './decision';
import { because, type Reason } from './reasons';
import type { RecordOfKind } from './record';

type Done = RecordOfKind<'remedy'>;

/** A look with what was seen since, as remedies were carried out. */
interface KnownLook {
  readonly facts: Inspection;
  readonly verdict: InspectionVerdict;
  readonly recordedAt: string;
}

export interface RemedyBasis {
  /** How it was planted, and when. */
  readonly plantedOn: IsoDate;
  readonly judgement: AsBuiltJudgement;
  /** Oldest first. */
  readonly looks: readonly KnownLook[];
  /** Roots as the latest look that uncovered them found them, whatever was cut since. */
  readonly rootsBefore: Inspection['circlingRoots'];
  readonly done: readonly Done[];
  /** What somebody's word settled, and when. */
  readonly settled: readonly { readonly remedy: RemedyCode; readonly on: IsoDate }[];
  /** Days on which somebody poured. */
  readonly watered: readonly IsoDate[];
  readonly by: InspectionContext;
}

/** Cuts in the collar of a tree: the roots that are left wait for another season. */
export const rootCuts: readonly RemedyCode[] = ['cut_root', 'stage_root_cuts'];
/** Between two seasons of root cuts. Months */
const seasonMonths = 12;

export const remedyDecision = (
  found: { readonly level: Level; readonly because: Reason; readonly remedy: RemedyCode },
  dueOn: IsoDate,
): Decision => ({
  kind: 'do_remedy',
  stage: 'inspect',
  level: found.level,
  dueOn,
  remedy: found.remedy,
  because: [found.because],
});

/**
 * Whether what was seen shows that a remedy was carried out: it is not asked for again by what was seen. Where nothing
 * can show it, the word of whoever did it counts. `partly`: some of the roots that pressed are gone.
 */
export function shown(
  { facts: { remedy, seen, doneOn } }: Pick<Done, 'facts'>,
  by: InspectionContext,
  before: Inspection['circlingRoots'] = null,
): 'shown' | 'partly' | 'unshown' {
  const proof = remedyProofs[remedy];
  if (proof.kind === 'word') return 'shown';
  if (!seen || doneOn < by.plantedOn) return 'unshown';
  if (proof.kind === 'roots') {
    if (!seen.circlingRoots) return 'unshown';
    if (remedy === 'examine_roots' || !rootsAsked(seen, doneOn, by)) return 'shown';
    return before && pressedPct(seen.circlingRoots) < pressedPct(before) ? 'partly' : 'unshown';
  }
  if (proof.kind === 'measure' && seen[proof.fact] === undefined) return 'unshown';
  const { findings } = judgeInspection(seenAsLook(seen, doneOn), by);
  // Cleared each year, for good measure: the next look finds how much came since.
  const again = findings.some((one) => one.remedy === remedy && remedy !== 'watch_yearly_clear');
  return again ? 'unshown' : 'shown';
}

const rootsAsked = (seen: RemedySeen, doneOn: IsoDate, by: InspectionContext): boolean =>
  judgeInspection(seenAsLook(seen, doneOn), by).findings.some(
    ({ aspect, remedy }) => aspect === 'roots' && (rootCuts.includes(remedy) || remedy === 'refer_arborist'),
  );

const pressedPct = (roots: NonNullable<Inspection['circlingRoots']>): number =>
  compressedSharePct(roots.filter(isPressing).map(({ arc }) => arc));

/**
 * What is known of the tree by aspect: each look, with what was seen as remedies were carried out since laid over the
 * latest that looked at the same; what none had looked at stands as a look of its day.
 */
export function knownLooks(looks: readonly KnownLook[], done: readonly Done[], by: InspectionContext): KnownLook[] {
  const known = [...looks];
  for (const { facts, recordedAt } of done) {
    if (!facts.seen || facts.doneOn < by.plantedOn) continue;
    for (const [aspect, seen] of byAspect(facts.seen)) {
      const before = ({ facts: look, recordedAt: at }: KnownLook): boolean =>
        look.inspectedOn < facts.doneOn ||
        (look.inspectedOn === facts.doneOn && Date.parse(at) <= Date.parse(recordedAt));
      const at = known.findLastIndex(
        (look) => before(look) && look.verdict.findings.some((finding) => finding.aspect === aspect),
      );
      const under = known[at];
      const look = under ? laidOver(under.facts, seen) : seenAsLook(seen, facts.doneOn);
      const one = { facts: look, verdict: judgeInspection(look, by), recordedAt: under?.recordedAt ?? recordedAt };
      if (under) known[at] = one;
      else known.push(one);
    }
  }
  return known.sort((a, b) => a.facts.inspectedOn.localeCompare(b.facts.inspectedOn));
}

/** What holds the tree still does, whatever was cut; it is left out only where both are more than a collar is told of. */
function laidOver(look: Inspection, seen: RemedySeen): Inspection {
  // Points round the trunk tell of the flare as it was, heights of the wood as it was felt then.
  const under = {
    ...look,
    ...(seen.flareDepthMm === undefined ? {} : { flareRoundMm: undefined }),
    ...(seen.alive === undefined ? {} : { aliveAt: undefined }),
  };
  const all = { ...under, ...seen };
  const many = (all.circlingRoots ?? []).length + (all.anchors ?? []).length > mostRoots;
  return many ? { ...under, circlingRoots: null, anchors: undefined, ...seen } : all;
}

function byAspect(seen: RemedySeen): Map<LookAspect, RemedySeen> {
  const parts = new Map<LookAspect, RemedySeen>();
  for (const [fact, value] of Object.entries(seen)) {
    if (value === undefined || value === null) continue;
    const aspect = aspectOf[fact as keyof RemedySeen];
    parts.set(aspect, { ...parts.get(aspect), [fact]: value });
  }
  return parts;
}

interface OpenFinding {
  readonly aspect: string;
  readonly foundOn: IsoDate;
  readonly decision: Decision;
}

/**
 * For each thing looked at, the latest look rules; a remedy done since closes its finding where something shows it, and
 * stays open, less pressing, where only somebody's word does.
 */
export function openRemedies(basis: RemedyBasis): Decision[] {
  const { by, done } = basis;
  return [...latestFindings(basis).values()]
    .flat()
    .filter(({ decision }) => decision.remedy !== 'none' && decision.level !== 'good')
    .filter(
      ({ decision, foundOn }) =>
        !givesWater.some((one) => one === decision.remedy) || !basis.watered.some((day) => day >= foundOn),
    )
    .flatMap((found) => examined(found, basis.looks))
    .flatMap(({ decision, foundOn, aspect }) => {
      if (basis.settled.some(({ remedy, on }) => remedy === decision.remedy && on >= foundOn)) return [];
      const told = done.filter(({ facts }) => facts.doneOn >= foundOn);
      if (aspect === 'roots') {
        const cut = told.findLast((one) => rootCuts.includes(one.facts.remedy) && one.facts.seen?.circlingRoots);
        const partly = cut && shown(cut, by, basis.rootsBefore) === 'partly';
        if (partly && decision.remedy && rootCuts.includes(decision.remedy)) return [nextSeason(decision, cut)];
      }
      const own = told.filter(({ facts }) => facts.remedy === decision.remedy);
      if (own.some((one) => shown(one, by, basis.rootsBefore) === 'shown')) return [];
      const word = own.findLast(({ facts }) => facts.seen === undefined);
      return [word ? unshown(decision, word.facts.doneOn, by) : decision];
    });
}

/** Roots that were uncovered since are examined: the flare is cleared, unless they are for an arborist by themselves. */
function examined(found: OpenFinding, looks: readonly KnownLook[]): OpenFinding[] {
  if (found.decision.remedy !== 'examine_roots') return [found];
  const roots = looks.findLast(({ facts }) => facts.circlingRoots !== null && facts.inspectedOn >= found.foundOn);
  if (!roots) return [found];
  const referred = roots.verdict.findings.some((one) => one.aspect === 'roots' && one.remedy === 'refer_arborist');
  return referred ? [] : [{ ...found, decision: { ...found.decision, remedy: 'clear_to_flare' } }];
}

function latestFindings(basis: RemedyBasis): Map<string, OpenFinding[]> {
  const { plantedOn, by } = basis;
  const latest = new Map<string, OpenFinding[]>();
  latest.set(
    'as_built',
    basis.judgement.findings.map((f) => ({
      aspect: f.aspect,
      foundOn: plantedOn,
      decision: remedyDecision(f, addDaysTo(plantedOn, remedyDays(f.remedy, f.level, by.practice))),
    })),
  );
  for (const { facts, verdict } of basis.looks) {
    const aspects = new Set<string>(verdict.findings.map((f) => f.aspect));
    const built = aspects.has('flare') ? [] : (latest.get('as_built') ?? []);
    latest.set(
      'as_built',
      built.filter(({ aspect }) => !aspects.has(aspect)),
    );
    for (const aspect of aspects) {
      const found = verdict.findings.filter((f) => f.aspect === aspect);
      latest.set(
        aspect,
        found.map((f) => {
          const dueOn = verdict.remedies.find((r) => r.remedy === f.remedy)?.dueOn ?? facts.inspectedOn;
          return { aspect, foundOn: facts.inspectedOn, decision: remedyDecision(f, dueOn) };
        }),
      );
    }
  }
  return latest;
}

/** What is left of roots after a season's cuts waits for the next: a tree is not cut at twice in one. */
function nextSeason(decision: Decision, { facts: { doneOn } }: Done): Decision {
  return {
    ...decision,
    level: 'watch',
    dueOn: addMonthsTo(doneOn, seasonMonths),
    because: [...decision.because, because('roots_next_season', { cutOn: doneOn, months: seasonMonths })],
  };
}

/** A remedy booked from the planting on, as it stands by what was told since: open, open but told as done, or closed. */
export function booked(decision: Decision, done: readonly Done[], by: InspectionContext): Decision[] {
  const told = done.filter(({ facts }) => facts.remedy === decision.remedy && facts.doneOn >= by.plantedOn);
  if (told.some((one) => shown(one, by) === 'shown')) return [];
  const word = told.findLast(({ facts }) => facts.seen === undefined);
  return [word ? unshown(decision, word.facts.doneOn, by) : decision];
}

const lesser: Readonly<Record<Level, Level>> = { urgent: 'act', act: 'watch', watch: 'watch', good: 'good' };

/** Somebody says it was done, and nothing shows it yet: it is measured within the days a remedy may take. */
export function unshown(
  decision: Decision,
  doneOn: IsoDate,
  { practice }: Pick<InspectionContext, 'practice'>,
): Decision {
  const showBy = addDaysTo(doneOn, practice.inspection.remedyDays.act);
  return {
    ...decision,
    level: lesser[decision.level],
    dueOn: decision.dueOn !== null && decision.dueOn > showBy ? decision.dueOn : showBy,
    because: [...decision.because, because('remedy_unshown', { doneOn })],
  };
}
