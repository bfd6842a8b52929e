import {
  mostRoundStops,
  type Fleet,
  type GiveRound,
  type KeptRoundPlan,
  type RoundHead,
  type SeekRounds,
  type SeekRoundsProgress,
  type User,
  type WaterFillPoint,
  type WaterRound,
  type WaterTruck,
} from '@sombra/contract';
import {
  addDaysTo,
  couldNot,
  InvalidInputError,
  isNeedless,
  isServed,
  leastMinutes,
  limits,
  NotFoundError,
  ofKind,
  roundWeight,
  standing,
  type FieldRecord,
  type RoundPlan,
  type RoundTask,
  droughtDoseL,
  sayIsoDay,
  sayReason,
  wateringLeave,
  type IsoDate,
  type NextWater,
} from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { v5 as uuidv5 } from 'uuid';
import { giveOut } from '../assignments/service';
import { roundAssignments } from '../assignments/repository';
import { asActor, type Db } from '../platform/db';
import { directWorker, pooledWorker, type Worker, type WorkRun } from '../platform/worker-pool';
import { programmeToday } from '../programme/today';
import { recordsOfSpots } from '../record/repository';
import { storedWater } from '../record/water-repository';
import { currentRules } from '../rules/repository';
import { walkMatrix } from '../streets/repository';
import type { Way } from '../streets/way-files';
import {
  findRound,
  fleet,
  keepFill,
  keepRound,
  keepTruck,
  lockRound,
  markGiven,
  roundHeads,
  droughtTrees,
  thirstyTrees,
  type KeptRound,
  type ThirstyTree,
} from './rounds-repository';
import { establishedBySpecies } from './repository';
import { droughtWatch, useBySpecies } from './service';
import { changedFirst } from './version-repository';
import { seekRoundsFor, type SeekRoundsTask } from './rounds-worker';

export type RoundSeeker = Worker<SeekRoundsTask, RoundPlan>;
export const pooledRoundSeeker = (): RoundSeeker => pooledWorker('water/rounds-worker');
export const directRoundSeeker = (): RoundSeeker => directWorker(seekRoundsFor);

/** Getting out, reading the probe, setting the hose. */
const atStopMinutes = { truck: 2, foot: 1 } as const;
/** Changes tried: a few stops are soon searched; four hundred take some fifteen seconds. */
const triesFor = (stops: number): number => (stops <= 40 ? 40_000 : stops <= 120 ? 120_000 : 300_000);

export const readFleet = (db: Knex): Promise<Fleet> => fleet(db);

/** @throws ConflictError where somebody else changed it first */
export async function saveTruck(db: Knex, user: User, truck: WaterTruck): Promise<Fleet> {
  await asActor(db, user.name, async (trx) => {
    if (!(await keepTruck(trx, truck))) throw changedFirst('This truck was changed by somebody else first');
  });
  return fleet(db);
}

/** @throws ConflictError where somebody else changed it first */
export async function saveFill(db: Knex, user: User, fill: WaterFillPoint): Promise<Fleet> {
  await asActor(db, user.name, async (trx) => {
    if (!(await keepFill(trx, fill))) throw changedFirst('This fill point was changed by somebody else first');
  });
  return fleet(db);
}

/** Trees that ask by their own balance, and after them those that a drought brings back. */
async function askedTrees(db: Db, asked: SeekRounds, today: IsoDate): Promise<ThirstyTree[]> {
  const own = await thirstyTrees(db, { ...asked, today, most: mostRoundStops });
  if (!asked.groups.includes('drought')) return own;
  const { grades: watched } = await droughtWatch(db);
  const dry = new Set(watched.filter(({ level }) => level === 'water').map(({ use }) => use));
  const use = await useBySpecies(db);
  const species = (await establishedBySpecies(db, today)).map((one) => one.species);
  const thirsty = species.filter((one) => dry.has(use.get(one ?? '') ?? 'medium'));
  const back = await droughtTrees(db, {
    today,
    species: thirsty,
    place: asked.place,
    most: mostRoundStops - own.length,
  });
  const asks = (caliperMm: number | null): NextWater => ({
    kind: 'water',
    on: today,
    litres: droughtDoseL(caliperMm ?? usualCaliperMm),
    afterForecast: false,
  });
  return [...own, ...back.map(({ caliperMm, ...tree }) => ({ ...tree, supply: 0.4, next: asks(caliperMm) }))];
}

