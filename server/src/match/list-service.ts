import type { AskList, ListResult, SeasonList, User } from '@sombra/contract';
import {
  bindingLimits,
  explainList,
  fitOf,
  inPlantingWindow,
  listFaults,
  matchSite,
  readPicks,
  readRelaxations,
  sayReason,
  seasonProgramme,
  spotLife,
  spotsWithoutOffer,
  worthOfList,
  ConflictError,
  NotFoundError,
  type ListOffer,
  type ListProblem,
  type ListSpot,
  type PopulationCount,
  type Reason,
  type TransplantGrade,
} from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { asActor, type Db } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { recordsOfSpots } from '../record/repository';
import { refsOf } from '../spots/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { keepRecords } from '../recording/service';
import { currentRules } from '../rules/repository';
import {
  allOffers,
  endList,
  findList,
  insertList,
  keepProgress,
  lockList,
  population,
  setListState,
  speciesLibrary,
  takeList,
} from './repository';
import type { Solved } from './run-model';
import { programmeToday } from '../programme/today';
import { holdPlaces, insertOrder, nextOrderNumber, type OrderLine } from '../orders/repository';
import type { LinearModel } from '@sombra/core';

/** Solves a model somewhere else than here, and can be stopped. */
export interface ListSolver {
  solve(
    model: LinearModel,
    options: { limitS: number; signal: AbortSignal; onGap: (gap: number | null) => void },
  ): Promise<Solved>;
}

/** Longest search for the best list; what is found by then is shown with its gap. */
const limitS = 60;
/** A list whose solver says nothing for so long is taken over by another. */
const holdS = 15;
const beatMs = 1500;

const ease: Readonly<Record<TransplantGrade, number>> = { easy: 1, fair: 0.7, hard: 0.3, no: 0 };

/** Asks for a season's list. Sent twice, it is made once. */
export async function askList(db: Knex, user: User, ask: AskList): Promise<SeasonList> {
  await asActor(db, user.name, (trx) => insertList(trx, ask, user.name));
  return oneList(db, ask.id);
}

export async function oneList(db: Db, id: string): Promise<SeasonList> {
  const list = await findList(db, id);
  if (!list) throw new NotFoundError('no such list', 'id');
  return list;
}

export async function cancelList(db: Knex, user: User, id: string): Promise<SeasonList> {
  await asActor(db, user.name, (trx) => setListState(trx, id, ['queued', 'solving'], 'cancelled'));
  return oneList(db, id);
}

interface Prepared {
  readonly problem: ListProblem;
  readonly without: ListResult['without'];
}

/** Everything the list is made from, as it stands now. */
export async function prepareList(db: Db, ask: AskList): Promise<Prepared> {
  const [rules, library, { offers }, trees, programme] = [
    await currentRules(db),
    await speciesLibrary(db),
    await allOffers(db),
    await population(db, ask.spotIds),
    await programmeBasis(db),
  ];
  const { windows } = programme;
  const inSeason = (kind: ListOffer['stockKind']) =>
    kind === 'container' || windows.length === 0 || inPlantingWindow(windows, kind, ask.plantOn);
  const byName = new Map(library.map((species) => [species.botanical, species]));
  const usable = offers.flatMap((offer): ListOffer[] => {
    const species = byName.get(offer.species);
    const grade = species?.transplant[offer.stockKind] ?? 'no';
    const wanted = ask.stockKinds.includes(offer.stockKind) && inSeason(offer.stockKind);
    return species && wanted && grade !== 'no' && offer.available > 0
      ? [{ ...offer, family: species.family, ease: ease[grade] }]
      : [];
  });
  const onOffer = library.filter(({ botanical }) => usable.some((offer) => offer.species === botanical));
  const records = await recordsOfSpots(db, ask.spotIds);
  const refs = await refsOf(db, ask.spotIds);
  const refused = new Map<string, Reason[]>();
  const spots = refs.map(({ id, ref }): ListSpot => {
    const known = records.get(id) ?? [];
    const { ground, assessment, drainage } = spotLife(known, contextOf(programme, id, known));
    const site = matchSite({ ground, assessment, rules: rules.ground, matchRules: rules.match, drainage });
    const reasons: Reason[] = [];
    const fits: Record<string, number> = {};
    for (const species of onOffer) {
      const fit = fitOf(species, site);
      if (fit.kind === 'excluded') reasons.push(...fit.because);
      else if (fit.score >= rules.match.leastFit) fits[species.botanical] = fit.score;
    }
    refused.set(id, reasons);
    const lock = ask.locks.find(({ spotId }) => spotId === id);
    return { spotId: id, ref, fits, locked: lock ? { species: lock.species, stockKind: lock.stockKind } : null };
  });
  const { diversity } = rules.match;
  const problem: ListProblem = {
    spots,
    offers: usable,
    population: trees,
    budget: ask.budget,
    sharePct: { species: diversity.speciesPct, genus: diversity.genusPct, family: diversity.familyPct },
  };
  const without = spotsWithoutOffer(problem).map((spot) => ({
    spotId: spot.spotId,
    why: whyWithout(spot, usable, refused.get(spot.spotId) ?? []),
  }));
  return { problem, without };
}

