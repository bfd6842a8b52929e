import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { SendBatch } from '@sombra/contract';
import { FakeOutbox } from '../../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { ToastsService, undoMs } from '../ui/toasts.service';
import { OutboxService } from '../offline/outbox.service';
import { BulkActs } from './bulk-acts.service';

let http: HttpTestingController;
let acts: BulkActs;
let toasts: ToastsService;
let outbox: FakeOutbox;
const targets = [1, 2].map((i) => ({ spotId: `0190a5c2-0000-7000-8000-00000000000${i}`, ref: `C-010${i}` }));
const settle = () => new Promise((resolve) => setTimeout(resolve));

beforeEach(() => {
  outbox = new FakeOutbox();
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideFakeSession(new FakeSession()),
      { provide: OutboxService, useValue: outbox },
    ],
  });
  http = TestBed.inject(HttpTestingController);
  acts = TestBed.inject(BulkActs);
  toasts = TestBed.inject(ToastsService);
});

function answerBatch(): SendBatch {
  const call = http.expectOne('/api/records/batch');
  const batch = call.request.body as SendBatch;
  call.flush({ receipts: batch.records.map(({ record }) => ({ id: record.id, stored: true, spotVersion: 2 })) });
  return batch;
}

describe('one act on several trees', () => {
  it('is one call, and can be undone for a minute by taking each record back', async () => {
    const done = acts.settle(targets, { remedy: 'remove_stake', doneOn: '2026-06-15', seen: undefined });
    const first = answerBatch();
    expect(await done).toBe(true);
    const toast = toasts.toasts().at(-1);
    expect([toast?.text, toast?.forMs]).toEqual(['Remove stake and ties: stored as done on 2 trees.', undoMs]);
    toast?.act?.run();
    await settle();
    const back = answerBatch();
    expect(back.records.map(({ record }) => [record.kind, record.supersedes])).toEqual(
      first.records.map(({ record }) => ['retraction', record.id]),
    );
    await settle();
    expect(toasts.toasts().at(-1)?.text).toBe('Taken back on 2 trees.');
  });

  it('keeps every record on this device when the server cannot be reached', async () => {
    const done = acts.settle(targets, { remedy: 'remove_stake', doneOn: '2026-06-15', seen: undefined });
    const call = http.expectOne('/api/records/batch');
    const { records } = call.request.body as SendBatch;
    call.error(new ProgressEvent('error'));
    expect(await done).toBe(true);
    expect(outbox.sent).toEqual(records);
    expect(toasts.toasts().at(-1)?.text).toBe(
      '2 records are kept on this device, to be sent when the server answers again.',
    );
    expect(acts.problem()).toBeNull();
  });

  it('says what the server refused, and offers no undo for it', async () => {
    const done = acts.withdraw(targets);
    const title = '1 of them are planted and cannot be withdrawn: C-0101';
    http
      .expectOne('/api/spots/withdraw')
      .flush({ type: 'x', code: 'invalid_input', status: 400, title }, { status: 400, statusText: 'Bad Request' });
    expect(await done).toBe(false);
    expect(acts.problem()?.title).toBe(title);
    expect(toasts.toasts()).toEqual([]);
  });
});
