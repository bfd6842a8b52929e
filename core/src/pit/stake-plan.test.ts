import fc from 'fast-check';
import { fieldDefault, withChoice, type ChoiceValue, type Practice } from '../practice';
import type { Stock } from '../stock';
import { stakePlan, standingMoments, type StakeInput } from './stake-plan';
import { defaultWorkRules } from './work-rules';

const stock: Stock = {
  kind: 'container',
  caliperMm: 40,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 0,
};
const { wind } = defaultWorkRules;
const practice = (...made: readonly (readonly [string, ChoiceValue])[]): Practice =>
  made.reduce((one, [path, value]) => withChoice(one, path, value), fieldDefault);
const always = (...made: readonly (readonly [string, ChoiceValue])[]) => practice(['staking.rule', 'always'], ...made);
const ask = (change: Partial<StakeInput> = {}) =>
  stakePlan({
    practice: fieldDefault,
    stock,
    exposure: 'open',
    winterWindDeg: null,
    summerWindDeg: null,
    firstBranchM: null,
    stripWidthMm: null,
    pavementDeg: null,
    wind,
    ...change,
  });
const codes = (change: Partial<StakeInput>) => ask(change).because.map(({ code }) => code);

describe('the moments of a gust and of a ball', () => {
  it('are those of the formula: ½·1.23·19²·0.25 Pa on 0.147·h² m² at 0.65·h', () => {
    // 55.50 Pa × 0.147 × 9 m² × 1.95 m = 143.2 Nm.
    expect(standingMoments(stock, 'open', wind).overturnNm).toBeCloseTo(143.2, 1);
  });
  it('grow with the wind and the height, and the hold with the ball', () => {
    const tree = fc.record({
      heightM: fc.double({ min: 1, max: 7, noNaN: true }),
      ball: fc.integer({ min: 250, max: 900 }),
    });
    fc.assert(
      fc.property(tree, ({ heightM, ball }) => {
        const of = (h: number, ballDiameterMm: number) => ({ ...stock, heightM: h, ballDiameterMm });
        const here = standingMoments(of(heightM, ball), 'open', wind);
        expect(standingMoments(of(heightM, ball), 'exposed', wind).overturnNm).toBeGreaterThan(here.overturnNm);
        expect(standingMoments(of(heightM + 0.5, ball), 'open', wind).overturnNm).toBeGreaterThan(here.overturnNm);
        expect(standingMoments(of(heightM, ball + 50), 'open', wind).holdNm).toBeGreaterThan(here.holdNm);
      }),
    );
  });
});

describe('a strip too narrow for a stake across it', () => {
  // Ball 450: a stake stands 275 mm out and asks 50 more, so 650 mm of strip at least.
  const made = always(['staking.layout', 'across']);
  const inStrip = (stripWidthMm: number, change: Partial<StakeInput> = {}) =>
    ask({ practice: made, winterWindDeg: 250, stripWidthMm, pavementDeg: 0, ...change });
  it('has its stakes along it, whatever the wind', () => {
    expect(inStrip(650).plan?.bearingsDeg).toEqual([160, 340]);
    expect(inStrip(649).plan).toMatchObject({ stakes: 2, bearingsDeg: [90, 270] });
    expect(inStrip(649).because.map(({ code }) => code)).toContain('stake_along_strip');
  });
  it('has one stake at the end nearer to the wind, and two where three were asked for', () => {
    const one = always(['staking.layout', 'windward']);
    expect(inStrip(600, { practice: one }).plan?.bearingsDeg).toEqual([270]);
    expect(inStrip(600, { practice: one, winterWindDeg: 100 }).plan?.bearingsDeg).toEqual([90]);
    const guys = always(['staking.layout', 'guys']);
    expect(inStrip(600, { practice: guys }).plan).toMatchObject({ stakes: 2, bearingsDeg: [90, 270] });
  });
  it('claims no bearing where nobody recorded which way the strip runs', () => {
    expect(inStrip(600, { pavementDeg: null }).plan).toMatchObject({ stakes: 2, bearingsDeg: [] });
  });
});

