import { unknownGround, type GroundFacts } from '../ground';
import { judgeInspection, type Inspection } from '../inspect';
import { judgeAsBuilt } from '../day';
import { groundGaps, pitPlan } from '../pit';
import { fieldDefault } from '../practice';
import type { Reason } from '../reason';
import type { Stock } from '../stock';
import { remedyWords } from './say-remedy';
import { sayReason } from './say-reason';

const fall = (mm: number) => [0, 1, 2, 3].map((i) => ({ minute: i * 60, levelMm: 900 - i * mm }));
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
];
const stocks: Stock[] = [
  { kind: 'container', caliperMm: 40, heightM: 3, ballDiameterMm: 450, ballHeightMm: 400, topRootsDepthMm: 0 },
  { kind: 'balled', caliperMm: 90, heightM: 5, ballDiameterMm: 700, ballHeightMm: 500, topRootsDepthMm: 90 },
  { kind: 'bare_root', caliperMm: 20, heightM: 2, rootSpreadMm: 400, rootDepthMm: 300 },
];

/** Every reason the core gives on a spread of cases. */
function manyReasons(): Reason[] {
  const plans = grounds.flatMap((ground) =>
    stocks.map((stock) => pitPlan({ ground, stock, practice: fieldDefault, fillUnderBallMm: 60 })),
  );
  const ofPlans = plans.flatMap((plan) =>
    plan.kind === 'no_plan'
      ? plan.because
      : [
          plan.depthMm,
          plan.widthMm,
          plan.proudMm,
          plan.downhillProudMm,
          plan.pitL,
          plan.backfillL,
          plan.spoilL,
          plan.mulchL,
          plan.firstWaterL,
          plan.massKg,
          plan.lifting,
        ]
          .flatMap((number) => number.because)
          .concat(plan.cautions),
  );
  const built = [-20, 0, 40, 140].flatMap((flare) =>
    plans.flatMap((plan) => {
      const asBuilt = {
        plantedOn: '2026-01-10',
        flareAboveGradeMm: [flare, flare + 90],
        holeWidthMm: 500,
        firstWaterL: 1,
      };
      return judgeAsBuilt(asBuilt, plan.kind === 'plan' ? plan : undefined, fieldDefault).findings.map(
        (f) => f.because,
      );
    }),
  );
  const looks: Partial<Inspection>[] = [
    ...(['none', 'in_place', 'tight', 'biting', 'broken'] as const).map((stake) => ({ stake })),
    ...(['dry', 'slightly_dry', 'moist', 'wet', 'saturated'] as const).map((probe) => ({ probe })),
    ...([-150, 0, 10, 50, 100, 200] as const).map((flareDepthMm) => ({ flareDepthMm })),
    ...([5, 60, 200] as const).map((mulchDepthMm) => ({ mulchDepthMm, mulchContact: 'heaped' as const })),
    ...([30, 120, 200] as const).map((toDeg) => ({ circlingRoots: [{ arc: { fromDeg: 0, toDeg }, diameterMm: 60 }] })),
  ];
  const seen = looks.flatMap((look) => {
    const nothing = {
      flareDepthMm: null,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe: null,
      circlingRoots: null,
    };
    const context = { practice: fieldDefault, plantedOn: '2024-01-10', percolation: undefined };
    const verdict = judgeInspection({ ...nothing, inspectedOn: '2026-06-01', ...look }, context);
    return [...verdict.findings.map((f) => f.because), verdict.nextLook.because];
  });
  return [...grounds.flatMap((ground) => groundGaps(ground, fieldDefault.percolation)), ...ofPlans, ...built, ...seen];
}

describe('words for what the core finds', () => {
  const reasons = manyReasons();

  it.each(['metric', 'us'] as const)('make whole sentences in %s units', (units) => {
    for (const reason of reasons) {
      const sentence = sayReason(reason, units);
      expect(sentence).not.toMatch(/undefined|null|NaN|\[object/);
      expect(sentence).toMatch(/^[A-Z0-9].*\.$/);
      expect(sentence).not.toContain('!');
    }
  });

  it('cover a wide spread of findings', () => {
    expect(new Set(reasons.map(({ code }) => code)).size).toBeGreaterThan(45);
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
