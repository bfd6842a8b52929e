import type { RulesTried, TryRules, TryRulesProgress } from '@sombra/contract';
import {
  compareRules,
  pastYear,
  InvalidInputError,
  spotBasis,
  standing,
  triedRules,
  triedTree,
  typicalClimate,
  typicalYear,
  type ClimateDay,
  type IsoDate,
  type RuleTrial,
  type Species,
  type TypicalYear,
} from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { speciesLibrary } from '../match/repository';
import type { Db } from '../platform/db';
import { pooledWorker, type Worker, type WorkRun } from '../platform/worker-pool';
import { programmeToday } from '../programme/today';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { programmeSeason, weatherDays } from '../season/repository';
import { followedTrees, speciesOfSpots } from './repository';
import { programmeClimate } from './follow-service';

/** So many trees say what a season would have been; of more every so-and-so-many-th is tried. */
export const mostTried = 300;
const chunk = 20;

export interface TriedTask extends TryRules {
  readonly askedBy: string;
}
/** Tries rules on trees beside the server. */
export type RulesTrier = Worker<TriedTask, RulesTried>;
export const pooledTrier = (): RulesTrier => pooledWorker('water/rules-worker');
/** For tests and small programmes: in the server's own thread. */
export const directTrier = (db: Knex): RulesTrier => ({
  run: (task, { onProgress }) => triedOnTrees(db, task, onProgress),
  close: () => Promise.resolve(),
});

/** The typical year of all weather on record; `null` where too few whole years are known. */
export async function programmeTypicalYear(db: Db): Promise<TypicalYear | null> {
  const today = await programmeToday(db);
  const { station } = await programmeSeason(db);
  const { recorded } = await weatherDays(db, { from: '1970-01-01', to: today });
  return typicalYear(recorded, station);
}

/** @throws InvalidInputError where no followed tree is meant, no weather is known, or too few years to say what is typical */
export async function tryRules(
  trier: RulesTrier,
  asked: TryRules,
  run: { readonly signal: AbortSignal; readonly onProgress: (progress: TryRulesProgress) => void },
): Promise<void> {
  const told: WorkRun = { signal: run.signal, onProgress: (done) => run.onProgress({ kind: 'running', done }) };
  const tried = await trier.run({ ...asked, askedBy: randomUUID() }, told);
  if (tried.of === 0) {
    throw new InvalidInputError('place and season must hold a followed tree, got none', 'place', {
      title: 'No tree is followed there: choose another place or season',
    });
  }
  if (asked.weather === 'typical' && tried.years === null) {
    throw new InvalidInputError('weather must be known for three whole years to say what is typical', 'weather', {
      title: 'Too few years of weather are known to say what is typical: compare in the weather that was',
    });
  }
  if (tried.trees === 0) {
    throw new InvalidInputError('weather must be known since the trees were planted', 'weather', {
      title: 'No weather is known since these trees were planted',
    });
  }
  run.onProgress({ kind: 'tried', tried });
}

/** Every rule on every one of these trees, each under the practice that goes for it. */
export async function triedOnTrees(db: Db, asked: TryRules, tell: WorkRun['onProgress']): Promise<RulesTried> {
  const all = await followedTrees(db, asked);
  const ids = evenly(all, mostTried);
  const weather = await weatherOf(db, asked);
  const species = new Map((await speciesLibrary(db)).map((one) => [one.botanical, one]));
  const programme = await programmeBasis(db);
  const totals = new Map(triedRules.map((rule) => [rule, { litres: 0, visits: 0, stressDays: 0, waterloggedDays: 0 }]));
  let [trees, days] = [0, 0];
  for (let at = 0; at < ids.length && weather; at += chunk) {
    for (const trials of await trialsOf(db, ids.slice(at, at + chunk), { weather, species, programme })) {
      trees += 1;
      days += trials[0]?.days.length ?? 0;
      for (const { rule, litres, visits, stressDays, waterloggedDays } of trials) {
        const sum = totals.get(rule);
        if (!sum) continue;
        sum.litres += litres;
        sum.visits += visits;
        sum.stressDays += stressDays;
        sum.waterloggedDays += waterloggedDays;
      }
    }
    tell(Math.min(1, (at + chunk) / ids.length), 0);
  }
  return {
    trees,
    of: all.length,
    days: trees > 0 ? days / trees : 0,
    years: weather?.years ?? null,
    rules: [...totals].map(([rule, sums]) => ({ rule, ...sums })),
  };
}

/** Every so-and-so-many-th, so that at most so many are left. */
const evenly = <T>(all: readonly T[], most: number): readonly T[] => {
  const step = Math.max(1, Math.ceil(all.length / most));
  return all.filter((_, i) => i % step === 0);
};

interface TriedIn {
  readonly latDeg: number;
  readonly years: number | null;
  readonly from: (plantedOn: IsoDate) => readonly ClimateDay[];
}

async function weatherOf(db: Db, { weather }: TryRules): Promise<TriedIn | null> {
  const today = await programmeToday(db);
  const { station, windows } = await programmeSeason(db);
  const { latDeg } = station;
  if (weather === 'was') {
    const { past } = await programmeClimate(db, today);
    return { latDeg, years: null, from: (plantedOn) => pastYear(past, { plantedOn, today }) };
  }
  const typical = await programmeTypicalYear(db);
  if (!typical) return null;
  // Many were planted on the same days.
  const known = new Map<IsoDate, readonly ClimateDay[]>();
  const from = (plantedOn: IsoDate) => {
    const before = known.get(plantedOn);
    if (before) return before;
    const days = typicalClimate(typical, { station, windows, from: plantedOn });
    known.set(plantedOn, days);
    return days;
  };
  return { latDeg, years: typical.years, from };
}

interface TriedUnder {
  readonly weather: TriedIn;
  readonly species: ReadonlyMap<string, Species>;
  readonly programme: Awaited<ReturnType<typeof programmeBasis>>;
}

async function trialsOf(
  db: Db,
  ids: readonly string[],
  { weather, species, programme }: TriedUnder,
): Promise<RuleTrial[][]> {
  const [records, names] = [await recordsOfSpots(db, ids), await speciesOfSpots(db, ids)];
  return ids.flatMap((id) => {
    const all = records.get(id) ?? [];
    const basis = spotBasis(standing(all), contextOf(programme, id, all));
    const tried = triedTree(all, basis, species.get(names.get(id) ?? '') ?? null);
    const climate = tried ? weather.from(tried.subject.plantedOn) : [];
    if (!tried || climate.length === 0) return [];
    const { care: practice, ...tree } = tried;
    return [compareRules({ ...tree, practice, latDeg: weather.latDeg, climate })];
  });
}