describe('whether a tree is staked', () => {
  it('follows the gusts of the place', () => {
    const calm = { ...wind, gustMs: { ...wind.gustMs, open: 5 } };
    const stormy = { ...wind, gustMs: { ...wind.gustMs, open: 40 } };
    expect(ask({ wind: calm }).plan).toBeNull();
    expect(ask({ wind: stormy }).plan).not.toBeNull();
  });
  it.each([
    ['never', null],
    ['nobody_returns', null],
    ['always', 1],
  ] as const)('%s, whatever the gust', (rule, stakes) => {
    const made = { practice: practice(['staking.rule', rule]), exposure: 'exposed' as const };
    expect(ask(made).plan?.stakes ?? null).toBe(stakes);
    expect(ask(made).because[0]).toMatchObject({ code: 'stake_rule', facts: { rule } });
  });
  it('a short tree stands by itself, but for an exposed place', () => {
    const short = { ...stock, heightM: 2.4, ballDiameterMm: 300, ballHeightMm: 250 };
    expect(codes({ stock: short })).toEqual(['stake_short']);
    expect(codes({ stock: short, exposure: 'exposed' })).toContain('stake_outweighed');
  });
  it('bare roots hold nothing yet', () => {
    const bare: Stock = { kind: 'bare_root', caliperMm: 25, heightM: 2.8, rootSpreadMm: 500, rootDepthMm: 300 };
    expect(codes({ stock: bare })[0]).toBe('stake_bare_root');
    expect(ask({ stock: bare }).plan).toMatchObject({ before: true, fromTrunkMm: 100 });
  });
  it('says that winds were not recorded, and takes the ground as open', () => {
    expect(codes({ exposure: null })).toContain('stake_wind_unknown');
    const { because: _why, ...open } = ask({ exposure: 'open' }).plan ?? {};
    expect(ask({ exposure: null }).plan).toMatchObject(open);
  });
});

describe('how it is staked', () => {
  it.each([
    ['one by ball and height', {}, [], 1],
    ['two for a wide ball', { ballDiameterMm: 650 }, [], 2],
    ['two for a tall tree', { heightM: 4.5 }, [], 2],
    ['three for a thick trunk', { caliperMm: 110 }, [], 3],
    ['one to windward', { heightM: 4.5 }, [['staking.layout', 'windward']], 1],
    ['three guys', {}, [['staking.layout', 'guys']], 3],
  ] as const)('%s', (_name, change, made, stakes) => {
    expect(ask({ practice: always(...made), stock: { ...stock, ...change } }).plan?.stakes).toBe(stakes);
  });
  it.each([
    ['windward', [250]],
    ['across', [160, 340]],
    ['two_winds', [250, 20]],
    ['guys', [250, 10, 130]],
  ] as const)('%s against winds from 250 and 20 degrees: %j', (layout, bearings) => {
    const plan = ask({ practice: always(['staking.layout', layout]), winterWindDeg: 250, summerWindDeg: 20 }).plan;
    expect(plan?.bearingsDeg).toEqual(bearings);
  });
  it('in line with two winds needs both: with one it stands across it', () => {
    const plan = ask({
      practice: always(['staking.layout', 'two_winds']),
      winterWindDeg: null,
      summerWindDeg: 20,
    }).plan;
    expect(plan?.bearingsDeg).toEqual([290, 110]);
  });
  it('ties at a third of the height at most, under the first branch less 100 mm, never over 1.5 m', () => {
    const tie = (firstBranchM: number | null, heightM = 3) =>
      ask({ practice: always(), firstBranchM, stock: { ...stock, heightM } }).plan?.heightMm;
    expect([tie(null), tie(0.9), tie(null, 0.62), tie(null, 8)]).toEqual([1000, 800, 200, 1500]);
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 25, noNaN: true }), (heightM) => {
        expect(tie(null, heightM) ?? 0).toBeLessThanOrEqual((heightM * 1000) / 3);
      }),
    );
  });
  it('is not staked where a tie would hold nothing, and says so', () => {
    // A third of 0.59 m is under 200 mm; so is a first branch at 0.25 m less 100.
    for (const change of [{ stock: { ...stock, heightM: 0.59 } }, { firstBranchM: 0.25 }]) {
      const { plan, because } = ask({ practice: always(), ...change });
      expect([plan, because.at(-1)?.code]).toEqual([null, 'stake_no_room']);
    }
  });
  it('is bought with what goes into the ground', () => {
    expect(ask({ practice: always() }).plan?.lengthMm).toBe(1600);
  });
  it('stands outside the ball, after the tree, and comes off when the practice says', () => {
    const plan = ask({ practice: always(['staking.offAfterMonths', 9]) }).plan;
    expect(plan).toMatchObject({ fromTrunkMm: 275, before: false, offAfterMonths: 9 });
  });
});
