import {
  judgeSite,
  rootingVolumeM3,
  saltFacedDsM,
  sizeClasses,
  sizeClassOf,
  soilNeededM3,
  groundPercolationClass,
  type Assessment,
  type GroundFacts,
  type GroundRules,
  type PercolationLimits,
  type SiteJudgement,
} from '../ground';
import { because, type MatchReason } from './reasons';
import { fitParts, type FitPart, type MatchRules } from './match-rules';
import { matureHeightM, matureSpreadM, type Grade, type Species } from './species';

/** A spot as a species meets it: facts, and what the rules make of them. */
export interface MatchSite {
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  readonly judgement: SiteJudgement;
  readonly rules: GroundRules;
  readonly matchRules: MatchRules;
  /** Of the practice the programme plants by. */
  readonly drainage: PercolationLimits;
}

/** @throws InvalidInputError for facts outside `limits` */
export function matchSite(site: Omit<MatchSite, 'judgement'>): MatchSite {
  return { ...site, judgement: judgeSite(site) };
}

export interface ScoredPart {
  readonly part: FitPart;
  /** 0–1. */
  readonly score: number;
  readonly weight: number;
  readonly because: MatchReason;
}

export type Fit =
  | { readonly kind: 'fits'; readonly score: number; readonly parts: readonly ScoredPart[] }
  /** Left out: every hard limit it breaks. */
  | { readonly kind: 'excluded'; readonly because: readonly MatchReason[] };

/**
 * How well a species suits a spot: hard limits first, each named; then a weighted mean of parts from 0 to 1. A
 * fact nobody measured counts half in its part and excludes nothing.
 */
export function fitOf(species: Species, site: MatchSite): Fit {
  const broken = hardLimits(species, site);
  if (broken.length > 0) return { kind: 'excluded', because: broken };
  const parts = fitParts
    .map((part): ScoredPart => ({ part, weight: site.matchRules.weights[part], ...scorers[part](species, site) }))
    .filter(({ weight }) => weight > 0);
  const weight = parts.reduce((sum, part) => sum + part.weight, 0);
  const score = weight > 0 ? parts.reduce((sum, part) => sum + part.weight * part.score, 0) / weight : 0;
  return { kind: 'fits', score, parts };
}

const gradeValue: Readonly<Record<Grade, number>> = { low: 0, medium: 0.5, high: 1 };
/** Salt of the saturated extract a grade bears, after the usual classes of salt tolerance. dS/m */
export const saltBornDsM: Readonly<Record<Grade, number>> = { low: 2, medium: 4, high: 8 };
/** pH units outside its range at which a species is left out. */
const phSlack = 0.5;
/** Direct sun each need asks for at least. h */
const sunAsked = { full: 5, part: 3, shade: 0 } as const;

function hardLimits(species: Species, site: MatchSite): MatchReason[] {
  const { judgement, rules, matchRules, assessment, ground } = site;
  const heightM = matureHeightM(species);
  const size = sizeClassOf(heightM, rules);
  const broken: MatchReason[] = [];
  if (judgement.tallestM !== null && heightM > judgement.tallestM) {
    broken.push(because('fit_too_tall', { heightM, tallestM: judgement.tallestM }));
  }
  if (judgement.allows === null) broken.push(because('fit_no_room', {}));
  else if (sizeClasses.indexOf(size) > sizeClasses.indexOf(judgement.allows)) {
    broken.push(because('fit_too_large', { size, allows: judgement.allows, heightM }));
  }
  const { lowestC } = matchRules.climate;
  if (species.frostC > lowestC) broken.push(because('fit_frost', { bearsC: species.frostC, lowestC }));
  const volumeM3 = rootingVolumeM3(assessment, rules);
  const neededM3 = soilNeededM3(matureSpreadM(species), rules);
  if (volumeM3 !== null && volumeM3 < matchRules.leastSoilShare * neededM3) {
    broken.push(because('fit_soil_short', { volumeM3, neededM3, leastPct: matchRules.leastSoilShare * 100 }));
  }
  const percolation = groundPercolationClass(ground, site.drainage);
  if (percolation === 'stands' && species.wet !== 'yes') broken.push(because('fit_drowns', { percolation }));
  if (percolation === 'slow' && species.wet === 'no') broken.push(because('fit_drowns', { percolation }));
  const saltDsM = saltFacedDsM(assessment);
  if (saltDsM !== null && saltDsM > saltBornDsM[species.salt]) {
    broken.push(because('fit_salt', { saltDsM, bearsDsM: saltBornDsM[species.salt] }));
  }
  const ph = assessment?.soilPh ?? null;
  if (ph !== null && (ph < species.ph.min - phSlack || ph > species.ph.max + phSlack)) {
    broken.push(because('fit_ph', { ph, min: species.ph.min, max: species.ph.max }));
  }
  const sunHours = assessment?.sunHours ?? null;
  if (sunHours !== null && sunHours < sunAsked[species.sun] - 1) {
    broken.push(because('fit_shade', { sunHours, askedH: sunAsked[species.sun] }));
  }
  if (assessment?.wishes.includes('no_thorns') && species.thorns) broken.push(because('fit_thorns', {}));
  if (assessment?.wishes.includes('not_toxic') && species.toxic === 'high') broken.push(because('fit_toxic', {}));
  return broken;
}

type Scored = Pick<ScoredPart, 'score' | 'because'>;
const scored = (score: number, reason: MatchReason): Scored => ({
  score: Math.min(1, Math.max(0, score)),
  because: reason,
});
const unknown = (part: FitPart): Scored => scored(0.5, because('fit_unknown', { part }));

