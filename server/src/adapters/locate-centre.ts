import type { IsoDate } from '@sombra/core';
import { z } from 'zod';

const date = z.iso.date();
const replySchema = z.object({
  utility: z.string().min(1).max(80),
  state: z.enum(['waiting', 'clear', 'marked', 'conflict']),
  repliedOn: date.nullable(),
  toleranceMm: z.number().min(0).max(5000).nullable(),
  note: z.string().max(400),
  /** GeoJSON MultiLineString of what was marked on the ground, degrees. */
  marks: z
    .object({
      type: z.literal('MultiLineString'),
      coordinates: z.array(z.array(z.array(z.number()).length(2)).min(2)).max(50),
    })
    .nullable(),
});
export type CentreReply = z.infer<typeof replySchema>;

const ticketSchema = z.object({
  number: z.string().min(1).max(40),
  validFrom: date,
  validUntil: date,
  replies: z.array(replySchema).max(40),
});
export type CentreTicket = z.infer<typeof ticketSchema>;

export interface CentreRequest {
  /** Made by Sombra: a request sent again under the same id is the same ticket. */
  readonly requestId: string;
  readonly purpose: string;
  /** GeoJSON MultiPolygon of the dig area, degrees. */
  readonly area: unknown;
  /** First day of digging and last day of cover by the rules of the programme; the centre answers with its own. */
  readonly workFrom: IsoDate;
  readonly workUntil: IsoDate;
  readonly renews: string | null;
}

/** Why the centre gave no ticket: it cannot be reached, or it refuses the request as it is. */
export class CentreFault extends Error {
  constructor(
    message: string,
    readonly passes: boolean,
  ) {
    super(message);
    this.name = 'CentreFault';
  }
}

/** A one-call centre, whichever it is. Everything may be asked again: the same question gives the same ticket. */
export interface LocateCentre {
  raise(request: CentreRequest): Promise<CentreTicket>;
  status(number: string): Promise<CentreTicket>;
  /** Asks a utility that has not replied once more. */
  remind(number: string, utility: string): Promise<void>;
  withdraw(number: string): Promise<void>;
}

const timeoutMs = 3000;

/**
 * A centre that speaks JSON over HTTP: POST /tickets, GET /tickets/NUMBER, POST /tickets/NUMBER/remind and
 * /withdraw. `docs/adapters.md` tells what a real one has to answer.
 */
export function httpLocateCentre(url: string): LocateCentre {
  async function call(method: string, path: string, body?: unknown): Promise<unknown> {
    let response: Response;
    try {
      response = await fetch(`${url}${path}`, {
        method,
        signal: AbortSignal.timeout(timeoutMs),
        headers: body === undefined ? {} : { 'content-type': 'application/json' },
        body: body === undefined ? null : JSON.stringify(body),
      });
    } catch {
      throw new CentreFault('The locate centre cannot be reached', true);
    }
    if (response.status >= 500) throw new CentreFault(`The locate centre answers ${response.status}`, true);
    const answer: unknown = await response.json().catch(() => null);
    if (!response.ok) throw new CentreFault(refusalOf(answer, response.status), false);
    return answer;
  }
  const ticket = (answer: unknown): CentreTicket => {
    const parsed = ticketSchema.safeParse(answer);
    if (!parsed.success) throw new CentreFault('The locate centre answers in a form Sombra does not know', true);
    return parsed.data;
  };
  const at = (number: string) => `/tickets/${encodeURIComponent(number)}`;
  return {
    raise: async (request) => ticket(await call('POST', '/tickets', request)),
    status: async (number) => ticket(await call('GET', at(number))),
    remind: async (number, utility) => void (await call('POST', `${at(number)}/remind`, { utility })),
    withdraw: async (number) => void (await call('POST', `${at(number)}/withdraw`, {})),
  };
}

function refusalOf(answer: unknown, status: number): string {
  const parsed = z.object({ problem: z.string().max(200) }).safeParse(answer);
  return parsed.success ? `The locate centre refuses: ${parsed.data.problem}` : `The locate centre refuses (${status})`;
}
