import { TZDate } from '@date-fns/tz';
import type { DayDetail } from '@sombra/contract';
import {
  daysBetween,
  digCover,
  materialCodes,
  sayReason,
  shoppingList,
  spotLife,
  sumAmounts,
  wholePlan,
  wrapRemovals,
  type Amounts,
  type IsoDate,
  type PlantingPlan,
  type SpotLife,
  type ToolTree,
  type UnitSystem,
} from '@sombra/core';
import { NotFoundError } from '@sombra/core';
import { mailCounts } from '../mail/repository';
import { cardsPrinted, planHash } from '../pit/printed-cards-repository';
import { spotsByIds, store } from '../pit/repository';
import type { Db } from '../platform/db';
import { timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { offersOf } from '../record/plans-repository';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { currentRules } from '../rules/repository';
import { walkMatrix } from '../streets/repository';
import { coversOf } from '../tickets/cover-repository';
import { hoursNear } from '../weather/repository';
import { peopleOf } from './people-repository';
import {
  currentWaiver,
  eventsOf,
  findDay,
  heldTrees,
  leaveOn,
  stockOnTheWay,
  toolStore,
  workedDays,
  type KeptDayRow,
} from './repository';

type Tree = DayDetail['trees'][number];

const heavySoils = ['clay', 'clay_loam'];
const handsLift = 3;

function toolOf(life: SpotLife, plan: PlantingPlan): ToolTree {
  const { ground, practice, stock, assessment } = life;
  return {
    soil: ground.soil ?? null,
    stony: ground.stony ?? false,
    compacted: ground.compacted ?? false,
    kind: stock?.kind ?? 'container',
    cutsWire: wrapRemovals[practice.roots.wrap].offShare > 0,
    correctsRoots: practice.roots.correction !== 'leave',
    stakes: plan.stakes?.stakes ?? 0,
    carriedBy: plan.carry.means,
    atStreet: assessment?.owner === 'road',
    materials: plan.materials,
  };
}

/**
 * The trees of some spots as a day needs them; `amounts` of what is open, one by one, and `used` by what was planted on
 * that day, both by plan.
 */
export async function treesOfDay(
  db: Db,
  spotIds: readonly string[],
  onDay: IsoDate,
  units: UnitSystem = 'metric',
): Promise<{ trees: Tree[]; amounts: Amounts[]; used: Amounts }> {
  const spots = await spotsByIds(db, onDay, spotIds);
  const [programme, rules, zone] = [await programmeBasis(db), await currentRules(db), await timeZone(db)];
  const records = await recordsOfSpots(db, spotIds);
  const covers = await coversOf(db, spotIds, onDay);
  const offers = await offersOf(
    db,
    spots.map(({ species }) => species),
  );
  const cards = await cardsPrinted(db, spotIds);
  const onTheWay = await stockOnTheWay(db, spotIds);
  const held = await heldTrees(db, spotIds);
  const today = await programmeToday(db);
  const { consented, permitted } = await leaveOn(db, spotIds, onDay);
  const amounts: Amounts[] = [];
  const used: Amounts[] = [];
  const trees = spots.map(({ spotId, ref, place, species, lng, lat }): Tree => {
    const known = records.get(spotId) ?? [];
    const life = spotLife(
      known,
      contextOf(programme, spotId, known, { plantOn: onDay, offers: offers.get(species ?? '') }),
    );
    const found = wholePlan(life, { work: rules.work });
    const plan = found?.kind === 'plan' ? found : null;
    if (plan && !life.planting) amounts.push(plan.materials);
    if (plan && life.planting?.record.facts.plantedOn === onDay) used.push(plan.materials);
    const cover = digCover(covers.get(spotId) ?? { tickets: [], clearances: [] }, onDay, rules.ground);
    const owner = life.assessment?.owner ?? null;
    const planting = life.planting?.record ?? null;
    const card = cards.get(spotId);
    return {
      spotId,
      ref,
      place,
      species,
      position: [lng, lat],
      cover: cover.kind,
      why: cover.because.map((reason) => sayReason(reason, units)).join(' '),
      leaveMissing: (owner === 'yard' && !consented.has(spotId)) || (owner === 'road' && !permitted.has(spotId)),
      stock:
        onTheWay.get(spotId) === 'refused'
          ? 'refused'
          : life.stock
            ? 'accepted'
            : (onTheWay.get(spotId) ?? 'unmeasured'),
      ...waits(held.get(spotId), today),
      planned: plan !== null,
      planted: planting !== null,
      cardChanged: plan !== null && card !== undefined && card !== planHash(plan),
      carded: card !== undefined,
      ruledH: plan?.labour.hours ?? 0,
      heavySoil: heavySoils.includes(life.ground.soil ?? ''),
      heavyStock: plan !== null && (plan.carry.means !== 'people' || plan.carry.people > handsLift),
      lifters: plan?.carry.means === 'people' ? plan.carry.people : 2,
      waterL: plan?.pit.firstWaterL.value ?? 0,
      tool: plan && toolOf(life, plan),
      built: life.planting && {
        level: life.planting.judgement.level,
        findings: [...life.planting.judgement.findings],
        firstWaterL: life.planting.record.facts.firstWaterL ?? 0,
        departure: life.planting.record.facts.departure ?? null,
        by: known.find(({ id }) => id === life.planting?.record.id)?.recordedBy ?? '',
      },
      doneMin: planting?.facts.plantedOn === onDay ? minuteOf(planting.recordedAt, zone) : null,
    };
  });
  return { trees, amounts, used: sumAmounts(used) };
}

/** How long a tree that waits in store has been without water. */
const waits = (kept: { wateredOn: IsoDate; everyDays: number | null } | undefined, today: IsoDate) => ({
  heldDryDays: kept ? Math.max(0, daysBetween(kept.wateredOn, today)) : null,
  wateredEveryDays: kept?.everyDays ?? null,
});

/** Minutes since midnight where the programme is. */
function minuteOf(instant: string, zone: string): number {
  const at = TZDate.tz(zone, new Date(instant));
  return at.getHours() * 60 + at.getMinutes();
}

const middle = (positions: readonly (readonly [number, number])[]): [number, number] | null =>
  positions.length === 0
    ? null
    : [
        positions.reduce((sum, [lng]) => sum + lng, 0) / positions.length,
        positions.reduce((sum, [, lat]) => sum + lat, 0) / positions.length,
      ];

const noSuch = () => new NotFoundError('no such planting day', 'id', { title: 'There is no such planting day' });

export async function requireDay(db: Db, id: string): Promise<KeptDayRow> {
  const day = await findDay(db, id);
  if (!day) throw noSuch();
  return day;
}

export interface DetailAsked {
  readonly simulatedWeather?: boolean;
  readonly mailPage?: string | null;
  readonly units?: UnitSystem;
}

/**
 * The same without anybody's name: who may only look sees how many come, in which team, and what they did.
 */
export function withoutNames(detail: DayDetail): DayDetail {
  const people = detail.people.map((person, i) => ({
    ...person,
    name: `Volunteer ${i + 1}`,
    together: null,
    waiverSignedBy: person.waiver ? 'signed' : null,
  }));
  return { ...detail, people };
}

/** Everything there is of a day. @throws NotFoundError */
export async function dayDetail(
  db: Db,
  id: string,
  { simulatedWeather = false, mailPage = null, units = 'metric' }: DetailAsked = {},
): Promise<DayDetail> {
  const { spotIds, ...day } = await requireDay(db, id);
  const { trees, amounts, used } = await treesOfDay(db, spotIds, day.onDay, units);
  const places = trees.map(({ position }) => position);
  const at = day.gathering ?? middle(places);
  const weather = await hoursNear(db, at, { date: day.onDay, timeZone: await timeZone(db) });
  const { metres, routed } = await walkMatrix(db, at ? [...places, at] : places);
  const { amounts: stored } = await store(db);
  const { work, weather: weatherRules } = await currentRules(db);
  const short = shoppingList(sumAmounts(amounts, day.teams.length), stored, work.packs).filter(
    ({ packs }) => packs > 0,
  );
  return {
    ...day,
    trees,
    people: await peopleOf(db, id),
    walkM: metres.length > 0 ? metres : [[0]],
    routed,
    worked: await workedDays(db),
    forecast: weather?.hours ?? [],
    station: weather && { name: weather.station, simulated: simulatedWeather },
    toolsThere: await toolStore(db),
    materialsMissing: short.map(({ code, needed, inStore }) => ({
      code,
      missing: needed - inStore,
    })),
    materialsUsed: materialCodes.flatMap((code) => {
      const amount = used[code] ?? 0;
      return amount > 0 ? [{ code, amount }] : [];
    }),
    weatherRules,
    events: await eventsOf(db, id),
    waiver: await currentWaiver(db),
    mails: { ...(await mailCounts(db, id)), page: mailPage },
  };
}
