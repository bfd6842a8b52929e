import { HttpClient } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import { batchReceiptSchema, type Problem, type SendRecord, type SpotLine } from '@sombra/contract';
import {
  remedyWords,
  type FieldRecord,
  type RecordFacts,
  type RecordKind,
  type RemedyCode,
  type RemedySeen,
} from '@sombra/core';
import { firstValueFrom, Subject, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { LiveService } from '../ui/live.service';
import { passes, readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { OutboxService } from '../offline/outbox.service';
import { SpotListService } from './spot-list.service';

type Target = Pick<SpotLine, 'spotId' | 'ref'>;

const trees = (count: number): string => (count === 1 ? '1 tree' : `${count} trees`);

/** One act on several trees, stored all together or not at all, and undone within a minute. */
@Injectable({ providedIn: 'root' })
export class BulkActs {
  private readonly http = inject(HttpClient);
  private readonly outbox = inject(OutboxService);
  private readonly toasts = inject(ToastsService);
  private readonly live = inject(LiveService);
  private readonly lists = inject(SpotListService);
  private readonly doneSubject = new Subject<void>();
  private readonly busyNow = signal(false);
  private readonly failed = signal<Problem | null>(null);
  readonly busy = this.busyNow.asReadonly();
  readonly problem = this.failed.asReadonly();
  readonly done$: Observable<void> = this.doneSubject.asObservable();

  /** Records a remedy as done on all of them. */
  async settle(
    targets: readonly Target[],
    { remedy, doneOn, seen }: { remedy: RemedyCode; doneOn: string; seen: RemedySeen | undefined },
  ): Promise<boolean> {
    const facts = seen ? { remedy, doneOn, seen } : { remedy, doneOn };
    return this.record(targets, { kind: 'remedy', facts, said: `${remedyWords[remedy].act}: stored as done` });
  }

  /** Records one and the same fact of all of them. */
  record<K extends RecordKind>(
    targets: readonly Target[],
    { kind, facts, said }: { readonly kind: K; readonly facts: RecordFacts[K]; readonly said: string },
  ): Promise<boolean> {
    const records = targets.map(({ spotId }) => made(spotId, { kind, facts }));
    return this.store(
      records,
      `${said} on ${trees(targets.length)}.`,
      () => void this.takeBack(records, targets.length),
    );
  }

  private async takeBack(records: readonly SendRecord[], count: number): Promise<void> {
    const facts = { reason: 'taken back at once' };
    const back = records.map(({ spotId, record }) => made(spotId, { kind: 'retraction', facts }, record.id));
    await this.store(back, `Taken back on ${trees(count)}.`, null);
  }

  async withdraw(targets: readonly Target[], withdrawn = true): Promise<boolean> {
    const spotIds = targets.map(({ spotId }) => spotId);
    const count = targets.length === 1 ? '1 spot' : `${targets.length} spots`;
    return this.run(
      () => firstValueFrom(this.lists.withdraw({ spotIds, withdrawn })),
      withdrawn ? `${count} withdrawn; the records stay.` : `${count} back in the programme.`,
      withdrawn ? () => void this.withdraw(targets, false) : null,
    );
  }

  private store(records: readonly SendRecord[], said: string, undo: (() => void) | null): Promise<boolean> {
    const send = async () =>
      batchReceiptSchema.parse(
        await firstValueFrom(
          this.http.post('/api/records/batch', { records: records.map((one) => this.outbox.stamped(one)) }),
        ),
      );
    return this.run(send, said, undo, records);
  }

  /** Where the server cannot be reached the records wait on this device, each to be sent by itself. */
  private async keepHere(records: readonly SendRecord[]): Promise<void> {
    for (const record of records) await this.outbox.deliver(record);
    const count = records.length === 1 ? '1 record is' : `${records.length} records are`;
    this.toasts.say(`${count} kept on this device, to be sent when the server answers again.`);
  }

  private async run(
    act: () => Promise<unknown>,
    said: string,
    undo: (() => void) | null,
    records: readonly SendRecord[] = [],
  ): Promise<boolean> {
    this.busyNow.set(true);
    this.failed.set(null);
    try {
      await act();
      this.toasts.say(said, undo ? { name: 'Undo', run: undo } : null);
      this.live.acted();
      this.doneSubject.next();
      return true;
    } catch (error) {
      const problem = readProblem(error);
      if (records.length > 0 && passes(problem)) {
        await this.keepHere(records);
        return true;
      }
      this.failed.set(problem);
      if (!undo) this.toasts.say(sayProblem(problem));
      return false;
    } finally {
      this.busyNow.set(false);
    }
  }
}

function made(
  spotId: string,
  record: Pick<FieldRecord, 'kind' | 'facts'>,
  supersedes: string | null = null,
): SendRecord {
  const envelope = { id: uuidv7(), recordedAt: new Date().toISOString(), supersedes };
  return { spotId, device: 'browser', spotVersion: null, record: { ...envelope, ...record } as FieldRecord };
}
