import type { Holiday } from '../calendar';

/** Tree size by mature height. */
export const sizeClasses = ['small', 'medium', 'large'] as const;
export type SizeClass = (typeof sizeClasses)[number];

/** What a tree has to keep clear of. */
export const siteThings = [
  'building',
  'wire',
  'kerb',
  'junction',
  'hydrant',
  'driveway',
  'lamp',
  'sign',
  'private_line',
  'tree',
] as const;
export type SiteThing = (typeof siteThings)[number];

type BySize = Readonly<Record<SizeClass, number>>;

/**
 * The programme's own rules for a place to plant: data an administrator edits, one version after another. Local
 * codes and permits come before any of them.
 */
export interface GroundRules {
  readonly version: number;
  /** Mature height up to which a tree counts as small, as medium. m */
  readonly smallToM: number;
  readonly mediumToM: number;
  /**
   * Least distance from the stem. m; for a wire: from its plumb line, beyond which height is free; for a junction:
   * the leg of the sight triangle, along both kerbs.
   */
  readonly leastM: Readonly<Record<SiteThing, BySize>>;
  /** Mature crown to wire, under and beside it. m */
  readonly wireHeadroomM: number;
  /** Least free width of a strip or pit. mm */
  readonly leastStripMm: BySize;
  /** Soil that roots can use for each square metre of mature crown. m³/m² */
  readonly soilM3PerCrownM2: number;
  /** Depth of soil believed where it was not measured, and the most that counts. mm */
  readonly soilDepthMm: { readonly assumed: number; readonly most: number };
  /** A hand probe that stops sooner means compacted ground. mm */
  readonly probeStopsMm: number;
  /** Rock nearer to the surface asks for another place: a ball is about this high. mm */
  readonly rockLeastMm: number;
  /** Salt of the saturated extract above which planting waits. dS/m */
  readonly saltMostDsM: number;
  /** Least hours of direct sun on midsummer day. */
  readonly sunLeastH: number;
  /** Soak before the first reading of a percolation test. min */
  readonly presoakMin: number;
  readonly ticket: {
    /** Working days from raising a locate ticket to the first digging. */
    readonly leadWorkingDays: number;
    readonly validDays: number;
    /** Working days before the end at which a renewal is asked for. */
    readonly renewWorkingDays: number;
    /** Either side of a mark this much is dug by hand. mm */
    readonly toleranceMm: number;
    /** Radius of the dig area drawn around a spot. m */
    readonly digRadiusM: number;
  };
  readonly holidays: readonly Holiday[];
}

/**
 * Shipped defaults: middle values of what municipal planting standards ask for. Soil volume after Lindsey and
 * Bassuk 1991, Specifying soil volumes (2 ft³ for each ft² of crown projection, 0.61 m³/m²).
 */
export const defaultGroundRules: GroundRules = {
  version: 1,
  smallToM: 8,
  mediumToM: 15,
  leastM: {
    building: { small: 2, medium: 4, large: 6 },
    wire: { small: 0, medium: 4.5, large: 9 },
    kerb: { small: 0.5, medium: 0.6, large: 0.75 },
    junction: { small: 9, medium: 9, large: 9 },
    hydrant: { small: 2, medium: 3, large: 3 },
    driveway: { small: 1.5, medium: 2, large: 3 },
    lamp: { small: 3, medium: 4.5, large: 6 },
    sign: { small: 2, medium: 3, large: 3 },
    private_line: { small: 1, medium: 1.5, large: 2 },
    tree: { small: 5, medium: 7, large: 10 },
  },
  wireHeadroomM: 1.5,
  leastStripMm: { small: 900, medium: 1200, large: 1800 },
  soilM3PerCrownM2: 0.61,
  soilDepthMm: { assumed: 600, most: 900 },
  probeStopsMm: 250,
  rockLeastMm: 500,
  saltMostDsM: 8,
  sunLeastH: 3,
  presoakMin: 60,
  ticket: { leadWorkingDays: 3, validDays: 28, renewWorkingDays: 4, toleranceMm: 600, digRadiusM: 2.5 },
  holidays: ['01-01', '05-01', '06-10', '08-15', '11-01', '12-08', '12-25'],
};

/** Size class of a mature height in metres; a height equal to a limit belongs to the smaller class. */
export function sizeClassOf(matureHeightM: number, rules: Pick<GroundRules, 'smallToM' | 'mediumToM'>): SizeClass {
  if (matureHeightM <= rules.smallToM) return 'small';
  return matureHeightM <= rules.mediumToM ? 'medium' : 'large';
}
