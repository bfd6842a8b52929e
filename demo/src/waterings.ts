import { addDaysTo, addMonthsTo, type IsoDate, type Stock } from '@sombra/core';
import type { Site } from './measures';
import { dice } from './seed';
import { record, type DemoRecord } from './tree-history';
import type { Wetness } from './wetness';

/** The truck comes by this often from May to October, where the fortnight left the ground dry. */
const everyDays = 9;
const season = { from: '05-10', to: '10-05' } as const;
const dryMm = -14;
/** Waterings were written down from so long ago on. Days. */
const writtenSince = 560;
/** A valve of Clinic Garden opens every night, rain or not, since September: more than its ground takes down. */
const zone = { litres: 25, from: '09-01' } as const;
const waterer = 'Tia Rebelo-Sol';

export interface WateredTree {
  /** Its number: every tree has dice of its own, so that waterings change nothing else in the town. */
  readonly ref: string;
  readonly seed: string;
  readonly site: Site;
  readonly stock: Stock;
  readonly plantedOn: IsoDate;
  readonly written: WrittenDays;
}

/** The days of which waterings were written down, worked out once for all trees. */
export interface WrittenDays {
  /** Dry days of the season, by the beat that is driven on them. */
  readonly dry: readonly { readonly day: IsoDate; readonly beat: number }[];
  readonly valve: readonly IsoDate[];
}

export function writtenDays(today: IsoDate, wetness: Wetness): WrittenDays {
  const first = addDaysTo(today, -writtenSince);
  const all = Array.from({ length: writtenSince + 1 }, (_, i) => addDaysTo(first, i));
  const inSeason = all
    .map((day, i) => ({ day, beat: i % everyDays }))
    .filter(({ day }) => day.slice(5) >= season.from && day.slice(5) <= season.to);
  const opened = `${today.slice(0, 4)}-${zone.from}`;
  return {
    dry: inSeason.filter(({ day }) => wetness(day) <= dryMm),
    valve: all.filter((day) => day >= opened),
  };
}

/** What was poured on a tree in its first two summers, as the waterers wrote it down. */
export function wateringsOf({ ref, seed, site, stock, plantedOn, written }: WateredTree): DemoRecord[] {
  const from = dice(`${seed}/water/${ref}`);
  const given = (on: IsoDate, litres: number, device = 'phone') =>
    record('watering', { wateredOn: on, litres }, { on, hour: from.whole(7, 11), by: waterer, device, from });
  const since = addDaysTo(plantedOn, 7);
  if (site.trouble === 'overwatered') {
    return written.valve.filter((day) => day >= since).map((day) => given(day, zone.litres, 'valve'));
  }
  // One street is driven on one day.
  const beat = dice(`${seed}/beat/${ref.slice(0, ref.indexOf('-'))}`).whole(0, everyDays - 1);
  const usualL = Math.round((stock.caliperMm * 0.9) / 5) * 5;
  const until = addMonthsTo(plantedOn, 20);
  return written.dry.flatMap((one) => {
    if (one.beat !== beat || one.day < since || one.day > until) return [];
    return from.chance(0.86) ? [given(one.day, Math.max(15, usualL + 5 * from.whole(-1, 2)))] : [];
  });
}
