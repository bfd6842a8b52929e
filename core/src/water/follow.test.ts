import { fieldDefault } from '../practice';
import { typicalStock, typicalSubject } from '../record';
import {
  asksFromShare,
  doseL,
  followWater,
  reachesOf,
  waterAt,
  waterClimate,
  waterStart,
  type ClimateDay,
} from './follow';

const stock = typicalStock('container', 50);
const subject = typicalSubject(stock, {
  soil: 'loam',
  percolation: 'good',
  plantedOn: '2026-05-01',
  practice: fieldDefault,
});
const days = (length: number, change: Partial<ClimateDay> = {}): ClimateDay[] =>
  Array.from({ length }, (_, i) => ({
    day: `2026-05-${String(i + 1).padStart(2, '0')}`,
    monthSerial: 20_574,
    etMm: 5,
    rainMm: 0,
    degrees: 8,
    resting: false,
    ...change,
  }));
const end = (change: Partial<typeof subject> = {}, climate: Partial<ClimateDay> = {}) => {
  const tree = { ...subject, ...change };
  return followWater(tree, waterStart(tree, '2026-05-01'), days(20, climate)).to;
};

describe('what its place does to a tree', () => {
  it('other roots dry the soil beside the ball', () => {
    expect(end({ others: 0.3 }).soilL).toBeLessThan(end().soilL);
    expect(end({ others: 0.3 }, { resting: true }).soilL).toBeGreaterThan(end({ others: 0.3 }).soilL);
  });
  it('rain runs off a slope', () => {
    const rain = { rainMm: 3 };
    expect(end({ runsOff: 0.2 }, rain).ballL).toBeLessThan(end({}, rain).ballL);
  });
  it('without a berm a dose is larger for the same water in the ball', () => {
    expect(reachesOf(subject)).toBe(0.9);
    const dry = waterAt(subject, end());
    expect(doseL({ ...subject, reaches: 0.6 }, dry)).toBeCloseTo(doseL(subject, dry) * 1.5, 9);
  });
});

describe('weaning', () => {
  // A nursery waters a container every day: with its roots in the ball alone it asks while 0.7 or so is left.
  it.each([
    [0, 0.7],
    [100, 0.6],
    [200, 0.5],
    [900, 0.5],
  ])('with roots gone %d mm a container planted in leaf asks from %d of what it can drink', (reachMm, share) => {
    expect(asksFromShare({ weaning: true }, reachMm)).toBeCloseTo(share, 9);
    expect(asksFromShare({}, reachMm)).toBe(0.5);
  });
  it('says of a checkpoint what the days said of it', () => {
    const tree = { ...subject, weaning: true };
    const { days: followed, to } = followWater(tree, waterStart(tree, '2026-05-01'), days(20));
    expect(waterAt(tree, to).asks).toBe(followed.at(-1)?.asks);
    expect(followed.some(({ asks, supply }) => asks && supply > 0.5)).toBe(true);
  });
});

it('on a day that never thaws nothing drinks', () => {
  const station = { latDeg: 46, elevationM: 300 };
  const measured = { rainMm: 0, humidityMinPct: null, humidityMaxPct: null, windMs: null, radiationMj: null };
  const recorded = [
    { ...measured, day: '2026-01-10', tMinC: -9, tMaxC: 0 },
    { ...measured, day: '2026-01-11', tMinC: -9, tMaxC: 1 },
  ];
  const { past } = waterClimate({ station, recorded, forecast: [] }, { windows: [], today: '2026-01-11' });
  expect(past[0]?.etMm).toBe(0);
  expect(past[1]?.etMm).toBeGreaterThan(0);
});
