import type { KeptZone, KeptZones, SaveZone, User } from '@sombra/contract';
import {
  addDaysTo,
  InvalidInputError,
  programmeOn,
  requireZone,
  runLitres,
  type IsoDate,
  type Watering,
} from '@sombra/core';
import type { Knex } from 'knex';
import { isDeepStrictEqual } from 'node:util';
import { ControllerFault, type ValveController } from '../adapters/controller';
import { asActor, type Db } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { announce, recordsThere } from '../record/repository';
import { toldId } from '../record/told-id';
import { keepTold } from '../recording/service';
import { lockSpots } from '../spots/repository';
import {
  keepZone,
  keepZoneRuns,
  lastRuns,
  minutesByDay,
  noteHeard,
  noteTold,
  zones,
  zoneTrees,
  type ZoneRow,
} from './devices-repository';
import { changedFirst } from './version-repository';

const everyMs = 10_000;

const treesOf = ({ body }: Pick<ZoneRow, 'body'>): string[] =>
  body.plants.flatMap(({ spotId }) => (spotId === null ? [] : [spotId]));

/** Valves with what grows on them, what the controller was told, and what it told. */
export async function readZones(db: Knex, controller: KeptZones['controller']): Promise<KeptZones> {
  const rows = await zones(db);
  const trees = await zoneTrees(db, rows.flatMap(treesOf));
  const kept: KeptZone[] = [];
  for (const row of rows) {
    kept.push({
      id: row.id,
      name: row.name,
      body: row.body,
      retired: row.retired,
      version: row.version,
      told: row.told,
      toldAt: row.told_at?.toISOString() ?? null,
      problem: row.problem,
      heardUntil: row.heard_until?.toISOString() ?? null,
      runs: await lastRuns(db, row.id),
      trees: treesOf(row).flatMap((spotId) => {
        const tree = trees.get(spotId);
        if (!tree) return [];
        const { next, ...rest } = tree;
        return [{ ...rest, drowned: next?.kind === 'drowned' }];
      }),
    });
  }
  return { controller, zones: kept };
}

/** @throws ConflictError where somebody else changed it first, InvalidInputError for a tree that is not there, or twice */
export async function saveZone(db: Knex, user: User, zone: SaveZone): Promise<void> {
  requireZone(zone.body);
  const spotIds = treesOf(zone);
  zone.body.plants.forEach(({ kind, spotId, areaM2 }, i) => {
    const path = `body.plants.${i}`;
    if (kind === 'tree' && spotId === null)
      throw new InvalidInputError('a tree must be one of the town', `${path}.spotId`);
    if (kind !== 'tree' && areaM2 <= 0)
      throw new InvalidInputError('areaM2 must be over 0 m², got 0', `${path}.areaM2`);
  });
  if (new Set(spotIds).size < spotIds.length) {
    throw new InvalidInputError('a tree is on a valve once', 'body.plants', { title: 'A tree stands here twice' });
  }
  await asActor(db, user.name, async (trx) => {
    const known = await zoneTrees(trx, spotIds);
    const lost = spotIds.find((id) => !known.has(id));
    if (lost !== undefined) throw new InvalidInputError('must be a spot of the town', 'body.plants');
    if (!(await keepZone(trx, zone))) {
      const title = 'This zone was changed by somebody else first';
      throw changedFirst(title);
    }
    await announce(trx, spotIds);
  });
}

/**
 * Tells the controller what each valve is to run today, where that is another than it was told, and keeps what it says
 * was run: a watering of each tree for every day that is over, not seen at the tree. New turf's programme is set back by
 * itself once its day is over. One zone whose controller does not answer stops no other.
 */
export async function tendZones(db: Knex, controller: ValveController): Promise<void> {
  const today = await programmeToday(db);
  const zone = await timeZone(db);
  for (const row of (await zones(db)).filter(({ retired }) => !retired)) {
    try {
      await tellZone(db, controller, { row, today });
      await hearZone(db, controller, { row, today, timeZone: zone });
    } catch (error) {
      if (!(error instanceof ControllerFault)) throw error;
      const problem = error.message;
      // Said once: every note of it is a line of the audit trail.
      if (problem !== row.problem) await asActor(db, actorOf(row), (trx) => noteTold(trx, row.id, { problem }));
    }
  }
}

