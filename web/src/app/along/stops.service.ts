import { computed, inject, Injectable } from '@angular/core';
import type { Assignment, KeptRecord, SpotDetail } from '@sombra/contract';
import {
  couldNot,
  isServed,
  remedyWords,
  stageNames,
  type AssignmentKind,
  type FieldRecord,
  type SpotLife,
} from '@sombra/core';
import { ReplaySubject } from 'rxjs';
import type { KeptSpot } from '../offline/along-store';
import { AlongService } from '../offline/along.service';
import { OutboxService } from '../offline/outbox.service';
import { lifeOf, readSpotDetail } from '../spot/spot-context';

/** A spot as this device keeps it, worked out. */
export interface Stop {
  readonly id: string;
  readonly ref: string;
  readonly place: string;
  readonly position: readonly [number, number];
  readonly species: string;
  /** Those of the server and those that wait on this device. */
  readonly records: readonly FieldRecord[];
  /** Checked and worked out when somebody looks: `null` where another version kept it, and this one does not read it. */
  readonly detail: SpotDetail | null;
  readonly life: SpotLife | null;
  /** The first thing that waits there, in words. */
  readonly waits: string;
}

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

/** What lies on this device, as stops of a walk: worked out anew only where something came. */
@Injectable()
export class StopsService {
  private readonly along = inject(AlongService);
  private readonly outbox = inject(OutboxService);
  private readonly wanted = new ReplaySubject<void>(1);
  private readonly spots = this.along.watchSpots(this.wanted);
  /** Whether what lies here was read: before, nobody can say what is left. */
  readonly areRead = computed(() => this.spots() !== null);
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

  /** Reads them from now on. */
  read(): void {
    this.wanted.next();
  }

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
    const stop = workOut(kept, own);
    if (stop) this.known.set(kept.id, { of: kept, extra, stop });
    return stop;
  }
}

/** Whether a spot lies here as it did: it weighs more once it knows of another record. */
const isSame = (one: KeptSpot, other: KeptSpot): boolean => one.keptAt === other.keptAt && one.bytes === other.bytes;

/** A kept spot: what a list shows lies at hand, the rest is worked out once, when it is asked for. */
class KeptStop implements Stop {
  readonly id: string;
  readonly ref: string;
  readonly place: string;
  readonly position: readonly [number, number];
  readonly species: string;
  readonly records: readonly FieldRecord[];
  private read: { readonly detail: SpotDetail; readonly life: SpotLife } | null | undefined;

  constructor(
    private readonly body: unknown,
    own: readonly FieldRecord[],
  ) {
    const { spot, tree, records } = body as SpotDetail;
    this.id = spot.id;
    this.ref = spot.ref;
    this.place = spot.place;
    this.position = spot.position;
    this.species = tree?.species ?? '';
    const here = new Set(records.map(({ id }: KeptRecord) => id));
    this.records = [...records, ...own.filter(({ id }) => !here.has(id))] as readonly FieldRecord[];
  }
  get detail(): SpotDetail | null {
    return this.worked()?.detail ?? null;
  }
  get life(): SpotLife | null {
    return this.worked()?.life ?? null;
  }
  get waits(): string {
    const life = this.life;
    return life ? waitsFor(life) : 'take it along anew';
  }
  private worked(): KeptStop['read'] {
    if (this.read !== undefined) return this.read;
    try {
      const detail = readSpotDetail(this.body);
      this.read = { detail, life: lifeOf(detail, this.records) };
    } catch {
      this.read = null;
    }
    return this.read;
  }
}

function workOut({ body }: KeptSpot, own: readonly FieldRecord[]): Stop | null {
  try {
    return new KeptStop(body, own);
  } catch {
    // Kept by another version, and of another shape: it is taken anew on a network.
    return null;
  }
}

function waitsFor({ decisions: [first] }: SpotLife): string {
  if (!first) return '';
  return first.remedy ? remedyWords[first.remedy].act : stageNames[first.stage];
}
