import { tilesAround } from './tiles';

describe('the squares of a map around places', () => {
  it('hold the place at every zoom, by the usual numbering', () => {
    // Greenwich on the equator is the corner of four squares: the place lies in the one to its south-east.
    const tiles = tilesAround([[0.0001, -0.0001]], 0);
    expect(tiles).toEqual([
      '12/2048/2048',
      '13/4096/4096',
      '14/8192/8192',
      '15/16384/16384',
      '16/32768/32768',
      '17/65536/65536',
    ]);
  });
  it('reach over the edge where the margin does, and name each once', () => {
    const at = (lng: number) => [lng, 36.9] as const;
    const near = tilesAround([at(-25.4), at(-25.4)], 300);
    expect(new Set(near).size).toBe(near.length);
    // At 36.9° a square of zoom 17 is 244 m wide: 600 m reach into three or four of them each way.
    const closest = near.filter((one) => one.startsWith('17/'));
    expect(closest.length).toBeGreaterThanOrEqual(9);
    expect(closest.length).toBeLessThanOrEqual(16);
  });
  it('stay within the world', () => {
    for (const one of tilesAround(
      [
        [180, 85],
        [-180, -85],
      ],
      5000,
    )) {
      const [z = 0, x = 0, y = 0] = one.split('/').map(Number);
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
      expect(Math.max(x, y)).toBeLessThan(2 ** z);
    }
  });
});
