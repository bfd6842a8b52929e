import { TestBed } from '@angular/core/testing';
import { lastValueFrom, toArray } from 'rxjs';
import { ReadableStream } from 'node:stream/web';
import { TextDecoder as NodeDecoder } from 'node:util';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { CardStreamService } from './card-stream.service';

const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
let calls: { url: string; options: RequestInit }[];

/** A server that answers with these pieces, or with a problem. */
function serve(
  pieces: readonly string[],
  change: { ok?: boolean; status?: number; json?: object } = {},
): CardStreamService {
  calls = [];
  globalThis.TextDecoder = NodeDecoder as typeof TextDecoder;
  const body = new ReadableStream({
    start(controller) {
      for (const piece of pieces) controller.enqueue(bytes(piece));
      controller.close();
    },
  });
  globalThis.fetch = ((url: string, options: RequestInit) => {
    calls.push({ url, options });
    return Promise.resolve({
      ok: true,
      status: 200,
      body,
      headers: new Map([['x-cards', '6']]),
      ...change,
      json: () => Promise.resolve(change.json),
    });
  }) as unknown as typeof fetch;
  TestBed.configureTestingModule({ providers: [provideFakeSession(new FakeSession())] });
  return TestBed.inject(CardStreamService);
}
const told = (stream: CardStreamService, layout: 'a5' | 'four') =>
  lastValueFrom(stream.cards({ layout }).pipe(toArray()));

describe('cards as they are drawn', () => {
  const page = '<<\n/Type /Page\n/Parent 1 0 R\n>>';
  it('count the pages that are whole, also one cut in two by the line', async () => {
    const stream = serve([`%PDF ${page}`, `${page}<<\n/Type /Pa`, `ge\n>> /Type /Pages\n`]);
    const news = await told(stream, 'a5');
    expect(news.map((one) => (one.kind === 'drawing' ? one.done : one.pdf.size > 0))).toEqual([1, 2, 3, true]);
  });

  it('count four cards a sheet, never more than there are', async () => {
    const news = await told(serve([page, page]), 'four');
    expect(news.flatMap((one) => (one.kind === 'drawing' ? [one.done] : []))).toEqual([4, 6]);
  });

  it('send the token that guards writes', async () => {
    await told(serve([page]), 'a5');
    expect(calls[0]?.options.headers).toMatchObject({ 'x-csrf-token': 'token' });
  });

  it('tell what the server says where there are none', async () => {
    const problem = { type: 'x', title: 'Nothing is ready to plant', code: 'not_found', status: 404 };
    await expect(told(serve([], { ok: false, status: 404, json: problem }), 'a5')).rejects.toThrow(
      'Nothing is ready to plant.',
    );
  });

  it('end the work when nobody listens any more', () => {
    const stream = serve([page]);
    const running = stream.cards({ layout: 'a5' }).subscribe();
    running.unsubscribe();
    expect(calls[0]?.options.signal?.aborted).toBe(true);
  });
});
