import { rowFacts, spotRowSchema, type KeptRecord } from '@sombra/contract';
import { fieldDefault, type FieldRecord } from '@sombra/core';
import { importRow, planRow, type PlanContext } from './plan-import';

const spotId = '0190a5c2-0000-7000-8000-000000000001';
const treeId = '0190a5c2-0000-7000-8000-000000000002';
const recordId = (n: number) => `0190a5c2-0000-7000-8000-1${String(n).padStart(11, '0')}`;
const stored = {
  id: spotId,
  treeId,
  ref: 'A-1',
  place: 'Mole Street',
  lng: -25.4,
  lat: 36.9,
  version: 1,
  addedOn: '2026-01-01',
  withdrawnOn: null,
  species: 'Celtis australis',
};
const stock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
} as const;
const stockCells = {
  stock_kind: 'container',
  caliper_mm: '50',
  height_m: '3',
  ball_diameter_mm: '450',
  ball_height_mm: '400',
  top_roots_depth_mm: '60',
};

const kept = (n: number, record: Pick<FieldRecord, 'kind' | 'facts'>, supersedes: string | null = null): KeptRecord =>
  ({
    id: recordId(n),
    supersedes,
    recordedAt: '2026-01-01T10:00:00.000Z',
    receivedAt: '2026-01-01T10:00:00.000Z',
    deviceSaid: '2026-01-01T10:00:00.000Z',
    recordedById: null,
    clock: 'kept',
    recordedBy: 'Ann',
    device: 'x',
    ...record,
  }) as KeptRecord;

function plan(cells: Record<string, unknown>, context: { stored?: boolean; records?: KeptRecord[] } = {}) {
  const row = spotRowSchema.parse({ ref: 'A-1', place: 'Mole Street', lng: '-25.4', lat: '36.9', ...cells });
  const facts = rowFacts(row);
  if (!facts.ok) throw new Error(facts.message);
  let next = 100;
  const full: PlanContext = {
    stored: new Map(context.stored === false ? [] : [['A-1', stored]]),
    records: new Map([[spotId, context.records ?? []]]),
    practice: fieldDefault,
    by: { id: recordId(90), name: 'cora' },
    now: '2026-06-01T10:00:00.000Z',
    newId: () => recordId((next += 1)),
  };
  return planRow({ row: 2, cells: row, facts: facts.facts }, full);
}

