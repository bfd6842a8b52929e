import { addDaysTo } from '../calendar';
import { judgeAsBuilt } from '../day';
import {
  defaultGroundRules,
  defaultPercolationLimits,
  digCover,
  judgeSite,
  judgeTicket,
  siteThings,
  soakShort,
  unknownAssessment,
  unknownGround,
  type Assessment,
  type GroundFacts,
  type TicketFacts,
} from '../ground';
import { judgeInspection, type Inspection } from '../inspect';
import { defaultMatchRules, judgePlantingTime, matchSite, rankSpecies, shippedSpecies } from '../match';
import { defaultWorkRules, groundGaps, percolationConsequences, pitPlan, plantingPlan } from '../pit';
import { fieldDefault, presets, replaced, type ChoiceValue, type Practice } from '../practice';
import { spotLife, type FieldRecord, type RecordFacts, type RecordKind } from '../record';
import type { Reason } from '../record';
import { mildWinterWindows } from '../season';
import {
  defaultReceivingRules,
  judgeLot,
  judgeReceived,
  liftingPlan,
  unseenTree,
  type ReceivedTree,
  type Stock,
} from '../stock';
import { fall } from '../../testing/checked-case';
import { dayReasons } from '../../testing/day-reasons';
import { lookCases } from '../../testing/look-cases';
import { remedyReasons } from '../../testing/remedy-cases';
import { deviceReasons } from '../../testing/device-cases';
import { treeWaterReasons } from '../../testing/water-cases';
import { remedyWords } from './say-remedy';
import { reasonCodes, sayReason } from './say-reason';

const made = (...choices: readonly (readonly [string, ChoiceValue])[]): Practice =>
  choices.reduce((one, [path, value]) => replaced(one, path, value), fieldDefault);

