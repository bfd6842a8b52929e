import {
  fieldDefault,
  followWater,
  mildWinterWindows,
  reachesOf,
  tryRule,
  typicalRingM2,
  typicalStock,
  typicalSubject,
  waterClimate,
  waterStart,
  type ClimateDay,
  type Practice,
  type RuleTrial,
  type WaterSubject,
} from '@sombra/core';
import { demoWeather, station } from '../src/weather';

/** A year of the demo town from a planting in January on: seed and day are fixed, so that the table is. */
const [seed, today, plantedOn] = ['talhamar', '2026-11-23', '2026-01-10'] as const;
const stock = typicalStock('container', 50);

interface Case {
  readonly effect: string;
  readonly formula: string;
  readonly source: string;
  /** What the litres are without. */
  readonly without: string;
  readonly subject?: (subject: WaterSubject) => WaterSubject;
  readonly climate?: (days: readonly ClimateDay[]) => readonly ClimateDay[];
  /** Poured on it on every third day by a valve that nobody sets, instead of what the balance asks for. L */
  readonly valveL?: number;
}

const cases: readonly Case[] = [
  {
    effect: 'Rain that enters',
    formula: 'max(0, rain − 1 mm) × area of ball and reached soil',
    source: 'interception of a young crown: estimate',
    without: 'no rain',
    climate: (days) => days.map((day) => ({ ...day, rainMm: 0 })),
  },
  {
    effect: 'Mulch',
    formula: 'evaporation = ET₀ × 0.12 × area of the ball; bare 0.35',
    source: 'after FAO-56’s evaporation of a wet surface under mulch; numbers: estimate',
    without: 'bare soil',
    subject: (subject) => ({ ...subject, surface: 0.35 }),
  },
  {
    effect: 'Roots that grow with warmth',
    formula: 'reach = 30 mm + 0.25 mm × degree days over 8 °C, 1.5 m at most',
    source: 'estimate: some 0.6 m in a warm year',
    without: 'no growth',
    climate: (days) => days.map((day) => ({ ...day, degrees: 0 })),
  },
  {
    effect: 'Rest',
    formula: 'use × 0.3 while bare roots may be planted',
    source: 'estimate',
    without: 'in leaf all year',
    climate: (days) => days.map((day) => ({ ...day, resting: false })),
  },
  {
    effect: 'Use by species',
    formula: 'ET₀ × 0.5 (low 0.3, high 0.7) × crown projection',
    source: 'thirds of the landscape coefficient: estimate',
    without: 'a thirsty one',
    subject: (subject) => ({ ...subject, use: 0.7 }),
  },
  {
    effect: 'Wind',
    formula: 'use × 1.15 exposed, × 0.85 sheltered',
    source: 'estimate',
    without: 'exposed',
    subject: (subject) => ({ ...subject, use: subject.use * 1.15 }),
  },
  {
    effect: 'Soil beside the ball',
    formula: 'field capacity − wilting point of the soil’s class, to the roots’ reach',
    source: 'FAO-56, table 19, by class',
    without: 'sand',
    subject: (subject) => ({ ...subject, soil: 'sand', percolation: 'fast' }),
  },
  {
    effect: 'Slow soil',
    formula: 'a dose fills the ball alone; down 120 mm a day, 5 where water stands',
    source: 'middles of the drainage classes: estimate',
    without: 'standing clay',
    subject: (subject) => ({ ...subject, soil: 'clay', percolation: 'stands' }),
  },
  {
    effect: 'Other roots in its soil',
    formula: 'ET₀ × 0.3 × area of reached soil, to the wilting point; in drought their share grows',
    source:
      'estimate; where a neighbour stands within 5 m or its roots were met in the pit, and as much again for grass seen in the ring',
    without: 'a neighbour’s roots',
    subject: (subject) => ({ ...subject, others: 0.3 }),
  },
  {
    effect: 'Berm',
    formula: 'nine tenths of a dose reach the ball; eight without, less 1 % for each percent of slope over 5',
    source: 'estimate',
    without: 'no berm',
    subject: (subject) => ({ ...subject, reaches: 0.8 }),
  },
  {
    effect: 'Slope',
    formula: 'rain × (1 − 1 % for each percent over 5, 30 % at most)',
    source: 'estimate',
    without: 'a bank of 25 %',
    subject: (subject) => ({ ...subject, runsOff: 0.2 }),
  },
  {
    effect: 'Frozen days',
    formula: 'no use and no evaporation on a day that never thaws',
    source: 'frozen soil by the air: estimate',
    without: 'the first month frozen',
    climate: (days) => days.map((day, i) => (i < 31 ? { ...day, etMm: 0 } : day)),
  },
  {
    effect: 'Weaning',
    formula: 'a container planted in leaf asks from 0.7 of what it can drink, less as its roots go, 0.5 from 200 mm on',
    source: 'from the nursery’s daily rhythm: estimate',
    without: 'planted in leaf',
    subject: (subject) => ({ ...subject, weaning: true }),
  },
  {
    effect: 'An overwatered zone',
    formula: 'the valve’s litres on its days, whatever the ball holds; over saturation they run off',
    source: 'the balance itself',
    without: 'a valve that gives 40 L every third day, standing clay',
    subject: (subject) => ({ ...subject, soil: 'clay', percolation: 'stands' }),
    valveL: 40,
  },
  {
    effect: 'A ball of its own',
    formula: 'container mix, 450 to 500 mm wide; never silently the site’s soil',
    source: 'water of media by class',
    without: 'a ball of nursery soil',
    subject: (subject) => ({ ...subject, kind: 'balled' }),
  },
];

