import { addDaysTo } from '../calendar';
import { follow, loam, plantedOn, rec, sparing, thirsty, watered } from '../../testing/water-cases';
import type { FieldRecord } from './record';
import { siteUseTimes } from './tree-water';

/** Watered each week; the ball is felt some days after each, as `probe` says. */
const weeks = (probe: 'dry' | 'moist' | 'saturated', count = 6, after = 3): FieldRecord[] =>
  Array.from({ length: count }, (_, i) => i + 1).flatMap((week) => [
    rec('inspection', {
      inspectedOn: addDaysTo(plantedOn, 7 * week + after),
      flareDepthMm: null,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe,
      circlingRoots: null,
    }),
    watered(addDaysTo(plantedOn, 7 * week), 40),
  ]);
const set = (useTimes: number) => rec('site_water', { decidedOn: '2026-06-20', useTimes, reason: 'its readings' });

describe('a tree whose readings agree against what is expected of it', () => {
  it('is proposed to drink more where it is always found dry, and never more where it is found moist', () => {
    const dry = follow([...loam, ...weeks('dry')], { species: sparing }).found;
    expect(dry?.useTimes).toBeGreaterThan(1);
    expect(dry?.offAfter).toBeLessThan((dry?.offBefore ?? 0) * (2 / 3));
    // A week after the last watering a thirsty tree has drunk most of it, and is found moist all the same.
    const moist = follow([...loam, ...weeks('moist', 6, 6)], { species: thirsty }).found;
    if (moist) expect(moist.useTimes).toBeLessThan(1);
  });
  it('is left as it is where its readings are as expected, or too few', () => {
    expect(follow(loam).found).toBeNull();
    expect(follow([...loam, ...weeks('dry', 1)]).found).toBeNull();
  });
  it('drinks so once somebody says so, and as before once that is set back', () => {
    const usedBy = (...more: FieldRecord[]) =>
      follow([...loam, watered('2026-06-20', 60), ...more]).days.reduce((sum, { usedL }) => sum + usedL, 0);
    expect(usedBy(set(1.5))).toBeGreaterThan(usedBy());
    expect(usedBy(set(1.5), set(1))).toBeCloseTo(usedBy(), 9);
    expect(siteUseTimes([set(1.5), set(0.8)])).toBe(0.8);
    expect(siteUseTimes([])).toBe(1);
  });
});
