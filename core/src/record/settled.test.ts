import { rankDecisions } from '../desk';
import { fieldDefault as byDefault, withChoice } from '../practice';
import { lookOn, lived, pressing } from '../../testing/remedy-cases';
import { ground, planting, rec, stock } from '../../testing/water-cases';
import type { FieldRecord } from './record';
import { spotLife } from './spot-life';

/** Nothing is pruned by the calendar: what else is asked for stands by itself. */
const fieldDefault = withChoice(byDefault, 'pruning.structural', 'none');

/** Planted on 1 May 2026; a warranty of a year ends on 1 May 2027. */
const referred = lookOn('2026-07-01', { circlingRoots: [pressing(0, 300)] });
const asked = (...more: readonly FieldRecord[]) =>
  lived(...more)
    .decisions.filter(({ kind }) => kind === 'do_remedy')
    .map(({ remedy }) => remedy);
const answer = (advice: 'carried_out' | 'watch' | 'take_out', answeredOn = '2026-07-20') =>
  rec('arborist_answer', { answeredOn, arborist: 'Ada Quill', advice, note: '' });
const declined = (remedy: 'refer_arborist' | 'replace_tree', decidedOn: string) =>
  rec('declined', { decidedOn, remedy, by: 'owner', reason: 'wants it left as it is' });

describe('what somebody’s word settles', () => {
  it('an arborist’s answer closes the referral, and is heard where the tree is to go', () => {
    expect(asked(referred)).toEqual(['refer_arborist']);
    expect(asked(referred, answer('watch'))).toEqual([]);
    expect(asked(referred, answer('take_out'))).toEqual(['replace_tree']);
    expect(asked(referred, answer('take_out'), declined('replace_tree', '2026-08-01'))).toEqual([]);
  });
  it('that it is to go is over once that is told as done, and not by what was done before', () => {
    const done = (on: string) => rec('remedy', { remedy: 'replace_tree', doneOn: on });
    expect(asked(referred, answer('take_out'), done('2026-08-01'))).toEqual([]);
    expect(asked(done('2026-07-10'), referred, answer('take_out'))).toEqual(['replace_tree']);
  });
  it('an answer from before does not settle what is found later', () => {
    expect(asked(answer('watch', '2026-06-01'), referred)).toEqual(['refer_arborist']);
    expect(
      asked(referred, declined('refer_arborist', '2026-07-02'), lookOn('2026-09-01', { bark: 'decayed' })),
    ).toEqual(['refer_arborist']);
  });
  it('whoever was told of a pest closes it', () => {
    const pests = lookOn('2026-07-01', { signs: ['pests'] });
    const told = rec('pest_told', { toldOn: '2026-07-02', pest: 'longhorn beetle', told: 'plant health office' });
    expect(asked(pests)).toEqual(['name_pest']);
    expect(asked(pests, told)).toEqual([]);
  });
});

describe('a warranty', () => {
  const claims = (...more: readonly FieldRecord[]) => lived(...more).decisions.filter(({ kind }) => kind === 'claim');
  it('asks for a claim before it ends, once, where something speaks for one', () => {
    expect(claims(referred)).toMatchObject([{ dueOn: '2027-05-01', level: 'act' }]);
    expect(claims(lookOn('2026-07-01', { mulchContact: 'heaped' }))).toEqual([]);
    const claim = rec('claim', { claimedOn: '2026-08-01', from: 'nursery', reason: 'roots ring the stem' });
    expect(claims(referred, claim)).toEqual([]);
  });
  it('counts down on the desk for two months, and is over with its last day', () => {
    const shown = (on: string) => rankDecisions(claims(referred), on).length;
    expect([shown('2027-03-01'), shown('2027-03-02'), shown('2027-05-01'), shown('2027-05-02')]).toEqual([0, 1, 1, 0]);
  });
  it('brings the look that would come as it ends before it', () => {
    expect(lived(lookOn('2026-11-02', { stake: 'none' })).nextLook).toEqual({
      on: '2027-04-01',
      because: { code: 'look_warranty', facts: { endsOn: '2027-05-01' } },
    });
    // Looked at a month before: nothing is gained.
    expect(lived(lookOn('2027-03-10', { stake: 'none' })).nextLook?.on).toBe('2027-05-01');
  });
  it('is none where the practice has none', () => {
    const practice = withChoice(fieldDefault, 'inspection.warrantyMonths', 0);
    const life = spotLife([ground(), stock(), planting(), referred], { practice });
    expect(life.decisions.some(({ kind }) => kind === 'claim')).toBe(false);
  });
});

describe('a tree that was taken out', () => {
  const removal = (removedOn = '2026-08-01') =>
    rec('removal', { removedOn, why: 'dead', stump: 'out', pitReusable: true, note: '' });
  it('leaves its place to the next, with what is known of the ground', () => {
    const life = lived(referred, removal());
    expect([life.planting, life.inspections, life.stock]).toEqual([null, [], null]);
    expect(life.ground.soil).toBe('loam');
    expect(life.decisions.map(({ kind }) => kind)).toEqual(['measure_ground']);
  });
  it('stands again where that is taken back', () => {
    const gone = removal();
    const back = { ...rec('retraction', { reason: 'the wrong tree' }), supersedes: gone.id };
    expect(asked(referred, gone, back)).toEqual(['refer_arborist']);
  });
  it('says nothing of the one planted after it', () => {
    const before = [ground(), stock(), planting(), referred, removal()];
    const next = [
      stock(),
      rec('planting', {
        plantedOn: '2026-11-01',
        flareAboveGradeMm: [40],
        holeWidthMm: 1125,
        firstWaterL: 50,
        practiceId: 'field-default',
        practiceVersion: 1,
      }),
    ];
    const life = spotLife([...before, ...next], { practice: fieldDefault });
    expect(life.planting?.record.facts.plantedOn).toBe('2026-11-01');
    expect(life.inspections).toEqual([]);
    expect(life.decisions.map(({ remedy }) => remedy)).not.toContain('refer_arborist');
  });
});
