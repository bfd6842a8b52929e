import { fieldDefault, type Practice } from './practice';

const { flareAboveGrade: flare, pitWidth, backfill, mulch, berm, firstSoak, routine, staking } = fieldDefault;

/** A school whose choices change gets a new version: trees keep the one they were planted under. */
const preset = (id: string, name: string, change: Partial<Practice>, version = 1): Practice => ({
  ...fieldDefault,
  ...change,
  id,
  version,
  name,
});
/** No allowances: the flare stands where the school says, whatever the soil. */
const flat = { ...flare, heavySoilExtraMm: 0, stonyExtraMm: 0, slowSoilExtraMm: 0 };

/** Schools of planting, every choice a single value. They are never edited, only copied. */
export const presets: readonly Practice[] = [
  fieldDefault,
  preset('native-soil', 'Native soil, hands off', {
    appliesTo: ['container', 'balled'],
    flareAboveGrade: { ...flat, baseMm: 25 },
    pitWidth: { ...pitWidth, ballFactor: 2.5, ballFactorCompacted: 2.5 },
    backfill: { ...backfill, gypsum: 'no' },
    staking: { ...staking, rule: 'never' },
    routine: { ...routine, rule: 'large_by_caliper', lPer25Mm: 40, visitsPerWeek: 1 },
  }),
  preset('garden-enriched', 'Garden enriched', {
    appliesTo: ['container', 'balled'],
    flareAboveGrade: { ...flat, baseMm: 0 },
    pitWidth: { ...pitWidth, ballFactor: 2, ballFactorCompacted: 2 },
    backfill: {
      ...backfill,
      material: 'coarse_compost',
      share: 1 / 3,
      feeds: { ...backfill.feeds, edge: 'slow_pellets' },
      gypsum: 'no',
    },
    staking: { ...staking, rule: 'always', layout: 'windward' },
    berm: { ...berm, notInSlowSoil: false },
    routine: { ...routine, rule: 'weekly_volume', weeklyL: 40, visitsPerWeek: 2, time: 'months', months: 12 },
  }),
  preset(
    'heavy-clay',
    'Heavy clay',
    {
      appliesTo: ['container', 'balled'],
      flareAboveGrade: { ...flat, baseMm: 75, shoulder: 'mound' },
      pitWidth: { ...pitWidth, ballFactor: 2, ballFactorCompacted: 2, sides: 'broken_down' },
      backfill: { ...backfill, material: 'bark_fines', share: 0.5, gypsum: 'by_test' },
      berm: { ...berm, where: 'none' },
      firstSoak: { ...firstSoak, when: 'after' },
      staking: { ...staking, rule: 'always', layout: 'by_size', offAfterMonths: 12 },
      routine: {
        ...routine,
        rule: 'small_by_caliper',
        lPer25Mm: 8,
        visitsPerWeek: 1,
        slowVisitsShare: 1,
        time: 'months',
        months: 24,
      },
    },
    3,
  ),
  preset('dormant-bare-root', 'Dormant bare-root', {
    appliesTo: ['bare_root'],
    flareAboveGrade: { ...flat, baseMm: 0 },
    pitWidth: { ...pitWidth, bareRootMarginMm: 300, sides: 'straight' },
    backfill: { ...backfill, settling: 'heel', gypsum: 'no' },
    firstSoak: { ...firstSoak, rule: 'none', doses: 0 },
    staking: { ...staking, rule: 'always', layout: 'windward' },
    routine: { ...routine, rule: 'until_growth', visitsPerWeek: 1, time: 'months', months: 24 },
  }),
  preset('many-hands', 'Many hands', {
    appliesTo: ['container', 'balled'],
    flareAboveGrade: { ...flat, baseMm: 40 },
    pitWidth: { ...pitWidth, ballFactor: 2.5, ballFactorCompacted: 2.5, sides: 'sloped' },
    backfill: { ...backfill, settling: 'tool', gypsum: 'no' },
    mulch: { ...mulch, thicknessMm: 75 },
    firstSoak: { ...firstSoak, rule: 'fill_berm', doses: 2 },
    staking: { ...staking, rule: 'never' },
    routine: { ...routine, rule: 'weekly_volume', weeklyL: 40, visitsPerWeek: 1, time: 'months', months: 24 },
  }),
];

export const presetIds: ReadonlySet<string> = new Set(presets.map(({ id }) => id));

/** The shipped practice for a kind of stock that another does not cover; the first in order of likeness. */
export function nearestPreset(practice: Practice, kind: Practice['appliesTo'][number]): Practice {
  if (practice.appliesTo.includes(kind)) return practice;
  const covering = presets.filter(({ appliesTo }) => appliesTo.includes(kind));
  const likeness = (one: Practice) =>
    Number(one.backfill.material === practice.backfill.material) +
    Number(one.staking.rule === practice.staking.rule) -
    Math.abs(one.flareAboveGrade.baseMm - practice.flareAboveGrade.baseMm) / 50 +
    (one.appliesTo.length === 1 ? 1 : 0);
  return [...covering].sort((a, b) => likeness(b) - likeness(a))[0] ?? fieldDefault;
}
