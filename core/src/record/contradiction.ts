import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import { probeClasses, type Inspection } from '../inspect';
import type { Decision } from './decision';
import { because, type Reason } from './reasons';
import { ofKind, standing, type FieldRecord, type RecordOfKind } from './record';

/** Two plantings of one tree this close to each other are one planting told twice. An estimate. Days */
const samePlantingDays = 14;
/** Two looks this close are at the same state of the tree. Days */
const sameLookDays = 1;
/** Depths of the flare further apart than this are not the same flare. An estimate. mm */
const flareDiffersMm = 50;
/** Of five classes of moisture, dry and wet lie this far apart. */
const probeDiffers = 3;
/** So long a contradiction may wait. Days */
const settleWithinDays = 7;

/** Two records that cannot both be so; both stand until somebody says. */
export interface Contradiction {
  readonly first: RecordOfKind<'planting'> | RecordOfKind<'inspection'>;
  readonly second: RecordOfKind<'planting'> | RecordOfKind<'inspection'>;
  readonly because: readonly Reason[];
}

/** In what two looks say opposite things; empty where they may both be so. */
function differing(one: Inspection, other: Inspection): Reason[] {
  const reasons: Reason[] = [];
  const [firstMm, secondMm] = [one.flareDepthMm, other.flareDepthMm];
  if (firstMm !== null && secondMm !== null && Math.abs(firstMm - secondMm) > flareDiffersMm) {
    reasons.push(because('looks_differ_flare', { firstMm, secondMm }));
  }
  if (one.probe !== null && other.probe !== null) {
    const apart = Math.abs(probeClasses.indexOf(one.probe) - probeClasses.indexOf(other.probe));
    if (apart >= probeDiffers) reasons.push(because('looks_differ_probe', { first: one.probe, second: other.probe }));
  }
  const stakes = [one.stake, other.stake];
  if (!stakes.includes(null) && stakes.filter((stake) => stake === 'none').length === 1) {
    reasons.push(because('looks_differ_stake', {}));
  }
  const mulch = [one.mulchContact, other.mulchContact];
  if (mulch.includes('clear') && mulch.includes('heaped')) reasons.push(because('looks_differ_mulch', {}));
  return reasons;
}

/** Whether something was done to the tree between two records: they then speak of two states of it. */
function doneBetween(kept: readonly FieldRecord[], first: FieldRecord, second: FieldRecord): boolean {
  const [from, to] = [Date.parse(first.recordedAt), Date.parse(second.recordedAt)].sort((a, b) => a - b);
  return ofKind(kept, 'remedy').some(({ recordedAt }) => {
    const at = Date.parse(recordedAt);
    return at >= (from ?? 0) && at <= (to ?? 0);
  });
}

/** Pairs that speak of days so close to each other; in order of their days, so that far ones are not compared. */
function closePairs<R>(records: readonly R[], dayOf: (record: R) => IsoDate, mostDays: number): [R, R][] {
  const sorted = [...records].sort((a, b) => dayOf(a).localeCompare(dayOf(b)));
  return sorted.flatMap((first, i) => {
    const later = sorted.slice(i + 1);
    const far = later.findIndex((second) => daysBetween(dayOf(first), dayOf(second)) > mostDays);
    return later.slice(0, far < 0 ? undefined : far).map((second): [R, R] => [first, second]);
  });
}

/**
 * Records of one spot that contradict each other: planted twice within two weeks, or opposite findings within a day with
 * nothing done in between. What somebody said may both stand, or took back, contradicts nothing.
 */
export const contradictions = (records: readonly FieldRecord[]): Contradiction[] => among(standing(records));

/** The same of records that stand already. */
function among(kept: readonly FieldRecord[]): Contradiction[] {
  const settled = new Set(ofKind(kept, 'both_stand').map(({ facts }) => pairKey(facts.first, facts.second)));
  const plantings = closePairs(ofKind(kept, 'planting'), plantedOn, samePlantingDays).map(
    ([first, second]): Contradiction => {
      const days = { firstOn: plantedOn(first), secondOn: plantedOn(second) };
      return { first, second, because: [because('planted_twice', days)] };
    },
  );
  const looks = closePairs(ofKind(kept, 'inspection'), inspectedOn, sameLookDays).map(
    ([first, second]): Contradiction => ({ first, second, because: differing(first.facts, second.facts) }),
  );
  return [...plantings, ...looks.filter((one) => one.because.length > 0)].filter(
    ({ first, second }) => !settled.has(pairKey(first.id, second.id)) && !doneBetween(kept, first, second),
  );
}

const plantedOn = ({ facts }: RecordOfKind<'planting'>): IsoDate => facts.plantedOn;
const inspectedOn = ({ facts }: RecordOfKind<'inspection'>): IsoDate => facts.inspectedOn;

const pairKey = (one: string, other: string): string => [one, other].sort().join(' ');

/** Each contradiction among records that stand, as something the desk decides; the later of a pair comes second. */
export const contradictionDecisions = (kept: readonly FieldRecord[]): Decision[] =>
  among(kept).map(({ second, because: reasons }) => ({
    kind: 'settle_contradiction',
    stage: 'inspect',
    level: 'act',
    dueOn: addDaysTo(second.kind === 'planting' ? plantedOn(second) : inspectedOn(second), settleWithinDays),
    remedy: null,
    because: reasons,
  }));
