import fc from 'fast-check';
import { unknownAssessment, type GroundFacts } from '../ground';
import { fieldDefault, presets, withChoice, type ChoiceValue, type Practice } from '../practice';
import type { Stock } from '../stock';
import { bareRoot, container, fall, openLoam as ground } from '../../testing/checked-case';
import { sayStep } from '../wording';
import { plantingPlan } from './planting-plan';
import { stepCodes, type StepCode } from './steps';
import { defaultWorkRules } from './work-rules';

const stocks: Readonly<Record<Stock['kind'], Stock>> = {
  container,
  balled: { kind: 'balled', caliperMm: 65, heightM: 4, ballDiameterMm: 700, ballHeightMm: 500, topRootsDepthMm: 190 },
  // Tall enough that a stake may be asked for.
  bare_root: { ...bareRoot, heightM: 2.8 },
};
const deer = { ...unknownAssessment('2026-11-01'), rubbedBy: ['deer' as const], wind: 'exposed' as const };
const stepsOf = (kind: Stock['kind'], practice: Practice = fieldDefault, at: GroundFacts = ground) => {
  const plan = plantingPlan({ work: defaultWorkRules, practice, stock: stocks[kind], ground: at, assessment: deer });
  if (plan.kind === 'no_plan') throw new Error('no plan');
  return plan.steps;
};
const codes = (...args: Parameters<typeof stepsOf>) => stepsOf(...args).map(({ code }) => code);
const before = (list: readonly StepCode[], a: StepCode, b: StepCode) => {
  expect(list).toContain(a);
  expect(list).toContain(b);
  expect(list.indexOf(a)).toBeLessThan(list.indexOf(b));
};
const said = (code: StepCode, ...args: Parameters<typeof stepsOf>) => {
  const step = stepsOf(...args).find((one) => one.code === code);
  if (!step) throw new Error(`no step ${code}`);
  return sayStep(step, 'metric');
};

