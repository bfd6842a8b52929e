import type { Facets, SpotFilter, SpotList, SpotListQuery } from '@sombra/contract';
import { stages, type IsoDate, type Stage } from '@sombra/core';
import type { Knex } from 'knex';
import { groupedByPlace, KeptByPlace, Tally } from '../platform/kept-by-place-service';
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

type Alike = Omit<AlikeSpots, 'place' | 'placeId'>;

type PlaceSpots = Omit<AlikeSpots, 'placeId'>;
const spotsToday = new KeptByPlace<PlaceSpots[], Tally<Alike>>(
  async (db, places) => groupedByPlace(await alikeSpots(db, places)),
  () => new Tally(({ stage, level, planted, species }) => [stage, level, planted, species]),
);

type Wait = Waits[number];
/** By stage: each is counted when somebody first looks at it. */
const waitsToday = new Map(
  stages.map((stage): [Stage, KeptByPlace<Wait[], Tally<Wait>>] => [
    stage,
    new KeptByPlace<Wait[], Tally<Wait>>(
      async (db, places) => groupedByPlace<Wait>(await waitsByPlace(db, stage, places)),
      () => new Tally(({ kind, remedy, because }) => [kind, remedy, because?.code]),
    ),
  ]),
);

/** What is counted by place can tell apart; a filter that asks more is counted from the spots themselves. */
function isCounted(filter: SpotFilter, today: IsoDate, parts: readonly (keyof SpotFilter)[]): boolean {
  const asked = (Object.keys(filter) as (keyof SpotFilter)[]).filter((part) => filter[part] !== undefined);
  return (filter.on ?? today) >= today && asked.every((part) => part === 'on' || parts.includes(part));
}
const partsOfSpots = ['stage', 'level', 'place', 'species', 'planted'] as const;

const holds =
  ({ stage, level, species, planted }: SpotFilter) =>
  (spots: Alike): boolean =>
    (!stage || stage.includes(spots.stage)) &&
    (!level || level.includes(spots.level)) &&
    (!species || (spots.species !== null && species.includes(spots.species))) &&
    (!planted || spots.planted === (planted === 'yes'));

/** The spots a filter means: those of each place by themselves, and those that are alike together. */
async function countedSpots(
  db: Knex,
  filter: SpotFilter,
  today: IsoDate,
): Promise<{ readonly places: () => PlaceSpots[]; readonly alike: readonly Alike[] }> {
  const { byPlace: there, sum } = await spotsToday.read(db, today);
  const means = holds(filter);
  const { place } = filter;
  const places = () =>
    [...there.values()]
      .filter(([first]) => !place || (first && place.includes(first.place)))
      .flatMap((spots) => spots.filter(means));
  return { places, alike: place ? places() : sum.all().filter(means) };
}

const sumOf = (spots: readonly { readonly count: number }[]): number =>
  spots.reduce((sum, { count }) => sum + count, 0);

/** A page of a list, and how many lines the whole has. */
export async function listSpots(db: Knex, query: SpotListQuery, today: IsoDate): Promise<SpotList> {
  const { sort: _sort, down: _down, offset: _offset, limit: _limit, ...filter } = query;
  const counted = isCounted(filter, today, partsOfSpots)
    ? countedSpots(db, filter, today).then(({ alike }) => sumOf(alike))
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

const choicesAmong = ({ places, alike }: Awaited<ReturnType<typeof countedSpots>>): Choices => ({
  places: mostFrequent(places(), ({ place }) => place),
  species: mostFrequent(alike, ({ species }) => species),
  stages: mostFrequent(alike, ({ stage }) => stage),
  levels: mostFrequent(alike, ({ planted, level }) => (planted ? level : null)),
});

function mostFrequent<S extends Alike>(
  spots: readonly S[],
  nameOf: (spots: S) => string | null,
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
  const { sum } = await counted.read(db, today);
  return [...sum.all()].sort((a, b) => b.count - a.count).slice(0, mostWaits);
}
