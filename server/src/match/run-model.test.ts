import {
  canTake,
  limitUses,
  listFaults,
  readPicks,
  readRelaxations,
  seasonProgramme,
  worthOfList,
  type ListOffer,
  type ListProblem,
  type Pick,
} from '@sombra/core';
import fc from 'fast-check';
import loadHighs, { type Highs } from 'highs';
import { runModel } from './run-model';

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});

const solve = (problem: ListProblem): { kind: string; picks: Pick[]; gap: number | null } => {
  const list = seasonProgramme(problem);
  const { kind, values, gap } = runModel(highs, list.model, { limitS: 20 });
  return { kind, gap, picks: kind === 'solved' ? readPicks(list, values) : [] };
};

const relax = (problem: ListProblem) => {
  const elastic = seasonProgramme(problem, 'elastic');
  return readRelaxations(elastic, runModel(highs, elastic.model, { limitS: 20 }).values);
};

/** The best worth over every list there is; `null` where none keeps all limits. */
function bruteForce(problem: ListProblem): number | null {
  let best: number | null = null;
  const open = problem.spots.filter((spot) => problem.offers.some((offer) => canTake(spot, offer)));
  const walk = (i: number, picks: readonly Pick[]): void => {
    const spot = open[i];
    if (!spot) {
      if (listFaults(problem, picks).length === 0) best = Math.max(best ?? -Infinity, worthOfList(problem, picks));
      return;
    }
    for (const offer of problem.offers) {
      if (canTake(spot, offer)) walk(i + 1, [...picks, { spotId: spot.spotId, offerId: offer.id }]);
    }
  };
  walk(0, []);
  return best;
}

/** The fewest limits broken by any list that gives every spot a tree it can take. */
function fewestBroken(problem: ListProblem): number {
  let fewest = Infinity;
  const open = problem.spots.filter((spot) => problem.offers.some((offer) => canTake(spot, offer)));
  const walk = (i: number, picks: readonly Pick[]): void => {
    const spot = open[i];
    if (!spot) {
      fewest = Math.min(fewest, limitUses(problem, picks).filter(({ used, most }) => used > most).length);
      return;
    }
    for (const offer of problem.offers) {
      if (canTake(spot, offer)) walk(i + 1, [...picks, { spotId: spot.spotId, offerId: offer.id }]);
    }
  };
  walk(0, []);
  return fewest;
}

const names = ['Acer campestre', 'Acer rubrum', 'Quercus ilex', 'Tilia cordata'] as const;
const familyOf = {
  'Acer campestre': 'Sapindaceae',
  'Acer rubrum': 'Sapindaceae',
  'Quercus ilex': 'Fagaceae',
  'Tilia cordata': 'Malvaceae',
};

const smallProblem: fc.Arbitrary<ListProblem> = fc.record({
  spots: fc
    .array(fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 4 })
    .map((rows) =>
      rows.map((row, i) => ({
        spotId: `s${i}`,
        ref: `S-${i}`,
        // A score under 20 stands for a hard limit.
        fits: Object.fromEntries(
          names.flatMap((name, k) => ((row[k] ?? 0) >= 20 ? [[name, (row[k] ?? 0) / 100]] : [])),
        ),
        locked: null,
      })),
    ),
  offers: fc
    .array(
      fc.record({
        species: fc.constantFrom(...names),
        price: fc.integer({ min: 10, max: 200 }),
        available: fc.integer({ min: 0, max: 4 }),
      }),
      { minLength: 1, maxLength: 4 },
    )
    .map((rows) =>
      rows.map((row, i): ListOffer => ({
        ...row,
        id: `o${i}`,
        nursery: 'Viveiro Azul',
        family: familyOf[row.species],
        stockKind: 'container',
        caliperMm: 30 + i,
        ease: 1,
      })),
    ),
  population: fc
    .array(fc.integer({ min: 0, max: 12 }), { minLength: 4, maxLength: 4 })
    .map((counts) => names.map((species, i) => ({ species, family: familyOf[species], count: counts[i] ?? 0 }))),
  budget: fc.option(fc.integer({ min: 0, max: 600 })),
  sharePct: fc.constantFrom(
    { species: 10, genus: 20, family: 30 },
    { species: 40, genus: 60, family: 80 },
    { species: 100, genus: 100, family: 100 },
  ),
});

