import { addMonthsTo, latest, monthsBetween, type IsoDate } from '../calendar';
import type { Assessment } from '../ground';
import { guardOf, stemRootsKept, surplusLeft } from '../pit';
import { guardRules, structuralPrunings, stubUses, type Practice, type RemedyCode } from '../practice';
import { dayInYear } from '../season';
import { caliperAfter, type Stock } from '../stock';
import type { Decision } from './decision';
import { booked, remedyDecision, shown, type RemedyBasis } from './open-remedies';
import { because, type Reason } from './reasons';
import { ofKind, type FieldRecord, type RecordOfKind } from './record';

export interface BookedBasis {
  readonly kept: readonly FieldRecord[];
  readonly planting: RecordOfKind<'planting'>['facts'];
  readonly stock: Stock | null;
  readonly assessment: Assessment | null;
  /** The one it was planted under. */
  readonly practice: Practice;
  /** The one it is looked after by. */
  readonly care: Practice;
  readonly known: RemedyBasis;
  /** What looks and the planting itself ask for: nothing of it is booked twice. */
  readonly open: readonly Decision[];
  readonly signedOn: IsoDate | null;
  readonly latDeg: number | undefined;
}

/** What a practice does to a planted tree at its time, whatever is found: the desk knows each day from the planting on. */
export function bookedCare(basis: BookedBasis): Decision[] {
  const found = [
    stakeOff(basis),
    surplusCleared(basis),
    stemRootsCut(basis),
    stubsCut(basis),
    guardFitted(basis),
  ].flat();
  return [...found.filter(({ remedy }) => !basis.open.some((one) => one.remedy === remedy)), ...deviceOff(basis)];
}

const book = (
  { known: { done, by } }: BookedBasis,
  found: { readonly remedy: RemedyCode; readonly dueOn: IsoDate; readonly because: Reason },
): Decision[] => booked(remedyDecision({ level: 'watch', ...found }, found.dueOn), done, by);

const after = ({ planting }: BookedBasis, months: number): IsoDate =>
  addMonthsTo(planting.plantedOn, Math.round(months));

function stakeOff(basis: BookedBasis): Decision[] {
  const offNow = basis.known.looks.findLast(({ facts }) => facts.stake !== null)?.facts.stake === 'none';
  if (!basis.planting.stakes || offNow) return [];
  const months = basis.practice.staking.offAfterMonths;
  return book(basis, {
    remedy: 'remove_stake',
    dueOn: after(basis, months),
    because: because('stake_off', { months }),
  });
}

/** Surplus that stayed on the ball at planting. */
function surplusCleared(basis: BookedBasis): Decision[] {
  const leftMm = basis.stock ? surplusLeft(basis.stock, basis.practice) : 0;
  if (leftMm <= 0) return [];
  const months = basis.practice.roots.clearLaterMonths;
  const reason = because('clear_later', { leftMm, months });
  return book(basis, { remedy: 'clear_to_flare', dueOn: after(basis, months), because: reason });
}

function stemRootsCut(basis: BookedBasis): Decision[] {
  const kept = basis.stock && stemRootsKept(basis.stock, basis.practice);
  if (!kept) return [];
  const months = basis.practice.roots.clearLaterMonths;
  const reason = because('stem_roots_later', { ...kept, months });
  return book(basis, { remedy: 'cut_stem_roots', dueOn: after(basis, months), because: reason });
}

function stubsCut(basis: BookedBasis): Decision[] {
  const { laterMonths } = stubUses[basis.practice.pruning.stubs];
  if (!basis.stock || laterMonths === null) return [];
  const reason = because('stubs_later', { months: laterMonths });
  return book(basis, { remedy: 'cut_stubs', dueOn: after(basis, laterMonths), because: reason });
}

/** Against antlers a guard is on from the end of summer to late winter, north of the tropics. `MM-DD` */
const [onBy, offBy] = ['09-01', '03-01'] as const;

/**
 * When a guard is next fitted anew, put on or taken off; nothing where there is none, or the trunk will have outgrown it.
 * One that is on only in its season goes by what was last seen of it, and else by its having gone on at planting.
 */
