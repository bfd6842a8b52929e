import type { IsoDate } from '../calendar';
import { judgeAsBuilt, type AsBuilt, type AsBuiltJudgement } from '../day';
import {
  judgeInspection,
  type Inspection,
  type InspectionContext,
  type InspectionVerdict,
  type NextLook,
} from '../inspect';
import { groundGaps } from '../pit';
import { worstLevel, type Level } from '../reason';
import { bookedCare, lightPruning, type BookedBasis } from './booked-care';
import { contradictionDecisions } from './contradiction';
import { hazardDecisions } from './hazard';
import type { Decision, DecisionKind } from './decision';
import { establishment, signOffDecision, type Establishment } from './establishment';
import type { ChoiceFacts, VerdictFacts } from './kinds';
import { lookDecision, nextLookOf, toldSince } from './next-look';
import { knownLooks, openRemedies, type RemedyBasis } from './open-remedies';
import { because, type Reason } from './reasons';
import { arboristDecision, claimDecision, settledRemedies } from './settled';
import { ofKind, standing, type FieldRecord, type RecordOfKind } from './record';
import { basisRecords, spotBasis, type SpotBasis, type SpotContext } from './spot-basis';
import type { Stage } from './stage';

export interface JudgedPlanting {
  readonly record: RecordOfKind<'planting'>;
  readonly judgement: AsBuiltJudgement;
}

export interface JudgedInspection {
  readonly record: RecordOfKind<'inspection'>;
  readonly verdict: InspectionVerdict;
}

/** All that follows from the records of one spot and its tree. */
export interface SpotLife extends SpotBasis {
  readonly stage: Stage;
  /** The standing verdict on the place; one from before the spot was moved does not stand. */
  readonly verdict: VerdictFacts | null;
  readonly choice: ChoiceFacts | null;
  readonly planting: JudgedPlanting | null;
  /** Of the tree that stands, oldest first. */
  readonly inspections: readonly JudgedInspection[];
  /** Whether the tree that stands needs no more help, taken for all days to come; `null` before planting. */
  readonly establishment: Establishment | null;
  /** Roots at the collar as known by now: as last uncovered, less what was cut since. */
  readonly collar: CollarNow | null;
  readonly level: Level;
  readonly nextLook: NextLook | null;
  readonly decisions: readonly Decision[];
}

export interface CollarNow {
  readonly seenOn: IsoDate;
  readonly look: Inspection;
  readonly verdict: InspectionVerdict;
}

/** What was worked out of a spot in one context before: cut into periods, most of its life stands from one to the next. */
export interface LifeMemory {
  readonly looks: Map<FieldRecord, { readonly by: InspectionContext; readonly verdict: InspectionVerdict }>;
  footing: Footing | null;
}

/** The basis and the planting judged by it, with the records they rest on. */
interface Footing {
  readonly of: readonly FieldRecord[];
  readonly basis: SpotBasis;
  readonly planting: JudgedPlanting | null;
}

export const emptyMemory = (): LifeMemory => ({ looks: new Map(), footing: null });

/**
 * Works out where a spot stands from its records and its programme: what it goes by, each judgement, and the decisions
 * that wait. How a tree was planted is held against the practice it was planted under; how it is looked after, against
 * the programme's of today. Running it again on the same records gives the same answer.
 */
