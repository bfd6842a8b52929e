import type { Facets, SpotFilter, SpotList, SpotListQuery } from '@sombra/contract';
import { stages, type IsoDate, type Stage } from '@sombra/core';
import type { Knex } from 'knex';
import { KeptByPlace } from '../record/kept-by-place-service';
import {
  alikeSpots,
  choicesOf,
  countLines,
  linesOf,
  mostChoices,
  mostWaits,
  waitsByPlace,
  waitsOf,
  type AlikeSpots,
  type Choices,
  type Waits,
} from './repository';

const spotsToday = new KeptByPlace<AlikeSpots[]>(async (db, places) => byPlace(await alikeSpots(db, places)));

type PlaceWaits = Awaited<ReturnType<typeof waitsByPlace>>;
/** By stage: each is counted when somebody first looks at it. */
const waitsToday = new Map(
  stages.map((stage): [Stage, KeptByPlace<PlaceWaits>] => [
    stage,
    new KeptByPlace<PlaceWaits>(async (db, places) => byPlace(await waitsByPlace(db, stage, places))),
  ]),
);

function byPlace<T extends { readonly placeId: string }>(rows: readonly T[]): Map<string, T[]> {
  const kept = new Map<string, T[]>();
  for (const row of rows) kept.set(row.placeId, [...(kept.get(row.placeId) ?? []), row]);
  return kept;
}

/** What is counted by place can tell apart; a filter that asks more is counted from the spots themselves. */
function isCounted(filter: SpotFilter, today: IsoDate, parts: readonly (keyof SpotFilter)[]): boolean {
  const asked = (Object.keys(filter) as (keyof SpotFilter)[]).filter((part) => filter[part] !== undefined);
  return (filter.on ?? today) >= today && asked.every((part) => part === 'on' || parts.includes(part));
}
const partsOfSpots = ['stage', 'level', 'place', 'species', 'planted'] as const;

const holds =
  ({ stage, level, place, species, planted }: SpotFilter) =>
  (spots: AlikeSpots): boolean =>
    (!stage || stage.includes(spots.stage)) &&
    (!level || level.includes(spots.level)) &&
    (!place || place.includes(spots.place)) &&
    (!species || (spots.species !== null && species.includes(spots.species))) &&
    (!planted || spots.planted === (planted === 'yes'));

async function countedSpots(db: Knex, filter: SpotFilter, today: IsoDate): Promise<AlikeSpots[]> {
  const there = await spotsToday.read(db, today);
  const means = holds(filter);
  return [...there.values()].flatMap((spots) => spots.filter(means));
}

const sumOf = (spots: readonly { readonly count: number }[]): number =>
  spots.reduce((sum, { count }) => sum + count, 0);

/** A page of a list, and how many lines the whole has. */
export async function listSpots(db: Knex, query: SpotListQuery, today: IsoDate): Promise<SpotList> {
  const { sort: _sort, down: _down, offset: _offset, limit: _limit, ...filter } = query;
  const counted = isCounted(filter, today, partsOfSpots)
    ? countedSpots(db, filter, today).then(sumOf)
    : countLines(db, filter, today);
  const [lines, total] = await Promise.all([linesOf(db, query, today), counted]);
  return { lines, total };
}

/** What there is to choose from in a filter, most frequent first. */
export async function facets(db: Knex, filter: SpotFilter, today: IsoDate): Promise<Facets> {
  const [choices, waits] = await Promise.all([
    isCounted(filter, today, partsOfSpots)
      ? countedSpots(db, filter, today).then(choicesAmong)
      : choicesOf(db, filter, today),
    waitsIn(db, filter, today),
  ]);
  return { ...choices, waits };
}

const choicesAmong = (spots: readonly AlikeSpots[]): Choices => ({
  places: mostFrequent(spots, ({ place }) => place),
  species: mostFrequent(spots, ({ species }) => species),
  stages: mostFrequent(spots, ({ stage }) => stage),
  levels: mostFrequent(spots, ({ planted, level }) => (planted ? level : null)),
});

function mostFrequent(
  spots: readonly AlikeSpots[],
  nameOf: (spots: AlikeSpots) => string | null,
): { name: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const alike of spots) {
    const name = nameOf(alike);
    if (name !== null) counts.set(name, (counts.get(name) ?? 0) + alike.count);
  }
  return [...counts]
    .map(([name, count]) => ({ name, count }))
    .sort((a, b) => b.count - a.count || a.name.localeCompare(b.name))
    .slice(0, mostChoices);
}

async function waitsIn(db: Knex, filter: SpotFilter, today: IsoDate): Promise<Waits> {
  const [stage, more] = filter.stage ?? [];
  const counted = stage && !more && isCounted(filter, today, ['stage']) ? waitsToday.get(stage) : undefined;
  if (!counted) return waitsOf(db, filter, today);
  const alike = new Map<string, Waits[number]>();
  for (const { placeId: _, ...wait } of [...(await counted.read(db, today)).values()].flat()) {
    const key = JSON.stringify([wait.kind, wait.remedy, wait.because?.code]);
    // The example of the first place serves all.
    const known = alike.get(key) ?? { ...wait, count: 0 };
    alike.set(key, { ...known, count: known.count + wait.count });
  }
  return [...alike.values()].sort((a, b) => b.count - a.count).slice(0, mostWaits);
}
