import { plantingWindowSchema } from '@sombra/contract';
import type { IsoDate, PlantingWindow } from '@sombra/core';
import { z } from 'zod';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';

interface BasisRow {
  practice_id: string;
  practice_version: number;
  time_zone: string;
  station_lat: number;
  planting_windows: unknown;
  tickets_since: IsoDate;
  adopting_id: string | null;
  adopting_version: number | null;
  adopting_up_to: string | null;
  practices: number;
  rules: number | null;
}

interface Version {
  readonly id: string;
  readonly version: number;
}

/** What the programme stands at: versions, and what is no version of anything. */
export interface KeptBasis {
  readonly practice: Version;
  readonly adopting: (Version & { readonly upTo: string }) | null;
  readonly timeZone: string;
  readonly latDeg: number;
  readonly windows: readonly PlantingWindow[];
  readonly ticketsSince: IsoDate;
  /** How many versions of practices are kept. */
  readonly practices: number;
  /** The version of the rules; `null` while the shipped ones hold. */
  readonly rules: number | null;
}

/** What everything that is judged asks first: one row, or none until the programme was set up. */
export const basisQuestion = (db: Db) =>
  db('programme')
    .joinRaw('left join adoption on adoption.at_spot is not null')
    .select(
      'programme.practice_id',
      'programme.practice_version',
      'programme.time_zone',
      'programme.station_lat',
      'programme.planting_windows',
      'programme.tickets_since',
      'adoption.practice_id as adopting_id',
      'adoption.practice_version as adopting_version',
      'adoption.at_spot as adopting_up_to',
      db.raw('(select count(*)::int from practice) as practices'),
      db.raw('(select max(version) from rules) as rules'),
    );

export function basisFrom([asked]: readonly unknown[]): KeptBasis | undefined {
  if (asked === undefined) return undefined;
  const row = asked as BasisRow;
  const { adopting_id: id, adopting_version: version, adopting_up_to: upTo } = row;
  return {
    practice: { id: row.practice_id, version: row.practice_version },
    adopting: id !== null && version !== null && upTo !== null ? { id, version, upTo } : null,
    timeZone: row.time_zone,
    latDeg: row.station_lat,
    windows: readStored(z.array(plantingWindowSchema), row.planting_windows, 'planting windows'),
    ticketsSince: row.tickets_since,
    practices: row.practices,
    rules: row.rules,
  };
}