function whyWithout(spot: ListSpot, offers: readonly ListOffer[], reasons: readonly Reason[]): string {
  if (offers.length === 0) return 'Nothing on offer is of the kinds asked for and in season.';
  if (spot.locked) return `${spot.locked.species}, fixed for this place, is not on offer or does not fit.`;
  const counts = new Map<string, { reason: Reason; count: number }>();
  for (const reason of reasons) {
    const found = counts.get(reason.code);
    counts.set(reason.code, { reason, count: (found?.count ?? 0) + 1 });
  }
  const [commonest] = [...counts.values()].sort((a, b) => b.count - a.count);
  return commonest
    ? `No species on offer suits it. Most often: ${sayReason(commonest.reason, 'metric')}`
    : 'No species on offer fits well enough.';
}

/** The population once these picks are planted. */
function after(problem: ListProblem, picks: readonly { offerId: string }[]): PopulationCount[] {
  const counts = new Map(problem.population.map((tree) => [tree.species, { ...tree }]));
  for (const { offerId } of picks) {
    const offer = problem.offers.find(({ id }) => id === offerId);
    if (!offer) continue;
    const tree = counts.get(offer.species);
    if (tree) counts.set(offer.species, { ...tree, count: tree.count + 1 });
    else counts.set(offer.species, { species: offer.species, family: offer.family, count: 1 });
  }
  return [...counts.values()];
}

export interface Computed {
  readonly state: 'solved' | 'infeasible' | 'failed';
  readonly result: ListResult;
  readonly problem: string | null;
}

type Progress = NonNullable<SeasonList['progress']>;

/** Works a list out: the best one, or the smallest set of limits that would have to give way. */
export async function computeList(
  prepared: Prepared,
  solver: ListSolver,
  options: { signal: AbortSignal; onProgress: (progress: Progress) => void; nowMs: () => number },
): Promise<Computed> {
  const { problem, without } = prepared;
  const began = options.nowMs();
  const say = (step: string, share: number) => (gap: number | null) => options.onProgress({ step, share, gap });
  const blank = {
    picks: [],
    offers: [...problem.offers] as ListResult['offers'],
    binding: [],
    without: [...without],
    relax: [],
    gap: null,
    worth: 0,
    cost: 0,
    before: [...problem.population],
    after: [...problem.population],
  };
  const seconds = () => Math.round((options.nowMs() - began) / 100) / 10;
  if (without.length === problem.spots.length) {
    return {
      state: 'infeasible',
      problem: 'Nothing on offer suits any of these places.',
      result: { ...blank, seconds: seconds() },
    };
  }
  const strict = seasonProgramme(problem);
  say('Searching the best list', 0.3)(null);
  const solved = await solver.solve(strict.model, {
    limitS,
    signal: options.signal,
    onGap: say('Proving that nothing is better', 0.6),
  });
  if (solved.kind === 'infeasible') {
    say('Finding the fewest limits to relax', 0.8)(null);
    const elastic = seasonProgramme(problem, 'elastic');
    const relaxed = await solver.solve(elastic.model, {
      limitS,
      signal: options.signal,
      onGap: say('Finding the fewest limits to relax', 0.9),
    });
    const relax = relaxed.kind === 'solved' ? readRelaxations(elastic, relaxed.values) : [];
    return {
      state: 'infeasible',
      problem: null,
      result: { ...blank, relax: relax, seconds: seconds() },
    };
  }
  if (solved.kind === 'unsolved') {
    return {
      state: 'failed',
      problem: `No list was found within ${limitS} s.`,
      result: { ...blank, seconds: seconds() },
    };
  }
  const picks = readPicks(strict, solved.values);
  const faults = listFaults(problem, picks);
  if (faults.length > 0) throw new Error(`the solver's list breaks its limits: ${faults.slice(0, 3).join('; ')}`);
  const cost = picks.reduce(
    (sum, { offerId }) => sum + (problem.offers.find(({ id }) => id === offerId)?.price ?? 0),
    0,
  );
  const explained = explainList(problem, picks);
  const result = {
    ...blank,
    picks: explained as ListResult['picks'],
    binding: bindingLimits(problem, explained) as ListResult['binding'],
    gap: solved.gap,
    worth: worthOfList(problem, picks),
    cost: Math.round(cost * 100) / 100,
    after: after(problem, picks),
    seconds: seconds(),
  };
  return { state: 'solved', problem: null, result };
}

