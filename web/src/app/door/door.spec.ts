import { takeFirst } from '../session/first-answer';
import { letIn } from './door';

const outside = { csrfToken: 'one', programme: { name: 'Shade Walks', demo: true } };
const said = (status: number, body: unknown) =>
  Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) } as Response);
const sent: { readonly how: RequestInit | undefined; readonly url: string }[] = [];
const answers = (...all: Promise<Response>[]) => {
  sent.length = 0;
  globalThis.fetch = jest.fn((url: string, how?: RequestInit) => {
    sent.push({ url, how });
    return all.shift() ?? Promise.reject(new TypeError());
  }) as never;
};
const body = () => document.body.textContent?.replace(/\s+/g, ' ') ?? '';
const wait = () => new Promise((resolve) => setTimeout(resolve, 20));

async function knock(): Promise<{ inside: () => boolean }> {
  document.body.innerHTML = '<s-root></s-root>';
  const root = document.querySelector<HTMLElement>('s-root')!;
  let inside = false;
  void letIn(outside, root).then(() => (inside = true));
  await wait();
  return { inside: () => inside };
}
async function enter(signIn: string, password: string): Promise<void> {
  for (const [id, value] of [
    ['sign-in-name', signIn],
    ['sign-in-password', password],
  ] as const) {
    const field = document.getElementById(id) as HTMLInputElement;
    field.value = value;
    field.dispatchEvent(new Event('input'));
  }
  document.querySelector('form')!.dispatchEvent(new Event('submit'));
  await wait();
}

describe('the door', () => {
  it('shows the sign-in by itself, and gives way to the application once somebody is in', async () => {
    answers(said(200, { user: { id: 'u' } }));
    const { inside } = await knock();
    expect(body()).toContain('Shade Walks · the demo town');
    expect(document.querySelector<HTMLElement>('s-root')!.hidden).toBe(true);
    await enter('ines', 'shade-walks');
    expect(sent[0]?.how?.headers).toMatchObject({ 'x-csrf-token': 'one' });
    expect(inside()).toBe(true);
    expect(document.querySelector('s-door')).toBeNull();
    expect(document.querySelector<HTMLElement>('s-root')!.hidden).toBe(false);
    expect(await takeFirst()).toMatchObject({ body: { user: { id: 'u' } } });
  });

  it('forgets a session that the server no longer knows, and that somebody is leaving: who comes in stays in', async () => {
    localStorage.setItem('sombra.session', '{"session":{}}');
    localStorage.setItem('sombra.leaving', 'yes');
    answers(said(200, { user: { id: 'u' } }));
    await knock();
    expect(localStorage.getItem('sombra.session')).toBeNull();
    expect(localStorage.getItem('sombra.leaving')).toBeNull();
  });

  it('says why not, and keeps the name', async () => {
    answers(said(400, { code: 'invalid_input', title: 'x' }));
    const { inside } = await knock();
    await enter('ines', 'wrong');
    expect(body()).toContain('Name and password do not fit together.');
    expect((document.getElementById('sign-in-name') as HTMLInputElement).value).toBe('ines');
    expect(inside()).toBe(false);
    answers(said(429, { code: 'too_many_tries', title: 'Too many tries; wait a minute' }));
    await enter('ines', 'wrong');
    expect(body()).toContain('Too many tries; wait a minute');
    answers();
    await enter('ines', 'wrong');
    expect(body()).toContain('The server cannot be reached.');
    answers(said(500, null));
    await enter('ines', 'wrong');
    expect(body()).toContain('The server answered with an error (500).');
  });

  it('asks for what is missing before it asks the server', async () => {
    answers();
    await knock();
    await enter('ines', '');
    expect(body()).toContain('Enter your name and your password.');
    expect(sent).toEqual([]);
  });

  it('takes the token of a session that another window began meanwhile, once', async () => {
    answers(said(403, { code: 'csrf', title: 'stale' }), said(200, { csrfToken: 'two' }), said(200, { user: {} }));
    const { inside } = await knock();
    await enter('ines', 'shade-walks');
    expect(sent.at(-1)?.how?.headers).toMatchObject({ 'x-csrf-token': 'two' });
    expect(inside()).toBe(true);
  });
});
