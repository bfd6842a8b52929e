import { fingerClasses, lookSigns, mulchContacts, probeClasses, stakeStates } from '../inspect';
import { fingerPicture, flarePicture, flareShapes, mulchPicture, probePicture, stakePicture } from './look-pictures';
import { signPicture } from './sign-pictures';
import type { Drawing } from './shapes';

const all: [string, Drawing][] = [
  ...mulchContacts.map((one): [string, Drawing] => [`mulch ${one}`, mulchPicture(one)]),
  ...stakeStates.map((one): [string, Drawing] => [`stake ${one}`, stakePicture(one)]),
  ...probeClasses.map((one): [string, Drawing] => [`probe ${one}`, probePicture(one)]),
  ...flareShapes.map((one): [string, Drawing] => [`flare ${one}`, flarePicture(one)]),
  ...lookSigns.map((one): [string, Drawing] => [`sign ${one}`, signPicture(one)]),
  ...fingerClasses.map((one): [string, Drawing] => [`finger ${one}`, fingerPicture(one)]),
];
const pointsOf = ({ shapes }: Drawing) =>
  shapes.flatMap((shape) => (shape.kind === 'text' ? [shape.at] : shape.points));
/** The shoelace formula. */
const areaOf = (role: string, { shapes }: Drawing): number =>
  shapes.reduce((sum, shape) => {
    if (shape.kind !== 'polygon' || shape.role !== role) return sum;
    const twice = shape.points.reduce((area, [x, y], i) => {
      const [nextX = 0, nextY = 0] = shape.points[(i + 1) % shape.points.length] ?? [];
      return area + x * nextY - nextX * y;
    }, 0);
    return sum + Math.abs(twice) / 2;
  }, 0);

describe('pictures to choose by', () => {
  it.each(all)('%s lies within its square and says what it is', (_name, drawing) => {
    for (const [x, y] of pointsOf(drawing)) {
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
      expect(Math.max(x, y)).toBeLessThanOrEqual(96);
    }
    expect(drawing.description).not.toBe('');
  });
  it('differ from each other', () => {
    expect(new Set(all.map(([, { shapes }]) => JSON.stringify(shapes))).size).toBe(all.length);
  });
  it('fill with water as the ball does', () => {
    const water = probeClasses.map((one) => areaOf('range', probePicture(one)));
    expect(water).toEqual([...water].sort((a, b) => a - b));
    expect(water[0]).toBe(0);
  });
  it('leave the trunk free where the mulch does', () => {
    const xs = (contact: 'clear' | 'touching') =>
      mulchPicture(contact).shapes.flatMap((shape) =>
        shape.role === 'mulch' && shape.kind === 'polygon' ? [shape.points.map(([x]) => x)] : [],
      );
    const covers = (contact: 'clear' | 'touching') =>
      xs(contact).some((x) => Math.min(...x) < 40 && Math.max(...x) > 56);
    expect([covers('clear'), covers('touching')]).toEqual([false, true]);
  });
  it('show a trunk that widens at the ground, or one that does not', () => {
    const wideAt = (shape: 'widens' | 'straight', y: number) => {
      const xs = flarePicture(shape).shapes.flatMap((one) =>
        one.kind === 'polygon' && one.role === 'trunk' ? one.points.filter(([, at]) => at === y).map(([x]) => x) : [],
      );
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(wideAt('widens', 74)).toBeGreaterThan(wideAt('widens', 8) * 3);
    expect(wideAt('straight', 60)).toBe(wideAt('straight', 8));
  });
  it('show no stake where there is none', () => {
    expect(areaOf('stake', stakePicture('none'))).toBe(0);
    expect(areaOf('stake', stakePicture('tight'))).toBeGreaterThan(0);
  });
});
