import { minuteOf } from './day-words';

describe('times of a day', () => {
  it('are those of the programme, wherever the device stands', () => {
    const at = new Date('2026-12-05T09:15:00Z');
    // The Azores are an hour behind UTC in winter; UTC+14 is the next day's night.
    expect([minuteOf(at, 'Atlantic/Azores'), minuteOf(at, 'Pacific/Kiritimati')]).toEqual([8 * 60 + 15, 23 * 60 + 15]);
    expect(minuteOf(new Date('2026-12-05T01:00:00Z'), 'Atlantic/Azores')).toBe(0);
  });
});
