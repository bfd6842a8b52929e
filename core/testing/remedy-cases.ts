import { defaultLookRules, lookValue, seenAsLook, type CirclingRoot, type RemedySeen } from '../src/inspect';
import { fieldDefault as byDefault, withChoice } from '../src/practice';
import { establishedOn, spotLife, type FieldRecord, type Reason, type RecordFacts } from '../src/record';
import type { RemedyCode } from '../src/practice';
import { ground, planting, rec, stock } from './water-cases';

/** Nothing is pruned by the calendar: what else is asked for stands by itself. */
const fieldDefault = withChoice(byDefault, 'pruning.structural', 'none');

export const pressing = (fromDeg: number, toDeg: number, diameterMm = 20): CirclingRoot => ({
  arc: { fromDeg, toDeg },
  diameterMm,
  touch: 'pressing',
});
export const lookOn = (inspectedOn: string, seen: RemedySeen): FieldRecord =>
  rec('inspection', seenAsLook(seen, inspectedOn));
export const doneOn = (on: string, remedy: RemedyCode, seen?: RemedySeen): FieldRecord =>
  rec('remedy', seen ? { remedy, doneOn: on, seen } : { remedy, doneOn: on });

const base = [ground(), stock(), planting()];
/** A tree planted on 1 May 2026, with what was found and done since. */
export const lived = (...more: readonly FieldRecord[]) => spotLife([...base, ...more], { practice: fieldDefault });

/** Reasons that remedies give as they are told and shown. */
export function remedyReasons(): Reason[] {
  const cut = [
    lookOn('2027-06-01', { circlingRoots: [pressing(0, 60), pressing(100, 160)] }),
    doneOn('2027-06-10', 'stage_root_cuts', { circlingRoots: [pressing(100, 160)] }),
  ];
  const clean: RemedySeen = {
    ...{ alive: 'green', signs: [], stake: 'none', rocks: 'firm', mulchContact: 'clear', flareDepthMm: 0 },
    ...{ shootMm: 300, shootBeforeMm: 300, probe: 'moist' },
  };
  const seen: readonly RemedySeen[] = [clean, { probe: 'dry' }, { stake: 'tight' }, { alive: 'green' }];
  const establishing = [
    ...seen.map((one) => lived(lookOn('2027-06-20', one))),
    lived(),
    spotLife([ground(), planting()], { practice: fieldDefault }),
  ];
  const lives = [lived(lookOn('2026-06-01', { stake: 'tight' }), doneOn('2026-06-03', 'loosen_tie')), lived(...cut)];
  const days = ['2026-06-20', '2029-01-01'];
  const lines = establishing.flatMap(({ establishment: one }) =>
    one ? days.flatMap((day) => establishedOn(one, day).map(({ because }) => because)) : [],
  );
  const doubts = (balance: 'dry' | 'drowned') =>
    lookValue(
      {
        ...{ found: 'unseen', dueOn: '2026-01-01', balance, cohort: { trees: 20, troubled: 9 } },
        storm: balance === 'dry' ? { on: '2026-06-01', gustMs: 24 } : { on: '2026-01-12', iceMm: 9 },
      },
      '2026-06-15',
      defaultLookRules,
    ).because;
  const answered = lived(
    lookOn('2026-11-01', { bark: 'decayed', barkPct: 20 }),
    rec('arborist_answer', { answeredOn: '2026-11-20', arborist: 'Ada Quill', advice: 'take_out', note: '' }),
  );
  const warranted = [lived(lookOn('2026-11-02', { stake: 'none' })), lived(lookOn('2026-11-02', { bark: 'decayed' }))];
  const built = { ...planting().facts, takenOver: { on: '2026-10-01', from: 'Dock Office' } };
  const over = spotLife([ground(), rec('planting', built as RecordFacts['planting'])], { practice: fieldDefault });
  const told = lived(rec('resident_told', { toldOn: '2026-11-02', words: 'It leans.' }));
  const spring = spotLife([...base, lookOn('2026-11-02', { stake: 'none' })], {
    practice: withChoice(fieldDefault, 'inspection.springFlareYears', 3),
    latDeg: 40,
  });
  const uncovered = lived(lookOn('2028-06-01', { stake: 'none' }));
  return [...lives, answered, ...warranted, uncovered, told, spring, over].flatMap(({ decisions, nextLook }) => [
    ...lines,
    ...doubts('dry'),
    ...doubts('drowned'),
    ...decisions.flatMap((decision) => decision.because),
    ...(nextLook ? [nextLook.because] : []),
  ]);
}
