import { signal } from '@angular/core';
import * as z from 'zod';

const key = 'sombra.clock';
const keptSchema = z.object({ aheadMs: z.number(), measuredAt: z.number() });
/** An answer that took longer says little about the clock. */
const slowestMs = 8_000;

const held = signal<number | null>(read());
/** How far this device's clock was ahead of the server's when they last spoke, ms; `null` where they never did. */
export const aheadMs = held.asReadonly();

/** Measures this clock by an answer of the server: half of the way there and back is taken for the way back. */
export function measureClock(serverNow: string | undefined, askedAtMs: number, answeredAtMs = Date.now()): void {
  const took = answeredAtMs - askedAtMs;
  if (serverNow === undefined || took < 0 || took > slowestMs) return;
  const ahead = Math.round(answeredAtMs - took / 2 - Date.parse(serverNow));
  held.set(ahead);
  try {
    localStorage.setItem(key, JSON.stringify({ aheadMs: ahead, measuredAt: answeredAtMs }));
  } catch {
    // Known for as long as the page is open.
  }
}

function read(): number | null {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return kept.success ? kept.data.aheadMs : null;
  } catch {
    return null;
  }
}
