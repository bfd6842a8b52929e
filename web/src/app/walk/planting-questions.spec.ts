import { defaultWorkRules, fieldDefault, spotLife, unknownGround, wholePlan, type FieldRecord } from '@sombra/core';
import type { Answers } from '../ask/ask';
import { plantingOf, plantingQuestions, type Pace } from './planting-questions';

const at = '2026-11-02T09:00:00.000Z';
const records = [
  { id: 'a', kind: 'ground', facts: { ...unknownGround, soil: 'loam', slopePct: 0 }, supersedes: null, recordedAt: at },
  {
    id: 'b',
    kind: 'stock',
    facts: {
      kind: 'container',
      caliperMm: 50,
      heightM: 3,
      ballDiameterMm: 450,
      ballHeightMm: 400,
      topRootsDepthMm: 60,
    },
    supersedes: null,
    recordedAt: at,
  },
] as FieldRecord[];
const life = spotLife(records, { practice: fieldDefault });
const asked = (pace: Pace, answers: Answers = {}) =>
  plantingQuestions({ life, answers, units: 'metric', pace, work: defaultWorkRules, headingDeg: null });
const keys = (pace: Pace, answers: Answers = {}) => asked(pace, answers).map(({ key }) => key);

describe('what is asked of a planting', () => {
  it('is four numbers for one who knows: begin, four taps, store', () => {
    expect(keys('short')).toEqual(['dugDepthMm', 'flareAboveGradeMm', 'holeWidthMm', 'firstWaterL']);
    // One tap answers each: what was planned is among the usual values.
    for (const ask of asked('short')) {
      expect(ask.kind === 'number' && ask.likely.length > 0).toBe(true);
    }
  });

  it('asks what was put back only of a hole dug too deep', () => {
    // Planned: ball 400 mm less 60 of surplus, standing 40 proud: 300 mm.
    expect(keys('short', { dugDepthMm: 300 })).not.toContain('putBackMm');
    const deep = asked('short', { dugDepthMm: 360 })[1];
    expect(deep).toMatchObject({ key: 'putBackMm', likely: [60] });
  });

  it('leads through each step of the work, and asks behind the step it belongs to', () => {
    const plan = wholePlan(life, { work: defaultWorkRules });
    if (plan?.kind !== 'plan') throw new Error('no plan');
    const led = keys('led');
    expect(led.filter((key) => key.startsWith('step.'))).toEqual(plan.steps.map(({ code }) => `step.${code}`));
    const after = (step: string) => led[led.indexOf(`step.${step}`) + 1];
    expect(after('check_depth')).toBe('dugDepthMm');
    expect(after('mulch')).toBe('mulchDepthMm');
    expect(led.indexOf('flareBeforeSoakMm')).toBeLessThan(led.indexOf('step.final_soak'));
    expect(led.indexOf('flareAboveGradeMm')).toBeGreaterThan(led.indexOf('step.final_soak'));
    // Nothing that may be said is left out for being led.
    expect(new Set(led.filter((key) => !key.startsWith('step.')))).toEqual(new Set(keys('more')));
  });

  it('asks whether a neighbour’s root was cut only where one was met', () => {
    expect(keys('more', { metRootMm: 0 })).not.toContain('metRootCut');
    expect(keys('more', { metRootMm: 30 })).toContain('metRootCut');
  });
});

describe('the answers as a planting', () => {
  const needed = { flareAboveGradeMm: 40, holeWidthMm: 1125, firstWaterL: 50 };
  const factsOf = (answers: Answers) => {
    const built = plantingOf(answers, life, '2026-11-20');
    return 'facts' in built ? built.facts : null;
  };
  it('names what is missing', () => {
    expect(plantingOf({ ...needed, holeWidthMm: null }, life, '2026-11-20')).toEqual({ missing: 'holeWidthMm' });
  });
  it('says nothing of what was skipped', () => {
    expect(factsOf(needed)).toEqual({
      plantedOn: '2026-11-20',
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 50,
      practiceId: 'field-default',
      practiceVersion: 1,
    });
  });
  it('takes a root that was met for neither kept nor cut where that was skipped', () => {
    expect(factsOf({ ...needed, metRootMm: 30 })?.metRoot).toEqual({ thickestMm: 30 });
    expect(factsOf({ ...needed, metRootMm: 30, metRootCut: 'cut' })?.metRoot).toEqual({ thickestMm: 30, cut: true });
  });
  it('keeps all that was said', () => {
    const said = factsOf({
      ...needed,
      flare3Mm: 55,
      flareBeforeSoakMm: 52,
      before3Mm: 61,
      toppedUpMm: 15,
      putBackMm: 60,
      roots: 'corrected',
      cutAway: 'basket,ties',
      metRootMm: 30,
      metRootCut: 'kept',
      plumb: 'upright',
      stakes: '0',
      bestFaceDeg: '0',
      mulchDepthMm: 75,
      departure: ' rock on the north side ',
    });
    expect(said).toMatchObject({
      flareAboveGradeMm: [40, 55],
      flareBeforeSoakMm: [52, 61],
      toppedUpMm: 15,
      putBackMm: 60,
      roots: 'corrected',
      cutAway: ['basket', 'ties'],
      metRoot: { thickestMm: 30, cut: false },
      plumb: 'upright',
      stakes: 0,
      bestFaceDeg: 0,
      mulchDepthMm: 75,
      departure: 'rock on the north side',
    });
  });
});
