import fc from 'fast-check';
import { addDaysTo } from '../calendar';
import { bucketsOf, keeperState, mostByLinkL, remindsToday } from './keeper';

const today = '2026-06-20';
const asks = (on: string) => ({ kind: 'water', on, litres: 30, afterForecast: false }) as const;

describe('a dose in buckets', () => {
  it.each([
    [30, 10, 3],
    [31, 10, 3.5],
    [36, 10, 4],
    [2, 10, 0.5],
    [25, 12.5, 2],
  ])('%d L in buckets of %d L are %d', (litres, bucketL, buckets) => {
    expect(bucketsOf(litres, bucketL)).toBe(buckets);
  });
  it('is never less than was asked for, and never half a bucket more', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 300, noNaN: true }), fc.double({ min: 1, max: 40, noNaN: true }), (l, b) => {
        const carried = bucketsOf(l, b) * b;
        expect(carried).toBeGreaterThanOrEqual(l - 1e-6);
        expect(carried - l).toBeLessThanOrEqual(b / 2 + 1e-6);
      }),
    );
  });
  it('asks for a bucket that holds something', () => {
    expect(() => bucketsOf(20, 0)).toThrow('bucketL');
  });
});

it.each([
  [2, 40],
  [21, 105],
  [400, 200],
])('a ball that holds %d L is given %d L by link at most', (holdsL, most) => {
  expect(mostByLinkL(holdsL)).toBe(most);
});

describe('a keeper', () => {
  const kept = { since: '2026-03-01', heardOn: null, today };
  it.each([
    ['fine while the tree does not ask', asks('2026-06-21'), null, 'fine'],
    ['due on the day it asks', asks(today), null, 'due'],
    ['due the day after', asks('2026-06-19'), null, 'due'],
    ['silent two days after', asks('2026-06-18'), null, 'silent'],
    ['silent though they were heard a week ago', asks('2026-06-18'), '2026-06-13', 'silent'],
    ['due where they said something lately', asks('2026-06-10'), '2026-06-16', 'due'],
  ] as const)('is %s', (_words, next, heardOn, state) => {
    expect(keeperState({ ...kept, next, heardOn })).toBe(state);
  });
  it('who was asked yesterday is not silent yet', () => {
    expect(keeperState({ ...kept, since: '2026-06-19', next: asks('2026-06-10') })).toBe('due');
  });
  it.each([
    { kind: 'never_dries', withinDays: 60 },
    { kind: 'drowned', since: '2026-06-01' },
    { kind: 'not_forecast' },
    null,
  ] as const)('of a tree with %j is fine', (next) => {
    expect(keeperState({ ...kept, next })).toBe('fine');
  });
});

describe('a reminder', () => {
  it('leaves the day before the tree asks, and every third day', () => {
    const next = asks('2026-06-21');
    const sent: string[] = [];
    for (let i = 0; i < 8; i++) {
      const day = addDaysTo('2026-06-19', i);
      if (remindsToday({ next, remindedOn: sent.at(-1) ?? null, today: day })) sent.push(day);
    }
    expect(sent).toEqual(['2026-06-20', '2026-06-23', '2026-06-26']);
  });
  it('is none where water would do harm', () => {
    expect(remindsToday({ next: { kind: 'drowned', since: '2026-06-01' }, remindedOn: null, today })).toBe(false);
  });
});
