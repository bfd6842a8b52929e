import { fieldDefault, withChoice, type Practice, type RemedyCode } from '../practice';
import { doneOn, lookOn } from '../../testing/remedy-cases';
import { ground, planting, rec, stock } from '../../testing/water-cases';
import type { FieldRecord } from './record';
import { spotLife } from './spot-life';

const deer = withChoice(fieldDefault, 'guard', 'deer_season');
const booked = (
  remedies: readonly RemedyCode[],
  of: { practice: Practice; latDeg?: number; more?: readonly FieldRecord[] },
) =>
  spotLife([ground(), stock(), planting(), ...(of.more ?? [])], { practice: of.practice, latDeg: of.latDeg })
    .decisions.filter(({ remedy }) => remedy !== null && remedies.includes(remedy))
    .map(({ remedy, dueOn, level }) => [remedy, dueOn, level]);
const guards = (latDeg: number, ...more: FieldRecord[]) =>
  booked(['take_guard_off', 'refit_guard'], { practice: deer, latDeg, more });

describe('a guard that is on only while antlers are rubbed', () => {
  it('comes off by late winter, and goes on by autumn', () => {
    expect(guards(41)).toEqual([['take_guard_off', '2027-03-01', 'watch']]);
    const off = doneOn('2027-02-20', 'take_guard_off', { guard: 'none' });
    expect(guards(41, off)).toEqual([['refit_guard', '2027-09-01', 'watch']]);
    const on = doneOn('2027-08-20', 'refit_guard', { guard: 'fits' });
    expect(guards(41, off, on)).toEqual([['take_guard_off', '2028-03-01', 'watch']]);
  });

  it('goes by what a look found, half a year later in the south, and by the year near the equator', () => {
    expect(guards(41, lookOn('2026-06-10', { guard: 'none' }))).toEqual([['refit_guard', '2026-09-01', 'watch']]);
    expect(guards(-34)).toEqual([['take_guard_off', '2026-09-01', 'watch']]);
    expect(guards(2)).toEqual([['refit_guard', '2027-05-01', 'watch']]);
  });

  it('stays open, to be shown, where only somebody’s word says that it is off', () => {
    const told = spotLife([ground(), stock(), planting(), doneOn('2027-02-20', 'take_guard_off')], {
      practice: deer,
      latDeg: 41,
    }).decisions.find(({ remedy }) => remedy === 'take_guard_off');
    expect(told?.because.map(({ code }) => code)).toEqual(['guard_off', 'remedy_unshown']);
  });

  it('is asked for once where a look finds it tight', () => {
    const tight = guards(41, lookOn('2026-06-10', { guard: 'tight' }));
    expect(tight.filter(([remedy]) => remedy === 'refit_guard')).toHaveLength(1);
  });
});

describe('light pruning while a tree is young', () => {
  const pruned = (rule: string, ...more: FieldRecord[]) =>
    booked(['prune_structure'], { practice: withChoice(fieldDefault, 'pruning.structural', rule), more });

  it('is booked by the rule of the practice, and again a year after it was done', () => {
    expect(pruned('yearly_light')).toEqual([['prune_structure', '2028-05-01', 'good']]);
    expect(pruned('raise')).toEqual([['prune_structure', '2027-05-01', 'good']]);
    expect(pruned('none')).toEqual([]);
    const done = doneOn('2028-02-10', 'prune_structure');
    expect(pruned('yearly_light', done)).toEqual([['prune_structure', '2029-02-10', 'good']]);
  });

  it('is asked for once where the leader was lost, and no more once the tree is signed off', () => {
    expect(pruned('yearly_light', lookOn('2026-06-10', { signs: ['leader_lost'] }))).toHaveLength(1);
    const signed = rec('signed_off', { signedOn: '2029-01-01', reason: '' });
    expect(pruned('yearly_light', signed)).toEqual([]);
  });
});
