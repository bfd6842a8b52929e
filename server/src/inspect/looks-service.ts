import {
  mostLooks,
  type GiveLooks,
  type LookLine,
  type LookPlan,
  type SeekLooks,
  type SeekLooksProgress,
  type User,
  type WorthList,
  type WorthQuery,
} from '@sombra/contract';
import {
  addDaysTo,
  addMonthsTo,
  foundOf,
  InvalidInputError,
  lastFoundNames,
  lookValue,
  sayReason,
  type InspectReason,
  type IsoDate,
  type LookRules,
  type RoundPlan,
  type RoundTask,
  type Storm,
} from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { fieldPeople, giveOut } from '../assignments/service';
import { csvRow } from '../platform/csv';
import { asActor, type Db } from '../platform/db';
import { timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { currentRules } from '../rules/repository';
import { walkMatrix } from '../streets/repository';
import type { RoundSeeker } from '../water/rounds-service';
import { lastStorm, looksAsked, type LookRow } from './looks-repository';
import { onFoot, openEnded } from './on-foot';

/** A storm is looked after for so long; young is a tree in its first two years. */
const [stormDays, youngMonths] = [42, 24] as const;
/** So many are weighed; a list shows the first few hundred. */
const [mostWeighed, mostListed] = [5000, 300] as const;

interface Worth {
  readonly lines: readonly LookLine[];
  readonly rules: LookRules;
  readonly currency: string;
}

async function worthOf(db: Db, { place, aheadDays }: WorthQuery, today: IsoDate): Promise<Worth> {
  const { looks: rules, match } = await currentRules(db);
  const storm = await lastStorm(db, {
    since: addDaysTo(today, -stormDays),
    gustMs: rules.stormGustMs,
    iceMm: rules.stormIceMm,
    zone: await timeZone(db),
  });
  const youngSince = addMonthsTo(today, -youngMonths);
  const rows = await looksAsked(db, {
    ...{ place, today, youngSince, most: mostWeighed },
    dueBy: addDaysTo(today, aheadDays),
    stormOn: storm?.on ?? null,
  });
  const lines = rows.map((row) => {
    const young = row.plantedOn >= youngSince;
    const after = storm !== null && young && row.plantedOn < storm.on && (row.lookedOn ?? row.plantedOn) < storm.on;
    return lineOf(row, { today, rules, storm: after ? storm : null });
  });
  lines.sort((a, b) => b.value - a.value || a.ref.localeCompare(b.ref));
  return { lines, rules, currency: match.currency };
}

function lineOf(row: LookRow, of: { today: IsoDate; rules: LookRules; storm: Storm | null }): LookLine {
  const found = foundOf(row.level, row.lookedOn !== null);
  const { next, trees, troubled, dueOn } = row;
  const dry = next?.kind === 'water' && next.on <= addDaysTo(of.today, -2);
  const balance = next?.kind === 'drowned' ? 'drowned' : dry ? 'dry' : null;
  const known = { found, dueOn, balance, cohort: { trees, troubled }, storm: of.storm } as const;
  const { value, because } = lookValue(known, of.today, of.rules);
  const { spotId, treeId, ref, place, species, position } = row;
  return { spotId, treeId, ref, place, species, position: [...position], found, dueOn, value, because: [...because] };
}

const sumOf = (lines: readonly LookLine[]): number => lines.reduce((sum, { value }) => sum + value, 0);

/** Looks by what they are worth, the most valuable first. */
export async function worthList(db: Db, query: WorthQuery): Promise<WorthList> {
  const { lines, currency } = await worthOf(db, query, await programmeToday(db));
  const more = lines.length >= mostWeighed;
  return { lines: lines.slice(0, mostListed), total: lines.length, more, value: sumOf(lines), currency };
}

const csvHead = ['Number', 'Place', 'Species', 'Last found', 'Look due', 'Worth', 'Because'];

/** All of them as CSV, with why each is worth so much. */
export async function worthCsv(db: Db, user: User, query: WorthQuery): Promise<string> {
  const { lines, currency } = await worthOf(db, query, await programmeToday(db));
  const rows = lines.map(({ ref, place, species, found, dueOn, value, because }) => [
    ...[ref, place, species ?? '', lastFoundNames[found], dueOn ?? '', value.toFixed(2)],
    because.map((reason) => sayReason(reason as InspectReason, user.units)).join(' '),
  ]);
  const head = csvHead.map((name) => (name === 'Worth' ? `Worth, ${currency}` : name));
  return [head, ...rows].map(csvRow).join('');
}

/** A weight is a part of a day: a look worth twice as much is done before two of the other. */
const weightOf = ({ value }: LookLine): number => Math.max(1e-6, value / 100);
/** Where all can be looked at, nobody walks longer than their share and this much of it more. */
const evenly = 1.1;

/**
 * Divides the most valuable looks among inspectors, each within their time, by the ways between trees; where all can be
 * done, evenly.
 * @throws InvalidInputError where no look is asked for there, or somebody may not be sent out
 */
export async function planLooks(
  db: Knex,
  seeker: RoundSeeker,
  asked: SeekLooks,
  run: { readonly signal: AbortSignal; readonly onProgress: (progress: SeekLooksProgress) => void },
): Promise<void> {
  const today = await programmeToday(db);
  const { place, aheadDays } = asked;
  const { lines, rules, currency } = await worthOf(db, { place: place ?? undefined, aheadDays }, today);
  const best = lines.slice(0, mostLooks);
  if (best.length === 0) {
    throw new InvalidInputError('place must hold a tree whose look is due, got none', 'place', {
      title: 'No look is due there by then',
    });
  }
  const people = new Map((await fieldPeople(db)).map(({ id, name }) => [id, name]));
  const unknown = asked.inspectors.find(({ userId }) => !people.has(userId));
  if (unknown) throw new InvalidInputError('inspectors must be people who may be sent out', 'inspectors');
  const { metres, routed } = await walkMatrix(
    db,
    best.map(({ position }) => position),
  );
  const task = (minutes: readonly number[]): RoundTask => ({
    stops: best.map((line) => ({
      id: line.spotId,
      litres: 0,
      weight: weightOf(line),
      minutes: rules.minutesPerLook,
    })),
    fills: [],
    trucks: asked.inspectors.map(({ userId }, i) => ({
      ...{ id: userId, kmPerH: rules.walkKmPerH, shiftMinutes: minutes[i] ?? 10 },
      ...onFoot,
    })),
    metres: openEnded(metres, asked.inspectors.length),
  });
  const given = asked.inspectors.map(({ minutes }) => minutes);
  const seek = (of: RoundTask): Promise<RoundPlan> =>
    seeker.run(
      { task: of, seed: asked.seed, tries: best.length <= 40 ? 40_000 : 120_000, askedBy: randomUUID() },
      { signal: run.signal, onProgress: (done, cost) => run.onProgress({ kind: 'running', done, cost }) },
    );
  let plan = await seek(task(given));
  if (plan.left.length === 0 && given.length > 1) {
    const share = (plan.rounds.reduce((sum, { minutes }) => sum + minutes, 0) / given.length) * evenly;
    const even = await seek(task(given.map((minutes) => Math.max(10, Math.min(minutes, Math.ceil(share))))));
    if (even.left.length === 0) plan = even;
  }
  const rest = lines.slice(mostLooks);
  run.onProgress({ kind: 'found', plan: planOf(plan, { best, rest, people, routed, currency }) });
}

function planOf(
  { rounds, left }: RoundPlan,
  of: {
    readonly best: readonly LookLine[];
    readonly rest: readonly LookLine[];
    readonly people: ReadonlyMap<string, string>;
    readonly routed: boolean;
    readonly currency: string;
  },
): LookPlan {
  const lineAt = (stop: number): LookLine[] => {
    const line = of.best[stop];
    return line ? [line] : [];
  };
  const out = [...left.flatMap(({ stop }) => lineAt(stop)), ...of.rest];
  return {
    rounds: rounds.map(({ truckId, steps, minutes, driveM }) => {
      const stops = steps.flatMap((step) => (step.kind === 'stop' ? lineAt(step.stop) : []));
      return {
        userId: truckId,
        name: of.people.get(truckId) ?? '',
        minutes,
        walkM: driveM,
        value: sumOf(stops),
        stops,
      };
    }),
    left: { count: out.length, value: sumOf(out) },
    routed: of.routed,
    currency: of.currency,
  };
}

/** Sends each inspector out to theirs. @throws InvalidInputError as `giveOut` does */
export async function giveLooks(db: Knex, user: User, { title, until, rounds }: GiveLooks): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    for (const { id, userId, spotIds } of rounds) {
      await giveOut(trx, user, { id, kind: 'looks', title, userId, until, spotIds, deliveryId: null });
    }
  });
}
