import { signal } from '@angular/core';
import * as z from 'zod';
import { dayMs, opensForDays } from './device-marks';

const key = 'sombra.clock';
const keptSchema = z.object({ aheadMs: z.number(), measuredAt: z.number() });
/** An answer that took longer says little about the clock. */
const slowestMs = 8_000;

/** A device opens so long without a word from the server: its clock says a time within that of the last word, or is off. */
const awayAtMostMs = (opensForDays + 1) * dayMs;

const held = signal<z.infer<typeof keptSchema> | null>(read());

/**
 * How far this device's clock is ahead of the server's, as when they last spoke, ms; `null` where they never did. A clock
 * that was days off and says a time near the last word by now was set right since.
 */
export function aheadMs(now = Date.now()): number | null {
  const kept = held();
  if (!kept) return null;
  const said = kept.measuredAt - kept.aheadMs;
  const isNear = (time: number) => Math.abs(time - said) <= awayAtMostMs;
  return isNear(now) && !isNear(now - kept.aheadMs) ? 0 : kept.aheadMs;
}

/** The server's time where this clock says `now`, ms, as well as it is known. */
export const serverTime = (now = Date.now()): number => now - (aheadMs(now) ?? 0);

/** Measures this clock by an answer of the server: half of the way there and back is taken for the way back. */
export function measureClock(serverNow: string | undefined, askedAtMs: number, answeredAtMs = Date.now()): void {
  const took = answeredAtMs - askedAtMs;
  if (serverNow === undefined || took < 0 || took > slowestMs) return;
  const ahead = Math.round(answeredAtMs - took / 2 - Date.parse(serverNow));
  held.set({ aheadMs: ahead, measuredAt: answeredAtMs });
  try {
    localStorage.setItem(key, JSON.stringify(held()));
  } catch {
    // Known for as long as the page is open.
  }
}

function read(): z.infer<typeof keptSchema> | null {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return kept.success ? kept.data : null;
  } catch {
    return null;
  }
}
