import type { Session } from '@sombra/contract';
import { measureClock } from './device-clock';
import { forgetSession } from './device-marks';
import { keepSession, keptSession } from './kept-session';

const session: Session = {
  user: {
    id: '0190a5c2-0000-4000-8000-000000000001',
    signIn: 'bento',
    name: 'Bento',
    role: 'crew_lead',
    units: 'metric',
  },
  csrfToken: 'token',
  today: '2026-11-28',
  programme: { name: 'Shade Walks', demo: true, timeZone: 'Pacific/Kiritimati' },
};
const days = (n: number) => Date.now() + n * 86_400_000;

beforeEach(() => localStorage.clear());

describe('who was signed in on this device', () => {
  it('is remembered for a week without a word from the server, on the day it is in the programme', () => {
    keepSession(session);
    // Fourteen hours ahead of Greenwich: noon there is two in the morning of the next day on the island.
    const noon = Date.UTC(new Date().getUTCFullYear(), new Date().getUTCMonth(), new Date().getUTCDate(), 12);
    expect(keptSession(noon)?.today).toBe(new Date(noon + 14 * 3_600_000).toISOString().slice(0, 10));
    expect(keptSession(days(6.9))?.user?.name).toBe('Bento');
    expect(keptSession(days(7.1))).toBeNull();
    // Nor does a clock that was set back open it for longer.
    expect(keptSession(days(-7.1))).toBeNull();
  });
  it('opens where a clock that was a year ahead is set right on the way', () => {
    const [day, year] = [86_400_000, 31_536_000_000];
    const at = Date.parse('2020-06-15T10:00:00Z');
    const clock = jest.spyOn(Date, 'now').mockReturnValue(at + year);
    measureClock(new Date(at).toISOString(), at + year, at + year);
    keepSession(session);
    clock.mockRestore();
    expect(keptSession(at + year + day)?.today).toBe('2020-06-17');
    expect(keptSession(at + day)?.today).toBe('2020-06-17');
    expect(keptSession(at + 7.1 * day)).toBeNull();
    expect(keptSession(at + year + 7.1 * day)).toBeNull();
  });
  it('is forgotten by signing out, and by a session that holds nobody', () => {
    keepSession(session);
    forgetSession();
    expect(keptSession()).toBeNull();
    keepSession(session);
    keepSession({ ...session, user: null });
    expect(keptSession()).toBeNull();
  });
  it('is nobody where what lies there is not understood, or the zone is unknown the day stays as it was', () => {
    localStorage.setItem('sombra.session', '{"session":{"user":"x"}}');
    expect(keptSession()).toBeNull();
    localStorage.setItem('sombra.session', 'not json');
    expect(keptSession()).toBeNull();
    keepSession({ ...session, programme: { name: 'Shade Walks', demo: true, timeZone: 'Nowhere/At_all' } });
    expect(keptSession()?.today).toBe('2026-11-28');
  });
});