/** Where nobody measured what was planted. mm */
const usualCaliperMm = 50;

/** @throws InvalidInputError where restrictions allow no watering on the day, naming the next that does */
async function requireLeave(db: Db, { onDay, trucks }: SeekRounds): Promise<void> {
  const known = await fleet(db);
  const { watering } = await currentRules(db);
  const onFoot = trucks.every(({ truckId }) => known.trucks.find(({ id }) => id === truckId)?.onFoot === true);
  const leave = wateringLeave(watering, onDay, onFoot ? 'hand' : 'truck');
  if (leave.may) return;
  const title = leave.because.map((reason) => sayReason(reason, 'metric')).join(' ');
  throw new InvalidInputError(`onDay must be a day on which watering is allowed, got ${onDay}`, 'onDay', { title });
}

/**
 * Plans rounds for the trees that ask for water, and keeps them as a draft. A draft of the same id is planned anew.
 * @throws InvalidInputError for a day that has passed, no tree that asks, or a truck that is not there
 */
export async function planRounds(
  db: Knex,
  seeker: RoundSeeker,
  { user, asked }: { user: User; asked: SeekRounds },
  run: { readonly signal: AbortSignal; readonly onProgress: (progress: SeekRoundsProgress) => void },
): Promise<void> {
  const today = await programmeToday(db);
  if (asked.onDay < today) {
    throw new InvalidInputError(`onDay must not be before ${today}, got ${asked.onDay}`, 'onDay');
  }
  await requireLeave(db, asked);
  const trees = await askedTrees(db, asked, today);
  if (trees.length === 0) {
    throw new InvalidInputError('groups must hold a tree that asks for water, got none', 'groups', {
      title: 'No tree asks for water there by then',
    });
  }
  const known = await fleet(db);
  const trucks = asked.trucks.map(({ truckId, shiftMinutes }) => {
    const truck = known.trucks.find(({ id, retired }) => id === truckId && !retired);
    if (!truck) throw new InvalidInputError(`trucks must be of the fleet, got ${truckId}`, 'trucks');
    return { ...truck, shiftMinutes };
  });
  const fills = known.fills.filter(({ retired }) => !retired);
  const places = [...trees.map(({ position }) => position), ...fills.map(({ position }) => position)];
  const { metres, routed } = await walkMatrix(db, [...places, ...trucks.map(({ depot }) => depot)]);
  const task: RoundTask = {
    stops: trees.map((tree) => ({
      id: tree.spotId,
      litres: litresOf(tree),
      weight: roundWeight(tree, asked.onDay),
      minutes: trucks.every(({ onFoot }) => onFoot) ? atStopMinutes.foot : atStopMinutes.truck,
    })),
    fills: fills.map(({ id, flowLPerMin, connectMinutes }) => ({ id, flowLPerMin, minutes: connectMinutes })),
    trucks,
    metres,
  };
  const found = await seek(seeker, task, asked.seed, run);
  const plan = keptPlan(task, found, { trees, fills, trucks, routed });
  const kept = await asActor(db, user.name, (trx) => keepRound(trx, { ...asked, plan, by: user.name }));
  if (!kept) throw changedFirst('This round was given out already: plan another');
  run.onProgress({ kind: 'found', id: asked.id });
}

