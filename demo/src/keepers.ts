import { addDaysTo, type IsoDate } from '@sombra/core';
import { seededUuid, type Dice } from './seed';
import type { DemoSpot } from './spot';

export interface DemoKeeper {
  readonly id: string;
  readonly spotId: string;
  readonly treeId: string;
  readonly name: string;
  readonly bucketL: number;
  readonly since: IsoDate;
  readonly heardOn: IsoDate | null;
  readonly words: readonly {
    readonly id: string;
    readonly kind: 'help' | 'complaint';
    readonly words: string;
    readonly on: IsoDate;
  }[];
}

const instant = Date.parse('2025-03-01T09:00:00Z');
const names = [
  'Alda Corvo-Lima',
  'Brás Meiral',
  'Celina Outeiro',
  'Davi Salgo',
  'Fania Ribalta',
  'Iago Pedrel',
  'Jacinta Vau',
  'Livia Tormo',
  'Otília Rasa',
  'Remo Alvar',
  'Telma Castel-Mor',
  'Urbano Nesa',
] as const;
const told: Readonly<Record<number, { readonly kind: 'help' | 'complaint'; readonly words: string }>> = {
  2: { kind: 'help', words: 'A delivery van bent the stake, the tie hangs loose.' },
  7: { kind: 'complaint', words: 'The green bag at the trunk looks like rubbish in front of my shop.' },
};

/** Residents who keep one of the youngest trees each. */
export function demoKeepers(spots: readonly DemoSpot[], today: IsoDate, from: Dice): DemoKeeper[] {
  const id = () => seededUuid(instant, from);
  const since = addDaysTo(today, -540);
  const planted = spots.flatMap(({ id: spotId, treeId, records }) => {
    const planting = records.find(({ kind }) => kind === 'planting');
    const on = planting && 'plantedOn' in planting.facts ? planting.facts.plantedOn : '';
    return treeId && on >= since && on < today ? [{ spotId, treeId, on }] : [];
  });
  const every = Math.max(1, Math.floor(planted.length / names.length));
  return names.flatMap((name, i) => {
    const tree = planted[i * every];
    if (!tree) return [];
    const { spotId, treeId, on } = tree;
    const heardOn = i % 4 === 3 ? null : addDaysTo(today, -from.whole(3, 60));
    const word = told[i];
    return [
      {
        id: id(),
        spotId,
        treeId,
        name,
        bucketL: i % 3 === 0 ? 12 : 10,
        since: addDaysTo(on, 14) < today ? addDaysTo(on, 14) : today,
        heardOn,
        words: word ? [{ ...word, id: id(), on: addDaysTo(today, -2) }] : [],
      },
    ];
  });
}
