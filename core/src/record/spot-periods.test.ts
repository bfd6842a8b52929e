import { fieldDefault } from '../practice';
import { recordsUpTo, standing, type FieldRecord } from './record';
import { spotLife } from './spot-life';
import { positionOn, spotPeriods } from './spot-periods';

let made = 0;
const of = (kind: FieldRecord['kind'], facts: object, at: string, supersedes: string | null = null): FieldRecord =>
  ({
    id: `id-${String((made += 1)).padStart(4, '0')}`,
    kind,
    facts,
    recordedAt: `${at}T10:00:00Z`,
    supersedes,
  }) as FieldRecord;
const ground = (at: string) =>
  of(
    'ground',
    {
      soil: 'loam',
      stony: false,
      compacted: false,
      percolation: [0, 30, 60, 90].map((minute, i) => ({ minute, levelMm: 300 - 20 * i })),
      slopePct: 0,
      fallsTowardsDeg: null,
      stripWidthMm: 'open',
      wireHeightM: 'none',
    },
    at,
  );
const stock = (at: string) =>
  of(
    'stock',
    { kind: 'container', caliperMm: 50, heightM: 3, ballDiameterMm: 450, ballHeightMm: 400, topRootsDepthMm: 60 },
    at,
  );
const planted = (on: string) =>
  of(
    'planting',
    {
      plantedOn: on,
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 52,
      practiceId: 'field-default',
      practiceVersion: 1,
    },
    on,
  );
const look = (on: string, stake: string) =>
  of(
    'inspection',
    {
      inspectedOn: on,
      flareDepthMm: 0,
      mulchDepthMm: 60,
      mulchContact: 'clear',
      stake,
      probe: 'moist',
      circlingRoots: null,
    },
    on,
  );
const move = (on: string, from: [number, number], to: [number, number]) =>
  of('move', { movedOn: on, from, to, reason: 'rock' }, on);

const here: [number, number] = [-25.4, 36.9];
const history = [ground('2025-09-01'), stock('2025-11-01'), planted('2025-11-08'), look('2026-01-10', 'biting')];
const periods = (records: readonly FieldRecord[], addedOn = '2025-08-15') =>
  spotPeriods(records, { practice: fieldDefault, addedOn, position: here });

describe('periods of a spot', () => {
  it('follow each other without a gap and last for ever', () => {
    const cut = periods(history);
    expect(cut.map(({ fromDay }) => fromDay)).toEqual([
      '2025-08-15',
      '2025-09-01',
      '2025-11-01',
      '2025-11-08',
      '2026-01-10',
    ]);
    cut.forEach((period, i) => expect(period.untilDay).toBe(cut[i + 1]?.fromDay ?? null));
  });

  it('show each day what the records of that day said', () => {
    expect(periods(history).map(({ life }) => life.stage)).toEqual(['ground', 'ground', 'day', 'inspect', 'inspect']);
    const urgent = periods(history).map(({ life }) => life.level);
    expect(urgent).toEqual(['good', 'good', 'good', 'good', 'urgent']);
  });

  it('begin with the first record where the spot was added later', () => {
    expect(periods(history, '2026-06-01')[0]?.fromDay).toBe('2025-09-01');
  });

  it('end in the state the whole record gives', () => {
    const last = periods(history).at(-1);
    expect(last?.life).toEqual(spotLife(history, { practice: fieldDefault }));
  });

  it('show each day what the records of that day give by themselves, whatever came before or after', () => {
    const readings = [0, 30, 60, 90].map((minute) => ({
      at: `2025-09-10T${String(10 + Math.floor(minute / 60))}:${String(minute % 60).padStart(2, '0')}:00Z`,
      levelMm: 300 - minute / 15,
    }));
    const filledAt = '2025-09-10T10:00:00Z';
    const slow = { testedOn: '2025-09-10', holeDepthMm: 400, soakedAt: null, filledAt, readings };
    const test = of('percolation', slow, '2025-09-10');
    const newStock = stock('2025-11-05');
    const records = [
      ...[ground('2025-09-01'), test, stock('2025-11-01'), newStock, planted('2025-11-08')],
      of('override', { path: 'pruning.structural', value: 'none', reason: 'wires' }, '2025-11-20'),
      look('2026-01-10', 'biting'),
      of('watering', { wateredOn: '2026-02-01', litres: 60, ringMm: 60, ringMinutes: 600 }, '2026-02-01'),
      look('2026-03-10', 'none'),
      of('retraction', { reason: 'wrong tree' }, '2026-04-11', newStock.id),
    ];
    for (const { fromDay, life } of periods(records)) {
      expect(life).toEqual(spotLife(recordsUpTo(records, fromDay), { practice: fieldDefault }));
    }
  });

  it('put a moved spot where it stood', () => {
    const records = [ground('2025-09-01'), move('2025-10-01', [-25.401, 36.9], here)];
    expect(periods(records).map(({ position }) => position[0])).toEqual([-25.401, -25.401, -25.4]);
    expect(positionOn(standing(records), '2025-09-30', here)).toEqual([-25.401, 36.9]);
  });

  it('know nothing of a record that was taken back', () => {
    const slip = look('2026-01-10', 'biting');
    const back = of('retraction', { reason: 'wrong tree' }, '2026-01-11', slip.id);
    const records = [...history.slice(0, 3), slip, back];
    expect(periods(records).at(-1)?.fromDay).toBe('2025-11-08');
    expect(spotLife(records, { practice: fieldDefault }).level).toBe('good');
    expect(spotLife(recordsUpTo(records, '2026-01-10'), { practice: fieldDefault }).level).toBe('good');
  });
});
