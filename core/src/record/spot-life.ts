import { addDaysTo, addMonthsTo, type IsoDate } from '../calendar';
import { judgeAsBuilt, type AsBuiltJudgement } from '../day';
import { groundPercolationClass, testReadings, unknownGround, type Assessment, type GroundFacts } from '../ground';
import { judgeInspection, remedyDays, scheduledLook, type InspectionVerdict, type NextLook } from '../inspect';
import { groundGaps, pitPlan, type PitPlan, type PitResult } from '../pit';
import { practiceAt, type Practice } from '../practice';
import { because, worstLevel, type Level, type Reason, type RemedyCode } from '../reason';
import type { Stock } from '../stock';
import {
  ofKind,
  standing,
  type ChoiceFacts,
  type FieldRecord,
  type OverrideFacts,
  type RecordOfKind,
  type VerdictFacts,
} from './record';

export const stages = ['ground', 'match', 'stock', 'pit', 'day', 'water', 'inspect', 'results'] as const;
export type Stage = (typeof stages)[number];

export const decisionKinds = [
  'measure_ground',
  'settle_ground',
  'change_ground',
  'move_spot',
  'choose_species',
  'measure_stock',
  'resolve_pit',
  'record_planting',
  'do_remedy',
  'look',
] as const;
export type DecisionKind = (typeof decisionKinds)[number];

/** Something a person has to settle about one spot or its tree. */
export interface Decision {
  readonly kind: DecisionKind;
  readonly stage: Stage;
  readonly level: Level;
  /** Last day; `null` where only the season presses. */
  readonly dueOn: IsoDate | null;
  readonly remedy: RemedyCode | null;
  readonly because: readonly Reason[];
}

export interface JudgedPlanting {
  readonly record: RecordOfKind<'planting'>;
  readonly judgement: AsBuiltJudgement;
}

export interface JudgedInspection {
  readonly record: RecordOfKind<'inspection'>;
  readonly verdict: InspectionVerdict;
}

/** All that follows from the records of one spot and its tree. */
export interface SpotLife {
  readonly stage: Stage;
  /** The newest ground facts, with the newest percolation test. */
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  /** The standing verdict on the place; one from before the spot was moved does not stand. */
  readonly verdict: VerdictFacts | null;
  readonly choice: ChoiceFacts | null;
  /** The programme's practice with what was decided otherwise for this spot. */
  readonly practice: Practice;
  readonly overrides: readonly OverrideFacts[];
  readonly stock: Stock | null;
  readonly plan: PitResult | null;
  readonly planting: JudgedPlanting | null;
  /** Oldest first. */
  readonly inspections: readonly JudgedInspection[];
  readonly level: Level;
  readonly nextLook: NextLook | null;
  readonly decisions: readonly Decision[];
}

/**
 * Works out where a spot stands from its records alone, by one practice: the current facts, the plan, each
 * judgement, and the decisions that wait. Running it again on the same records gives the same answer.
 */
export function spotLife(records: readonly FieldRecord[], programmes: Practice): SpotLife {
  const kept = standing(records);
  const overrides = standingOverrides(kept);
  const practice = practiceAt(programmes, overrides);
  const ground = knownGround(kept);
  const assessment = ofKind(kept, 'assessment').at(-1)?.facts ?? null;
  const verdict = standingVerdict(kept);
  const choice = ofKind(kept, 'choice').at(-1)?.facts ?? null;
  const stock = ofKind(kept, 'stock').at(-1)?.facts ?? null;
  const plan = stock ? pitPlan({ ground, stock, practice }) : null;
  const goodPlan = plan?.kind === 'plan' ? plan : undefined;
  const planting = judgedPlanting(kept, goodPlan, practice);
  const inspections = judgedInspections(kept, planting, ground, practice);
  const done = ofKind(kept, 'remedy');
  const remedies = planting ? openRemedies(planting, inspections, done, practice) : [];
  const nextLook = planting ? lookAfter(planting, inspections, practice) : null;
  const decisions = planting
    ? [...remedies, ...stakeDecision(planting, { inspections, done, remedies, practice }), ...lookDecision(nextLook)]
    : preparation({ ground, assessment, verdict, choice, stock, plan });
  const level = planting ? worstLevel(remedies.map((decision) => decision.level)) : 'good';
  const stage = planting ? 'inspect' : (decisions[0]?.stage ?? 'ground');
  return {
    stage,
    ground,
    assessment,
    verdict,
    choice,
    practice,
    overrides,
    stock,
    plan,
    planting,
    inspections,
    level,
    nextLook,
    decisions,
  };
}

/** The last word on each choice. */
function standingOverrides(kept: readonly FieldRecord[]): OverrideFacts[] {
  const latest = new Map(ofKind(kept, 'override').map(({ facts }) => [facts.path, facts]));
  return [...latest.values()];
}

function judgedPlanting(
  kept: readonly FieldRecord[],
  plan: PitPlan | undefined,
  practice: Practice,
): JudgedPlanting | null {
  const record = ofKind(kept, 'planting').at(-1);
  return record ? { record, judgement: judgeAsBuilt(record.facts, plan, practice) } : null;
}

function judgedInspections(
  kept: readonly FieldRecord[],
  planting: JudgedPlanting | null,
  ground: GroundFacts,
  practice: Practice,
): JudgedInspection[] {
  if (!planting) return [];
  const context = {
    practice,
    plantedOn: planting.record.facts.plantedOn,
    percolation: groundPercolationClass(ground),
  };
  return ofKind(kept, 'inspection')
    .sort((a, b) => a.facts.inspectedOn.localeCompare(b.facts.inspectedOn))
    .map((record) => ({ record, verdict: judgeInspection(record.facts, context) }));
}