export function spotLife(
  records: readonly FieldRecord[],
  context: SpotContext,
  memory: LifeMemory = emptyMemory(),
): SpotLife {
  const kept = standing(records);
  const { basis, planting } = footingOf(kept, context, memory);
  const { care, stock } = basis;
  const verdict = standingVerdict(kept);
  const choice = ofKind(kept, 'choice').at(-1)?.facts ?? null;
  const inspections = judgedInspections(kept, { planting, basis, looks: memory.looks });
  const done = ofKind(kept, 'remedy');
  const known = planting ? knownOf(planting, { basis, inspections, kept, done }) : null;
  const remedies = known
    ? [...openRemedies(known), ...arboristDecision(kept, { practice: care, since: known.plantedOn })]
    : [];
  const collar = known && collarOf(known);
  const established = known && establishment(known, { kept, stock, practice: care, open: remedies });
  const nextLook =
    known &&
    nextLookOf({
      plantedOn: known.plantedOn,
      last: lastOf(inspections),
      rootsSeenOn: collar?.seenOn ?? null,
      done,
      practice: care,
      latDeg: context.latDeg,
      takenOver: planting?.record.facts.takenOver ?? null,
      told: toldSince(kept, known.plantedOn),
      signedOn: established?.signedOn ?? null,
    });
  const hazards = hazardDecisions(kept);
  const planned: BookedBasis | null = planting &&
    known && {
      ...{ kept, known, stock, care, planting: planting.record.facts, practice: basis.practice },
      ...{ assessment: basis.assessment, open: remedies, latDeg: context.latDeg },
      signedOn: established?.signedOn ?? null,
    };
  const decisions =
    known && established && planned
      ? [
          ...hazards,
          ...contradictionDecisions(kept),
          ...remedies,
          ...bookedCare(planned),
          ...(planned.planting.takenOver
            ? []
            : claimDecision(kept, { practice: care, plantedOn: known.plantedOn, open: remedies })),
          ...signOffDecision(established),
          ...lookDecision(nextLook),
          ...lightPruning(planned),
        ]
      : preparation(basis, { verdict, choice });
  const level = planting ? worstLevel([...hazards, ...remedies].map((decision) => decision.level)) : 'good';
  const stage = decisions[0]?.stage ?? (planting ? 'inspect' : 'ground');
  return {
    ...{ ...basis, stage, verdict, choice, planting, inspections, collar, level, nextLook, decisions },
    establishment: established,
  };
}

/** What a planting is judged by: the pit it was planned, with what was put back under it. */
export const judgePlanting = (built: AsBuilt, { plan, practice }: SpotBasis): AsBuiltJudgement =>
  judgeAsBuilt(built, plan?.kind === 'plan' ? plan : undefined, practice);

function footingOf(kept: readonly FieldRecord[], context: SpotContext, memory: LifeMemory): Footing {
  const of = basisRecords(kept);
  const before = memory.footing;
  if (before?.of.length === of.length && before.of.every((record, i) => record === of[i])) return before;
  const basis = spotBasis(of, context);
  memory.footing = { of, basis, planting: judgedPlanting(of, basis) };
  return memory.footing;
}

function judgedPlanting(kept: readonly FieldRecord[], basis: SpotBasis): JudgedPlanting | null {
  const record = ofKind(kept, 'planting').at(-1);
  return record ? { record, judgement: judgePlanting(record.facts, basis) } : null;
}

/** What a look at the tree of a spot is judged by. */
export const lookContext = ({ care, percolation, stock }: SpotBasis, plantedOn: IsoDate): InspectionContext => ({
  practice: care,
  plantedOn,
  percolation,
  caliperMm: stock?.caliperMm,
});

/** Looks from before the planting were at another tree, or at this one where it stood before. */
function judgedInspections(
  kept: readonly FieldRecord[],
  of: { planting: JudgedPlanting | null; basis: SpotBasis; looks: LifeMemory['looks'] },
): JudgedInspection[] {
  if (!of.planting) return [];
  const by = lookContext(of.basis, of.planting.record.facts.plantedOn);
  return ofKind(kept, 'inspection')
    .filter(({ facts }) => facts.inspectedOn >= by.plantedOn)
    .sort((a, b) => a.facts.inspectedOn.localeCompare(b.facts.inspectedOn))
    .map((record) => ({ record, verdict: verdictOf(record, by, of.looks) }));
}

function verdictOf(
  record: RecordOfKind<'inspection'>,
  by: InspectionContext,
  looks: LifeMemory['looks'],
): InspectionVerdict {
  const before = looks.get(record);
  const same =
    before?.by.practice === by.practice &&
    before.by.plantedOn === by.plantedOn &&
    before.by.percolation === by.percolation;
  if (before && same) return before.verdict;
  const verdict = judgeInspection(record.facts, by);
  looks.set(record, { by, verdict });
  return verdict;
}

