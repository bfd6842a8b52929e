import { clockOf, minutesOfClock } from './time-of-day';

describe('times of a day', () => {
  it('read as they are written', () => {
    expect([clockOf(545), clockOf(544.6), minutesOfClock('09:05'), minutesOfClock('24:00')]).toEqual([
      '09:05',
      '09:05',
      545,
      1440,
    ]);
  });
  it.each(['9', '25:00', '10:70', '', 'ten'])('is none: %s', (wrong) => {
    expect(minutesOfClock(wrong)).toBeNull();
  });
});
