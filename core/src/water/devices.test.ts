import fc from 'fast-check';
import { levelSite } from '../../testing/device-cases';
import { calibrate, chooseDevice, deviceCatalogue, hosePositions, wellDrainsMmPerH } from '.';

const codes = (because: readonly { code: string }[]): string[] => because.map(({ code }) => code);
const fitOf = (id: string, site: Partial<typeof levelSite> = {}, measured: Record<string, number> = {}) => {
  const fit = chooseDevice({ ...levelSite, ...site }, deviceCatalogue, measured).find(({ device }) => device.id === id);
  if (!fit) throw new Error(`no ${id}`);
  return fit;
};

describe('a device run into a vessel', () => {
  it('three runs of 2.0, 2.2 and 2.4 L in 10 min flow 13.2 L/h, 9 % apart', () => {
    // Flows of 12, 13.2 and 14.4 L/h: mean 13.2, standard deviation 1.2.
    const runs = [2, 2.2, 2.4].map((litres) => ({ litres, minutes: 10 }));
    const found = calibrate(runs);
    expect(found.lPerH).toBeCloseTo(13.2, 9);
    expect(found.spreadPct).toBeCloseTo((1.2 / 13.2) * 100, 9);
    expect(found.errorLPerH).toBeCloseTo(1.2 / Math.sqrt(3), 9);
    expect(codes(found.because)).toEqual(['device_runs']);
  });
  it('one run alone says nothing of how it varies, and asks for more', () => {
    expect(calibrate([{ litres: 1, minutes: 5 }])).toMatchObject({ lPerH: 12, spreadPct: null, errorLPerH: null });
    expect(codes(calibrate([{ litres: 1, minutes: 5 }]).because)).toEqual(['device_run_once']);
  });
  it('runs far apart were not of one thing', () => {
    const found = calibrate([
      { litres: 1, minutes: 10 },
      { litres: 2, minutes: 10 },
    ]);
    expect(codes(found.because)).toContain('device_unsteady');
  });
  it.each([
    ['no run', []],
    ['no water', [{ litres: 0, minutes: 10 }]],
    ['no time', [{ litres: 2, minutes: 0 }]],
    ['a day and a half', [{ litres: 2, minutes: 2200 }]],
  ])('%s is refused', (_words, runs) => {
    expect(() => calibrate(runs)).toThrow(/runs/);
  });
  it('the mean lies among the runs, whatever their order', () => {
    const run = fc.record({
      litres: fc.double({ min: 0.1, max: 100, noNaN: true }),
      minutes: fc.double({ min: 1, max: 600, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(run, { minLength: 2, maxLength: 8 }), (runs) => {
        const flows = runs.map(({ litres, minutes }) => (litres / minutes) * 60);
        const { lPerH } = calibrate(runs);
        expect(lPerH).toBeGreaterThanOrEqual(Math.min(...flows) - 1e-9);
        expect(lPerH).toBeLessThanOrEqual(Math.max(...flows) + 1e-9);
        expect(calibrate([...runs].reverse()).lPerH).toBeCloseTo(lPerH, 9);
      }),
    );
  });
});

describe('a device for a tree', () => {
  it('is joined for a big caliper: two bags from 76 mm on', () => {
    expect(fitOf('stem-bag', { caliperMm: 75 }).count).toBe(1);
    expect(fitOf('stem-bag', { caliperMm: 76 }).count).toBe(2);
  });
  it('is filled as often as a dose asks for', () => {
    // One bucket of 20 L for 40 mm of caliper.
    expect(fitOf('drilled-bucket', { caliperMm: 40, doseL: 40 }).fills).toBe(2);
    expect(fitOf('drilled-bucket', { caliperMm: 41, doseL: 40 })).toMatchObject({ count: 2, fills: 1 });
  });
  it('runs by what was measured, not by its label', () => {
    expect(fitOf('stem-bag').runHours).toBeCloseTo(40 / 11, 9);
    const measured = fitOf('stem-bag', {}, { 'stem-bag': 5 });
    expect(measured.runHours).toBeCloseTo(8, 9);
    expect(codes(measured.because)).toEqual(expect.arrayContaining(['device_measured', 'device_label_off']));
  });
  it.each([
    ['stem-bag', { clearStemMm: 500 }, 'device_low_branch'],
    ['ground-ring', { slopePct: 6 }, 'device_steep'],
    ['clay-jar', { compacted: true }, 'device_compacted'],
    ['well', { slowSoil: true }, 'device_ponds'],
  ] as const)('%s does not fit %j: %s', (id, site, code) => {
    const fit = fitOf(id, site);
    expect(fit.fits).toBe(false);
    expect(fit.because[0]?.code).toBe(code);
    expect(fitOf(id).fits).toBe(true);
  });
  it('nobody is told that a trunk is too short that nobody measured', () => {
    expect(fitOf('stem-bag', { clearStemMm: null }).fits).toBe(true);
  });
  it('what does not fit stands behind all that does', () => {
    const fits = chooseDevice({ ...levelSite, slopePct: 20, clearStemMm: 200, compacted: true }, deviceCatalogue);
    const first = fits.findIndex(({ fits: does }) => !does);
    expect(first).toBeGreaterThan(0);
    expect(fits.slice(first).every(({ fits: does }) => !does)).toBe(true);
  });
  it('warns where it runs faster than slow soil takes it down', () => {
    expect(codes(fitOf('drip-ring', { slowSoil: true, takesLPerH: 2 }).because)).toContain('device_floods');
    expect(codes(fitOf('drip-ring', { slowSoil: true, takesLPerH: 30 }).because)).not.toContain('device_floods');
  });
});

describe('where a hose lies', () => {
  const flat = { ballDiameterMm: 600, slopePct: 0, uphillDeg: null, lPerMin: 12, doseL: 60 };
  it('four places round a ball of 600 mm, 1.25 min each at 12 L/min', () => {
    // Radius 225 mm, edge 1,414 mm, a place for each 450 mm.
    const { positions, totalMinutes } = hosePositions(flat);
    expect(positions.map(({ bearingDeg }) => bearingDeg)).toEqual([0, 90, 180, 270]);
    expect(positions[0]).toMatchObject({ fromTrunkMm: 225, litres: 15, minutes: 1.25 });
    expect(totalMinutes).toBe(5);
  });
  it('all of them uphill on a slope, within 75° of straight up', () => {
    const { positions, because } = hosePositions({ ...flat, slopePct: 12, uphillDeg: 30 });
    expect(positions.map(({ bearingDeg }) => bearingDeg)).toEqual([315, 105]);
    expect(codes(because)).toContain('hose_uphill');
  });
  it('a weak flow goes round in turns', () => {
    expect(codes(hosePositions({ ...flat, lPerMin: 1 }).because)).toContain('hose_in_turns');
  });
  it('their litres are the dose, wherever they lie', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 2500, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 900, noNaN: true }),
        (ballDiameterMm, slopePct, doseL) => {
          const { positions } = hosePositions({ ...flat, ballDiameterMm, slopePct, doseL });
          expect(positions.reduce((sum, { litres }) => sum + litres, 0)).toBeCloseTo(doseL, 6);
          expect(positions.length).toBeGreaterThanOrEqual(2);
          for (const one of positions) expect(one.fromTrunkMm).toBeLessThan(ballDiameterMm / 2);
        },
      ),
    );
  });
  it.each([
    ['lPerMin', { lPerMin: 0 }],
    ['doseL', { doseL: 9000 }],
    ['ballDiameterMm', { ballDiameterMm: 10 }],
  ])('%s outside its limits is refused', (path, change) => {
    expect(() => hosePositions({ ...flat, ...change })).toThrow(path);
  });
});

it('a ring of 90 mm that empties in 3 h drains 30 mm/h', () => {
  expect(wellDrainsMmPerH(90, 180)).toBe(30);
  expect(() => wellDrainsMmPerH(0, 180)).toThrow('depthMm');
});