const grounds: GroundFacts[] = [
  unknownGround,
  {
    ...unknownGround,
    soil: 'clay',
    stony: true,
    compacted: true,
    percolation: fall(3),
    slopePct: 9,
    wireHeightM: 7,
    stripWidthMm: 800,
  },
  { ...unknownGround, soil: 'sand', percolation: fall(150), slopePct: 0, stripWidthMm: 'open', wireHeightM: 'none' },
  { ...unknownGround, soil: 'loam', slopePct: 60, stripWidthMm: 300, percolation: [{ minute: 5, levelMm: 10 }] },
  { ...unknownGround, soil: 'clay_loam', slopePct: 2, stripWidthMm: 'open', percolation: fall(12) },
  { ...unknownGround, soil: 'loam', slopePct: 40, stripWidthMm: 2500, percolation: fall(60) },
  { ...unknownGround, soil: 'loam', slopePct: 0, stripWidthMm: 'open' },
  {
    ...unknownGround,
    soil: 'sandy_loam',
    slopePct: 0,
    stripWidthMm: 'open',
    percolation: fall(60),
    horizons: [
      { soil: 'sandy_loam', toMm: 250, fill: true, rateMmPerH: null },
      { soil: 'clay', toMm: 900, fill: false, rateMmPerH: null },
    ],
  },
  {
    ...unknownGround,
    soil: 'loam',
    slopePct: 0,
    wireHeightM: 3,
    stripWidthMm: 1000,
    percolation: [300, 296, 293, 291, 289, 288, 288].map((levelMm, i) => ({ minute: 10 * i, levelMm })),
  },
];
const stocks: Stock[] = [
  {
    kind: 'container',
    caliperMm: 40,
    heightM: 3,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    topRootsDepthMm: 0,
    face: 'one_sided',
    arrival: { covered: true, moist: true, wateredEveryDays: 1 },
    adventitious: { count: 3, thickestMm: 15 },
  },
  {
    kind: 'balled',
    caliperMm: 90,
    heightM: 5,
    ballDiameterMm: 700,
    ballHeightMm: 500,
    topRootsDepthMm: 90,
    surplusLeftMm: 30,
    graftHeightMm: 10,
    firstBranchM: 1,
  },
  { kind: 'bare_root', caliperMm: 20, heightM: 2, rootSpreadMm: 400, rootDepthMm: 300 },
  { kind: 'container', caliperMm: 10, heightM: 0.5, ballDiameterMm: 250, ballHeightMm: 250, topRootsDepthMm: 10 },
  {
    kind: 'container',
    caliperMm: 30,
    heightM: 2,
    ballDiameterMm: 400,
    ballHeightMm: 350,
    topRootsDepthMm: 60,
    arrival: { covered: false, moist: null, wateredEveryDays: null },
  },
  { kind: 'balled', caliperMm: 15, heightM: 1.5, ballDiameterMm: 200, ballHeightMm: 150, topRootsDepthMm: 60 },
];
const practices: Practice[] = [
  ...presets,
  made(['staking.rule', 'always'], ['guard', 'always'], ['routine.rule', 'weekly_volume'], ['firstSoak.rule', 'fixed']),
  made(['firstSoak.rule', 'by_caliper'], ['routine.rule', 'small_by_caliper'], ['routine.slowVisitsShare', 0.5]),
  made(['firstSoak.rule', 'fill_berm'], ['pitWidth.base', 'drain_if_stands'], ['flareAboveGrade.ballShare', 0.1]),
  made(
    ['backfill.material', 'peat'],
    ['backfill.share', 0.3],
    ['pitWidth.base', 'dug_deeper'],
    ['mulch.leastRingDiameterMm', 600],
    ['mulch.gapMm', 300],
    ['pitWidth.ballFactor', 1],
    ['pitWidth.ballFactorCompacted', 1],
  ),
  made(
    ['flareAboveGrade.measuredFrom', 'surface'],
    ['backfill.gypsum', 'always'],
    ['backfill.material', 'potting_mix'],
    ['backfill.bags', 2],
    ['backfill.second.material', 'topsoil'],
    ['backfill.second.share', 0.6],
    ['backfill.third.material', 'coarse_compost'],
    ['backfill.third.share', 0.6],
    ['backfill.feeds.surface', 'rock_lime'],
    ['guard', 'always'],
    ['guardUntilMm', 50],
    ['firstSoak.rule', 'depth'],
    ['routine.rule', 'probe_only'],
  ),
  made(
    ['backfill.material', 'bark_fines'],
    ['backfill.share', 0.3],
    ['flareAboveGrade.shoulder', 'mound'],
    ['routine.rule', 'rain_equal'],
  ),
  made(
    ['backfill.material', 'coarse_compost'],
    ['backfill.share', 0.3],
    ['backfill.place', 'whole_area'],
    ['mulch.leastRingDiameterMm', 4000],
  ),
];
const clear = siteThings.map((thing) => ({ thing, distanceM: 40, by: 'tape' as const }));
const assessments: Assessment[] = [
  unknownAssessment('2026-01-10'),
  ...siteThings.map((thing) => ({
    ...unknownAssessment('2026-01-10'),
    clearances: clear.map((one) => (one.thing === thing ? { ...one, distanceM: 0.2 } : one)),
  })),
  {
    ...unknownAssessment('2026-01-10'),
    owner: 'yard',
    clearances: clear.map((one) =>
      one.thing === 'wire' || one.thing === 'building' ? { ...one, distanceM: 5, towardsDeg: 90 } : one,
    ),
    privateLines: 'none',
    sunHours: 1,
    openSoilM2: 4,
    soilPh: 9,
    irrigation: { saltDsM: 3, sodiumSar: 14 },
    neighbourRoots: { species: '', distanceM: 4, thickestMm: 40 },
    saltDsM: 20,
    sodiumSar: 20,
    soilTestedOn: '2026-01-09',
    rockAtMm: 200,
    probeStopsMm: 100,
    wind: 'exposed',
    wishes: ['no_thorns', 'not_toxic'],
    rubbedBy: ['deer'],
  },
  {
    ...unknownAssessment('2026-01-10'),
    owner: 'road',
    clearances: clear.filter(({ thing }) => thing !== 'private_line'),
    privateLines: 'found',
    plannedBuilding: true,
    sunHours: 9,
    openSoilM2: 400,
    soilDepthMm: 900,
    soilPh: 5.2,
    saltDsM: 5,
    soilTestedOn: '2026-01-09',
    wind: 'open',
    winterWindDeg: 250,
    pavementDeg: 90,
    wishes: ['evergreen'],
  },
];

const beside: Assessment = {
  ...unknownAssessment('2026-01-10'),
  clearances: [{ thing: 'kerb', distanceM: 1, by: 'tape', towardsDeg: 30 }],
};