function standingVerdict(kept: readonly FieldRecord[]): VerdictFacts | null {
  const verdict = ofKind(kept, 'verdict').at(-1);
  const moved = ofKind(kept, 'move').at(-1);
  return verdict && (!moved || kept.indexOf(moved) < kept.indexOf(verdict)) ? verdict.facts : null;
}

/**
 * What a spot waits for before it is planted: the first thing that is missing, in work order. Where the tree is
 * bought and measured the place was decided on, here or before Sombra.
 */
function preparation(
  { ground, assessment, stock, plan, drainage }: SpotBasis,
  { verdict, choice }: { verdict: VerdictFacts | null; choice: ChoiceFacts | null },
): Decision[] {
  const open = (kind: DecisionKind, stage: Stage, level: Level, reasons: readonly Reason[]): Decision[] => [
    { kind, stage, level, dueOn: null, remedy: null, because: reasons },
  ];
  const gaps = groundGaps(ground, drainage);
  if (gaps.length > 0) return open('measure_ground', 'ground', 'watch', gaps);
  if (!stock) {
    if (verdict?.verdict === 'not_here') return [];
    if (verdict?.verdict === 'move')
      return open('move_spot', 'ground', 'act', [because('verdict_move', { reason: verdict.reason })]);
    if (verdict?.verdict === 'plant_if') {
      return open('change_ground', 'ground', 'act', [because('verdict_plant_if', { reason: verdict.reason })]);
    }
    if (!verdict && !assessment) return open('measure_ground', 'ground', 'watch', [because('assessment_missing', {})]);
    if (!verdict) return open('settle_ground', 'ground', 'watch', [because('verdict_missing', {})]);
    if (!choice) return open('choose_species', 'match', 'watch', [because('species_missing', {})]);
    return open('measure_stock', 'stock', 'watch', [because('stock_missing', {})]);
  }
  if (plan?.kind === 'no_plan') return open('resolve_pit', 'pit', 'act', plan.because);
  return open('record_planting', 'day', 'watch', [because('ready_to_plant', {})]);
}

/** What is known of a planted tree by looks, and by what was seen as remedies were carried out since. */
function knownOf(
  planting: JudgedPlanting,
  of: {
    readonly basis: SpotBasis;
    readonly inspections: readonly JudgedInspection[];
    readonly kept: readonly FieldRecord[];
    readonly done: readonly RecordOfKind<'remedy'>[];
  },
): RemedyBasis {
  const { plantedOn } = planting.record.facts;
  const by = lookContext(of.basis, plantedOn);
  const looks = of.inspections.map(({ record, verdict }) => ({
    facts: record.facts,
    verdict,
    recordedAt: record.recordedAt,
  }));
  return {
    plantedOn,
    judgement: planting.judgement,
    looks: knownLooks(looks, of.done, by),
    rootsBefore: looks.findLast(({ facts }) => facts.circlingRoots !== null)?.facts.circlingRoots ?? null,
    done: of.done,
    settled: settledRemedies(of.kept),
    watered: ofKind(of.kept, 'watering').map(({ facts }) => facts.wateredOn),
    by,
  };
}

const lastOf = (inspections: readonly JudgedInspection[]) => {
  const last = inspections.at(-1);
  return last ? { on: last.record.facts.inspectedOn, verdict: last.verdict } : null;
};

function collarOf({ looks, done }: RemedyBasis): CollarNow | null {
  const look = looks.findLast(({ facts }) => facts.circlingRoots !== null);
  if (!look) return null;
  const cutOn = done.findLast(({ facts }) => facts.seen?.circlingRoots)?.facts.doneOn ?? '';
  const { inspectedOn } = look.facts;
  return { seenOn: cutOn > inspectedOn ? cutOn : inspectedOn, look: look.facts, verdict: look.verdict };
}
