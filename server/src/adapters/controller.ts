import type { ZoneProgramme } from '@sombra/core';
import { z } from 'zod';

const runSchema = z.object({
  at: z.iso.datetime({ offset: true }),
  minutes: z.number().min(0).max(1440),
});
const runsSchema = z.array(runSchema).max(5000);
export type ValveRun = z.infer<typeof runSchema>;

/** A controller of valves: takes a programme for each zone, and tells when each valve was open. */
export interface ValveController {
  tell(zoneId: string, programme: ZoneProgramme): Promise<void>;
  /** Runs that ended after an instant, oldest first. */
  runs(zoneId: string, since: Date): Promise<ValveRun[]>;
}

/** The controller is not there, or answers what cannot be used: said of the zone, and tried again. */
export class ControllerFault extends Error {}

const answerWithinMs = 5000;

/** @throws ControllerFault where it is not reached, answers with an error, or with what is no run */
export function httpController(url: string): ValveController {
  const ask = async (path: string, init: RequestInit = {}): Promise<unknown> => {
    const asked = { ...init, signal: AbortSignal.timeout(answerWithinMs) };
    const response = await fetch(new URL(path, url), asked).catch(() => {
      throw new ControllerFault('the controller cannot be reached');
    });
    if (!response.ok) throw new ControllerFault(`the controller answered ${response.status}`);
    return response.json().catch(() => {
      throw new ControllerFault('the controller answered what is no JSON');
    });
  };
  const of = (zoneId: string) => `/zones/${encodeURIComponent(zoneId)}`;
  return {
    async tell(zoneId, programme) {
      await ask(of(zoneId), {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(programme),
      });
    },
    async runs(zoneId, since) {
      const answer = await ask(`${of(zoneId)}/runs?since=${encodeURIComponent(since.toISOString())}`);
      const read = runsSchema.safeParse(answer);
      if (!read.success) throw new ControllerFault('the controller answered runs that cannot be read');
      return read.data;
    },
  };
}
