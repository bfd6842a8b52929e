import { sessionSchema, type Session } from '@sombra/contract';
import * as z from 'zod';
import { dayMs, forgetSession, opensForDays, sessionKey as key } from './device-marks';
import { serverTime } from './device-clock';
import { dayIn } from './zone-days';

const keptSchema = z.object({ session: sessionSchema, keptAt: z.number() });

/** Remembers on this device who was signed in, so that it opens where no server is reached; signing out forgets it. */
export function keepSession(session: Session): void {
  try {
    if (session.user) localStorage.setItem(key, JSON.stringify({ session, keptAt: serverTime() }));
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
    // A clock that was set back does not open it for longer, and one that was set right not for shorter.
    const time = serverTime(now);
    if (Math.abs(time - keptAt) > opensForDays * dayMs) return null;
    return { ...session, today: dayIn(session.programme?.timeZone, time) ?? session.today };
  } catch {
    return null;
  }
}
