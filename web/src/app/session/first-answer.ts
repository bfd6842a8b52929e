import { deviceIdHeader, type Session } from '@sombra/contract';
import { deviceId } from './device-id';

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

let answer: Promise<FirstAnswer | null> | null = null;

/** Asks while the page is still being fetched; `null` where no server answers. */
export function askFirst(): Promise<FirstAnswer | null> {
  const id = deviceId();
  answer = readAnswer({ headers: id === null ? {} : { [deviceIdHeader]: id } })
    .then(({ response, ...read }) => (response.ok ? read : null))
    .catch(() => null);
  return answer;
}

/** Asks for the session, or for a new one. @throws where nothing answers, or what answers is no JSON */
export async function readAnswer(how: RequestInit = {}): Promise<FirstAnswer & { readonly response: Response }> {
  const askedAt = Date.now();
  const response = await fetch('/api/session', how);
  const answeredAt = Date.now();
  return { response, body: (await response.json()) as unknown, askedAt, answeredAt };
}

/** Somebody came in: the whole application need not ask again. */
export function keepFirst(first: FirstAnswer): void {
  answer = Promise.resolve(first);
}

/** The answer, to whoever takes it first: later it is old. `null` where nobody asked, or somebody took it. */
export function takeFirst(): Promise<FirstAnswer | null> | null {
  const taken = answer;
  answer = null;
  return taken;
}
