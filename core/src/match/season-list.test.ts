import { sharesOf } from './diversity';
import {
  bindingLimits,
  explainList,
  limitUses,
  listFaults,
  readPicks,
  readRelaxations,
  worthOfList,
} from './season-list';
import { seasonProgramme, shareLimits, spotsWithoutOffer, type ListOffer, type ListProblem } from './season-programme';

const offer = (id: string, species: string, change: Partial<ListOffer> = {}): ListOffer => ({
  id,
  nursery: 'Viveiro Azul',
  species,
  family: `${species.slice(0, 3)}aceae`,
  stockKind: 'container',
  caliperMm: 40,
  price: 100,
  available: 10,
  ease: 1,
  ...change,
});
const problem = (change: Partial<ListProblem> = {}): ListProblem => ({
  spots: ['A', 'B', 'C'].map((ref) => ({
    spotId: ref,
    ref,
    fits: { 'Acer campestre': 0.9, 'Quercus ilex': 0.7 },
    locked: null,
  })),
  offers: [offer('a', 'Acer campestre'), offer('q', 'Quercus ilex')],
  population: [
    { species: 'Acer campestre', family: 'Aceaceae', count: 8 },
    { species: 'Quercus ilex', family: 'Queaceae', count: 2 },
    { species: 'Tilia cordata', family: 'Tilaceae', count: 87 },
  ],
  budget: null,
  sharePct: { species: 10, genus: 20, family: 30 },
  ...change,
});

describe('shares of a population', () => {
  it('count trees by species, genus and family', () => {
    const trees = [
      { species: 'Quercus ilex', family: 'Fagaceae', count: 3 },
      { species: 'Quercus suber', family: 'Fagaceae', count: 1 },
      { species: 'Fagus sylvatica', family: 'Fagaceae', count: 4 },
    ];
    expect(sharesOf(trees, 'species').map(({ taxon, pct }) => [taxon, pct])).toEqual([
      ['Fagus sylvatica', 50],
      ['Quercus ilex', 37.5],
      ['Quercus suber', 12.5],
    ]);
    expect(sharesOf(trees, 'genus')[0]).toEqual({ taxon: 'Fagus', count: 4, pct: 50 });
    expect(sharesOf(trees, 'family')).toEqual([{ taxon: 'Fagaceae', count: 8, pct: 100 }]);
    expect(sharesOf([], 'family')).toEqual([]);
  });
});

describe('limits of a season list', () => {
  it('leave a taxon room up to its share of the population after planting', () => {
    const room = shareLimits(problem()).find(({ taxon }) => taxon === 'Acer campestre');
    // A tenth of 97 + 3 is 10; 8 stand.
    expect(room).toMatchObject({ rank: 'species', room: 2, over: false });
  });

  it('let a taxon that is over its share not grow at all', () => {
    const many = problem({
      population: [
        { species: 'Acer campestre', family: 'Aceaceae', count: 50 },
        { species: 'Tilia cordata', family: 'Tilaceae', count: 50 },
      ],
    });
    expect(shareLimits(many).find(({ taxon }) => taxon === 'Acer')).toMatchObject({ room: 0, over: true });
  });

  it('name what a list breaks', () => {
    const all = ['A', 'B', 'C'].map((spotId) => ({ spotId, offerId: 'a' }));
    expect(listFaults(problem(), all)).toEqual(['species Acer campestre: 3 of 2']);
    expect(listFaults(problem({ budget: 150 }), all.slice(0, 2))).toEqual(['budget: 200 of 150', 'spot C: no tree']);
    expect(listFaults(problem(), [{ spotId: 'A', offerId: 'x' }, ...all.slice(1)])).toContain('spot A: cannot take x');
    expect(
      listFaults(
        problem({ offers: [offer('a', 'Acer campestre', { available: 1 }), offer('q', 'Quercus ilex')] }),
        all.slice(0, 2),
      ),
    ).toContain('a: 2 of 1');
  });

  it('say what a fixed choice allows', () => {
    const locked = problem().spots.map((spot) => ({ ...spot, locked: { species: 'Tilia cordata', stockKind: null } }));
    expect(spotsWithoutOffer(problem({ spots: locked }))).toHaveLength(3);
  });
});

describe('the explanation of a list', () => {
  const picks = [
    { spotId: 'A', offerId: 'a' },
    { spotId: 'B', offerId: 'a' },
    { spotId: 'C', offerId: 'q' },
  ];

  it('tells the next best and what it costs', () => {
    const dear = problem({ offers: [offer('a', 'Acer campestre'), offer('q', 'Quercus ilex', { price: 130 })] });
    expect(explainList(dear, picks)[0]).toMatchObject({ next: { offerId: 'q', priceMore: 30 }, better: null });
    expect(explainList(dear, picks)[0]?.next?.fitLoss).toBeCloseTo(0.2, 9);
  });

  it('tells which limit kept the better tree out', () => {
    const third = explainList(problem(), picks)[2];
    expect(third?.better).toMatchObject({ species: 'Acer campestre', blockedBy: [{ kind: 'share', rank: 'species' }] });
    expect(third?.next).toBeNull();
    expect(bindingLimits(problem(), explainList(problem(), picks)).map(({ limit }) => limit)).toMatchObject([
      { kind: 'share', taxon: 'Acer campestre' },
    ]);
    expect(worthOfList(problem(), picks)).toBeCloseTo(2.5, 9);
  });

  it('counts what is used of every limit', () => {
    const used = limitUses(problem({ budget: 500 }), picks);
    expect(used[0]).toMatchObject({ limit: { kind: 'budget' }, used: 300, most: 500 });
  });
});

describe('the model of a list', () => {
  it('holds one yes or no for every offer a spot can take', () => {
    const { model, picks } = seasonProgramme(problem());
    expect(picks).toHaveLength(6);
    expect(model.integer.filter(Boolean)).toHaveLength(6);
    expect(model.starts.at(-1)).toBe(model.indices.length);
    expect(Math.max(...model.indices)).toBeLessThan(model.cost.length);
    expect(() => readPicks(seasonProgramme(problem()), [1, 0])).toThrow('values must be');
  });

  it('reads which limits gave way from the elastic form', () => {
    const elastic = seasonProgramme(problem({ budget: 10 }), 'elastic');
    const budget = elastic.relaxable.find(({ limit }) => limit.kind === 'budget');
    const values = elastic.model.cost.map((_, col) =>
      col === budget?.switchCol ? 1 : col === budget?.slackCol ? 290 : 0,
    );
    expect(readRelaxations(elastic, values)).toEqual([{ limit: { kind: 'budget', most: 10 }, by: 290 }]);
  });
});

describe('a taxon at its limit', () => {
  it.each([
    [29, 29, false],
    [30, 29, true],
    [10, 10, false],
    [7, 7, false],
  ])('of %d in a hundred at %d %% is over: %s', (count, speciesPct, over) => {
    const population = [
      { species: 'Acer campestre', family: 'Aceaceae', count },
      { species: 'Tilia cordata', family: 'Tilaceae', count: 100 - count },
    ];
    const sharePct = { species: speciesPct, genus: 100, family: 100 };
    const limit = shareLimits(problem({ population, sharePct })).find(
      (one) => one.rank === 'species' && one.taxon === 'Acer campestre',
    );
    expect(limit?.over).toBe(over);
  });
});