const seek = (
  seeker: RoundSeeker,
  task: RoundTask,
  seed: number,
  run: { readonly signal: AbortSignal; readonly onProgress: (progress: SeekRoundsProgress) => void },
): Promise<RoundPlan> => {
  const told: WorkRun = {
    signal: run.signal,
    onProgress: (done, cost) => run.onProgress({ kind: 'running', done, cost }),
  };
  return seeker.run({ task, seed, tries: triesFor(task.stops.length), askedBy: randomUUID() }, told);
};

const litresOf = ({ next }: ThirstyTree): number => {
  const litres = next.kind === 'water' ? next.litres : 0;
  return Math.min(limits.wateringL.max, Math.max(limits.wateringL.min, Math.ceil(litres)));
};

type Trucks = readonly (WaterTruck & { readonly shiftMinutes: number })[];

function keptPlan(
  task: RoundTask,
  { rounds, left }: RoundPlan,
  {
    trees,
    fills,
    trucks,
    routed,
  }: { trees: readonly ThirstyTree[]; fills: Fleet['fills']; trucks: Trucks; routed: boolean },
): KeptRoundPlan {
  const stopOf = (stop: number) => {
    const tree = trees[stop];
    if (!tree) throw new Error(`no stop ${stop}`);
    const { spotId, ref, place, position } = tree;
    return { spotId, ref, place, position: [...position] as [number, number], litres: task.stops[stop]?.litres ?? 0 };
  };
  return {
    trucks: rounds.map(({ steps, minutes, driveM, litres }, t) => {
      const truck = trucks[t];
      if (!truck) throw new Error(`no truck ${t}`);
      const { id, name, onFoot, depot, shiftMinutes } = truck;
      return {
        truckId: id,
        ...{ name, onFoot, depot, shiftMinutes, minutes, driveM, litres },
        steps: steps.map((step) => {
          if (step.kind === 'stop') return { kind: 'stop' as const, ...stopOf(step.stop) };
          const fill = fills[step.fill];
          if (!fill) throw new Error(`no fill point ${step.fill}`);
          return {
            kind: 'fill' as const,
            fillId: fill.id,
            name: fill.name,
            position: fill.position,
            litres: step.litres,
          };
        }),
      };
    }),
    left: left.map(({ stop, why }) => {
      const { spotId, ref, litres } = stopOf(stop);
      return { spotId, ref, litres, why };
    }),
    routed,
    leastMinutes: leastMinutes(task),
  };
}

export const listRounds = (db: Knex): Promise<RoundHead[]> => roundHeads(db);

const noSuch = () => new NotFoundError('no such round', 'id', { title: 'This round is not there' });

/** A round with what has become of each stop by now. @throws NotFoundError */
export async function readRound(db: Knex, id: string): Promise<WaterRound> {
  const round = await findRound(db, id);
  if (!round) throw noSuch();
  const spotIds = stopsOf(round.plan);
  const [records, waters] = [await recordsOfSpots(db, spotIds), await storedWater(db, spotIds)];
  const since = round.givenAt ?? round.madeAt;
  const { givenAt: _given, ...rest } = round;
  return {
    ...rest,
    stops: Object.fromEntries(
      spotIds.map((spotId) => [
        spotId,
        stateOf(records.get(spotId) ?? [], { since, round, next: waters.get(spotId)?.kept.next }),
      ]),
    ),
    given: await roundAssignments(
      db,
      round.plan.trucks.map(({ truckId }) => ({ truckId, id: assignmentId(id, truckId) })),
    ),
  };
}

const stopsOf = ({ trucks }: KeptRoundPlan): string[] =>
  trucks.flatMap(({ steps }) => steps.flatMap((step) => (step.kind === 'stop' ? [step.spotId] : [])));

type Next = Parameters<typeof isNeedless>[0];

