import { recordTable, sayFacts, type UnitSystem } from '@sombra/core';
import type { OutboxEntry, Parcel } from '../offline/outbox-store';
import { sayProblem, stumbled } from '../ui/problem';

/** One thing that is on this device alone, in words. */
export interface WaitingLine {
  readonly id: string;
  readonly kind: 'record' | 'parcel';
  readonly name: string;
  readonly madeAt: number;
  readonly facts: string;
  readonly state: 'waits' | 'refused' | 'binned';
  readonly why: string;
  /** The bench whose form holds it, for a record. */
  readonly correctAt: readonly string[] | null;
  /** The server fell over it rather than refuse it: it may be sent as it is. */
  readonly stumbled: boolean;
  readonly picture: boolean;
}

/** What waits at one spot, or of one delivery. */
export interface WaitingGroup {
  readonly about: string;
  readonly lines: readonly WaitingLine[];
}

const stateOf = (one: OutboxEntry | Parcel): WaitingLine['state'] =>
  one.binnedAt ? 'binned' : one.refused ? 'refused' : 'waits';

function shared(one: OutboxEntry | Parcel): Pick<WaitingLine, 'id' | 'madeAt' | 'state' | 'why' | 'stumbled'> {
  const { id, madeAt, refused } = one;
  return {
    id,
    madeAt,
    state: stateOf(one),
    why: refused ? sayProblem(refused) : '',
    stumbled: refused !== null && stumbled(refused),
  };
}

function ofRecord(entry: OutboxEntry, units: UnitSystem): WaitingLine {
  const { record, spotId } = entry.sent;
  const { name, stage } = recordTable[record.kind];
  const facts = sayFacts(record.facts, units).map((fact) => `${fact.name} ${fact.value}`);
  return {
    ...shared(entry),
    kind: 'record',
    name,
    facts: facts.join(' · '),
    correctAt: ['/', stage, spotId],
    picture: false,
  };
}

const ofParcel = (parcel: Parcel): WaitingLine => ({
  ...shared(parcel),
  kind: 'parcel',
  name: parcel.name,
  facts: '',
  correctAt: null,
  picture: parcel.body instanceof Blob,
});

/** Lines said before: what waits is read again with each thing that is sent, and says the same. */
const said = new Map<string, { readonly as: string; readonly line: WaitingLine }>();
const mostSaid = 5000;

function once(one: OutboxEntry | Parcel, units: UnitSystem, say: () => WaitingLine): WaitingLine {
  const as = [units, one.refused?.code, one.refused?.title, one.binnedAt].join('|');
  const known = said.get(one.id);
  if (known?.as === as) return known.line;
  if (said.size >= mostSaid) said.clear();
  const line = say();
  said.set(one.id, { as, line });
  return line;
}

/** What is on this device alone, by what it is about, in the order it was made. */
export function waitingGroups(
  records: readonly OutboxEntry[],
  parcels: readonly Parcel[],
  units: UnitSystem,
): WaitingGroup[] {
  const all = [
    ...records.map((entry) => ({
      about: entry.about ?? 'A spot',
      line: once(entry, units, () => ofRecord(entry, units)),
    })),
    ...parcels.map((parcel) => ({
      about: parcel.about ?? 'Stock and photos',
      line: once(parcel, units, () => ofParcel(parcel)),
    })),
  ].sort((a, b) => a.line.madeAt - b.line.madeAt);
  const groups = new Map<string, WaitingLine[]>();
  for (const { about, line } of all) {
    const lines = groups.get(about);
    if (lines) lines.push(line);
    else groups.set(about, [line]);
  }
  return [...groups].map(([about, lines]) => ({ about, lines }));
}
