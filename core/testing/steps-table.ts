import { defaultWorkRules, plantingPlan, type PlantingPlan, type SoilBalance } from '../src/pit';
import { presets, type Practice } from '../src/practice';
import { stockKinds, type Stock } from '../src/stock';
import { formatNumber } from '../src/units';
import { sayStep, stockNames } from '../src/wording';
import { bareRoot, container, openLoam } from './checked-case';

const trees: Readonly<Record<Stock['kind'], Stock>> = {
  container,
  balled: { kind: 'balled', caliperMm: 65, heightM: 4, ballDiameterMm: 700, ballHeightMm: 500, topRootsDepthMm: 50 },
  bare_root: bareRoot,
};
const slopes = [0, 8] as const;

const planOf = (practice: Practice, stock: Stock, slopePct: number): PlantingPlan => {
  const ground = { ...openLoam, slopePct };
  const plan = plantingPlan({ practice, stock, ground, assessment: null, work: defaultWorkRules });
  if (plan.kind === 'no_plan') throw new Error(plan.because.map(({ code }) => code).join());
  return plan;
};

const columns: readonly (keyof SoilBalance)[] = [
  'dugL',
  'cavedL',
  'boughtL',
  'backL',
  'bermL',
  'moundL',
  'bankL',
  'leftL',
];

const soilRow = (practice: Practice, kind: Stock['kind'], slopePct: number): string => {
  const { soil } = planOf(practice, trees[kind], slopePct).pit;
  const litres = columns.map((column) => formatNumber(soil[column], 1));
  return `| ${stockNames[kind]}, ${slopePct === 0 ? 'level' : `${slopePct} %`} | ${litres.join(' | ')} |`;
};

const stepsOf = (practice: Practice, kind: Stock['kind']): string => {
  const { steps, labour } = planOf(practice, trees[kind], 0);
  const titles = steps.map((step, i) => `${i + 1}. ${sayStep(step, 'metric').title}`).join(' · ');
  return `- **${stockNames[kind]}**, ${formatNumber(labour.hours, 1)} person-hours by volunteers: ${titles}`;
};

const schoolOf = (practice: Practice): string => {
  const kinds = stockKinds.filter((kind) => practice.appliesTo.includes(kind));
  return [
    `## ${practice.name}`,
    '',
    '| litres | dug | caved in | bought | back | berm | mound | bank | left |',
    '| --- | --: | --: | --: | --: | --: | --: | --: | --: |',
    ...kinds.flatMap((kind) => slopes.map((slopePct) => soilRow(practice, kind, slopePct))),
    '',
    ...kinds.map((kind) => stepsOf(practice, kind)),
  ].join('\n');
};

/** The steps and the soil of every school with every kind of stock it covers, as `docs/steps.md` holds them. */
export const stepsTable = (): string =>
  [
    '# Steps and soil of the schools',
    '',
    'Written by the core (`core/testing/steps-table.ts`) and held to it by a test; `npm run docs:steps` writes it anew. The trees: a container of 450 by 400 mm with 60 mm over its roots, a ball of 700 by 500 mm with 50 mm over them, bare roots of 500 mm spread and 300 mm depth; in drained loam, on the level and on a slope of 8 %.',
    '',
    'Litres as soil lies firm in the ground: **dug + caved in + bought = back + berm + mound + bank + left**. What is mixed in is no part of it: it takes room of the fill, so that as much more is left.',
    '',
    presets.map(schoolOf).join('\n\n'),
    '',
  ].join('\n');
