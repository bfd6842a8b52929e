import { drySummer, mixedZone, zoneTree } from '../../testing/device-cases';
import { bestProgramme, programmeOn, runLitres, tryZone } from '.';

const summer = drySummer();
const trialOf = (zone: ReturnType<typeof mixedZone>, name = 'Lime') => {
  const trial = tryZone(zone, summer).find(({ plant }) => plant.name === name);
  if (!trial) throw new Error(`no ${name}`);
  return trial;
};
const run = (minutes: number, everyDays: number) => ({ programme: { minutes, everyDays, timesADay: 1 } });

it('six emitters of 4 L/h give 12 L in half an hour', () => {
  expect(runLitres({ emitterLPerH: 4 }, 6, 30)).toBe(12);
});

it('waters on the first day and every so many after it', () => {
  // 100 days: days 0, 3, …, 99 are 34 waterings of 12 L.
  expect(trialOf(mixedZone(run(30, 3))).litres).toBeCloseTo(34 * 12, 9);
  expect(trialOf(mixedZone({ programme: { minutes: 10, everyDays: 1, timesADay: 3 } })).litres).toBeCloseTo(1200, 9);
});

it('more water never means more thirst', () => {
  const days = [5, 15, 30, 60, 120].map((minutes) => trialOf(mixedZone(run(minutes, 3))).stressDays);
  expect(days).toEqual([...days].sort((a, b) => b - a));
  expect(days[0]).toBeGreaterThan(days.at(-1) ?? 0);
});

it('one valve for all: what keeps a lawn green stands in slow soil round a tree, and is said from the day on', () => {
  const [lime, hedge, lawn] = mixedZone().plants;
  const slow = mixedZone({
    plants: [{ ...lime, subject: zoneTree('stands') } as never, hedge, lawn].filter((one) => one !== undefined),
    soil: 'clay',
    percolation: 'stands',
    ...run(60, 1),
  });
  const tree = trialOf(slow);
  expect(tree.waterloggedDays).toBeGreaterThan(50);
  expect(tree.drownsFrom).not.toBeNull();
  expect(tree.because.at(-1)?.code).toBe('zone_drowns');
  expect(trialOf(mixedZone(run(60, 1))).waterloggedDays).toBe(0);
});

it('new turf’s short waterings end on their day', () => {
  const turf = { programme: { minutes: 10, everyDays: 1, timesADay: 4 }, until: '2026-05-20' };
  const zone = mixedZone({ turf });
  expect(programmeOn(zone, '2026-05-20')).toBe(turf.programme);
  expect(programmeOn(zone, '2026-05-21')).toBe(zone.programme);
  // 20 days of 4 × 10 min at 24 L/h, then every second of the 80 left at 12 L.
  expect(trialOf(zone).litres).toBeCloseTo(20 * 16 + 40 * 12, 9);
});

it('the best programme does no more harm than any that was thought of, and drowns nothing it could spare', () => {
  const { programme, trials } = bestProgramme(mixedZone(), summer);
  const harm = (of: readonly { stressDays: number; waterloggedDays: number; anywayDays: number }[]) =>
    of.reduce((sum, one) => sum + one.stressDays + 3 * (one.waterloggedDays - one.anywayDays), 0);
  for (const other of [run(30, 2), run(60, 7), run(10, 1), run(240, 14)]) {
    expect(harm(trials)).toBeLessThanOrEqual(harm(tryZone(mixedZone(other), summer)));
  }
  expect(programme.minutes).toBeGreaterThan(0);
});

it.each([
  ['emitterLPerH', { emitterLPerH: 0 }],
  ['programme.minutes', run(2000, 1)],
  ['programme.everyDays', run(30, 0)],
  [
    'turf.programme.timesADay',
    { turf: { programme: { minutes: 5, everyDays: 1, timesADay: 90 }, until: '2026-06-01' } },
  ],
])('%s outside its limits is refused', (path, change) => {
  expect(() => tryZone(mixedZone(change), summer)).toThrow(path);
});

it('what rain alone does is no fault of the programme', () => {
  const wet = drySummer(60).map((day) => ({ ...day, rainMm: 25 }));
  const pond = mixedZone({
    plants: [{ kind: 'tree', name: 'Lime', emitters: 6, areaM2: 0, subject: zoneTree('stands') }],
    percolation: 'stands',
    ...run(1, 14),
  });
  const [trial] = tryZone(pond, wet);
  expect(trial?.waterloggedDays).toBeGreaterThan(30);
  expect(trial?.anywayDays).toBeGreaterThan(30);
  const [drowned] = tryZone({ ...pond, ...run(120, 1) }, drySummer(60));
  expect([drowned?.anywayDays, drowned?.because.at(-1)?.code]).toEqual([0, 'zone_drowns']);
});