describe('the steps', () => {
  it.each(['container', 'balled', 'bare_root'] as const)('of %s stock keep the order of the work', (kind) => {
    const list = codes(kind);
    // The flare before the hole, the depth before the tree, half the water before the mulch, the label last.
    before(list, 'find_flare', 'dig');
    before(list, 'dig', 'check_depth');
    before(list, 'check_depth', 'place');
    before(list, 'place', 'plumb');
    before(list, 'plumb', 'fill');
    before(list, 'fill', 'soak_halfway');
    before(list, 'soak_halfway', 'final_soak');
    before(list, 'final_soak', 'mulch');
    before(list, 'mulch', 'guard');
    expect(list.at(-1)).toBe('label');
    expect(list).toEqual([...list].sort((a, b) => stepCodes.indexOf(a) - stepCodes.indexOf(b)));
  });
  it('are those of the kind: roots of containers, wrap of balls, a cone for bare roots', () => {
    const own = ['correct_roots', 'unwrap', 'cone', 'open_tree'] as const;
    const has = (kind: Stock['kind']) => own.filter((code) => codes(kind).includes(code));
    expect(has('container')).toEqual(['correct_roots', 'open_tree']);
    expect(has('balled')).toEqual(['unwrap', 'open_tree']);
    expect(has('bare_root')).toEqual(['cone']);
  });
  it('set the stake of bare roots before the tree, that of others after it', () => {
    const staked = withChoice(fieldDefault, 'staking.rule', 'always');
    before(codes('bare_root', staked), 'stake_before', 'cone');
    before(codes('container', staked), 'fill', 'stake_after');
  });
  it('leave out what the practice or the ground leaves out', () => {
    const slow = { ...ground, percolation: fall(12) };
    expect(codes('container', fieldDefault, slow)).not.toContain('make_berm');
    expect(codes('container', withChoice(fieldDefault, 'firstSoak.rule', 'none'))).not.toContain('soak_halfway');
    expect(codes('container', withChoice(fieldDefault, 'guard', 'none'))).not.toContain('guard');
  });
  it('take a wrap wholly off before the ball goes in, and its top two thirds once it stands', () => {
    const wrap = (value: string) => codes('balled', withChoice(fieldDefault, 'roots.wrap', value));
    before(wrap('all'), 'unwrap_before', 'place');
    expect(wrap('all')).not.toContain('unwrap');
    for (const value of ['top_two_thirds', 'bent_down', 'leave']) {
      before(wrap(value), 'plumb', 'unwrap');
      expect(wrap(value)).not.toContain('unwrap_before');
    }
  });
  it('break sides in after the tree stands, and fill with them', () => {
    const caved = withChoice(fieldDefault, 'pitWidth.sides', 'broken_down');
    const list = codes('container', caved);
    before(list, 'plumb', 'cave_sides');
    before(list, 'cave_sides', 'fill');
    expect(list).not.toContain('rough_sides');
    expect(codes('container')).not.toContain('cave_sides');
    // 209.85 L of pit, 132.54 of them in a straight hole of 750 mm: 77.31 L fall in, the rest of the fill is spoil.
    expect(said('dig', 'container', caved).act).toContain('750 mm wide with straight sides');
    expect(said('cave_sides', 'container', caved).act).toContain('77 L');
    expect(said('fill', 'container', caved).act).toMatch(/^92 L/);
    expect(said('cave_sides', 'container', caved).caution).toContain('cables and pipes');
  });
  it('soak while filling, or only once the pit is full', () => {
    const after = withChoice(fieldDefault, 'firstSoak.when', 'after');
    expect(codes('container', after)).not.toContain('soak_halfway');
    const litres = (step: string, practice: Practice) =>
      Number(stepsOf('container', practice).find(({ code }) => code === step)?.facts.litres);
    expect(litres('final_soak', after)).toBeCloseTo(2 * litres('final_soak', fieldDefault), 9);
  });
  it('feed in as many places as the practice does, each a step of its own with its caution', () => {
    const places = ['base', 'halfway', 'edge', 'surface', 'drench'] as const;
    const feeds = ['phosphate', 'mycorrhiza', 'slow_pellets', 'phosphate', 'root_drench'] as const;
    const fed = places.reduce(
      (one, place, i) => withChoice(one, `backfill.feeds.${place}`, feeds[i] ?? 'none'),
      fieldDefault,
    );
    const list = codes('container', fed);
    before(list, 'feed_base', 'place');
    before(list, 'fill', 'feed_halfway');
    before(list, 'feed_halfway', 'feed_edge');
    before(list, 'feed_surface', 'mulch');
    before(list, 'mulch', 'feed_drench');
    for (const place of places) expect(said(`feed_${place}`, 'container', fed).caution).toContain('label and licence');
    const plan = plantingPlan({ work: defaultWorkRules, practice: fed, stock: container, ground, assessment: null });
    // The same thing in two places is bought twice.
    expect(plan.kind === 'plan' && plan.materials.bone_meal).toBeCloseTo(0.3, 9);
  });
  it('build a mound where the practice mounds, and bank the downhill side of a slope elsewhere', () => {
    const clay = presets.find(({ id }) => id === 'heavy-clay') ?? fieldDefault;
    before(codes('container', clay), 'fill', 'mound');
    before(codes('container', clay), 'mound', 'measure_flare');
    // π · 75 · 300 · (225 + 300/3) mm³ = 22.97 L.
    expect(said('mound', 'container', clay).act).toContain('23 L');
    expect(codes('container')).not.toContain('mound');
    const slope = { ...ground, slopePct: 12 };
    before(codes('container', fieldDefault, slope), 'fill', 'bank');
    expect(codes('container')).not.toContain('bank');
  });
  it('amend a whole area before the hole is dug, the fill as it goes in, and the top before the mulch', () => {
    const mixed = (place: string) =>
      [
        ['backfill.material', 'coarse_compost'],
        ['backfill.share', 0.3],
        ['backfill.place', place],
        ['mulch.leastRingDiameterMm', 2400],
      ].reduce((one, [path, value]) => withChoice(one, path as string, value as ChoiceValue), fieldDefault);
    before(codes('container', mixed('area_then_hole')), 'amend_area', 'dig');
    for (const place of ['in_fill', 'on_base', 'in_base']) before(codes('container', mixed(place)), 'amend', 'fill');
    before(codes('container', mixed('on_top')), 'final_soak', 'amend_top');
    before(codes('container', mixed('on_top')), 'amend_top', 'mulch');
  });
  it('never repeat a step', () => {
    fc.assert(
      fc.property(fc.constantFrom(...presets), fc.constantFrom(...Object.values(stocks)), (practice, stock) => {
        const plan = plantingPlan({ work: defaultWorkRules, practice, stock, ground, assessment: deer });
        if (plan.kind === 'no_plan') return;
        expect(new Set(plan.steps.map(({ code }) => code)).size).toBe(plan.steps.length);
      }),
    );
  });
});