/** Ground facts with the readings of a percolation test that was run since they were written. */
function knownGround(kept: readonly FieldRecord[]): GroundFacts {
  const facts = ofKind(kept, 'ground').at(-1);
  const test = ofKind(kept, 'percolation').at(-1);
  const ground = facts?.facts ?? unknownGround;
  const newer = test && (!facts || kept.indexOf(test) > kept.indexOf(facts) || facts.facts.percolation.length === 0);
  return test && newer ? { ...ground, percolation: testReadings(test.facts) } : ground;
}

function standingVerdict(kept: readonly FieldRecord[]): VerdictFacts | null {
  const verdict = ofKind(kept, 'verdict').at(-1);
  const moved = ofKind(kept, 'move').at(-1);
  return verdict && (!moved || kept.indexOf(moved) < kept.indexOf(verdict)) ? verdict.facts : null;
}

interface Prepared {
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  readonly verdict: VerdictFacts | null;
  readonly choice: ChoiceFacts | null;
  readonly stock: Stock | null;
  readonly plan: PitResult | null;
}

/**
 * What a spot waits for before it is planted: the first thing that is missing, in work order. Where the tree is
 * bought and measured the place was decided on, here or before Sombra.
 */
function preparation({ ground, assessment, verdict, choice, stock, plan }: Prepared): Decision[] {
  const open = (kind: DecisionKind, stage: Stage, level: Level, reasons: readonly Reason[]): Decision[] => [
    { kind, stage, level, dueOn: null, remedy: null, because: reasons },
  ];
  const gaps = groundGaps(ground);
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

interface OpenFinding {
  readonly aspect: string;
  readonly foundOn: IsoDate;
  readonly decision: Decision;
}

/** For each thing looked at, the latest look rules; a remedy done since then closes its finding. */
function openRemedies(
  planting: JudgedPlanting,
  inspections: readonly JudgedInspection[],
  done: readonly RecordOfKind<'remedy'>[],
  practice: Practice,
): Decision[] {
  const latest = new Map<string, OpenFinding[]>();
  const plantedOn = planting.record.facts.plantedOn;
  latest.set(
    'as_built',
    planting.judgement.findings.map((f) => ({
      aspect: 'as_built',
      foundOn: plantedOn,
      decision: remedyDecision(f, addDaysTo(plantedOn, remedyDays(f.remedy, f.level, practice))),
    })),
  );
  for (const { record, verdict } of inspections) {
    const aspects = new Set(verdict.findings.map((f) => f.aspect));
    if (aspects.has('flare')) latest.delete('as_built');
    for (const aspect of aspects) {
      const found = verdict.findings.filter((f) => f.aspect === aspect);
      latest.set(
        aspect,
        found.map((f) => {
          const dueOn = verdict.remedies.find((r) => r.remedy === f.remedy)?.dueOn ?? record.facts.inspectedOn;
          return { aspect, foundOn: record.facts.inspectedOn, decision: remedyDecision(f, dueOn) };
        }),
      );
    }
  }
  return [...latest.values()]
    .flat()
    .filter(({ decision }) => decision.remedy !== 'none' && decision.level !== 'good')
    .filter(
      ({ decision, foundOn }) => !done.some((d) => d.facts.remedy === decision.remedy && d.facts.doneOn >= foundOn),
    )
    .map(({ decision }) => decision);
}

function remedyDecision(found: { level: Level; because: Reason; remedy: RemedyCode }, dueOn: IsoDate): Decision {
  return {
    kind: 'do_remedy',
    stage: 'inspect',
    level: found.level,
    dueOn,
    remedy: found.remedy,
    because: [found.because],
  };
}

function lookAfter(planting: JudgedPlanting, inspections: readonly JudgedInspection[], practice: Practice): NextLook {
  const last = inspections.at(-1);
  if (last) return last.verdict.nextLook;
  const { plantedOn } = planting.record.facts;
  return scheduledLook(plantedOn, plantedOn, practice);
}

/** Stakes that were set come off by themselves on the desk: the day is known from the planting on. */
function stakeDecision(
  planting: JudgedPlanting,
  known: {
    inspections: readonly JudgedInspection[];
    done: readonly RecordOfKind<'remedy'>[];
    remedies: readonly Decision[];
    practice: Practice;
  },
): Decision[] {
  const { plantedOn, stakes } = planting.record.facts;
  const offNow = known.inspections.at(-1)?.record.facts.stake === 'none';
  const settled =
    offNow ||
    known.done.some(({ facts }) => facts.remedy === 'remove_stake') ||
    known.remedies.some(({ remedy }) => remedy === 'remove_stake');
  if (!stakes || settled) return [];
  const months = known.practice.staking.offAfterMonths;
  const reasons = [because('stake_off', { months })];
  const dueOn = addMonthsTo(plantedOn, Math.round(months));
  return [{ kind: 'do_remedy', stage: 'inspect', level: 'watch', dueOn, remedy: 'remove_stake', because: reasons }];
}

function lookDecision(nextLook: NextLook | null): Decision[] {
  if (!nextLook) return [];
  return [
    { kind: 'look', stage: 'inspect', level: 'watch', dueOn: nextLook.on, remedy: null, because: [nextLook.because] },
  ];
}
