import { aheadMs, measureClock, serverTime } from './device-clock';

const at = Date.parse('2026-06-15T10:00:00Z');

describe('the clock of this device', () => {
  it.each([
    ['an hour ahead', at + 3_600_000, 0, 3_600_000],
    ['half of the way there and back is the way back', at + 1000, 2000, 2000],
    ['a year behind', at - 31_536_000_000, 0, -31_536_000_000],
  ])('is measured: %s', (_case, askedAt, took, ahead) => {
    measureClock(new Date(at).toISOString(), askedAt, askedAt + took);
    expect([aheadMs(askedAt), serverTime(askedAt + took)]).toEqual([ahead, at + took / 2]);
    expect(JSON.parse(localStorage.getItem('sombra.clock') ?? '')).toMatchObject({ aheadMs: ahead });
  });
  it('is not measured by an answer that took long, or came before it was asked', () => {
    measureClock(new Date(at).toISOString(), at, at);
    measureClock(new Date(at).toISOString(), at + 90_000, at + 100_000);
    measureClock(new Date(at).toISOString(), at + 90_000, at + 80_000);
    measureClock(undefined, at + 90_000, at + 90_000);
    expect(aheadMs(at)).toBe(0);
  });
  it('is taken at its word once it was set right by days, and not where it was off by an hour, or left as it was', () => {
    const [hour, day, year] = [3_600_000, 86_400_000, 31_536_000_000];
    const offBy = (ahead: number, laterSays: number) => {
      measureClock(new Date(at).toISOString(), at + ahead, at + ahead);
      return aheadMs(laterSays);
    };
    expect(offBy(year, at + day)).toBe(0);
    expect(offBy(-year, at + day)).toBe(0);
    expect(offBy(year, at + year + day)).toBe(year);
    // Wrong by a year and set wrong by another: nobody knows better.
    expect(offBy(year, at + 2 * year)).toBe(year);
    // Whether an hour was set right no later time tells.
    expect(offBy(hour, at + day)).toBe(hour);
    expect(serverTime(at + day)).toBe(at + day - hour);
  });
});
