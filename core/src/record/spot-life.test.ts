import { fieldDefault } from '../practice';
import { unknownGround, type GroundFacts } from '../ground';
import type { FieldRecord, RecordFacts, RecordKind } from './record';
import { spotLife } from './spot-life';

let made = 0;
function rec<K extends RecordKind>(kind: K, facts: RecordFacts[K], supersedes: string | null = null): FieldRecord {
  made += 1;
  return {
    id: `r${String(made).padStart(4, '0')}`,
    kind,
    facts,
    supersedes,
    recordedAt: new Date(1.8e12 + made * 60_000).toISOString(),
  } as FieldRecord;
}

const ground: GroundFacts = {
  ...unknownGround,
  soil: 'loam',
  slopePct: 0,
  percolation: [0, 1, 2, 3].map((i) => ({ minute: i * 30, levelMm: 300 - 20 * i })),
};
const stock: RecordFacts['stock'] = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};
const planting: RecordFacts['planting'] = {
  plantedOn: '2026-01-10',
  flareAboveGradeMm: [40],
  holeWidthMm: 1125,
  firstWaterL: 52,
  practiceId: 'field-default',
  practiceVersion: 1,
};
const look = (change: Partial<RecordFacts['inspection']>): RecordFacts['inspection'] => ({
  inspectedOn: '2026-02-10',
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
  ...change,
});
const life = (...records: FieldRecord[]) => spotLife(records, fieldDefault);
const remedies = (...records: FieldRecord[]) =>
  life(...records)
    .decisions.filter((d) => d.kind === 'do_remedy')
    .map((d) => d.remedy)
    .sort();

describe('a spot from its records', () => {
  it('waits in each stage in work order', () => {
    const g = rec('ground', ground);
    const s = rec('stock', stock);
    const p = rec('planting', planting);
    expect(life().stage).toBe('ground');
    expect(life(g).stage).toBe('stock');
    expect(life(g, s).stage).toBe('day');
    expect(life(g, s, p).stage).toBe('inspect');
    expect(life(rec('ground', { ...ground, stripWidthMm: 400 }), s).stage).toBe('pit');
  });

  it('sees a test it cannot trust as ground still to measure', () => {
    const doubtful = rec('ground', {
      ...ground,
      percolation: [
        { minute: 0, levelMm: 300 },
        { minute: 30, levelMm: 280 },
        { minute: 60, levelMm: 290 },
      ],
    });
    expect(life(doubtful).decisions[0]).toMatchObject({
      kind: 'measure_ground',
      because: [{ code: 'percolation_questioned' }],
    });
  });

  it('goes by the correction and keeps what was corrected', () => {
    const first = rec('stock', { ...stock, ballDiameterMm: 900 });
    const second = rec('stock', stock, first.id);
    expect(life(rec('ground', ground), first, second).stock).toEqual(stock);
  });

  it('gives the same answer whatever order the records arrive in', () => {
    const records = [
      rec('ground', ground),
      rec('stock', stock),
      rec('planting', planting),
      rec('inspection', look({ stake: 'tight' })),
      rec('inspection', look({ inspectedOn: '2026-04-10', probe: 'dry' })),
    ];
    expect(spotLife([...records].reverse(), fieldDefault)).toEqual(spotLife(records, fieldDefault));
  });

  it('keeps a remedy open until it is done or a later look finds it good', () => {
    const base = [
      rec('ground', ground),
      rec('stock', stock),
      rec('planting', planting),
      rec('inspection', look({ stake: 'tight', mulchContact: 'heaped' })),
    ] as const;
    expect(remedies(...base)).toEqual(['loosen_tie', 'pull_back_mulch']);
    expect(remedies(...base, rec('remedy', { remedy: 'loosen_tie', doneOn: '2026-02-12' }))).toEqual([
      'pull_back_mulch',
    ]);
    const later = rec('inspection', look({ inspectedOn: '2026-04-10', mulchContact: 'clear', mulchDepthMm: 70 }));
    expect(remedies(...base, later)).toEqual(['loosen_tie']);
  });

  it('opens a remedy again when a later look finds the same trouble', () => {
    const done = rec('remedy', { remedy: 'loosen_tie', doneOn: '2026-02-12' });
    const again = rec('inspection', look({ inspectedOn: '2026-04-10', stake: 'tight' }));
    expect(
      remedies(
        rec('ground', ground),
        rec('stock', stock),
        rec('planting', planting),
        rec('inspection', look({ stake: 'tight' })),
        done,
        again,
      ),
    ).toEqual(['loosen_tie']);
  });

  it('books the first look a month after planting, and raises what was built wrong', () => {
    const low = rec('planting', { ...planting, flareAboveGradeMm: [5] });
    const now = life(rec('ground', ground), rec('stock', stock), low);
    expect(now.nextLook?.on).toBe('2026-02-10');
    expect(now.decisions.map((d) => [d.kind, d.remedy, d.dueOn])).toEqual([
      ['do_remedy', 'replant_higher', '2026-01-24'],
      ['look', null, '2026-02-10'],
    ]);
  });
});
