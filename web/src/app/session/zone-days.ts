import { dayMs, opensForDays } from './device-marks';

/** When each of the coming days begins in a zone, kept on this device: asking the browser's calendar costs the first page 0.1 s. */
const key = 'sombra.days';

const afterMs = 1000;

interface ZoneDays {
  readonly timeZone: string;
  /** Each day with the moment it begins, ms, in order. */
  readonly begins: readonly (readonly [number, string])[];
}

/** The calendar day in a zone, `2026-11-28`; `null` for a zone this browser does not know. */
export function dayIn(timeZone: string | undefined, now = Date.now()): string | null {
  if (!timeZone) return null;
  return keptDayIn(timeZone, now) ?? workedOut(timeZone, now);
}

/** Keeps when the coming days of a zone begin, once the first page is there. */
export function keepDays(timeZone: string | undefined, now = Date.now()): void {
  if (!timeZone || keptDayIn(timeZone, now + opensForDays * dayMs) !== null) return;
  setTimeout(
    () =>
      void import('./coming-days')
        .then(({ comingDays }) =>
          localStorage.setItem(key, JSON.stringify({ timeZone, begins: comingDays(timeZone, now) })),
        )
        // Without them each opening asks the browser's calendar.
        .catch(() => undefined),
    afterMs,
  );
}

function keptDayIn(timeZone: string, now: number): string | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as ZoneDays | null;
    if (kept?.timeZone !== timeZone) return null;
    // Before the first and after the last nobody knows.
    const next = kept.begins.findIndex(([at]) => at > now);
    return next > 0 ? (kept.begins[next - 1]?.[1] ?? null) : null;
  } catch {
    return null;
  }
}

function workedOut(timeZone: string, now: number): string | null {
  try {
    const parts = new Intl.DateTimeFormat('en', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
    const of = Object.fromEntries(parts.formatToParts(now).map(({ type, value }) => [type, value]));
    return `${of['year']}-${of['month']}-${of['day']}`;
  } catch {
    return null;
  }
}
