import {
  addDaysTo,
  structuralDepthMm,
  unseenTree,
  type IsoDate,
  type ReceivedTree,
  type StockKind,
} from '@sombra/core';
import { dice, seededUuid, type Dice } from './seed';
import type { DemoSpot } from './spot';

export interface DemoLot {
  readonly id: string;
  readonly species: string;
  readonly stockKind: StockKind;
  readonly caliperMm: number;
  readonly price: number;
  /** Numbers of the places its trees are for. */
  readonly spots: readonly string[];
  readonly arrived: number | null;
  readonly trees: readonly { readonly id: string; readonly tree: ReceivedTree }[];
}

/** An order of this season and what came of it; `arrivedOn` is `null` while it is awaited. */
export interface DemoDelivery {
  readonly listId: string;
  readonly orderId: string;
  readonly deliveryId: string;
  readonly number: string;
  readonly nursery: string;
  readonly orderedOn: IsoDate;
  readonly arrivedOn: IsoDate | null;
  readonly holding: string;
  readonly lots: readonly DemoLot[];
}

const calipers: Readonly<Record<StockKind, number>> = { container: 40, balled: 60, bare_root: 25 };
const mostLots = 3;

/**
 * Two orders for places whose tree is chosen and not here: one has arrived and is half looked at, from the nursery
 * that sends deep stock; the other is awaited.
 */
export function demoDeliveries(
  spots: readonly DemoSpot[],
  { seed, today }: { seed: string; today: IsoDate },
): DemoDelivery[] {
  const from = dice(`${seed}/deliveries`);
  const lots = lotsFor(spots);
  const id = () => seededUuid(Date.parse(`${addDaysTo(today, -30)}T09:00:00Z`), from);
  const order = (
    number: string,
    nursery: string,
    arrivedOn: IsoDate | null,
    some: readonly Wanted[],
  ): DemoDelivery => ({
    listId: id(),
    orderId: id(),
    deliveryId: id(),
    number,
    nursery,
    orderedOn: addDaysTo(today, -30),
    arrivedOn,
    holding: arrivedOn ? 'Depot, under the shade net' : '',
    lots: some.map((wanted, i) =>
      lotOf(wanted, { opened: arrivedOn && i < 2 ? 9 - 3 * i : 0, deep: i === 0, from, id }),
    ),
  });
  const year = today.slice(0, 4);
  return [
    order(`${year}-D1`, 'Outra Margem', addDaysTo(today, -2), lots.slice(0, mostLots)),
    order(`${year}-D2`, 'Viveiro Azul', null, lots.slice(mostLots, 2 * mostLots)),
  ].filter((one) => one.lots.length > 0);
}

interface Wanted {
  readonly species: string;
  readonly stockKind: StockKind;
  readonly refs: readonly string[];
}

/** Places that wait for their tree, by what was chosen for them, the most wanted first. */
function lotsFor(spots: readonly DemoSpot[]): Wanted[] {
  const wanted = new Map<string, { species: string; stockKind: StockKind; refs: string[] }>();
  for (const { ref, records } of spots) {
    const choice = records.find((one) => one.kind === 'choice');
    if (choice?.kind !== 'choice' || records.some(({ kind }) => kind === 'stock')) continue;
    const { species, stockKind } = choice.facts;
    if (!stockKind) continue;
    const key = `${species}/${stockKind}`;
    const lot = wanted.get(key) ?? { species, stockKind, refs: [] };
    lot.refs.push(ref);
    wanted.set(key, lot);
  }
  // A tree without a ball is never too deep in it: those come last.
  const bare = ({ stockKind }: Wanted): number => Number(stockKind === 'bare_root');
  return [...wanted.values()].sort(
    (a, b) => bare(a) - bare(b) || b.refs.length - a.refs.length || a.species.localeCompare(b.species),
  );
}

function lotOf(
  { species, stockKind, refs }: Wanted,
  made: { opened: number; deep: boolean; from: Dice; id: () => string },
): DemoLot {
  const opened = Math.min(made.opened, refs.length);
  return {
    id: made.id(),
    species,
    stockKind,
    caliperMm: calipers[stockKind],
    price: Math.round(calipers[stockKind] * 2.4),
    spots: refs,
    arrived: opened > 0 ? refs.length : null,
    trees: Array.from({ length: opened }, (_, i) => ({
      id: made.id(),
      tree: seenTree(stockKind, made.deep && i % 3 === 0, made.from),
    })),
  };
}

/** A tree as it came: sound, or with its roots far down, as one of the nurseries grows them. */
function seenTree(kind: StockKind, deep: boolean, from: Dice): ReceivedTree {
  const caliperMm = calipers[kind] + from.whole(-2, 4);
  const heightM = Math.round((1.6 + caliperMm / 22) * 10) / 10;
  const top = {
    ...unseenTree,
    caliperMm,
    heightM,
    firstBranchM: Math.round(heightM * 4) / 10,
    kinked: false,
    ties: 'natural' as const,
    leader: 'single' as const,
    wounds: 'none' as const,
    brokenBranches: from.chance(0.15),
    face: 'even' as const,
  };
  if (kind === 'bare_root') return { ...top, rootSpreadMm: 480, rootDepthMm: 270 };
  const ballDiameterMm = caliperMm * 10;
  const ballHeightMm = Math.round(ballDiameterMm * (kind === 'balled' ? 0.72 : 0.88));
  const depthMm = Math.round(deep ? ballHeightMm * from.between(0.38, 0.46) : from.between(5, 35));
  const tree: ReceivedTree = {
    ...top,
    ballDiameterMm,
    ballHeightMm,
    probes: [depthMm, depthMm - 5, Math.round(depthMm * 0.4)].map((mm, i) => ({
      depthMm: Math.max(0, mm),
      nature: i === 2 ? 'adventitious' : 'structural',
    })),
    ball: 'firm',
    wrap: kind === 'balled' ? 'natural' : 'none',
    circlingPct: kind === 'container' ? (from.chance(0.3) ? 10 : 0) : null,
    soilShows: kind === 'container' ? true : null,
  };
  return (structuralDepthMm(tree) ?? 0) < ballHeightMm ? tree : { ...tree, probes: [] };
}
