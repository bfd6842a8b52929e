import type { Inspection } from '../inspect';
import { contradictionDecisions, contradictions } from './contradiction';
import type { FieldRecord } from './record';

let made = 0;
const at = (kind: string, facts: object, recordedAt: string, supersedes: string | null = null) =>
  ({ id: `r${++made}`, kind, facts, recordedAt, supersedes }) as FieldRecord;
const planted = (plantedOn: string, recordedAt = `${plantedOn}T10:00:00Z`) => at('planting', { plantedOn }, recordedAt);
const plain: Inspection = {
  inspectedOn: '2026-06-01',
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
};
const look = (change: Partial<Inspection>, recordedAt = '2026-06-01T10:00:00Z') =>
  at('inspection', { ...plain, ...change }, recordedAt);
const codes = (...records: FieldRecord[]) =>
  contradictions(records).flatMap((one) => one.because.map(({ code }) => code));

describe('records that contradict each other', () => {
  it.each<[string, FieldRecord[], string[]]>([
    ['planted twice on a day', [planted('2026-03-02'), planted('2026-03-02')], ['planted_twice']],
    ['planted twice within two weeks', [planted('2026-03-02'), planted('2026-03-16')], ['planted_twice']],
    ['planted anew later', [planted('2026-03-02'), planted('2026-03-17')], []],
    ['dry and wet', [look({ probe: 'dry' }), look({ probe: 'wet' })], ['looks_differ_probe']],
    ['dry and moist may both be so', [look({ probe: 'dry' }), look({ probe: 'moist' })], []],
    ['flares far apart', [look({ flareDepthMm: 0 }), look({ flareDepthMm: 51 })], ['looks_differ_flare']],
    ['flares 50 mm apart', [look({ flareDepthMm: -10 }), look({ flareDepthMm: 40 })], []],
    ['a stake and none', [look({ stake: 'none' }), look({ stake: 'tight' })], ['looks_differ_stake']],
    ['nobody looked at the stake', [look({ stake: 'none' }), look({ stake: null })], []],
    [
      'mulch clear and heaped',
      [look({ mulchContact: 'heaped' }), look({ mulchContact: 'clear' })],
      ['looks_differ_mulch'],
    ],
    ['two days later', [look({ probe: 'dry' }), look({ probe: 'wet', inspectedOn: '2026-06-03' })], []],
    [
      'the next day',
      [look({ probe: 'dry' }), look({ probe: 'wet', inspectedOn: '2026-06-02' })],
      ['looks_differ_probe'],
    ],
  ])('%s', (_case, records, expected) => {
    expect(codes(...records)).toEqual(expected);
    // Whoever is read first.
    expect(codes(...[...records].reverse()).length).toBe(expected.length);
  });

  it('do not, where something was done in between', () => {
    const watered = at('remedy', { remedy: 'water_now', doneOn: '2026-06-01' }, '2026-06-01T11:00:00Z');
    const [dry, wet] = [look({ probe: 'dry' }), look({ probe: 'wet' }, '2026-06-01T12:00:00Z')];
    expect(codes(dry, watered, wet)).toEqual([]);
    const before = at('remedy', { remedy: 'water_now', doneOn: '2026-06-01' }, '2026-06-01T09:00:00Z');
    expect(codes(before, dry, wet)).toEqual(['looks_differ_probe']);
  });

  it('do not, once somebody said that both stand, or took one back', () => {
    const [dry, wet] = [look({ probe: 'dry' }), look({ probe: 'wet' })];
    const facts = { first: wet.id, second: dry.id, decidedOn: '2026-06-02', reason: 'two depths' };
    expect(codes(dry, wet, at('both_stand', facts, '2026-06-02T10:00:00Z'))).toEqual([]);
    expect(codes(dry, wet, at('retraction', { reason: 'wrong tree' }, '2026-06-02T10:00:00Z', wet.id))).toEqual([]);
  });

  it('are a decision that waits a week from the later one', () => {
    const [first, second] = [planted('2026-03-02'), planted('2026-03-04')];
    expect(contradictionDecisions([second, first])).toMatchObject([
      { kind: 'settle_contradiction', level: 'act', dueOn: '2026-03-11', because: [{ code: 'planted_twice' }] },
    ]);
  });
});