const actorOf = ({ name }: Pick<ZoneRow, 'name'>): string => `valve ${name}`;

async function tellZone(
  db: Knex,
  controller: ValveController,
  { row, today }: { row: ZoneRow; today: IsoDate },
): Promise<void> {
  const programme = programmeOn(row.body, today);
  if (row.problem === null && isDeepStrictEqual(row.told, programme)) return;
  await controller.tell(row.id, programme);
  await asActor(db, actorOf(row), async (trx) => {
    await noteTold(trx, row.id, { programme });
    await announce(trx, []);
  });
}

/** What a controller forgot is not asked for again. Days */
const heardDays = 60;

async function hearZone(
  db: Knex,
  controller: ValveController,
  { row, today, timeZone: zone }: { row: ZoneRow; today: IsoDate; timeZone: string },
): Promise<void> {
  const since = row.heard_until ?? new Date(Date.parse(today) - heardDays * 86_400_000);
  // A controller whose clock runs ahead is not believed.
  const runs = (await controller.runs(row.id, since)).filter(({ at }) => Date.parse(at) <= Date.now());
  const last = runs.at(-1);
  if (last) {
    const emitters = row.body.plants.reduce((sum, plant) => sum + plant.emitters, 0);
    await asActor(db, actorOf(row), async (trx) => {
      const kept = runs.map(({ at, minutes }) => ({ at, minutes, litres: runLitres(row.body, emitters, minutes) }));
      await keepZoneRuns(trx, row.id, kept);
      await noteHeard(trx, row.id, new Date(last.at));
    });
  }
  const span = { from: addDaysTo(today, -heardDays), until: addDaysTo(today, -1), timeZone: zone };
  const owed = await owedWaterings(db, row, span);
  if (owed.length > 0) await asActor(db, actorOf(row), (trx) => waterTrees(trx, row, owed));
}

interface Owed {
  readonly spotId: string;
  readonly recordId: string;
  readonly facts: Watering;
}

/** What a valve gave to its trees on days that are over, and is on no record yet: mostly nothing. */
async function owedWaterings(
  db: Db,
  row: ZoneRow,
  span: { readonly from: IsoDate; readonly until: IsoDate; readonly timeZone: string },
): Promise<Owed[]> {
  const days = await minutesByDay(db, row.id, span);
  const trees = await zoneTrees(db, treesOf(row));
  const given = row.body.plants.flatMap(({ spotId, emitters }) => {
    const plantedOn = spotId === null ? undefined : trees.get(spotId)?.subject?.plantedOn;
    if (spotId === null || plantedOn === undefined) return [];
    return days
      .filter(({ day }) => day >= plantedOn)
      .map(({ day, minutes }): Owed => {
        const litres = Math.min(2000, Math.max(1, runLitres(row.body, emitters, minutes)));
        const facts = { wateredOn: day, litres, toldBy: 'controller' as const };
        return { spotId, recordId: toldId(`valve ${row.id}/${spotId}`, day), facts };
      });
  });
  const known = await recordsThere(
    db,
    given.map(({ recordId }) => recordId),
  );
  return given.filter(({ recordId }) => !known.has(recordId));
}

async function waterTrees(trx: Knex.Transaction, row: ZoneRow, owed: readonly Owed[]): Promise<void> {
  await lockSpots(trx, treesOf(row));
  for (const { spotId, recordId, facts } of owed) {
    try {
      await keepTold(trx, { spotId, by: actorOf(row), recordId, told: { kind: 'watering', facts } });
    } catch (error) {
      // A tree that went meanwhile is told of by its own records; the others on the valve were watered all the same.
      if (!(error instanceof InvalidInputError)) throw error;
    }
  }
}

/** Tends valves in the background until stopped. */
export const keepTendingZones = (
  db: Knex,
  controller: ValveController,
  onError: (error: unknown) => void,
): (() => Promise<void>) => keepDoing(() => tendZones(db, controller), { everyMs, atOnce: true, onError });
