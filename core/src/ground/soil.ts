/** Texture classes told apart by feel. */
export const soilClasses = ['sand', 'sandy_loam', 'loam', 'clay_loam', 'clay'] as const;
export type SoilClass = (typeof soilClasses)[number];

export interface SoilWater {
  /** Volumetric water content, share of soil volume, 0–1. */
  readonly fieldCapacity: number;
  readonly wiltingPoint: number;
  readonly saturation: number;
}

/** What a ball is made of, whatever the ground it goes into. */
export type BallMedium = 'container_mix' | 'nursery_soil';

/**
 * Typical volumetric water contents by texture; after FAO-56 table 19, with a bark-based container mix, and the loam
 * that field nurseries grow on, since sand does not hold a ball and clay is not dug.
 */
export const soilWater: Readonly<Record<SoilClass | BallMedium, SoilWater>> = {
  nursery_soil: { fieldCapacity: 0.28, wiltingPoint: 0.13, saturation: 0.45 },
  container_mix: { fieldCapacity: 0.4, wiltingPoint: 0.15, saturation: 0.7 },
  sand: { fieldCapacity: 0.1, wiltingPoint: 0.04, saturation: 0.4 },
  sandy_loam: { fieldCapacity: 0.2, wiltingPoint: 0.08, saturation: 0.42 },
  loam: { fieldCapacity: 0.28, wiltingPoint: 0.13, saturation: 0.45 },
  clay_loam: { fieldCapacity: 0.34, wiltingPoint: 0.2, saturation: 0.47 },
  clay: { fieldCapacity: 0.4, wiltingPoint: 0.27, saturation: 0.5 },
};
