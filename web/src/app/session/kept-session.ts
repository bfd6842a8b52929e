import { sessionSchema, type Session } from '@sombra/contract';
import * as z from 'zod';
import { forgetSession, sessionKey as key } from './device-marks';

/** So long after the last word from the server a device still opens by itself. */
export const opensForDays = 7;
const dayMs = 86_400_000;

const keptSchema = z.object({ session: sessionSchema, keptAt: z.number() });

/** Remembers on this device who was signed in, so that it opens where no server is reached; signing out forgets it. */
export function keepSession(session: Session): void {
  try {
    if (session.user) localStorage.setItem(key, JSON.stringify({ session, keptAt: Date.now() }));
    else forgetSession();
  } catch {
    // A browser that keeps nothing opens with the server alone.
  }
}

/** Who was signed in here, on the day it is now by the programme's zone; `null` where nobody was, or too long ago. */
export function keptSession(now = Date.now()): Session | null {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    if (!kept.success || !kept.data.session.user) return null;
    const { session, keptAt } = kept.data;
    // A clock that was set back does not open it for longer.
    if (Math.abs(now - keptAt) > opensForDays * dayMs) return null;
    return { ...session, today: dayIn(session.programme?.timeZone, now) ?? session.today };
  } catch {
    return null;
  }
}

/** The calendar day in a zone, `2026-11-28`; `null` for a zone this browser does not know. */
function dayIn(timeZone: string | undefined, now: number): string | null {
  if (!timeZone) return null;
  try {
    const parts = new Intl.DateTimeFormat('en', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
    const of = Object.fromEntries(parts.formatToParts(now).map(({ type, value }) => [type, value]));
    return `${of['year']}-${of['month']}-${of['day']}`;
  } catch {
    return null;
  }
}
