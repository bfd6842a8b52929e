import { sayReason } from '../wording';
import { lived, lookOn } from '../../testing/remedy-cases';
import type { FieldRecord } from './record';
import { rec } from '../../testing/water-cases';

const told = (toldOn: string, words = 'It leans over the path.') => rec('resident_told', { toldOn, words });

describe('what a resident told', () => {
  it('is a look that is due on the day it was told, whatever the calendar says, and never a finding', () => {
    const before = lived(lookOn('2026-11-01', { stake: 'none' }));
    const after = lived(lookOn('2026-11-01', { stake: 'none' }), told('2026-11-20'));
    expect(before.nextLook?.on).not.toBe('2026-11-20');
    expect(after.nextLook?.on).toBe('2026-11-20');
    expect(after.nextLook && sayReason(after.nextLook.because, 'metric')).toBe(
      'A resident told on 20 Nov 2026, “It leans over the path.”.',
    );
    const [findings, found] = [before, after].map(({ inspections }) => inspections.map(({ verdict }) => verdict));
    expect(found).toEqual(findings);
    expect(after.decisions.filter(({ kind }) => kind === 'do_remedy')).toEqual(
      before.decisions.filter(({ kind }) => kind === 'do_remedy'),
    );
  });

  it('is done by a look on that day or later, not by one before it; the newest word counts', () => {
    const since = (...records: readonly FieldRecord[]) => lived(...records).nextLook?.because.code;
    expect(since(told('2026-11-20'), lookOn('2026-11-20', { stake: 'none' }))).not.toBe('look_told');
    expect(since(told('2026-11-20'), lookOn('2026-12-04', { stake: 'none' }))).not.toBe('look_told');
    expect(since(lookOn('2026-11-19', { stake: 'none' }), told('2026-11-20'))).toBe('look_told');
    expect(since(lookOn('2026-11-20', { stake: 'none' }), told('2026-11-20'))).toBe('look_told');
    expect(lived(told('2026-11-20'), told('2026-11-22', 'It fell.')).nextLook?.on).toBe('2026-11-22');
  });

  it('taken back is not told', () => {
    const word = told('2026-11-20');
    const back = { ...rec('retraction', { reason: 'another tree' }), supersedes: word.id };
    expect(lived(word, back).nextLook?.because.code).not.toBe('look_told');
  });
});
