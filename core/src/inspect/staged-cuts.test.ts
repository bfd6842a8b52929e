import { compressedSharePct, isPressing, type Anchor, type CirclingRoot } from './root-arcs';
import { cutToolFor, stagedCuts, type StagedCutsInput } from './staged-cuts';

const root = (fromDeg: number, toDeg: number, diameterMm: number, more: Partial<CirclingRoot> = {}): CirclingRoot => ({
  arc: { fromDeg, toDeg },
  diameterMm,
  ...more,
});
const anchor = (bearingDeg: number, diameterMm: number): Anchor => ({ bearingDeg, diameterMm });
/** An independent calculation: a 18 mm, b 26, c 12 circle; d 30, e 34, f 28 hold the tree. */
const [a, b, c] = [root(350, 40, 18), root(30, 95, 26), root(200, 230, 12)];
const holding = [anchor(120, 30), anchor(250, 34), anchor(300, 28)];
const plan = (change: Partial<StagedCutsInput> = {}) =>
  stagedCuts({ roots: [a, b, c], anchors: holding, seasonCapPct: 25, referRootOverMm: 50, ...change });
const cutsOf = (found: ReturnType<typeof stagedCuts>) => found.seasons.map(({ cuts }) => cuts.map(({ root }) => root));

describe('one season', () => {
  it.each([
    [10, [0], 40],
    [20, [0, 2], 70],
    [25, [1, 2], 85],
  ])('with a cap of %d %% takes roots %j and relieves %d°', (seasonCapPct, roots, relievedDeg) => {
    const found = plan({ seasonCapPct, seasons: 1 });
    expect(cutsOf(found)).toEqual([roots]);
    expect(found.seasons[0]?.relievedDeg).toBeCloseTo(relievedDeg, 9);
    expect(found.pressedDeg).toBeCloseTo(135, 9);
  });
});

/** Every way of giving each root a season or none, that keeps to the cap and to the neighbours. */
function bruteForce({ roots, anchors, seasonCapPct, referRootOverMm, seasons = 4 }: StagedCutsInput): number {
  const total = [...roots, ...anchors].reduce((sum, { diameterMm }) => sum + diameterMm ** 2, 0);
  const cap = (total * seasonCapPct) / 100;
  const cuttable = roots.flatMap((one, i) =>
    isPressing(one) && one.touch !== 'grown_in' && one.diameterMm <= referRootOverMm && one.diameterMm ** 2 <= cap
      ? [i]
      : [],
  );
  const many = Math.min(seasons, Math.max(1, cuttable.length));
  const compass = [
    ...roots.flatMap(({ nature, arc }, i) => (nature === 'structural' ? [{ deg: arc.fromDeg % 360, i }] : [])),
    ...anchors.map(({ bearingDeg }) => ({ deg: bearingDeg % 360, i: -1 })),
  ].sort((x, y) => x.deg - y.deg || x.i - y.i);
  const known = new Map<string, number>();
  const pressed = (without: Set<number>) => {
    const key = [...without].sort((x, y) => x - y).join();
    const found =
      known.get(key) ??
      compressedSharePct(roots.flatMap((one, i) => (isPressing(one) && !without.has(i) ? [one.arc] : []))) * 3.6;
    known.set(key, found);
    return found;
  };
  const all = pressed(new Set());
  /** By what is gone, the greatest sum so far; each season takes any set there is room for. */
  let sums = new Map([[0, 0]]);
  const goneOf = (set: number) => new Set(cuttable.filter((_, k) => set & (1 << k)));
  const areas = cuttable.map((i) => (roots[i]?.diameterMm ?? 0) ** 2);
  const areaOf = (set: number) => areas.reduce((sum, one, k) => (set & (1 << k) ? sum + one : sum), 0);
  const bitOf = (i: number) => (cuttable.includes(i) ? 1 << cuttable.indexOf(i) : 0);
  for (let s = 0; s < many; s++) {
    const next = new Map<number, number>();
    for (const [gone, sum] of sums) {
      const ring = compass.map(({ i }) => bitOf(i)).filter((bit) => bit === 0 || !(gone & bit));
      const pairs = ring.length < 2 ? [] : ring.map((bit, k) => [bit, ring[(k + 1) % ring.length] ?? 0] as const);
      const standing = ((1 << cuttable.length) - 1) & ~gone;
      for (let now = standing; ; now = (now - 1) & standing) {
        const apart = pairs.every(([one, other]) => !(one && other && one !== other && now & one && now & other));
        if (apart && areaOf(now) <= cap + 1e-9) {
          const after = sum + all - pressed(goneOf(gone | now));
          if (after > (next.get(gone | now) ?? -1)) next.set(gone | now, after);
        }
        if (now === 0) break;
      }
    }
    sums = next;
  }
  return Math.max(...sums.values());
}

function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}
function someRoots(next: () => number, count: number): CirclingRoot[] {
  return Array.from({ length: count }, () => {
    const from = Math.floor(next() * 360);
    const nature = next() < 0.4 ? { nature: 'structural' as const } : {};
    const touch = next() < 0.1 ? { touch: 'grown_in' as const } : next() < 0.15 ? { touch: 'clear' as const } : {};
    return root(from, Math.floor(from + 5 + next() * 90) % 360, 6 + Math.floor(next() * 40), { ...nature, ...touch });
  });
}

