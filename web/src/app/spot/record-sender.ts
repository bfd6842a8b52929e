import { inject, Injectable, signal } from '@angular/core';
import type { Problem, SpotDetail } from '@sombra/contract';
import {
  recordTable,
  remedyWords,
  type FieldRecord,
  type RecordFacts,
  type RecordKind,
  type RemedyCode,
  type RemedySeen,
} from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { FieldFaults } from '../fields/field-faults';
import { LiveService } from '../ui/live.service';
import { sayProblem } from '../ui/problem';
import { ToastsService, type ToastAct } from '../ui/toasts.service';
import { OutboxService } from '../offline/outbox.service';
import { readSpotDetail } from './spot-context';
import { SpotStore } from './spot-store';

export interface Conflict {
  readonly title: string;
  readonly theirs: SpotDetail;
}

export interface Sending<K extends RecordKind> {
  readonly kind: K;
  readonly facts: RecordFacts[K];
  readonly supersedes: string | null;
}

/**
 * Sends the record of one form. Provided by each form, so that its problem, its conflict and the id of
 * its unsent record stay its own: sending again after a fault is the same record, never a second one.
 */
@Injectable()
export class RecordSender extends FieldFaults {
  private readonly outbox = inject(OutboxService);
  private readonly store = inject(SpotStore);
  private readonly toasts = inject(ToastsService);
  private readonly live = inject(LiveService);
  private recordId: string | null = null;
  private readonly busyNow = signal(false);
  private readonly faultNow = signal<Problem | null>(null);
  private readonly conflictNow = signal<Conflict | null>(null);

  readonly busy = this.busyNow.asReadonly();
  readonly problem = this.faultNow.asReadonly();
  readonly conflict = this.conflictNow.asReadonly();

  /** True once the record is safe: kept by the server, or waiting on this device. */
  async send<K extends RecordKind>(sending: Sending<K>, done: string): Promise<boolean> {
    const detail = this.store.detail();
    if (!detail || this.busyNow()) return false;
    this.busyNow.set(true);
    this.faultNow.set(null);
    this.recordId ??= uuidv7();
    const record = {
      id: this.recordId,
      kind: sending.kind,
      recordedAt: new Date().toISOString(),
      supersedes: sending.supersedes,
      facts: sending.facts,
    } as FieldRecord;
    const needsVersion = recordTable[sending.kind].versioned;
    const spotVersion = needsVersion ? detail.spot.version : null;
    const sent = { spotId: detail.spot.id, device: 'browser', spotVersion, record };
    const delivery = await this.outbox.deliver(sent, 'back', detail.spot.ref);
    // Until the spot was read again one's next save would be made from the state before one's own.
    if (needsVersion && delivery.kind === 'stored') {
      void this.store.reaches(sent.spotId, delivery.receipt.spotVersion).then(() => this.busyNow.set(false));
    } else this.busyNow.set(false);
    if (delivery.kind === 'refused') {
      this.refuse(delivery.problem);
      return false;
    }
    this.recordId = null;
    this.conflictNow.set(null);
    if (delivery.kind === 'stored') this.toasts.say(done, this.undoOf(detail.spot.id, record));
    else
      this.toasts.say(`Kept on this device: ${sayProblem(delivery.problem)} It is sent by itself when that is over.`);
    this.live.acted();
    return true;
  }

  /** Another thing is recorded from now on: what was wrong with the one before is not said of it. */
  forget(): void {
    this.recordId = null;
    this.faultNow.set(null);
    this.conflictNow.set(null);
  }

  /** Records that a remedy was carried out on a day, and what shows it. */
  settle(remedy: RemedyCode, doneOn: string, seen: RemedySeen | undefined): Promise<boolean> {
    return this.send(
      { kind: 'remedy', facts: seen ? { remedy, doneOn, seen } : { remedy, doneOn }, supersedes: null },
      `${remedyWords[remedy].act}: stored as done.`,
    );
  }

  /** An act can be taken back for a minute: by a record that says so, never by deleting. */
  private undoOf(spotId: string, made: FieldRecord): ToastAct | null {
    if (recordTable[made.kind].takeBack !== 'offered' || made.supersedes !== null) return null;
    const facts = { reason: 'taken back at once' };
    const take = async () => {
      const record: FieldRecord = {
        id: uuidv7(),
        kind: 'retraction',
        recordedAt: new Date().toISOString(),
        supersedes: made.id,
        facts,
      };
      const delivery = await this.outbox.deliver({ spotId, device: 'browser', spotVersion: null, record });
      this.toasts.say(delivery.kind === 'refused' ? sayProblem(delivery.problem) : 'Taken back.');
      this.live.acted();
    };
    return { name: 'Undo', run: () => void take() };
  }

  private refuse(problem: Problem): void {
    if (problem.code === 'conflict' && problem.current) {
      this.conflictNow.set({ title: sayProblem(problem), theirs: readSpotDetail(problem.current) });
    } else this.faultNow.set(problem);
  }

  /** Goes on from the other person's state: what they wrote is then the newest, and ours may follow it. */
  acceptTheirs(): void {
    const conflict = this.conflictNow();
    if (conflict) this.store.adopt(conflict.theirs);
    this.conflictNow.set(null);
  }

  /** The server's fault in a field, by the last part of its path. */
  faultIn(field: string): string | null {
    const issue = this.faultNow()?.issues?.find(({ path }) => path.split('.').includes(field));
    return issue ? `${issue.message.charAt(0).toUpperCase()}${issue.message.slice(1)}` : null;
  }
}

/** What a form that sends records provides: the sender, and its faults to the fields. */
export const sendsRecords = [RecordSender, { provide: FieldFaults, useExisting: RecordSender }];
