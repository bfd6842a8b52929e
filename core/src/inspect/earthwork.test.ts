import { fieldDefault } from '../practice';
import { clearingBowl, mulchLacks } from './earthwork';

describe('the bowl that lays a flare open', () => {
  it.each([
    // π·60·(280² + 280·40 + 40²)/3 less π·40²·60, in mm³; four across for each one up on both sides of 80 mm.
    [60, 560, 5.43],
    [100, 880, 21.78],
    [0, 80, 0],
  ])('%d mm deep is %d mm across and %d L', (depthMm, widthMm, litres) => {
    expect(clearingBowl(depthMm).widthMm).toBe(widthMm);
    expect(clearingBowl(depthMm).litres).toBeCloseTo(litres, 2);
  });
});

it.each([
  // A ring of 1.2 m is 1.131 m²; 75 mm over it are 84.8 L.
  [0, 84.82],
  [25, 56.55],
  [140, -73.51],
])('a ring with %d mm of mulch lacks %d L', (depthMm, litres) => {
  expect(mulchLacks(depthMm, fieldDefault)).toBeCloseTo(litres, 2);
});