describe('the words of a step', () => {
  it('carry the numbers to hit', () => {
    expect(said('dig', 'container').act).toContain('300 mm deep at the uphill edge of the ball, 1125 mm wide');
    expect(said('check_depth', 'container').act).toContain('Pit 300 mm, roots 340 mm: the flare will stand 40 mm');
    expect(said('measure_flare', 'container').act).toContain('40 mm above grade, within 15 mm');
  });
  it('scrape no more off than the practice takes at once, and say that the rest comes later', () => {
    // 190 mm over the roots, 150 at once: 40 stay.
    expect(said('find_flare', 'balled').act).toContain('Scrape 150 mm off the top and leave 40 mm');
  });
  it('dig as deep as is put back, and put it back firmed', () => {
    const deeper = withChoice(fieldDefault, 'pitWidth.base', 'dug_deeper');
    // Flare 40 + 7.5 for settling: 292.5 deep, 75 more to dig.
    expect(said('dig', 'container', deeper).act).toContain('368 mm deep');
    expect(said('firm_base', 'container', deeper).act).toContain('Put 75 mm back');
  });
  it('caution where it can hurt', () => {
    const everything = (
      [
        ['staking.rule', 'always'],
        ['backfill.feeds.edge', 'slow_pellets'],
        ['herbicide', 'yes'],
      ] as readonly [string, ChoiceValue][]
    ).reduce((one, [path, value]) => withChoice(one, path, value), fieldDefault);
    const cautions: readonly (readonly [StepCode, RegExp])[] = [
      ['mark_out', /no valid ticket, no digging/],
      ['dig', /pipe, cable/],
      ['place', /weighs 48 kg/],
      ['stake_after', /Look for marks/],
      ['feed_edge', /Soil test first; label and licence/],
      ['herbicide', /Label and licence/],
      ['correct_roots', /gloves/],
    ];
    for (const [code, words] of cautions)
      expect([code, said(code, 'container', everything).caution]).toEqual([code, expect.stringMatching(words)]);
    expect(said('unwrap', 'balled', everything).caution).toContain('eyes covered');
  });
  it('free roots that grew through a wrap first, and keep turf and chopped roots out of the fill, saying why', () => {
    expect(said('unwrap', 'balled').act).toMatch(/^Free or cut roots that grew through the wrap first/);
    expect(said('lift_turf', 'container').avoid).toMatch(/chopped roots.*leave holes/);
    expect(said('fill', 'container').avoid).toMatch(/chopped roots.*leave holes/);
  });
  it('say the figure of eight with its fastener on the stake where a tie is said, and what it is made of', () => {
    const staked = withChoice(withChoice(fieldDefault, 'staking.rule', 'always'), 'staking.tie', 'tube');
    expect(said('stake_after', 'container', staked).act).toMatch(
      /soft tube in a figure of eight, its fastener on the stake/,
    );
  });
  it('say how many cuts and how deep', () => {
    const scored = withChoice(withChoice(fieldDefault, 'roots.correction', 'slice_and_score'), 'roots.cuts', 6);
    expect(said('correct_roots', 'container', scored).act).toContain(
      'Base sliced off, sides scored, 6 cuts 40 mm deep',
    );
    expect(
      said('correct_roots', 'container', withChoice(fieldDefault, 'roots.correction', 'base_only')).act,
    ).not.toContain('cuts');
  });
  it('name the check and the mistake of every step', () => {
    for (const kind of Object.keys(stocks) as Stock['kind'][]) {
      for (const step of stepsOf(kind)) {
        const { title, check, avoid } = sayStep(step, 'us');
        for (const words of [check, avoid]) expect([title, /^[A-Z].{8,}\.$/.test(words)]).toEqual([title, true]);
      }
    }
  });
});
