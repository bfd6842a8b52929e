import { addDaysTo, addMonthsTo, type IsoDate } from '../calendar';
import { scheduledLook, type InspectionVerdict, type NextLook } from '../inspect';
import type { Practice, RemedyCode } from '../practice';
import type { Decision } from './decision';
import { rootCuts } from './open-remedies';
import { dayInYear } from '../season';
import { because } from './reasons';
import { warrantyEnds } from './settled';
import { ofKind, type FieldRecord, type RecordOfKind } from './record';

/** What is cut or lifted is looked at again so long after it was done. */
const lookedAfter: readonly RemedyCode[] = [...rootCuts, 'lift_and_replant', 'collar_excavation'];

export interface LookBasis {
  readonly plantedOn: IsoDate;
  readonly last: { readonly on: IsoDate; readonly verdict: InspectionVerdict } | null;
  /** When roots at the collar were last uncovered. */
  readonly rootsSeenOn: IsoDate | null;
  readonly done: readonly RecordOfKind<'remedy'>[];
  readonly practice: Practice;
  /** Of the programme: which half of the year is spring. */
  readonly latDeg: number | undefined;
  /** Since when a tree that others planted is in this programme's care. */
  readonly takenOver: { readonly on: IsoDate; readonly from: string } | null;
  /** What a resident told last, where nobody has looked since. */
  readonly told: { readonly toldOn: IsoDate; readonly words: string } | null;
  /** Since then nobody looks by the calendar any more; only after what was found or done later. */
  readonly signedOn: IsoDate | null;
}

/** When a planted tree is looked at next, and why; `null` for one that is established and asks for nothing. */
export function nextLookOf(basis: LookBasis): NextLook | null {
  const { told } = basis;
  // Whoever lives there sees it every day: looked at at once, whatever the calendar says.
  if (told) return { on: told.toldOn, because: because('look_told', { on: told.toldOn, words: told.words }) };
  return handOver(basis) ?? unaskedLook(basis);
}

/** What others planted is looked at whole as it is taken over: what they knew of it, nobody here does. */
function handOver({ takenOver, last, signedOn }: LookBasis): NextLook | null {
  if (!takenOver || signedOn !== null || (last && last.on >= takenOver.on)) return null;
  return { on: takenOver.on, because: because('look_hand_over', takenOver) };
}

function unaskedLook(basis: LookBasis): NextLook | null {
  const { last, plantedOn, practice, signedOn } = basis;
  const planned = last?.verdict.nextLook ?? scheduledLook(plantedOn, plantedOn, practice);
  const next = signedOn !== null && !followsFinding(planned, last?.on ?? null, signedOn) ? null : planned;
  const watched = afterRemedy(basis);
  if (!watched || !next) return watched ?? (next && asBooked(next, basis));
  // The look that was to follow the finding waits for the same thing.
  const same =
    next.because.code === 'look_follow_up' &&
    watched.because.code === 'look_after_remedy' &&
    next.because.facts.remedy === watched.because.facts.remedy;
  return same || watched.on < next.on ? watched : asBooked(next, basis);
}

/** What else a look by the calendar waits for: the end of the warranty, roots nobody saw for long, the spring. */
const asBooked = (next: NextLook, basis: LookBasis): NextLook =>
  inSpring(withRoots(beforeWarranty(next, basis), basis), basis);

/** When winter has left on a flare what it leaves, north of the tropics. `MM-DD` */
const springDay = '03-15';

/** Each spring while it is young the flare is cleared, unless somebody has just looked. */
function inSpring(next: NextLook, { plantedOn, last, practice, latDeg }: LookBasis): NextLook {
  const years = Math.round(practice.inspection.springFlareYears);
  const springAfter = dayInYear(latDeg);
  if (years < 1 || !springAfter || next.because.code === 'look_follow_up') return next;
  const on = springAfter(springDay, addDaysTo(last?.on ?? plantedOn, seenOfLateDays));
  const young = on <= addMonthsTo(plantedOn, years * 12);
  return young && on < next.on ? { on, because: because('look_spring_flare', { years }) } : next;
}

/** So long before a warranty ends, and no other look within the weeks before. Days */
const [beforeEndDays, seenOfLateDays, afterEndDays] = [30, 45, 45] as const;

/** A look that would come as the warranty ends, or soon after, comes before. */
function beforeWarranty(next: NextLook, { plantedOn, last, practice, takenOver }: LookBasis): NextLook {
  // Whoever sold a tree to others owes nothing here.
  const endsOn = takenOver ? null : warrantyEnds(plantedOn, practice);
  if (endsOn === null || next.because.code === 'look_follow_up') return next;
  const on = addDaysTo(endsOn, -beforeEndDays);
  const since = last?.on ?? plantedOn;
  const late = next.on > on && next.on <= addDaysTo(endsOn, afterEndDays);
  return late && since < addDaysTo(on, -seenOfLateDays) ? { on, because: because('look_warranty', { endsOn }) } : next;
}

/** A yearly look from when its first roots were not seen for as long as the practice leaves them covered uncovers them. */
function withRoots(next: NextLook, { plantedOn, rootsSeenOn, practice }: LookBasis): NextLook {
  const years = Math.round(practice.inspection.rootsEveryYears);
  if (years < 1 || next.because.code !== 'look_yearly') return next;
  const due = addMonthsTo(rootsSeenOn ?? plantedOn, years * 12);
  return due <= next.on ? { on: next.on, because: because('look_roots', { years }) } : next;
}

const followsFinding = ({ because: { code } }: NextLook, foundOn: IsoDate | null, signedOn: IsoDate): boolean =>
  code === 'look_follow_up' && foundOn !== null && foundOn > signedOn;

function afterRemedy({ last, plantedOn, done, practice }: LookBasis): NextLook | null {
  const since = last?.on ?? plantedOn;
  const watched = done.findLast(({ facts }) => lookedAfter.includes(facts.remedy) && facts.doneOn >= since);
  const inDays = watched && practice.inspection.followUpDays[watched.facts.remedy];
  if (!watched || inDays === undefined) return null;
  const { remedy, doneOn } = watched.facts;
  return { on: addDaysTo(doneOn, inDays), because: because('look_after_remedy', { inDays, remedy, doneOn }) };
}

export function lookDecision(nextLook: NextLook | null): Decision[] {
  if (!nextLook) return [];
  return [
    { kind: 'look', stage: 'inspect', level: 'watch', dueOn: nextLook.on, remedy: null, because: [nextLook.because] },
  ];
}

/** What a resident told last of this tree, where nobody has looked on that day or since. */
export function toldSince(kept: readonly FieldRecord[], plantedOn: IsoDate): LookBasis['told'] {
  const told = ofKind(kept, 'resident_told').at(-1)?.facts;
  if (!told || told.toldOn < plantedOn) return null;
  const at = kept.findLastIndex(({ kind }) => kind === 'resident_told');
  const looked = kept.some((one, i) => {
    if (one.kind !== 'inspection') return false;
    const { inspectedOn } = one.facts;
    return inspectedOn > told.toldOn || (inspectedOn === told.toldOn && i > at);
  });
  return looked ? null : told;
}
