import { InvalidInputError, requireWithin } from '../errors';
import type { IsoDate } from '../calendar';
import { limits } from '../limits';
import type { GroundRules, SiteThing } from './ground-rules';

/** Whose ground it is, hence whose leave is needed. */
export const groundOwners = ['road', 'park', 'yard'] as const;
export type GroundOwner = (typeof groundOwners)[number];

export const windExposures = ['sheltered', 'open', 'exposed'] as const;
export type WindExposure = (typeof windExposures)[number];

/** What neighbours ask of the tree in front of their house. */
export const wishes = ['no_thorns', 'no_litter', 'no_pollen', 'not_toxic', 'evergreen', 'deciduous'] as const;
export type Wish = (typeof wishes)[number];

export const rubbings = ['deer', 'mowers'] as const;
export type Rubbing = (typeof rubbings)[number];

export interface Clearance {
  readonly thing: SiteThing;
  /** From the middle of the spot to its nearest point, level. */
  readonly distanceM: number;
  readonly by: 'map' | 'tape';
  /** Which way it lies, degrees from north; left out where nobody said. */
  readonly towardsDeg?: number | undefined;
}

/** What the tree will be watered with, as a laboratory or a meter reads it; `null` where it was not tested. */
export interface IrrigationWater {
  readonly saltDsM: number | null;
  /** Sodium adsorption ratio. */
  readonly sodiumSar: number | null;
}

/** Roots of a tree nearby that were found in the pit, or where it will be. */
export interface NeighbourRoots {
  /** Botanical name; empty where nobody knows. */
  readonly species: string;
  readonly distanceM: number;
  readonly thickestMm: number;
}

/** The surroundings of a spot as somebody saw and measured them. `null` means not looked at. */
export interface Assessment {
  readonly assessedOn: IsoDate;
  readonly owner: GroundOwner | null;
  readonly clearances: readonly Clearance[];
  /** Lines nobody registers: irrigation, low-voltage cable, drains. */
  readonly privateLines: 'none' | 'found' | null;
  readonly plannedBuilding: boolean;
  /** Direct sun on midsummer day. */
  readonly sunHours: number | null;
  readonly wind: WindExposure | null;
  readonly winterWindDeg: number | null;
  readonly summerWindDeg: number | null;
  /** Unpaved soil the roots can reach. */
  readonly openSoilM2: number | null;
  readonly soilDepthMm: number | null;
  /** Rooting space built under paving. */
  readonly underPavingM3: number | null;
  /** Depth at which a hand probe stops. */
  readonly probeStopsMm: number | null;
  readonly rubble: boolean;
  readonly rockAtMm: number | null;
  readonly soilPh: number | null;
  /** Electrical conductivity of the saturated extract. */
  readonly saltDsM: number | null;
  /** Sodium adsorption ratio of the saturated extract; left out where it was not tested. */
  readonly sodiumSar?: number | null | undefined;
  readonly soilTestedOn: IsoDate | null;
  /** From the stem to the near edge of the pavement to be shaded, its width, and the way to it. */
  readonly pavementM: number | null;
  readonly pavementWidthM: number | null;
  readonly pavementDeg: number | null;
  /** What rubs or gnaws trunks here; left out where nobody looked. */
  readonly rubbedBy?: readonly Rubbing[] | undefined;
  /** Left out where nobody tested it. */
  readonly irrigation?: IrrigationWater | undefined;
  /** Left out where none were found. */
  readonly neighbourRoots?: NeighbourRoots | undefined;
  readonly wishes: readonly Wish[];
  readonly photoId: string | null;
  readonly note: string;
}

export const unknownAssessment = (assessedOn: IsoDate): Assessment => ({
  assessedOn,
  owner: null,
  clearances: [],
  privateLines: null,
  plannedBuilding: false,
  sunHours: null,
  wind: null,
  winterWindDeg: null,
  summerWindDeg: null,
  openSoilM2: null,
  soilDepthMm: null,
  underPavingM3: null,
  probeStopsMm: null,
  rubble: false,
  rockAtMm: null,
  soilPh: null,
  saltDsM: null,
  soilTestedOn: null,
  pavementM: null,
  pavementWidthM: null,
  pavementDeg: null,
  wishes: [],
  photoId: null,
  note: '',
});

/** Bearings the recorded winds come from, the winter's first. */
export const windsOf = (assessment: Assessment | null): readonly number[] =>
  [assessment?.winterWindDeg, assessment?.summerWindDeg].filter((deg) => typeof deg === 'number');

