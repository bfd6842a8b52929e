import { whenItHappened } from './clock';

const arrived = '2026-06-15T16:00:00.000Z';

describe('when a record was made', () => {
  it.each([
    ['a clock that agrees', '2026-06-15T09:00:00.000Z', '2026-06-15T16:00:02.000Z', '2026-06-15T09:00:00.000Z', 'kept'],
    ['a year ahead', '2027-06-15T09:00:00.000Z', '2027-06-15T16:00:00.000Z', '2026-06-15T09:00:00.000Z', 'measured'],
    ['two hours behind', '2026-06-15T07:00:00Z', '2026-06-15T14:00:00Z', '2026-06-15T09:00:00.000Z', 'measured'],
    ['some seconds after it came', '2026-06-15T16:00:30Z', '2026-06-15T16:00:31Z', arrived, 'kept'],
    ['set right since', '2027-06-15T09:00:00Z', '2026-06-15T16:00:00Z', arrived, 'asked'],
    ['further back than a phone keeps anything', '2020-01-01T00:00:00Z', arrived, arrived, 'asked'],
    ['nobody knows, hours ago', '2026-06-15T09:00:00Z', null, arrived, 'asked'],
    ['nobody knows, the year 2199', '2199-01-01T00:00:00Z', null, arrived, 'asked'],
    ['nobody knows, and just now', '2026-06-15T15:59:00Z', null, '2026-06-15T15:59:00.000Z', 'kept'],
  ] as const)('%s', (_case, recordedAt, deviceNow, happenedAt, clock) => {
    expect(whenItHappened(recordedAt, { deviceNow }, arrived)).toEqual({ happenedAt, clock });
  });

  it('keeps the order of what one device made, however wrong its clock', () => {
    const made = ['2031-01-01T08:00:00Z', '2031-01-01T08:05:00Z', '2031-01-01T12:00:00Z'];
    const at = made.map((one) => whenItHappened(one, { deviceNow: '2031-01-01T13:00:00Z' }, arrived).happenedAt);
    expect(at).toEqual(['2026-06-15T11:00:00.000Z', '2026-06-15T11:05:00.000Z', '2026-06-15T15:00:00.000Z']);
  });

  const hour = 3_600_000;
  it.each([
    [
      'a clock set right since, known before',
      '2026-06-15T11:00:00Z',
      2 * hour,
      arrived,
      '2026-06-15T09:00:00.000Z',
      'measured',
    ],
    [
      'a clock set wrong since, known before',
      '2026-06-15T09:00:00Z',
      0,
      '2027-06-15T16:00:00Z',
      '2026-06-15T09:00:00.000Z',
      'kept',
    ],
    [
      'read in from a file, known before',
      '2026-06-15T07:00:00Z',
      -2 * hour,
      null,
      '2026-06-15T09:00:00.000Z',
      'measured',
    ],
    ['read in from a file, never known', '2026-06-15T07:00:00Z', null, null, arrived, 'asked'],
  ] as const)('%s', (_case, recordedAt, aheadMs, deviceNow, happenedAt, clock) => {
    expect(whenItHappened(recordedAt, { deviceNow, aheadMs }, arrived)).toEqual({ happenedAt, clock });
  });
});
