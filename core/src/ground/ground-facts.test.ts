import { groundPercolation, requireGround, unknownGround } from './ground-facts';
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

  it('take an open lawn and a sky without wires', () => {
    expect(() => requireGround({ ...unknownGround, stripWidthMm: 'open', wireHeightM: 'none' })).not.toThrow();
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