/** Fields of an assessment that are one number, and the limits each is held to. */
export const assessmentMeasures = {
  sunHours: 'sunHours',
  winterWindDeg: 'bearingDeg',
  summerWindDeg: 'bearingDeg',
  openSoilM2: 'openSoilM2',
  soilDepthMm: 'soilDepthMm',
  underPavingM3: 'underPavingM3',
  probeStopsMm: 'probeStopsMm',
  rockAtMm: 'rockAtMm',
  soilPh: 'soilPh',
  saltDsM: 'saltDsM',
  sodiumSar: 'sodiumSar',
  pavementM: 'clearanceM',
  pavementWidthM: 'pavementWidthM',
  pavementDeg: 'bearingDeg',
} as const satisfies Partial<Record<keyof Assessment, keyof typeof limits>>;

/**
 * @throws InvalidInputError for a measure outside `limits`, the same thing measured twice, or evergreen and
 *   deciduous wished for at once
 */
export function requireAssessment(assessment: Assessment): void {
  for (const [field, measure] of Object.entries(assessmentMeasures)) {
    const value = assessment[field as keyof typeof assessmentMeasures];
    if (typeof value === 'number') requireWithin(field, value, limits[measure]);
  }
  const seen = new Set<SiteThing>();
  assessment.clearances.forEach(({ thing, distanceM }, i) => {
    requireWithin(`clearances[${i}].distanceM`, distanceM, limits.clearanceM);
    if (seen.has(thing)) throw new InvalidInputError(`clearances hold ${thing} twice`, `clearances[${i}].thing`);
    seen.add(thing);
  });
  assessment.clearances.forEach(({ towardsDeg }, i) => {
    if (towardsDeg !== undefined) requireWithin(`clearances[${i}].towardsDeg`, towardsDeg, limits.bearingDeg);
  });
  const { irrigation, neighbourRoots } = assessment;
  if (typeof irrigation?.saltDsM === 'number') requireWithin('irrigation.saltDsM', irrigation.saltDsM, limits.saltDsM);
  if (typeof irrigation?.sodiumSar === 'number') {
    requireWithin('irrigation.sodiumSar', irrigation.sodiumSar, limits.sodiumSar);
  }
  if (neighbourRoots) {
    requireWithin('neighbourRoots.distanceM', neighbourRoots.distanceM, limits.clearanceM);
    requireWithin('neighbourRoots.thickestMm', neighbourRoots.thickestMm, limits.rootDiameterMm);
  }
  if (assessment.wishes.includes('evergreen') && assessment.wishes.includes('deciduous')) {
    throw new InvalidInputError('wishes must not hold both evergreen and deciduous', 'wishes');
  }
}

/** Soil watered with it comes to one and a half times its salt (Ayers and Westcot, FAO 29, 1985, section 2.4.1). */
const soilPerWater = 1.5;

/** The salt a tree will stand in: the ground's as tested, or what its water brings it to, whichever is more. dS/m */
export function saltFacedDsM(assessment: Assessment | null): number | null {
  const fromWater = assessment?.irrigation?.saltDsM ?? null;
  const all = [assessment?.saltDsM ?? null, fromWater === null ? null : fromWater * soilPerWater];
  const known = all.filter((one) => one !== null);
  return known.length > 0 ? Math.max(...known) : null;
}

/** The sodium ratio it will stand in, of ground or water, whichever is more. */
export function sodiumFacedSar(assessment: Assessment | null): number | null {
  const known = [assessment?.sodiumSar, assessment?.irrigation?.sodiumSar].filter((one) => typeof one === 'number');
  return known.length > 0 ? Math.max(...known) : null;
}

export const clearanceOf = (assessment: Assessment | null, thing: SiteThing): number | null =>
  assessment?.clearances.find((one) => one.thing === thing)?.distanceM ?? null;

/**
 * Soil that roots can use: open soil to its depth, up to the most that counts, and what was built under paving;
 * `null` while neither is known. m³
 */
export function rootingVolumeM3(assessment: Assessment | null, rules: GroundRules): number | null {
  if (!assessment || (assessment.openSoilM2 === null && assessment.underPavingM3 === null)) return null;
  const depthMm = Math.min(assessment.soilDepthMm ?? rules.soilDepthMm.assumed, rules.soilDepthMm.most);
  const rockMm = assessment.rockAtMm ?? Infinity;
  return ((assessment.openSoilM2 ?? 0) * Math.min(depthMm, rockMm)) / 1000 + (assessment.underPavingM3 ?? 0);
}

/** Soil that a mature crown of this spread asks for. m³ */
export const soilNeededM3 = (matureSpreadM: number, rules: Pick<GroundRules, 'soilM3PerCrownM2'>): number =>
  (Math.PI / 4) * matureSpreadM ** 2 * rules.soilM3PerCrownM2;