function ofPlans(): Reason[] {
  const offers = [
    { nursery: 'Viveiro Azul', species: 'Quercus ilex', kind: 'container' as const, caliperMm: 25, available: 2 },
  ];
  return practices.flatMap((practice) =>
    grounds.flatMap((ground) =>
      stocks.flatMap((stock) =>
        [null, ...assessments.slice(-2), beside].flatMap((assessment): readonly Reason[] => {
          const asked = {
            practice,
            ground,
            stock,
            assessment,
            work: defaultWorkRules,
            autumn: !assessment,
            sunDeg: assessment && 180,
          };
          const dug = pitPlan({ ground, stock, practice, fillUnderBallMm: 60, offers });
          const none = pitPlan({ ground, stock, practice, offers: [] });
          const plan = plantingPlan(asked);
          const late = pitPlan({ ground, stock, practice, dormant: false });
          const gave = [dug, none, late].flatMap((one) => (one.kind === 'no_plan' ? one.because : one.proudMm.because));
          if (plan.kind === 'no_plan') return [...plan.because, ...gave];
          const { pit } = plan;
          const numbers = [
            pit.depthMm,
            pit.widthMm,
            pit.proudMm,
            pit.downhillProudMm,
            pit.pitL,
            pit.backfillL,
            pit.amendments,
            plan.facing,
            pit.spoilL,
            pit.mulchL,
            pit.firstWaterL,
            pit.massKg,
            pit.lifting,
            plan.labour,
            plan.carry,
            plan.routine,
          ];
          return [
            ...gave,
            ...numbers.flatMap(({ because }) => because),
            ...(late.kind === 'plan' ? late.firstWaterL.because : []),
            ...pit.bermBecause,
            ...pit.cautions,
            ...plan.stakeBecause,
            ...plan.obstacles,
            ...Object.values(plan.materialsBecause).flat(),
          ];
        }),
      ),
    ),
  );
}

const ofLifts = (): Reason[] =>
  [
    [15, 3, 0],
    [120, 3, 2],
    [900, 3, 2],
  ].flatMap(([massKg = 0, distanceM = 0, slopePct = 0]) => liftingPlan({ massKg, distanceM, slopePct }).because);

function ofPlaces(): Reason[] {
  const rules = defaultGroundRules;
  return grounds.flatMap((ground) =>
    [null, ...assessments].flatMap((assessment) => {
      const drainage = defaultPercolationLimits;
      const judged = judgeSite({ ground, assessment, rules, drainage });
      const site = matchSite({ ground, assessment, rules, matchRules: defaultMatchRules, drainage });
      const cold = { ...defaultMatchRules, climate: { ...defaultMatchRules.climate, lowestC: -25 } };
      const frosty = matchSite({ ground, assessment, rules, matchRules: cold, drainage });
      const { fitting, excluded } = rankSpecies(shippedSpecies, site);
      return [
        ...judged.limits.map(({ because }) => because),
        ...fitting.flatMap(({ fit }) => fit.parts.map(({ because }) => because)),
        ...[...excluded, ...rankSpecies(shippedSpecies, frosty).excluded].flatMap(({ because }) => because),
      ];
    }),
  );
}

