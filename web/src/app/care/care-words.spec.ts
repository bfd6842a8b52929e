import { sayBucketCount } from '@sombra/core';
import { sayCareNext, usualFor } from './care-words';

const of = { today: '2026-06-10', bucketL: 10 };

describe('what a keeper is told to do', () => {
  it.each([
    [
      { kind: 'water', on: '2026-06-08', litres: 21, afterForecast: false },
      'Water it today: 2.5 buckets of 10 L',
      false,
    ],
    [
      { kind: 'water', on: '2026-06-14', litres: 30, afterForecast: false },
      'Next on Sun 14 Jun 2026: 3 buckets of 10 L',
      false,
    ],
    [{ kind: 'drowned', since: '2026-06-01' }, 'Do not water it', true],
    [{ kind: 'never_dries', withinDays: 60 }, 'No water needed for now', false],
    [null, 'Let your finger decide', false],
  ] as const)('%j is said as %s', (next, head, caution) => {
    expect(sayCareNext({ ...of, next, establishedOn: null })).toMatchObject({ head, caution });
  });
  it.each([
    [0.5, 'half a bucket'],
    [1, '1 bucket'],
    [1.5, '1.5 buckets'],
    [4, '4 buckets'],
  ])('%d is %s', (count, words) => {
    expect(sayBucketCount(count)).toBe(words);
  });
  it('a tree without leaves in its first spring is waited for, later it is not', () => {
    expect(usualFor('2026-01-10', of.today).join()).toContain('No leaves at all in the first spring');
    expect(usualFor('2023-01-10', of.today).join()).not.toContain('No leaves');
  });
});
