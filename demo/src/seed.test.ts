import { defaultPercolationLimits, percolationRate, requireGround, requireStock } from '@sombra/core';
import { measuredGround, measuredStock, percolationTest } from './measures';
import { dice, seededUuid } from './seed';
import { crossStreets, greens, preparedPlaces, uphillStreets, zones } from './streets';
import { plantingSeasons } from './tree-history';

describe('dice', () => {
  it('fall the same for the same seed', () => {
    const throws = (seed: string) => Array.from({ length: 50 }, dice(seed).next);
    expect(throws('a')).toEqual(throws('a'));
    expect(throws('a')).not.toEqual(throws('b'));
  });

  it('stay within what was asked', () => {
    const from = dice('range');
    for (let i = 0; i < 2000; i++) {
      const whole = from.whole(3, 5);
      expect([3, 4, 5]).toContain(whole);
      const between = from.between(-2, 2);
      expect(between >= -2 && between < 2).toBe(true);
    }
  });

  it('are fair enough: means within four standard errors', () => {
    const from = dice('fair');
    const n = 20_000;
    let sum = 0;
    for (let i = 0; i < n; i++) sum += from.around(10, 2);
    expect(Math.abs(sum / n - 10)).toBeLessThan((4 * 2) / Math.sqrt(n));
  });

  it('make ids of version 7 that carry their instant', () => {
    const instant = Date.parse('2026-06-01T10:00:00Z');
    const id = seededUuid(instant, dice('id'));
    expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(Number.parseInt(id.replaceAll('-', '').slice(0, 12), 16)).toBe(instant);
  });
});

describe('measures of the town', () => {
  it.each(
    [...crossStreets, ...uphillStreets, ...greens, ...preparedPlaces].map((place) => [place.name, place] as const),
  )('on %s are ones the core takes', (name, place) => {
    const from = dice(name);
    const { stripWidthMm, wireHeightM } = place;
    for (let i = 0; i < 40; i++) {
      const site = { ...zones[place.zone], stripWidthMm, wireHeightM, slopePct: i / 2, fallsTowardsDeg: 170 };
      expect(() => requireGround(measuredGround(site, from))).not.toThrow();
      for (const kind of ['container', 'balled', 'bare_root'] as const) {
        expect(() => requireStock(measuredStock(kind, from, from.between(0, 140)))).not.toThrow();
      }
    }
  });

  it.each([3, 14, 45, 130])('a test hole at %d mm/h reads back as about that', (rate) => {
    const result = percolationRate(percolationTest(rate, dice(`hole ${rate}`)), defaultPercolationLimits);
    expect(result.kind).toBe('rate');
    // Each fall varies by 4 %, and levels are read to 1 mm.
    if (result.kind === 'rate') expect(Math.abs(result.rateMmPerH - rate)).toBeLessThan(0.06 * rate + 2);
  });

  it('plants in the cool months up to today', () => {
    expect(plantingSeasons('2026-11-23', 4)).toEqual(['2023-11-03', '2024-11-03', '2025-11-03', '2026-11-03']);
    expect(plantingSeasons('2026-06-01', 2)).toEqual(['2024-11-03', '2025-11-03']);
  });
});