function ofLeave(): Reason[] {
  const day = '2026-03-10';
  const reply = (state: 'waiting' | 'clear' | 'marked' | 'conflict') => ({
    utility: 'Rede do Porto',
    state,
    repliedOn: null,
    toleranceMm: state === 'marked' ? 600 : null,
    note: '',
  });
  const ticket = (from: number, until: number, state: Parameters<typeof reply>[0] = 'clear'): TicketFacts => ({
    validFrom: addDaysTo(day, from),
    validUntil: addDaysTo(day, until),
    withdrawn: false,
    replies: [reply(state)],
  });
  const tickets: TicketFacts[] = [
    ticket(-3, 20),
    ticket(-3, 20, 'marked'),
    ticket(-3, 20, 'waiting'),
    ticket(2, 20, 'waiting'),
    ticket(-3, 20, 'conflict'),
    ticket(2, 20),
    ticket(-20, 1),
    ticket(-20, -2),
    { ...ticket(-3, 20), withdrawn: true },
    { ...ticket(-3, 20), validFrom: null, validUntil: null },
  ];
  const clearance = {
    id: 'c1',
    document: 'plan 7',
    clearedBy: 'the harbour office',
    validFrom: '2026-03-01',
    validUntil: '2026-04-01',
  };
  const leave = { tickets: [], clearances: [], permits: [], consents: [] };
  const within = { ...ticket(-3, 20, 'marked'), id: 't1', number: 'LC-1', roomM: 1.2 };
  return [
    ...tickets.flatMap((one) => judgeTicket(one, day, defaultGroundRules).because),
    ...digCover(leave, day, defaultGroundRules).because,
    ...digCover({ ...leave, clearances: [clearance] }, day, defaultGroundRules).because,
    ...digCover({ ...leave, tickets: [within] }, day, defaultGroundRules).because,
    ...[undefined, true, false, null].flatMap((moist) => {
      const arrival = moist === undefined ? undefined : { covered: true, moist, wateredEveryDays: null };
      const asked = { kind: 'balled' as const, day: '2026-07-10', windows: mildWinterWindows, forecast: [], arrival };
      return judgePlantingTime(asked).because;
    }),
    ...[-6, 12, 34].flatMap((tMaxC) => {
      const forecast = Array.from({ length: 7 }, (_, i) => ({
        day: addDaysTo('2026-01-10', i),
        tMinC: tMaxC - 4,
        tMaxC,
        rainMm: 3,
      }));
      return judgePlantingTime({ kind: 'balled', day: '2026-01-10', windows: mildWinterWindows, forecast }).because;
    }),
  ];
}

function ofStock(): Reason[] {
  const ordered = { kind: 'container' as const, caliperMm: 50 };
  const sound: ReceivedTree = {
    ...unseenTree,
    caliperMm: 50,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    circlingPct: 0,
    probes: [{ depthMm: 10, nature: 'structural' }],
  };
  const odd: Partial<ReceivedTree>[] = [
    {},
    { kind: 'bare_root' },
    { circlingPct: 30 },
    { circlingPct: 80, thickestCirclingMm: 40, soilShows: false, kinked: true },
    { ball: 'soft' },
    { ball: 'washed_out' },
    { ballDiameterMm: 200 },
    { ballHeightMm: 150 },
    { probes: [{ depthMm: 60, nature: 'structural' }], surplusLeftMm: 20 },
    { probes: [{ depthMm: 300, nature: 'structural' }] },
    { probes: [{ depthMm: 60, nature: 'fine' }] },
    { caliperMm: 30, leader: 'lost', wounds: 'large' },
    { leader: 'split', brokenBranches: true, face: 'one_sided' },
    { wrap: 'synthetic', ties: 'synthetic' },
    { wrap: 'treated', ties: 'natural' },
    { label: 'other' },
    { sign: 'differs' },
    { label: 'trade' },
    { label: 'none', sign: 'agrees' },
    { stemRoots: 2, stemRootMm: 8 },
  ];
  const trees = odd.map((change) => ({ ...sound, ...change }));
  const lots: [number, ReceivedTree[]][] = [
    [0, []],
    [24, []],
    [24, [{ ...sound, circlingPct: null }]],
    [24, Array.from({ length: 13 }, () => sound)],
    [3, Array.from({ length: 3 }, () => sound)],
    [24, [{ ...sound, circlingPct: 80 }]],
    [3, Array.from({ length: 3 }, () => ({ ...sound, circlingPct: 80 }))],
    [24, [{ ...sound, circlingPct: 80 }, ...Array.from({ length: 23 }, () => sound)]],
  ];
  return [
    ...trees.flatMap((tree) =>
      [defaultReceivingRules, { ...defaultReceivingRules, washedOut: 'loosen' as const }].flatMap(
        (rules) => judgeReceived(tree, ordered, rules).because,
      ),
    ),
    ...lots.flatMap(([arrived, opened]) => judgeLot({ arrived, opened, ordered }, defaultReceivingRules).because),
  ];
}

