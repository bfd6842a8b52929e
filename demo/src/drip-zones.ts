import { addDaysTo, type IsoDate } from '@sombra/core';
import { seededUuid, type Dice } from './seed';
import type { DemoSpot } from './spot';

export interface DemoZone {
  readonly id: string;
  readonly name: string;
  readonly body: {
    readonly emitterLPerH: number;
    readonly plants: {
      readonly kind: 'tree' | 'turf';
      readonly name: string;
      readonly emitters: number;
      readonly areaM2: number;
      readonly spotId: string | null;
    }[];
    readonly programme: { readonly minutes: number; readonly everyDays: number; readonly timesADay: number };
    readonly turf: null;
  };
}

/** Trees that were planted in the last two years hang on it. */
const youngDays = 720;
const instant = Date.parse('2025-08-25T09:00:00Z');

/** The valve that opens every night: six emitters of 4 L/h at each tree, some 25 L, and the lawn between them. */
export function demoZones(spots: readonly DemoSpot[], today: IsoDate, from: Dice): DemoZone[] {
  const since = addDaysTo(today, -youngDays);
  const watered = spots.filter(
    ({ records }) =>
      records.some(({ kind, device }) => kind === 'watering' && device === 'valve') &&
      records.some(({ facts }) => 'plantedOn' in facts && facts.plantedOn > since),
  );
  if (watered.length === 0) return [];
  const trees = watered.map(({ id, ref }) => ({
    kind: 'tree' as const,
    name: ref,
    emitters: 6,
    areaM2: 0,
    spotId: id,
  }));
  const lawn = { kind: 'turf' as const, name: 'Lawn', emitters: 120, areaM2: 80, spotId: null };
  const programme = { minutes: 62, everyDays: 1, timesADay: 1 };
  return [
    {
      id: seededUuid(instant, from),
      name: 'Clinic Garden, lawn valve',
      body: { emitterLPerH: 4, plants: [...trees, lawn], programme, turf: null },
    },
  ];
}
