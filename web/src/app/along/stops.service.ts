import { computed, inject, Injectable, signal } from '@angular/core';
import type { Assignment } from '@sombra/contract';
import { couldNot, isServed, type AssignmentKind, type FieldRecord } from '@sombra/core';
import { defer, lastValueFrom, ReplaySubject, retry } from 'rxjs';
import type { KeptSpot } from '../offline/along-store';
import { AlongService } from '../offline/along.service';
import { OutboxService } from '../offline/outbox.service';
import type { workOut as WorkOut } from './kept-stop';
import type { Stop } from './stop';

/** One stop of an assignment, and how it stands. */
export interface AssignedStop {
  readonly id: string;
  /** `null` where it was not taken along. */
  readonly stop: Stop | null;
  readonly state: 'open' | 'done' | 'could_not';
  readonly reason: string | null;
}

/** The bench that holds what an assignment asks for. */
export const benchOf: Readonly<Record<Exclude<AssignmentKind, 'delivery'>, string>> = {
  test_holes: 'ground',
  planting: 'day',
  watering: 'inspect',
  looks: 'inspect',
  remedies: 'inspect',
};

/** A worker or a line that failed for a moment is asked again so often, ms apart. */
const askedAgain = { count: 2, delay: 400 };

/** What lies on this device, as stops of a walk: worked out anew only where something came. */
@Injectable()
export class StopsService {
  private readonly along = inject(AlongService);
  private readonly outbox = inject(OutboxService);
  private readonly wanted = new ReplaySubject<void>(1);
  private readonly spots = this.along.watchSpots(this.wanted);
  private readonly failed = signal(false);
  /** Whether what lies here was read: before, nobody can say what is left. */
  readonly areRead = computed(() => this.spots() !== null);
  /** What works them out did not come: nothing can be said of them. */
  readonly fault = this.failed.asReadonly();
  private readonly known = new Map<string, { readonly of: KeptSpot; readonly extra: string; readonly stop: Stop }>();

  readonly stops = computed<readonly Stop[]>(() => {
    const waiting = this.outbox.waiting();
    return (this.spots() ?? []).flatMap((kept) => {
      const own = waiting.filter(({ sent }) => sent.spotId === kept.id).map(({ sent }) => sent.record);
      const stop = this.stopOf(kept, own);
      return stop ? [stop] : [];
    });
  });
  private readonly byId = computed(() => new Map(this.stops().map((stop) => [stop.id, stop])));

  /** Reads them from now on; what works them out, the core, is fetched with the first. */
  async read(): Promise<void> {
    this.failed.set(false);
    try {
      this.workOut = (await lastValueFrom(defer(() => import('./kept-stop')).pipe(retry(askedAgain)))).workOut;
      this.wanted.next();
    } catch {
      this.failed.set(true);
    }
  }
  private workOut: typeof WorkOut = () => null;

  stop(id: string): Stop | null {
    return this.byId().get(id) ?? null;
  }

  /** The stops of an assignment in their order, each with how it stands. */
  of({ kind, spotIds, madeAt }: Assignment): readonly AssignedStop[] {
    return spotIds.map((id) => {
      const stop = this.stop(id);
      const records = stop?.records ?? [];
      const reason = couldNot(kind, records, madeAt);
      const state = isServed(kind, records, madeAt) ? 'done' : reason === null ? 'open' : 'could_not';
      return { id, stop, state, reason };
    });
  }

  private stopOf(kept: KeptSpot, own: readonly FieldRecord[]): Stop | null {
    const extra = own.map(({ id }) => id).join();
    const before = this.known.get(kept.id);
    if (before && isSame(before.of, kept) && before.extra === extra) return before.stop;
    const stop = this.workOut(kept, own);
    if (stop) this.known.set(kept.id, { of: kept, extra, stop });
    return stop;
  }
}

/** Whether a spot lies here as it did: it weighs more once it knows of another record. */
const isSame = (one: KeptSpot, other: KeptSpot): boolean => one.keptAt === other.keptAt && one.bytes === other.bytes;