function ofPlantings(): Reason[] {
  const plans = grounds.flatMap((ground) => stocks.map((stock) => pitPlan({ ground, stock, practice: fieldDefault })));
  const none = pitPlan({ ground: grounds[4] as GroundFacts, stock: stocks[2] as Stock, practice: fieldDefault });
  const cases = [-20, 0, 40, 140].flatMap((flare) => [...plans, none].map((plan) => ({ flare, plan })));
  return cases.flatMap(({ flare, plan }) =>
    [1, 400].flatMap((firstWaterL) => {
      const built = {
        plantedOn: '2026-01-10',
        flareAboveGradeMm: [flare, flare + 90],
        holeWidthMm: firstWaterL > 1 ? 9000 : 500,
        firstWaterL,
      };
      const { findings } = judgeAsBuilt(built, plan.kind === 'plan' ? plan : undefined, fieldDefault);
      return findings.map(({ because }) => because);
    }),
  );
}

function ofLooks(): Reason[] {
  const looks: Partial<Inspection>[] = [
    ...(['none', 'in_place', 'tight', 'biting', 'broken'] as const).map((stake) => ({ stake })),
    ...(['dry', 'slightly_dry', 'moist', 'wet', 'saturated'] as const).map((probe) => ({ probe })),
    ...([-150, 0, 10, 50, 100, 200] as const).map((flareDepthMm) => ({ flareDepthMm })),
    ...([5, 60, 200] as const).map((mulchDepthMm) => ({ mulchDepthMm, mulchContact: 'clear' as const })),
    { mulchDepthMm: 60, mulchContact: 'touching' },
    { finger: 'finger_dry' },
    { finger: 'finger_moist' },
    { mulchDepthMm: 60, mulchContact: 'heaped' },
    { circlingRoots: [] },
    ...([30, 120, 200] as const).map((toDeg) => ({ circlingRoots: [{ arc: { fromDeg: 0, toDeg }, diameterMm: 20 }] })),
    { circlingRoots: [{ arc: { fromDeg: 0, toDeg: 30 }, diameterMm: 60 }] },
    ...lookCases,
  ];
  const nothing = {
    flareDepthMm: null,
    mulchDepthMm: null,
    mulchContact: null,
    stake: null,
    probe: null,
    circlingRoots: null,
  };
  return looks.flatMap((look) =>
    ['2024-01-10', '2026-05-01'].flatMap((plantedOn) => {
      const caliperMm = plantedOn < '2025' ? 50 : undefined;
      const context = { practice: fieldDefault, plantedOn, percolation: undefined, caliperMm };
      const verdict = judgeInspection({ ...nothing, inspectedOn: '2026-06-01', ...look }, context);
      return [...verdict.findings.map(({ because }) => because), verdict.nextLook.because];
    }),
  );
}

