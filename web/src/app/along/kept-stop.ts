import type { KeptRecord, SpotDetail } from '@sombra/contract';
import { remedyWords, stageNames, type FieldRecord, type SpotLife } from '@sombra/core';
import type { KeptSpot } from '../offline/along-store';
import { lifeOf, readSpotDetail } from '../spot/spot-context';
import type { Stop } from './stop';

/** A kept spot: what a list shows lies at hand, the rest is worked out once, when it is asked for. */
class KeptStop implements Stop {
  readonly id: string;
  readonly treeId: string | null;
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
    this.treeId = tree?.id ?? null;
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

/** A kept spot as a stop; `null` where another version kept it in another shape. */
export function workOut({ body }: KeptSpot, own: readonly FieldRecord[]): Stop | null {
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