function stateOf(
  records: readonly FieldRecord[],
  { since, round, next }: { since: string; round: KeptRound; next: Next | undefined },
): WaterRound['stops'][string] {
  if (isServed('watering', records, since)) {
    const given = ofKind(standing(records), 'watering').filter(({ recordedAt }) => recordedAt >= since);
    const litres = given.reduce((sum, { facts }) => sum + facts.litres, 0);
    return { state: 'watered', litres: given.length > 0 ? litres : null, why: null };
  }
  const why = couldNot('watering', records, since);
  if (why !== null) return { state: 'could_not', litres: null, why };
  if (next && isNeedless(next, round.onDay)) {
    const words =
      next.kind === 'water'
        ? `asks for water on ${sayIsoDay(next.on)} only by now`
        : next.kind === 'drowned'
          ? 'its ball drowns by now'
          : 'asks for no water as far as one can see by now';
    return { state: 'not_needed', litres: null, why: words };
  }
  return { state: 'open', litres: null, why: null };
}

const namespace = '4f0c5f0e-8a1d-5b7c-9d5e-6d1f0d8c3a21';
const assignmentId = (roundId: string, truckId: string): string => uuidv5(`${roundId}/${truckId}`, namespace);

/**
 * Sends somebody out with each truck of a round: their stops in order, the dose of each, and where to fill. Sent twice, it
 * is done once.
 * @throws InvalidInputError for a truck without anybody, a day that has passed; ConflictError for an older version
 */
export async function giveRound(db: Knex, user: User, id: string, { version, people }: GiveRound): Promise<WaterRound> {
  const today = await programmeToday(db);
  await asActor(db, user.name, async (trx) => {
    const round = await lockRound(trx, id);
    if (!round) throw noSuch();
    if (round.state === 'given') return;
    if (round.version !== version || round.state !== 'draft')
      throw changedFirst('This round was changed by somebody else first');
    if (round.onDay < today) {
      throw new InvalidInputError(`onDay must not be before ${today}, got ${round.onDay}`, 'onDay', {
        title: 'Its day has passed: plan it anew',
      });
    }
    for (const truck of round.plan.trucks.filter(({ steps }) => steps.length > 0)) {
      const person = people.find(({ truckId }) => truckId === truck.truckId);
      if (!person) {
        throw new InvalidInputError('people must name somebody for each truck', 'people', {
          title: `Name somebody who goes with ${truck.name}`,
        });
      }
      await giveOut(trx, user, {
        id: assignmentId(id, truck.truckId),
        kind: 'watering',
        title: `${round.title}: ${truck.name}`.slice(0, 80),
        userId: person.userId,
        until: addDaysTo(round.onDay, 1),
        spotIds: truck.steps.flatMap((step) => (step.kind === 'stop' ? [step.spotId] : [])),
        deliveryId: null,
        water: orderOf(truck.steps),
      });
    }
    await markGiven(trx, id);
  });
  return readRound(db, id);
}

type Steps = KeptRoundPlan['trucks'][number]['steps'];

function orderOf(steps: Steps): { doses: Record<string, number>; fills: Record<string, string> } {
  const doses: Record<string, number> = {};
  const fills: Record<string, string> = {};
  steps.forEach((step, i) => {
    if (step.kind === 'stop') {
      doses[step.spotId] = step.litres;
      return;
    }
    const next = steps[i + 1];
    if (next?.kind === 'stop') fills[next.spotId] = step.name;
  });
  return { doses, fills };
}

/** Ways of each truck, its fill points among its stops. */
export function roundWays({ trucks }: KeptRoundPlan): Way[] {
  return trucks
    .filter(({ steps }) => steps.length > 0)
    .map(({ name, depot, steps }) => ({
      name,
      stops: [
        { ref: 'Depot', position: depot },
        ...steps.map((step) =>
          step.kind === 'stop'
            ? { ref: `${step.ref}, ${step.litres} L`, position: step.position }
            : { ref: `Fill at ${step.name}`, position: step.position },
        ),
        { ref: 'Depot', position: depot },
      ],
    }));
}