function ofLives(): Reason[] {
  let count = 0;
  const rec = <K extends RecordKind>(kind: K, facts: RecordFacts[K]): FieldRecord => {
    count += 1;
    const recordedAt = new Date(1.8e12 + count * 60_000).toISOString();
    return { id: `e${count}`, kind, facts, supersedes: null, recordedAt } as FieldRecord;
  };
  const ground = rec('ground', { ...(grounds[2] as GroundFacts), percolation: fall(60) });
  const seen = rec('assessment', unknownAssessment('2026-01-10'));
  const verdict = (word: RecordFacts['verdict']['verdict']) =>
    rec('verdict', { decidedOn: '2026-01-11', verdict: word, reason: 'the old well' });
  const choice = rec('choice', {
    chosenOn: '2026-01-12',
    species: 'Quercus ilex',
    stockKind: null,
    caliperMm: null,
    reason: '',
  });
  const stock = rec('stock', stocks[1] as Stock);
  const planting = rec('planting', {
    plantedOn: '2026-01-20',
    flareAboveGradeMm: [65],
    holeWidthMm: 1800,
    firstWaterL: 100,
    stakes: 2,
    practiceId: 'field-default',
    practiceVersion: 1,
  });
  const told = (called: string, cordoned: boolean) =>
    rec('hazard', { seenOn: '2026-03-01', hazard: 'branch_hanging', called, cordoned, note: '' });
  const histories = [
    [],
    [ground],
    [ground, seen],
    [ground, seen, verdict('move')],
    [ground, seen, verdict('plant_if')],
    [ground, seen, verdict('plant')],
    [ground, seen, verdict('plant'), choice],
    [ground, stock],
    [ground, stock, planting],
    [ground, stock, planting, told('the duty officer', true)],
    [ground, stock, planting, told('', false)],
  ];
  const rooted = rec('stock', { ...(stocks[1] as Stock), adventitious: { count: 9, thickestMm: 12 } } as Stock);
  const twice = { ...planting, id: 'again' } as typeof planting;
  const look = (change: object): FieldRecord => ({
    ...rec('inspection', {
      inspectedOn: '2026-03-01',
      flareDepthMm: 0,
      mulchDepthMm: null,
      mulchContact: 'clear',
      stake: 'none',
      probe: 'dry',
      circlingRoots: null,
      ...change,
    }),
    id: JSON.stringify(change),
  });
  const bag = rec('device', {
    setOn: '2026-03-01',
    deviceId: 'stem-bag',
    deviceName: 'Bag round the trunk',
    joined: 1,
    offBy: '2026-11-01',
  });
  const opposite = look({ flareDepthMm: 90, mulchContact: 'heaped', stake: 'tight', probe: 'saturated' });
  const later = made(
    ['pruning.stubs', 'kept'],
    ['guard', 'always'],
    ['guardUntilMm', 150],
    ['inspection.firstLooks.everyDays', 4],
  );
  const antlers = made(['guard', 'deer_season']);
  return [
    ...histories.flatMap((records) => spotLife(records, { practice: fieldDefault }).decisions),
    ...spotLife([ground, rooted, planting], { practice: later }).decisions,
    ...spotLife([ground, rooted, planting], { practice: antlers, latDeg: 41 }).decisions,
    ...spotLife([ground, rooted, planting, look({ guard: 'none' })], { practice: antlers, latDeg: 41 }).decisions,
    ...spotLife([ground, stock, planting, bag], { practice: fieldDefault }).decisions,
    ...spotLife([ground, stock, planting, twice, look({}), opposite], { practice: fieldDefault }).decisions,
  ].flatMap(({ because }) => because);
}

/** Every reason the core gives, on a spread of cases that the test below holds to be complete. */
function manyReasons(): Reason[] {
  const test = {
    testedOn: '2026-01-05',
    holeDepthMm: 400,
    soakedAt: '2026-01-05T08:40:00Z',
    filledAt: '2026-01-05T09:00:00Z',
    readings: [],
  };
  return [
    ...grounds.flatMap((ground) => groundGaps(ground, defaultPercolationLimits)),
    ...(['stands', 'slow', 'good', 'fast'] as const).flatMap((one) => percolationConsequences(one, fieldDefault)),
    ...soakShort(test, 60),
    ...ofPlans(),
    ...ofLifts(),
    ...ofPlaces(),
    ...ofLeave(),
    ...ofStock(),
    ...ofPlantings(),
    ...dayReasons(),
    ...remedyReasons(),
    ...treeWaterReasons(),
    ...deviceReasons(),
    ...ofLooks(),
    ...ofLives(),
  ];
}

describe('words for what the core finds', () => {
  // Worked out when a test first asks, so that a fault put into the core is met by the test.
  let known: Reason[] | undefined;
  const reasons = (): Reason[] => (known ??= manyReasons());

  it('are asked for of every reason there is', () => {
    const given = new Set(reasons().map(({ code }) => code));
    expect(reasonCodes.filter((code) => !given.has(code))).toEqual([]);
  });

  it.each(['metric', 'us'] as const)('make whole sentences in %s units', (units) => {
    for (const said of new Set(reasons().map((reason) => sayReason(reason, units)))) {
      expect(said).not.toMatch(/undefined|null|NaN|Infinity|\[object/);
      expect(said).toMatch(/^[A-Z0-9−].*[.?]$/s);
      expect(said).not.toMatch(/\d{4}-\d{2}-\d{2}/);
      expect(said).not.toContain('!');
    }
  });

  it('give every remedy an act and a way to do it, and caution where it can hurt', () => {
    for (const [code, words] of Object.entries(remedyWords)) {
      expect([code, words.act.length > 3, /\.$/.test(words.how)]).toEqual([code, true, true]);
    }
    for (const code of [
      'lift_and_replant',
      'cut_root',
      'stage_root_cuts',
      'collar_excavation',
      'replant_higher',
    ] as const) {
      expect(remedyWords[code].caution).not.toBeNull();
    }
  });
});
