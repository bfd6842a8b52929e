import { hosePositions } from '../water';
import { hosePlaces, sayMinutes } from './hose-places';

it.each([
  [1.25, '1 min 15 s'],
  [3, '3 min'],
  [0.5, '30 s'],
])('%d minutes are %s', (minutes, words) => {
  expect(sayMinutes(minutes)).toBe(words);
});

describe('places of a hose', () => {
  const flow = { ballDiameterMm: 600, lPerMin: 12, doseL: 60 };
  const drawn = (slopePct: number, uphillDeg: number | null) =>
    hosePlaces({
      plan: hosePositions({ ...flow, slopePct, uphillDeg }),
      ballDiameterMm: 600,
      uphillDeg,
      units: 'metric',
      sidePx: 240,
    });
  const numbers = ({ shapes }: ReturnType<typeof drawn>) =>
    shapes.flatMap((shape) => (shape.kind === 'text' && /^\d$/.test(shape.text) ? [shape] : []));

  it('are numbered, all within the sheet', () => {
    const found = numbers(drawn(0, null));
    expect(found.map(({ text }) => text)).toEqual(['1', '2', '3', '4']);
    for (const { at } of found) for (const value of at) expect(Math.abs(value - 120)).toBeLessThan(120);
  });
  it('lie in the uphill half', () => {
    // Uphill is east: to the right of the trunk.
    for (const { at } of numbers(drawn(20, 90))) expect(at[0]).toBeGreaterThan(120);
  });
  it('say how long at each and in all', () => {
    expect(drawn(0, null).description).toBe('4 places for the hose round the ball, 1 min 15 s at each, 5 min in all');
  });
});
