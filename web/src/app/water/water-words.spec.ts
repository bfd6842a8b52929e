import { readPosition } from './fleet-panel';
import { sayNext } from './say-next';

const of = { today: '2026-06-10', units: 'metric' } as const;

describe('when a tree asks for water', () => {
  it.each([
    [{ kind: 'water', on: '2026-06-08', litres: 21.4, afterForecast: false }, 'Water now, 21 L; asks since 8 Jun 2026'],
    [{ kind: 'water', on: '2026-06-10', litres: 21.4, afterForecast: false }, 'Water now, 21 L'],
    [{ kind: 'water', on: '2026-06-14', litres: 21.4, afterForecast: false }, 'Water by 14 Jun 2026, 21 L'],
    [{ kind: 'never_dries', withinDays: 60 }, 'No water needed within 60 days'],
    [{ kind: 'not_forecast' }, 'No water needed today'],
    [{ kind: 'drowned', since: '2026-06-01' }, 'Stop watering: the ball drowns'],
  ] as const)('%j is said as %s', (next, words) => {
    expect(sayNext(next, of)).toBe(words);
  });
  it('is said in gallons to whoever reads those', () => {
    const next = { kind: 'water', on: '2026-06-10', litres: 37.9, afterForecast: false } as const;
    expect(sayNext(next, { ...of, units: 'us' })).toMatch(/^Water now, 10(\.0)? gal$/);
  });
});

describe('a place typed as numbers', () => {
  it.each([
    ['-25.4012, 36.9031', [-25.4012, 36.9031]],
    ['-25.4012 36.9031', [-25.4012, 36.9031]],
    ['-25.4012;36.9031', [-25.4012, 36.9031]],
  ])('%s is read', (text, position) => {
    expect(readPosition(text)).toEqual(position);
  });
  it.each(['', 'the harbour', '-25.4', '1, 2, 3', '1,'])('%j is not', (text) => {
    expect(readPosition(text)).toBeNull();
  });
});