/** Takes the next list that waits and works it out; false when there is none. */
export async function workOnNext(db: Knex, solver: ListSolver): Promise<boolean> {
  const id = await takeList(db, holdS);
  if (!id) return false;
  const stop = new AbortController();
  let progress: Progress = { step: 'Judging every species at every place', share: 0.1, gap: null };
  const beat = setInterval(() => {
    void keepProgress(db, id, progress, holdS)
      .then((held) => (held ? undefined : stop.abort()))
      .catch(() => undefined);
  }, beatMs);
  try {
    await keepProgress(db, id, progress, holdS);
    const { asked } = await oneList(db, id);
    const done = await computeList(await prepareList(db, asked), solver, {
      signal: stop.signal,
      onProgress: (next) => (progress = next),
      nowMs: () => performance.now(),
    });
    await endList(db, id, done);
  } catch (error) {
    if (stop.signal.aborted) return true;
    await endList(db, id, { state: 'failed', result: null, problem: 'The list could not be worked out; try again.' });
    throw error;
  } finally {
    clearInterval(beat);
  }
  return true;
}

/** Looks for lists to work out until stopped. */
export const keepSolving = (
  db: Knex,
  solver: ListSolver,
  onError: (error: unknown) => void,
  everyMs = 700,
): (() => Promise<void>) => keepDoing(() => workOnNext(db, solver), { everyMs, onError });

/**
 * Takes a list as the season's: the choice of every place is recorded and an order is written for each nursery,
 * all in one act.
 */
export async function acceptList(db: Knex, user: User, id: string): Promise<SeasonList> {
  const today = await programmeToday(db);
  const { match } = await currentRules(db);
  await asActor(db, user.name, async (trx) => {
    const state = await lockList(trx, id);
    if (state === 'accepted') return;
    if (state !== 'solved')
      throw new ConflictError(`list is ${state ?? 'gone'}`, 'state', {
        title: 'Only a list that is worked out can be accepted',
      });
    const list = await oneList(trx, id);
    const result = list.result;
    if (!result) return;
    const offers = new Map(result.offers.map((offer) => [offer.id, offer]));
    const records = result.picks.flatMap(({ spotId, offerId }) => {
      const offer = offers.get(offerId);
      if (!offer) return [];
      const facts = {
        chosenOn: today,
        species: offer.species,
        stockKind: offer.stockKind,
        caliperMm: offer.caliperMm,
        reason: `Season's list: ${list.title}`,
      };
      const record = {
        id: uuidv7(),
        kind: 'choice' as const,
        recordedAt: new Date().toISOString(),
        supersedes: null,
        facts,
      };
      return [{ spotId, device: 'season list', spotVersion: null, record }];
    });
    await keepRecords(trx, user, records, null);
    await writeOrders(trx, user, { list, result, currency: match.currency });
    await setListState(trx, id, ['solved'], 'accepted');
  });
  return oneList(db, id);
}

async function writeOrders(
  trx: Db,
  user: User,
  { list, result, currency }: { list: SeasonList; result: ListResult; currency: string },
): Promise<void> {
  const { nurseries } = await allOffers(trx);
  const refs = new Map(list.spots.map(({ spotId, ref }) => [spotId, ref]));
  const lines = new Map<string, Map<string, OrderLine>>();
  const places = new Map<string, string[]>();
  for (const { spotId, offerId } of result.picks) {
    const offer = result.offers.find(({ id }) => id === offerId);
    if (!offer) continue;
    const ofNursery = lines.get(offer.nursery) ?? new Map<string, OrderLine>();
    const line = ofNursery.get(offerId);
    const { species, stockKind, caliperMm, heightM, price } = offer;
    const spots = [...(line?.spots ?? []), refs.get(spotId) ?? ''];
    ofNursery.set(offerId, { species, stockKind, caliperMm, heightM, price, count: spots.length, spots });
    lines.set(offer.nursery, ofNursery);
    places.set(offer.nursery, [...(places.get(offer.nursery) ?? []), spotId]);
  }
  const year = list.asked.plantOn.slice(0, 4);
  let next = await nextOrderNumber(trx, year);
  for (const [nursery, ofNursery] of [...lines].sort(([a], [b]) => a.localeCompare(b))) {
    const sorted = [...ofNursery.values()].sort((a, b) => a.species.localeCompare(b.species));
    const terms = nurseries.find(({ name }) => name === nursery)?.terms ?? '';
    const body = { lines: sorted, terms, currency, plantOn: list.asked.plantOn };
    const number = `${year}-${String(next).padStart(3, '0')}`;
    const id = uuidv7();
    await insertOrder(trx, { id, listId: list.id, number, nursery, body, madeBy: user.name });
    requireFree(await holdPlaces(trx, id, places.get(nursery) ?? []), refs);
    next += 1;
  }
}

/** @throws ConflictError naming the places that another list has ordered a tree for */
function requireFree(taken: readonly string[], refs: ReadonlyMap<string, string>): void {
  if (taken.length === 0) return;
  const named = taken.map((spotId) => refs.get(spotId) ?? '').sort();
  const some = named.slice(0, 6).join(', ') + (named.length > 6 ? '…' : '');
  throw new ConflictError(`places are ordered already: ${some}`, 'spotIds', {
    title: `A tree is ordered already for ${named.length === 1 ? some : `${named.length} of these places: ${some}`}. Nothing was ordered; make the list anew without them.`,
  });
}
