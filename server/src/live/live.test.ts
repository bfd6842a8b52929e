import { loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { LiveHub } from './hub';

let town: TestTown;
beforeAll(async () => {
  town = await openTestTown();
});
afterAll(() => town.stop());

describe('live updates', () => {
  it('reach every server process, whichever kept the record', async () => {
    const { spotId } = await town.addSpot('L-1');
    const elsewhere = new LiveHub(town.appUrl, () => undefined);
    await elsewhere.start();
    const heard = new Promise<string>((resolve) => elsewhere.subscribe(resolve));
    const cora = await Visitor.signedIn(town.url, 'cora');
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
    expect(JSON.parse(await heard)).toEqual({ spots: [spotId] });
    await elsewhere.stop();
  });

  it('come to a signed-in page as events', async () => {
    const cora = await Visitor.signedIn(town.url, 'cora');
    const { cookie } = cora.credentials();
    const abort = new AbortController();
    const response = await fetch(`${town.url}/api/live`, { headers: { cookie }, signal: abort.signal });
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    const { spotId } = await town.addSpot('L-2');
    let text = '';
    while (!text.includes('event: changed')) text += new TextDecoder().decode((await reader.read()).value);
    expect(text).toContain(spotId);
    abort.abort();
  });

  it('are not for strangers', async () => {
    expect((await new Visitor(town.url).send('GET', '/api/live')).status).toBe(401);
  });

  it('end when the session does, in every tab of it', async () => {
    const otto = await Visitor.signedIn(town.url, 'otto');
    const { cookie } = otto.credentials();
    const streams = await Promise.all(
      [1, 2].map(async () => {
        const { body } = await fetch(`${town.url}/api/live`, { headers: { cookie } });
        return (body as ReadableStream<Uint8Array>).getReader();
      }),
    );
    expect((await otto.send('DELETE', '/api/session')).status).toBe(204);
    for (const reader of streams) {
      let done = false;
      while (!done) ({ done } = await reader.read());
    }
  });
});