describe('what a row will write', () => {
  it('is a new spot with its facts', () => {
    const planned = plan({ soil: 'loam', ...stockCells }, { stored: false });
    expect(importRow(planned)).toMatchObject({ verdict: 'new', writes: ['spot', 'ground', 'stock'] });
    expect(planned.records.map(({ recordedBy, device }) => [recordedBy, device])).toEqual([
      ['cora', 'file import'],
      ['cora', 'file import'],
    ]);
  });

  it('is nothing where the cells say what is stored, or say nothing', () => {
    const records = [kept(1, { kind: 'stock', facts: stock })];
    expect(plan(stockCells, { records }).verdict).toBe('same');
    expect(plan({}, { records }).verdict).toBe('same');
  });

  it('keeps what may be left out and is not in the file', () => {
    const known = { ...stock, surplusLeftMm: 30, firstBranchM: 1.4, graftHeightMm: 120 };
    const records = [kept(1, { kind: 'stock', facts: known })];
    expect(plan(stockCells, { records }).verdict).toBe('same');
    const facts = (cells: object) => plan({ ...stockCells, ...cells }, { records }).records[0]?.record.facts;
    expect(facts({ caliper_mm: '55' })).toEqual({ ...known, caliperMm: 55 });
    expect(facts({ first_branch_m: '1.6' })).toEqual({ ...known, firstBranchM: 1.6 });
    // Less over the roots than was to stay on: nothing stays.
    expect(facts({ top_roots_depth_mm: '20' })).toEqual({
      ...stock,
      topRootsDepthMm: 20,
      firstBranchM: 1.4,
      graftHeightMm: 120,
    });
  });

  it('keeps the stakes and the soil put back of a planting that the file does not name', () => {
    const planting = {
      plantedOn: '2026-01-10',
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 52,
      stakes: 2,
      putBackMm: 60,
      practiceId: 'many-hands',
      practiceVersion: 1,
    };
    const records = [kept(1, { kind: 'planting', facts: planting })];
    const cells = { planted_on: '2026-01-10', flare_above_grade_mm: '40', hole_width_mm: '1125' };
    expect(plan({ ...cells, first_water_l: '52' }, { records }).verdict).toBe('same');
    const changed = plan({ ...cells, first_water_l: '60', stakes_set: '1' }, { records });
    expect(changed.records[0]?.record.facts).toEqual({ ...planting, firstWaterL: 60, stakes: 1 });
  });

  it('takes over a tree that others planted, with what is known of it', () => {
    const cells = { planted_on: '2025-03-01', taken_over_on: '2026-05-20', taken_over_from: 'Dock Office' };
    const made = plan(cells, { stored: false }).records.find(({ record }) => record.kind === 'planting')?.record.facts;
    expect(made).toMatchObject({ takenOver: { on: '2026-05-20', from: 'Dock Office' }, flareAboveGradeMm: [] });
    expect(made).not.toHaveProperty('holeWidthMm');
    const records = [kept(1, { kind: 'planting', facts: made } as Parameters<typeof kept>[1])];
    expect(plan(cells, { records }).verdict).toBe('same');
    expect(plan({ ...cells, hole_width_mm: '900' }, { records }).verdict).toBe('changed');
  });
  it.each([
    [{ taken_over_on: '2026-05-20', planted_on: '2025-03-01' }, 'must be given with the other'],
    [{ taken_over_from: 'Dock Office' }, 'must be given with the other'],
    [{ taken_over_on: '2026-05-20', taken_over_from: 'Dock Office' }, 'must be given for a tree that was taken over'],
    [
      { taken_over_on: '2024-05-20', taken_over_from: 'Dock Office', planted_on: '2025-03-01' },
      'must not be before planted_on',
    ],
  ])('refuses %j', (cells, message) => {
    expect(() => plan(cells)).toThrow(message);
  });

  it('is a correction of the newest record, not of one corrected before', () => {
    const records = [
      kept(1, { kind: 'stock', facts: { ...stock, caliperMm: 99 } }),
      kept(2, { kind: 'stock', facts: stock }, recordId(1)),
    ];
    const planned = plan({ ...stockCells, caliper_mm: '55' }, { records });
    expect(planned.records.map(({ record }) => record.supersedes)).toEqual([recordId(2)]);
    expect(planned.verdict).toBe('changed');
  });

  it('is a move only where the position truly differs', () => {
    expect(plan({ lng: '-25.40000005' }).verdict).toBe('same');
    expect(plan({ lng: '-25.401' })).toMatchObject({
      verdict: 'changed',
      updatesSpot: true,
      writes: ['position or name'],
    });
  });

  it('does not forget a species because a cell is empty', () => {
    expect(plan({ species: '' }).verdict).toBe('same');
    expect(plan({ species: 'Tilia tomentosa' }).verdict).toBe('changed');
  });

  const planted = {
    planted_on: '2026-01-10',
    flare_above_grade_mm: '40',
    hole_width_mm: '1125',
    first_water_l: '52',
  };
  const facts = {
    plantedOn: '2026-01-10',
    flareAboveGradeMm: [40],
    holeWidthMm: 1125,
    firstWaterL: 52,
    practiceId: 'old-school',
    practiceVersion: 3,
  };
  const look = {
    inspectedOn: '2026-02-10',
    flareDepthMm: null,
    mulchDepthMm: null,
    mulchContact: null,
    stake: 'none',
    probe: null,
    circlingRoots: null,
  } as const;

  it('is a look of its own on another day, a correction on the same', () => {
    const records = [kept(1, { kind: 'planting', facts }), kept(2, { kind: 'inspection', facts: look })];
    const other = plan({ ...planted, inspected_on: '2026-04-10', stake: 'tight' }, { records });
    expect(other.records.map(({ record }) => [record.kind, record.supersedes])).toEqual([['inspection', null]]);
    const same = plan({ ...planted, inspected_on: '2026-02-10', stake: 'tight' }, { records });
    expect(same.records.map(({ record }) => [record.kind, record.supersedes])).toEqual([['inspection', recordId(2)]]);
  });

  it('has no columns for all that a look finds: the rest of it stays, and is no change', () => {
    const root = { arc: { fromDeg: 80, toDeg: 240 }, diameterMm: 14, touch: 'touching', nature: 'structural' } as const;
    const seen = {
      ...look,
      circlingRoots: [root],
      signs: ['wilting'],
      alive: 'green',
      anchors: [{ bearingDeg: 10, diameterMm: 30 }],
    } as const;
    const records = [kept(1, { kind: 'planting', facts }), kept(2, { kind: 'inspection', facts: seen })];
    const cells = { ...planted, inspected_on: '2026-02-10', stake: look.stake ?? '' };
    for (const circling_roots of ['80-240:14:touching', '80-240:14']) {
      expect(plan({ ...cells, circling_roots }, { records }).records).toEqual([]);
    }
    const [changed] = plan({ ...cells, stake: 'tight', circling_roots: '80-240:14:pressing' }, { records }).records;
    expect(changed?.record.facts).toEqual({ ...seen, stake: 'tight', circlingRoots: [{ ...root, touch: 'pressing' }] });
  });

  it('keeps of a planting what a row has no column for', () => {
    const built = { ...facts, plumb: 'leans', bestFaceDeg: 200 } as const;
    const records = [kept(1, { kind: 'planting', facts: built })];
    expect(plan(planted, { records }).records).toEqual([]);
    const [changed] = plan({ ...planted, hole_width_mm: '900' }, { records }).records;
    expect(changed?.record.facts).toEqual({ ...built, holeWidthMm: 900 });
  });

  it('keeps the practice a tree was planted under when another cell of the planting changes', () => {
    const facts = {
      plantedOn: '2026-01-10',
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 52,
      practiceId: 'old-school',
      practiceVersion: 3,
    };
    const planned = plan(
      { planted_on: '2026-01-10', flare_above_grade_mm: '30', hole_width_mm: '1125', first_water_l: '52' },
      { records: [kept(1, { kind: 'planting', facts })] },
    );
    expect(planned.records[0]?.record.facts).toMatchObject({
      flareAboveGradeMm: [30],
      practiceId: 'old-school',
      practiceVersion: 3,
    });
  });

  it('takes records a file carries by their own ids, makers and times, and only those that are missing', () => {
    const { id, kind, facts, supersedes, recordedAt, recordedBy, device } = kept(7, { kind: 'stock', facts: stock });
    const carried = { id, kind, facts, supersedes, recordedAt, recordedBy, device };
    const cells = { ...stockCells, records: JSON.stringify([carried]) };
    const planned = plan(cells, { stored: false });
    expect(planned.records.filter(({ record }) => record.kind === 'stock')).toHaveLength(1);
    expect(planned.records[0]).toMatchObject({
      recordedBy: 'Ann',
      record: { id: recordId(7), recordedAt: '2026-01-01T10:00:00.000Z' },
    });
    expect(plan(cells, { records: [kept(7, { kind: 'stock', facts: stock })] }).verdict).toBe('same');
  });
});
