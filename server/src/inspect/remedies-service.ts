import {
  mostAssignedSpots,
  type GiveWork,
  type User,
  type WorkList,
  type WorkQuery,
  type WorkSheetQuery,
} from '@sombra/contract';
import {
  addDaysTo,
  inPlantingWindow,
  InvalidInputError,
  isCoolCloudy,
  simpleRounds,
  type RemedyCode,
} from '@sombra/core';
import type { Knex } from 'knex';
import { giveOut } from '../assignments/service';
import { asActor, type Db } from '../platform/db';
import { findProgramme } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { weatherDays } from '../season/repository';
import { walkMatrix } from '../streets/repository';
import { onFoot, openEnded } from './on-foot';
import { treesOfBatches, workBatches, type WorkTree } from './remedies-repository';

const forecastDays = 16;

/** What is to be done, in batches, with the days and the season for it. */
export async function workList(db: Db, { place, aheadDays }: WorkQuery): Promise<WorkList> {
  const today = await programmeToday(db);
  const [batches, programme, { forecast }] = [
    await workBatches(db, { place, dueBy: addDaysTo(today, aheadDays) }),
    await findProgramme(db),
    await weatherDays(db, { from: today, to: addDaysTo(today, forecastDays) }),
  ];
  return {
    batches,
    coolDays: forecast.filter(isCoolCloudy).map(({ day }) => day),
    coolSeason: inPlantingWindow(programme?.windows ?? [], 'balled', today),
  };
}

type Batches = WorkSheetQuery['batches'];

/** Each tree once, however much is to be done there; by number. */
const eachOnce = (trees: readonly WorkTree[]): WorkTree[] => [
  ...new Map(trees.map((tree) => [tree.spotId, tree])).values(),
];

/** Trees in walking order; by number where they are more than one person is sent out to: nobody walks them in one go. */
async function inWalkingOrder(db: Db, stops: readonly WorkTree[]): Promise<readonly WorkTree[]> {
  if (stops.length > mostAssignedSpots) return stops;
  const { metres } = await walkMatrix(
    db,
    stops.map(({ position }) => position),
  );
  const plan = simpleRounds({
    stops: stops.map(({ spotId }) => ({ id: spotId, litres: 0, weight: 1, minutes: 0 })),
    fills: [],
    trucks: [{ ...onFoot, id: 'crew', kmPerH: 4, shiftMinutes: 1440 }],
    metres: openEnded(metres, 1),
  });
  const walked = plan.rounds.flatMap(({ steps }) => steps.flatMap((step) => (step.kind === 'stop' ? [step.stop] : [])));
  // What is too far to walk in a day comes last.
  const rest = [...stops.keys()].filter((stop) => !walked.includes(stop));
  return [...walked, ...rest].flatMap((stop) => stops[stop] ?? []);
}

async function treesAsked(
  db: Db,
  { batches, aheadDays }: { readonly batches: Batches; readonly aheadDays: number },
): Promise<WorkTree[]> {
  const today = await programmeToday(db);
  const asked = { batches: batches as readonly { place: string; remedy: RemedyCode }[] };
  const trees = await treesOfBatches(db, {
    ...asked,
    dueBy: addDaysTo(today, aheadDays),
    most: 4 * mostAssignedSpots,
  });
  if (trees.length > 0) return trees;
  throw new InvalidInputError('batches must hold a tree that asks for it, got none', 'batches', {
    title: 'Nothing of this is open any more',
  });
}

export interface WorkSheet {
  readonly programme: string;
  readonly today: string;
  readonly units: User['units'];
  readonly remedies: readonly RemedyCode[];
  /** In walking order; of each tree what is to be done there. */
  readonly stops: readonly { readonly tree: WorkTree; readonly asks: readonly WorkTree[] }[];
}

/** What a crew takes along on paper. @throws InvalidInputError where nothing of it is open */
export async function workSheet(db: Db, user: User, asked: WorkSheetQuery): Promise<WorkSheet> {
  const trees = await treesAsked(db, asked);
  const order = await inWalkingOrder(db, eachOnce(trees));
  const programme = await findProgramme(db);
  return {
    programme: programme?.name ?? 'Sombra',
    today: await programmeToday(db),
    units: user.units,
    remedies: [...new Set(trees.map(({ remedy }) => remedy))],
    stops: order.map((tree) => ({ tree, asks: trees.filter(({ spotId }) => spotId === tree.spotId) })),
  };
}

/** Sends somebody out to them, in walking order. @throws InvalidInputError for too many trees, or as `giveOut` does */
export async function giveWork(db: Knex, user: User, asked: GiveWork): Promise<void> {
  const trees = eachOnce(await treesAsked(db, asked));
  if (trees.length > mostAssignedSpots) {
    throw new InvalidInputError(
      `batches must hold ${mostAssignedSpots} trees at most, got ${trees.length}`,
      'batches',
      {
        title: `At most ${mostAssignedSpots} trees go out at once, got ${trees.length}`,
      },
    );
  }
  const { id, title, userId, until } = asked;
  const spotIds = (await inWalkingOrder(db, trees)).map(({ spotId }) => spotId);
  await asActor(db, user.name, (trx) =>
    giveOut(trx, user, { id, kind: 'remedies', title, userId, until, spotIds, deliveryId: null }),
  );
}