describe("the season's list by the solver", () => {
  it('is as good as the best of all lists, and never breaks a limit', () => {
    let solved = 0;
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const best = bruteForce(problem);
        const { kind, picks } = solve(problem);
        if (best === null) {
          expect(kind).toBe('infeasible');
          expect(relax(problem).length).toBeGreaterThan(0);
          return;
        }
        solved += 1;
        expect(kind).toBe('solved');
        expect(listFaults(problem, picks)).toEqual([]);
        // Price breaks ties at a thousandth a tree: the fit may fall short of the best by no more than that.
        expect(worthOfList(problem, picks)).toBeGreaterThanOrEqual(best - 0.001 * problem.spots.length - 1e-6);
      }),
      { numRuns: 150 },
    );
    expect(solved).toBeGreaterThan(20);
  });

  it('asks for no more limits to give way than the fewest any list breaks', () => {
    let compared = 0;
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const free = { ...problem, budget: null };
        const fewest = fewestBroken(free);
        if (fewest === 0 || fewest === Infinity) return;
        compared += 1;
        expect(relax(free)).toHaveLength(fewest);
      }),
      { numRuns: 150 },
    );
    expect(compared).toBeGreaterThan(20);
  });

  const offer = (id: string, species: (typeof names)[number], change: Partial<ListOffer> = {}): ListOffer => ({
    id,
    nursery: 'Viveiro Azul',
    species,
    family: familyOf[species],
    stockKind: 'container',
    caliperMm: 40,
    price: 100,
    available: 20,
    ease: 1,
    ...change,
  });
  const spots = (count: number) =>
    Array.from({ length: count }, (_, i) => ({
      spotId: `s${i}`,
      ref: `S-${i}`,
      fits: { 'Acer campestre': 0.9, 'Quercus ilex': 0.7 },
      locked: null,
    }));
  const wide = { species: 100, genus: 100, family: 100 };

  it('names the one limit that has to give way', () => {
    const poor = {
      spots: spots(4),
      offers: [offer('a', 'Acer campestre')],
      population: [],
      budget: 250,
      sharePct: wide,
    };
    expect(solve(poor).kind).toBe('infeasible');
    expect(relax(poor)).toEqual([{ limit: { kind: 'budget', most: 250 }, by: 150 }]);
    const scarce = { ...poor, budget: null, offers: [offer('a', 'Acer campestre', { available: 3 })] };
    expect(relax(scarce)).toEqual([{ limit: { kind: 'available', offerId: 'a', most: 3 }, by: 1 }]);
  });

  it('takes the cheaper of two that fit alike, and proves its answer', () => {
    const two = {
      spots: spots(3),
      offers: [offer('dear', 'Acer campestre', { price: 140 }), offer('cheap', 'Acer campestre')],
      population: [],
      budget: null,
      sharePct: wide,
    };
    const { picks, gap } = solve(two);
    expect(picks.map(({ offerId }) => offerId)).toEqual(['cheap', 'cheap', 'cheap']);
    expect(gap).toBeLessThan(1e-4);
  });

  it('keeps a choice somebody fixed', () => {
    const fixed = spots(2).map((spot, i) =>
      i === 0 ? { ...spot, locked: { species: 'Quercus ilex', stockKind: null } } : spot,
    );
    const { picks } = solve({
      spots: fixed,
      offers: [offer('a', 'Acer campestre'), offer('q', 'Quercus ilex')],
      population: [],
      budget: null,
      sharePct: wide,
    });
    expect(picks).toEqual([
      { spotId: 's0', offerId: 'q' },
      { spotId: 's1', offerId: 'a' },
    ]);
  });
});