const scorers: Readonly<Record<FitPart, (species: Species, site: MatchSite) => Scored>> = {
  soil(species, { assessment, rules }) {
    const volumeM3 = rootingVolumeM3(assessment, rules);
    if (volumeM3 === null) return unknown('soil');
    const neededM3 = soilNeededM3(matureSpreadM(species), rules);
    return scored(volumeM3 / neededM3, because('fit_soil', { volumeM3, neededM3 }));
  },
  water(species, { ground, matchRules, drainage }) {
    const percolation = groundPercolationClass(ground, drainage);
    if (!percolation) return unknown('water');
    const dry = matchRules.climate.drySummers || percolation === 'fast';
    const drought = dry ? gradeValue[species.drought] * 0.7 + 0.3 : 1;
    const wet = percolation === 'slow' ? (species.wet === 'yes' ? 1 : 0.6) : 1;
    return scored(
      drought * wet,
      because('fit_water', { percolation, drought: species.drought, dry, wet: species.wet }),
    );
  },
  chemistry(species, { assessment }) {
    const soilPh = assessment?.soilPh ?? null;
    const saltDsM = saltFacedDsM(assessment);
    if (soilPh === null && saltDsM === null) return unknown('chemistry');
    // Each runs from its best to its worst; what nobody measured stands in the middle, never better than a measure.
    const acid = soilPh === null ? 0.5 : 1 - Math.max(0, species.ph.min - soilPh, soilPh - species.ph.max) / phSlack;
    const salt = saltDsM === null ? 0.75 : 1 - 0.5 * (saltDsM / saltBornDsM[species.salt]);
    const facts = {
      ph: soilPh,
      min: species.ph.min,
      max: species.ph.max,
      saltDsM,
      bearsDsM: saltBornDsM[species.salt],
    };
    return scored(salt * acid, because('fit_chemistry', facts));
  },
  light(species, { assessment }) {
    const sunHours = assessment?.sunHours ?? null;
    if (sunHours === null) return unknown('light');
    const askedH = sunAsked[species.sun];
    return scored(askedH === 0 ? 1 : sunHours / askedH, because('fit_light', { sunHours, askedH }));
  },
  wind(species, { assessment }) {
    const wind = assessment?.wind ?? null;
    if (wind === null) return unknown('wind');
    const firm = gradeValue[species.windFirm];
    const score = wind === 'sheltered' ? 1 : wind === 'open' ? 0.5 + 0.5 * firm : 0.2 + 0.8 * firm;
    return scored(score, because('fit_wind', { wind, windFirm: species.windFirm }));
  },
  paving(species, { ground }) {
    const { stripWidthMm } = ground;
    if (stripWidthMm === null) return unknown('paving');
    const roomy = stripWidthMm === 'open' ? 1 : Math.min(1, stripWidthMm / 3000);
    const score = 1 - gradeValue[species.rootAggression] * (1 - roomy);
    return scored(score, because('fit_paving', { stripWidthMm, roots: species.rootAggression }));
  },
  upkeep(species) {
    const burden = (gradeValue[species.litter] * 2 + gradeValue[species.pollen]) / 3;
    return scored(1 - 0.8 * burden, because('fit_upkeep', { litter: species.litter, pollen: species.pollen }));
  },
  wishes(species, { assessment }) {
    const asked = assessment?.wishes ?? [];
    if (asked.length === 0) return scored(1, because('fit_no_wishes', {}));
    const met = {
      no_thorns: !species.thorns,
      no_litter: species.litter === 'low',
      no_pollen: species.pollen === 'low',
      not_toxic: species.toxic === 'low',
      evergreen: species.foliage === 'evergreen',
      deciduous: species.foliage === 'deciduous',
    };
    const count = asked.filter((wish) => met[wish]).length;
    return scored(count / asked.length, because('fit_wishes', { met: count, asked: asked.length }));
  },
  shade(species, { rules, judgement }) {
    const spreadM = matureSpreadM(species);
    const bestM = { small: 6, medium: 10, large: 14 }[judgement.allows ?? 'small'];
    const tall = judgement.tallestM === null ? rules.mediumToM : judgement.tallestM;
    const wideM = Math.min(bestM, tall * 1.2);
    return scored(spreadM / wideM, because('fit_shade_given', { spreadM, wideM }));
  },
  nature(species, { matchRules }) {
    const native = matchRules.nativeWords.some((word) => species.native.includes(word));
    const value = (gradeValue[species.pollinators] + gradeValue[species.birds]) / 2;
    const facts = { native, pollinators: species.pollinators, birds: species.birds };
    return scored(0.6 * value + (native ? 0.4 : 0), because('fit_nature', facts));
  },
};

export interface RankedSpecies {
  readonly species: Species;
  readonly fit: Extract<Fit, { kind: 'fits' }>;
}

/** Species of a library for a spot: those that fit, best first, and those left out with their reasons. */
export function rankSpecies(
  library: readonly Species[],
  site: MatchSite,
): { fitting: readonly RankedSpecies[]; excluded: readonly { species: Species; because: readonly MatchReason[] }[] } {
  const judged = library.map((species) => ({ species, fit: fitOf(species, site) }));
  const fitting = judged
    .flatMap(({ species, fit }) => (fit.kind === 'fits' ? [{ species, fit }] : []))
    .sort((a, b) => b.fit.score - a.fit.score || a.species.botanical.localeCompare(b.species.botanical));
  const excluded = judged.flatMap(({ species, fit }) =>
    fit.kind === 'excluded' ? [{ species, because: fit.because }] : [],
  );
  return { fitting, excluded };
}
