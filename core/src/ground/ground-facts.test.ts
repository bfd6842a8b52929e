import {
  groundPercolation,
  groundPercolationClass,
  requireGround,
  slowestHorizon,
  unknownGround,
  type Horizon,
} from './ground-facts';
import { fall } from '../../testing/checked-case';
import { defaultPercolationLimits } from './percolation';
import { soilClasses, soilWater } from './soil';

describe('ground facts', () => {
  it('may all be unknown', () => {
    expect(() => requireGround(unknownGround)).not.toThrow();
    expect(groundPercolation(unknownGround, defaultPercolationLimits)).toBeUndefined();
  });

  it.each([
    [{ slopePct: 61 }, 'slopePct must be within 0–60 %, got 61'],
    [{ slopePct: -1 }, 'slopePct must be within 0–60 %, got -1'],
    [{ fallsTowardsDeg: 400 }, 'fallsTowardsDeg must be within 0–360 °, got 400'],
    [{ stripWidthMm: 100 }, 'stripWidthMm must be within 300–50000 mm, got 100'],
    [{ wireHeightM: -2 }, 'wireHeightM must be within 2–60 m, got -2'],
  ])('refuse %j', (change, message) => {
    expect(() => requireGround({ ...unknownGround, ...change })).toThrow(message);
  });

  it('refuse layers that do not go down', () => {
    const layer = (toMm: number) => ({ soil: 'loam' as const, toMm, fill: false, rateMmPerH: null });
    expect(() => requireGround({ ...unknownGround, horizons: [layer(300), layer(300)] })).toThrow(
      'horizons[1].toMm must be within 301–3000 mm, got 300',
    );
  });

  it('take an open lawn and a sky without wires', () => {
    expect(() => requireGround({ ...unknownGround, stripWidthMm: 'open', wireHeightM: 'none' })).not.toThrow();
  });
});

describe('layers of the ground', () => {
  const layer = (soil: Horizon['soil'], toMm: number, rateMmPerH: number | null = null): Horizon => ({
    soil,
    toMm,
    fill: false,
    rateMmPerH,
  });
  const drains = (horizons: readonly Horizon[], fallMm = 60) =>
    groundPercolationClass({ ...unknownGround, percolation: fall(fallMm), horizons }, defaultPercolationLimits);

  it('are ruled by the slowest: a test in a layer, or clay under something lighter', () => {
    expect(drains([layer('loam', 400), layer('clay', 900)])).toBe('slow');
    expect(drains([layer('loam', 400), layer('clay', 900, 2)])).toBe('stands');
    expect(drains([layer('loam', 400, 40), layer('clay', 900, 30)])).toBe('good');
    expect(drains([layer('clay', 400), layer('loam', 900)])).toBe('good');
    expect(drains([layer('loam', 400, 12), layer('sand', 900)])).toBe('slow');
  });
  it('never make a slow hole faster', () => {
    expect(drains([layer('loam', 400, 200)], 12)).toBe('slow');
    expect(drains([layer('loam', 400), layer('clay', 900)], 2)).toBe('stands');
  });
  it('say nothing where the hole itself was not tested', () => {
    const horizons = [layer('loam', 400), layer('clay', 900)];
    expect(groundPercolationClass({ ...unknownGround, horizons }, defaultPercolationLimits)).toBeUndefined();
    expect(slowestHorizon({ ...unknownGround, horizons }, defaultPercolationLimits)).toMatchObject({
      horizon: { soil: 'clay' },
      class: 'slow',
    });
    expect(slowestHorizon(unknownGround, defaultPercolationLimits)).toBeNull();
  });
});

describe('water in soils', () => {
  it.each([...soilClasses, 'container_mix'] as const)('%s wilts below field capacity, and fills above it', (soil) => {
    const { wiltingPoint, fieldCapacity, saturation } = soilWater[soil];
    expect(wiltingPoint).toBeLessThan(fieldCapacity);
    expect(fieldCapacity).toBeLessThan(saturation);
    expect(saturation).toBeLessThan(1);
  });

  it('is held more the finer the soil', () => {
    const held = soilClasses.map((soil) => soilWater[soil].fieldCapacity);
    expect([...held].sort((a, b) => a - b)).toEqual(held);
  });
});