function guardFitted(basis: BookedBasis): Decision[] {
  const { stock, practice, planting, assessment } = basis;
  if (!stock) return [];
  const rubbed = (assessment?.rubbedBy ?? []).length > 0;
  if (!guardOf(practice, { rubbed, caliperMm: stock.caliperMm }).needed) return [];
  const thickOn = (day: IsoDate) => caliperAfter(stock.caliperMm, monthsBetween(planting.plantedOn, day));
  const seasonOf = guardRules[practice.guard].season === null ? null : dayInYear(basis.latDeg);
  if (seasonOf) {
    const { on, since } = guardSeen(basis);
    const dueOn = seasonOf(on ? offBy : onBy, since);
    const facts = { caliperMm: thickOn(dueOn), untilMm: practice.guardUntilMm };
    if (!on && facts.caliperMm >= facts.untilMm) return [];
    const found = on
      ? ({ level: 'watch', remedy: 'take_guard_off', because: because('guard_off', {}) } as const)
      : ({ level: 'watch', remedy: 'refit_guard', because: because('guard_on', facts) } as const);
    // What was seen of it has moved its day; of what was told since, only somebody's word is left.
    const told = basis.known.done.filter(({ facts: one }) => one.doneOn >= since && one.seen === undefined);
    return booked(remedyDecision(found, dueOn), told, basis.known.by);
  }
  const { done, by } = basis.known;
  const fittings = done.filter(({ facts }) => facts.remedy === 'refit_guard');
  const fitted =
    latest(fittings.filter((one) => shown(one, by) === 'shown').map(({ facts }) => facts.doneOn)) ?? planting.plantedOn;
  const dueOn = addMonthsTo(fitted, 12);
  const facts = { caliperMm: thickOn(dueOn), untilMm: practice.guardUntilMm };
  if (facts.caliperMm >= facts.untilMm) return [];
  // A fitting that something shows has moved the next one on; of those since, only somebody's word is left.
  const since = fittings.filter(({ facts: one }) => one.doneOn >= fitted && one.seen === undefined);
  const decision = remedyDecision(
    { level: 'watch', remedy: 'refit_guard', because: because('guard_refit', facts) },
    dueOn,
  );
  return booked(decision, since, by);
}

function guardSeen({ kept, planting }: BookedBasis): { readonly on: boolean; readonly since: IsoDate } {
  const looks = ofKind(kept, 'inspection').map(({ facts }) => ({ guard: facts.guard, on: facts.inspectedOn }));
  const remedies = ofKind(kept, 'remedy').map(({ facts }) => ({ guard: facts.seen?.guard, on: facts.doneOn }));
  const last = [...looks, ...remedies]
    .filter(({ guard, on }) => guard !== undefined && on >= planting.plantedOn)
    .sort((a, b) => a.on.localeCompare(b.on))
    .at(-1);
  return { on: (last?.guard ?? 'fits') !== 'none', since: last?.on ?? planting.plantedOn };
}

/** Light work on leader and temporary branches while the tree is young: again so long after it was last done. */
export function lightPruning(basis: BookedBasis): Decision[] {
  const rule = basis.care.pruning.structural;
  const times = structuralPrunings[rule].times;
  if (!times || basis.signedOn !== null || basis.open.some(({ remedy }) => remedy === 'prune_structure')) return [];
  const { plantedOn } = basis.planting;
  const prunedOn = latest(
    basis.known.done
      .filter(({ facts }) => facts.remedy === 'prune_structure' && facts.doneOn >= plantedOn)
      .map(({ facts }) => facts.doneOn),
  );
  const dueOn = prunedOn ? addMonthsTo(prunedOn, times.everyMonths) : addMonthsTo(plantedOn, times.fromMonths);
  const reason = because('prune_young', { rule, ...times, prunedOn });
  // Nothing is lost by waiting.
  return [remedyDecision({ level: 'good', remedy: 'prune_structure', because: reason }, dueOn)];
}

/** A device at the tree comes off by itself on the desk: the day is known from when it was set. */
function deviceOff({ kept, planting: { plantedOn }, known: { done } }: BookedBasis): Decision[] {
  const set = ofKind(kept, 'device')
    .map(({ facts }) => facts)
    .filter(({ setOn }) => setOn >= plantedOn)
    .sort((a, b) => a.setOn.localeCompare(b.setOn))
    .at(-1);
  if (!set || set.offBy === null) return [];
  const { setOn, offBy: dueOn, deviceName } = set;
  if (done.some(({ facts }) => facts.remedy === 'take_off_device' && facts.doneOn >= setOn)) return [];
  const reason = because('device_off', { name: deviceName, since: setOn });
  return [remedyDecision({ level: 'watch', remedy: 'take_off_device', because: reason }, dueOn)];
}
