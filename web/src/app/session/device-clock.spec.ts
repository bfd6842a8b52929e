import { aheadMs, measureClock } from './device-clock';

const at = Date.parse('2026-06-15T10:00:00Z');

describe('the clock of this device', () => {
  it.each([
    ['an hour ahead', at + 3_600_000, 0, 3_600_000],
    ['half of the way there and back is the way back', at + 1000, 2000, 2000],
    ['a year behind', at - 31_536_000_000, 0, -31_536_000_000],
  ])('is measured: %s', (_case, askedAt, took, ahead) => {
    measureClock(new Date(at).toISOString(), askedAt, askedAt + took);
    expect(aheadMs()).toBe(ahead);
    expect(JSON.parse(localStorage.getItem('sombra.clock') ?? '')).toMatchObject({ aheadMs: ahead });
  });
  it('is not measured by an answer that took long, or came before it was asked', () => {
    measureClock(new Date(at).toISOString(), at, at);
    measureClock(new Date(at).toISOString(), at + 90_000, at + 100_000);
    measureClock(new Date(at).toISOString(), at + 90_000, at + 80_000);
    measureClock(undefined, at + 90_000, at + 90_000);
    expect(aheadMs()).toBe(0);
  });
});
