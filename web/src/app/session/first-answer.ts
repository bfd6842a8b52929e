import { deviceIdHeader, type Session } from '@sombra/contract';
import { deviceId } from './device-id';
import { isOfTheWay } from './of-the-way';

/** What a page knows before anybody is in. */
export type Outside = Pick<Session, 'csrfToken' | 'programme'>;

/** Whether the server says that nobody is signed in, of a programme that is set up, and asks nothing else of this device. */
export function isOutside(body: unknown): body is Outside {
  const said = body as Partial<Session> | null;
  return said?.user === null && !!said.programme && said.wipe !== true && typeof said.csrfToken === 'string';
}

/** Who this is, as the server said it before anything else of the page was there. */
export interface FirstAnswer {
  readonly body: unknown;
  /** By this device's clock, ms. */
  readonly askedAt: number;
  readonly answeredAt: number;
}

/** What came of asking first: nothing was reached, or `null` where what answered was no answer. */
export type First = FirstAnswer | 'unreached' | null;

let answer: Promise<First> | null = null;

/** Asks while the page is still being fetched. */
export function askFirst(): Promise<First> {
  const id = deviceId();
  answer = readAnswer({ headers: id === null ? {} : { [deviceIdHeader]: id } })
    .then(({ response, ...read }): First => {
      if (response.ok) return read;
      return isOfTheWay(response.status, read.body) ? 'unreached' : null;
    })
    .catch((error: unknown) => (error instanceof TypeError ? 'unreached' : null));
  return answer;
}

/** Asks for the session, or for a new one. @throws where nothing answers, or what answers well is no JSON */
export async function readAnswer(how: RequestInit = {}): Promise<FirstAnswer & { readonly response: Response }> {
  const askedAt = Date.now();
  const response = await fetch('/api/session', how);
  const answeredAt = Date.now();
  const body: unknown = await response.json().catch((error: unknown) => {
    if (response.ok) throw error;
    return null;
  });
  return { response, body, askedAt, answeredAt };
}

/** Somebody came in: the whole application need not ask again. */
export function keepFirst(first: FirstAnswer): void {
  answer = Promise.resolve(first);
}

/** The answer, to whoever takes it first: later it is old. `null` where nobody asked, or somebody took it. */
export function takeFirst(): Promise<First> | null {
  const taken = answer;
  answer = null;
  return taken;
}