describe('several seasons', () => {
  it.each(Array.from({ length: 60 }, (_, i) => i + 1))('are the best there are, by trying all (case %i)', (seed) => {
    const next = random(seed * 7919);
    const input: StagedCutsInput = {
      roots: someRoots(next, 3 + (seed % 4)),
      anchors: Array.from({ length: seed % 4 }, () => anchor(Math.floor(next() * 360), 10 + Math.floor(next() * 40))),
      seasonCapPct: 10 + Math.floor(next() * 40),
      referRootOverMm: 42,
      seasons: 2 + (seed % 2),
    };
    const found = stagedCuts(input);
    expect(found.exact).toBe(true);
    const sums = Array.from(
      { length: Math.min(input.seasons ?? 4, Math.max(1, input.roots.length)) },
      (_, s) => found.seasons[Math.min(s, found.seasons.length - 1)]?.relievedDeg ?? 0,
    );
    const cuttable = found.seasons.flatMap(({ cuts }) => cuts).length + found.later.length;
    const counted = sums.slice(0, Math.min(input.seasons ?? 4, Math.max(1, cuttable)));
    expect(counted.reduce((x, y) => x + y, 0)).toBeCloseTo(bruteForce(input), 6);
  });

  it.each(Array.from({ length: 60 }, (_, i) => i + 1))('are so where several hold the tree (case %i)', (seed) => {
    const next = random(seed * 15_485_863);
    const held = someRoots(next, 10).map((one, i) =>
      i < 6 + (seed % 4) ? { ...one, nature: 'structural' as const } : one,
    );
    const input: StagedCutsInput = {
      roots: held.map(({ touch: _touch, ...one }) => one),
      anchors: seed % 2 ? [anchor(Math.floor(next() * 360), 20)] : [],
      seasonCapPct: 12 + Math.floor(next() * 45),
      referRootOverMm: 60,
      seasons: 3,
    };
    const { seasons } = stagedCuts(input);
    const sums = [0, 1, 2].map((s) => seasons[Math.min(s, seasons.length - 1)]?.relievedDeg ?? 0);
    expect(sums.reduce((x, y) => x + y, 0)).toBeCloseTo(bruteForce(input), 6);
  });

  it.each(Array.from({ length: 30 }, (_, i) => i + 1))(
    'keep to the cap, and leave neighbours that hold it (case %i)',
    (seed) => {
      const next = random(seed * 104_729);
      const roots = someRoots(next, 14);
      const found = stagedCuts({ roots, anchors: holding, seasonCapPct: 20, referRootOverMm: 50 });
      const total = [...roots, ...holding].reduce((sum, { diameterMm }) => sum + diameterMm ** 2, 0);
      const cut = found.seasons.flatMap(({ cuts }) => cuts.map(({ root: i }) => i));
      expect(new Set(cut).size).toBe(cut.length);
      for (const { cuts, removedPct } of found.seasons) {
        const area = cuts.reduce((sum, { root: i }) => sum + (roots[i]?.diameterMm ?? 0) ** 2, 0);
        expect(area).toBeLessThanOrEqual(total * 0.2 + 1e-6);
        expect(removedPct).toBeCloseTo((area / total) * 100, 9);
      }
      const relieved = found.seasons.map(({ relievedDeg }) => relievedDeg);
      expect([...relieved].sort((x, y) => x - y)).toEqual(relieved);
      for (const i of cut) expect([isPressing(roots[i] ?? {}), roots[i]?.touch]).not.toContain('grown_in');
    },
  );
});

describe('what is not for the crew', () => {
  it.each([
    [root(0, 60, 20, { touch: 'grown_in' }), 'grown_in'],
    [root(0, 60, 51), 'too_thick'],
    [root(0, 60, 40), 'over_cap'],
  ])('%j is referred: %s', (one, why) => {
    const found = plan({ roots: [one, c], seasonCapPct: 25 });
    expect(found.referred).toEqual([{ root: 0, why }]);
    expect(cutsOf(found)).toEqual([[1]]);
  });
  it('roots that are clear of the trunk, or touch it alone, are left', () => {
    const found = plan({ roots: [root(0, 60, 12, { touch: 'clear' }), root(90, 120, 12, { touch: 'touching' })] });
    expect(found).toMatchObject({ seasons: [], referred: [], later: [], pressedDeg: 0, exact: true });
  });
  it('two that hold the tree side by side go in two seasons, with one between them in one', () => {
    const holds = { nature: 'structural' as const };
    const pair = [root(0, 30, 10, holds), root(90, 120, 10, holds)];
    const wide = { seasonCapPct: 60, anchors: [anchor(200, 40)] };
    expect(cutsOf(plan({ roots: pair, ...wide }))).toHaveLength(2);
    expect(cutsOf(plan({ roots: pair, ...wide, anchors: [anchor(45, 30), anchor(200, 30)] }))).toEqual([[0, 1]]);
  });
});

it.each([
  [20, 'hand_pruner'],
  [21, 'lopper'],
  [40, 'lopper'],
  [41, 'saw'],
])('a root of %d mm is cut with a %s', (mm, tool) => {
  expect(cutToolFor(mm)).toBe(tool);
});

it.each([
  [{ seasonCapPct: 0 }, 'seasonCapPct must be within 1–100 %'],
  [{ roots: [root(0, 400, 12)] }, 'circlingRoots[0].arc.toDeg must be within'],
  [{ roots: Array.from({ length: 41 }, () => c) }, 'circlingRoots must be 40 at most, with what anchors it, got 44'],
  [{ anchors: [anchor(0, 9000)] }, 'anchors[0].diameterMm must be within'],
])('refuses %j', (change, message) => {
  expect(() => plan(change)).toThrow(message);
});

it('says of more than twenty roots whether it is exact, and still keeps to the cap', () => {
  const found = stagedCuts({
    roots: someRoots(random(5), 30),
    anchors: holding,
    seasonCapPct: 20,
    referRootOverMm: 50,
  });
  expect(found.seasons.length).toBeGreaterThan(0);
  expect(found.seasons.every(({ removedPct }) => removedPct <= 20)).toBe(true);
});