/** A year under a valve that runs every third day. */
function valveOf(subject: WaterSubject, climate: readonly ClimateDay[], litres: number): Trial {
  const [first] = climate;
  if (!first) throw new Error('no weather');
  const doses = climate.filter((_, i) => i % 3 === 0).map(({ day }) => [day, litres * reachesOf(subject)] as const);
  const { to } = followWater(subject, waterStart(subject, first.day), climate, { doses, readings: [] });
  const { stressDays, waterloggedDays } = to;
  return { litres: doses.length * litres, visits: doses.length, stressDays, waterloggedDays };
}

type Trial = Pick<RuleTrial, 'litres' | 'visits' | 'stressDays' | 'waterloggedDays'>;

export interface Effect {
  readonly effect: string;
  readonly base: Trial;
  readonly other: Trial;
}

const practice: Practice = fieldDefault;
const base: WaterSubject = typicalSubject(stock, { soil: 'loam', percolation: 'good', plantedOn, practice });

function trialOf(subject: WaterSubject, climate: readonly ClimateDay[]): RuleTrial {
  const ringM2 = typicalRingM2(stock, subject, practice);
  return tryRule('balance', { subject, stock, ringM2, practice, latDeg: station.latDeg, climate });
}

/** Each effect by the litres the balance asks for with and without it, on a tree of the demo town. */
export function waterEffects(): Effect[] {
  const { recorded } = demoWeather({ seed, today, years: 1.2 });
  const climate = waterClimate({ station, recorded, forecast: [] }, { windows: mildWinterWindows, today }).past.filter(
    ({ day }) => day >= plantedOn,
  );
  const usual = trialOf(base, climate);
  return cases.map(({ effect, subject = (one) => one, climate: change = (days) => days, valveL }) => {
    const [other, days] = [subject(base), change(climate)];
    return { effect, base: usual, other: valveL ? valveOf(other, days, valveL) : trialOf(other, days) };
  });
}

/** The table of `docs/water.md`. */
export function waterEffectsTable(): string {
  const rows = waterEffects().map(({ effect, base: usual, other }, i) => {
    const { formula = '', source = '', without = '' } = cases[i] ?? {};
    const cells = [usual, other].map(({ litres, stressDays, waterloggedDays }) =>
      [litres.toFixed(0), stressDays, waterloggedDays].join(' / '),
    );
    return `| ${[effect, formula, source, ...cells, without].join(' | ')} |`;
  });
  return [
    '| effect | formula | source | with: L / d stress / d in water | without | instead |',
    '| --- | --- | --- | --- | --- | --- |',
    ...rows,
  ].join('\n');
}
