import type { SoilClass } from '@sombra/core';

/** What the ground of a zone is like. */
export interface Zone {
  readonly soil: SoilClass;
  readonly stony: boolean;
  readonly compacted: boolean;
  /** Usual rate of percolation, mm/h. */
  readonly percolationMmPerH: number;
}

/** From the quay up: harbour fill, valley loam, sandy terraces, hill clay. */
export const zones = {
  harbour_fill: { soil: 'sandy_loam', stony: true, compacted: true, percolationMmPerH: 60 },
  valley_loam: { soil: 'loam', stony: false, compacted: false, percolationMmPerH: 45 },
  trodden_loam: { soil: 'loam', stony: false, compacted: true, percolationMmPerH: 38 },
  sandy_terrace: { soil: 'sand', stony: false, compacted: false, percolationMmPerH: 130 },
  hill_clay: { soil: 'clay', stony: true, compacted: false, percolationMmPerH: 11 },
  clinic_clay: { soil: 'clay_loam', stony: false, compacted: false, percolationMmPerH: 3.6 },
  garden: { soil: 'clay_loam', stony: false, compacted: false, percolationMmPerH: 14 },
  potters_clay: { soil: 'clay', stony: false, compacted: true, percolationMmPerH: 3.2 },
} as const satisfies Record<string, Zone>;

export type Trouble =
  | 'deep_stock'
  | 'forgotten_stakes'
  | 'ponding_clay'
  | 'overwatered'
  | 'mulch_heaps'
  | 'storm'
  /** Where spots are prepared the strip is narrower than the balls that were bought for it. */
  | 'narrow_strip'
  /** Spots were set out and nobody has looked at them yet. */
  | 'unassessed';

/** A place of the programme: a street that runs across the slope or up it, a park, or yards behind houses. */
export interface Place {
  readonly name: string;
  readonly prefix: string;
  readonly zone: keyof typeof zones;
  /** Trees planted over four seasons, and spots being prepared. */
  readonly trees: number;
  readonly preparing: number;
  readonly stripWidthMm: number | 'open';
  readonly wireHeightM: number | 'none';
  readonly trouble?: Trouble;
}

export interface CrossStreet extends Place {
  /** Metres north of the quay, at the middle of the town. */
  readonly northM: number;
}

/** Streets across the slope, from the harbour up. */
export const crossStreets: readonly CrossStreet[] = [
  {
    name: 'Harbour Parade',
    prefix: 'H',
    northM: 50,
    zone: 'harbour_fill',
    trees: 120,
    preparing: 10,
    stripWidthMm: 1800,
    wireHeightM: 'none',
  },
  {
    name: 'Customs Lane',
    prefix: 'U',
    northM: 180,
    zone: 'harbour_fill',
    trees: 90,
    preparing: 8,
    stripWidthMm: 1200,
    wireHeightM: 7.5,
    trouble: 'mulch_heaps',
  },
  {
    name: 'Mole Street',
    prefix: 'C',
    northM: 320,
    zone: 'valley_loam',
    trees: 130,
    preparing: 8,
    stripWidthMm: 1500,
    wireHeightM: 'none',
    trouble: 'forgotten_stakes',
  },
  {
    name: 'Weavers Row',
    prefix: 'W',
    northM: 460,
    zone: 'trodden_loam',
    trees: 130,
    preparing: 8,
    stripWidthMm: 1600,
    wireHeightM: 8.2,
    trouble: 'deep_stock',
  },
  {
    name: 'Tramway Avenue',
    prefix: 'A',
    northM: 600,
    zone: 'valley_loam',
    trees: 150,
    preparing: 46,
    stripWidthMm: 2400,
    wireHeightM: 'none',
  },
  {
    name: 'Saltmakers Street',
    prefix: 'M',
    northM: 745,
    zone: 'trodden_loam',
    trees: 120,
    preparing: 30,
    stripWidthMm: 1400,
    wireHeightM: 8,
  },
  {
    name: 'Upper Terrace',
    prefix: 'T',
    northM: 890,
    zone: 'sandy_terrace',
    trees: 130,
    preparing: 10,
    stripWidthMm: 2200,
    wireHeightM: 'none',
    trouble: 'storm',
  },
  {
    name: 'Kelp Road',
    prefix: 'R',
    northM: 1070,
    zone: 'sandy_terrace',
    trees: 100,
    preparing: 18,
    stripWidthMm: 1700,
    wireHeightM: 9,
    trouble: 'unassessed',
  },
  {
    name: 'School Hill',
    prefix: 'S',
    northM: 1240,
    zone: 'hill_clay',
    trees: 90,
    preparing: 10,
    stripWidthMm: 'open',
    wireHeightM: 9,
  },
];

export interface UphillStreet extends Place {
  /** Metres east of the middle of the quay. */
  readonly eastM: number;
}

/** Streets up the slope, from west to east. */
export const uphillStreets: readonly UphillStreet[] = [
  {
    name: 'Ropewalk',
    prefix: 'O',
    eastM: -770,
    zone: 'trodden_loam',
    trees: 40,
    preparing: 6,
    stripWidthMm: 1300,
    wireHeightM: 'none',
    trouble: 'narrow_strip',
  },
  {
    name: 'Cooper Street',
    prefix: 'E',
    eastM: -520,
    zone: 'valley_loam',
    trees: 50,
    preparing: 6,
    stripWidthMm: 1500,
    wireHeightM: 7.8,
  },
  {
    name: 'Lamplighter Steps',
    prefix: 'L',
    eastM: -260,
    zone: 'garden',
    trees: 0,
    preparing: 0,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
  {
    name: 'Bell Street',
    prefix: 'B',
    eastM: 0,
    zone: 'valley_loam',
    trees: 60,
    preparing: 8,
    stripWidthMm: 1800,
    wireHeightM: 'none',
  },
  {
    name: 'Orchard Lane',
    prefix: 'N',
    eastM: 260,
    zone: 'valley_loam',
    trees: 40,
    preparing: 6,
    stripWidthMm: 1600,
    wireHeightM: 6.8,
  },
  {
    name: 'Dyers Lane',
    prefix: 'D',
    eastM: 520,
    zone: 'trodden_loam',
    trees: 40,
    preparing: 6,
    stripWidthMm: 1300,
    wireHeightM: 8,
  },
  {
    name: 'Lookout Road',
    prefix: 'V',
    eastM: 770,
    zone: 'sandy_terrace',
    trees: 30,
    preparing: 4,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
];

/** A park, a garden, a corner or yards: an area between streets. Corners west, south, east, north in m. */
export interface Green extends Place {
  readonly box: readonly [west: number, south: number, east: number, north: number];
  readonly kind: 'park' | 'yards' | 'corner';
}

export const greens: readonly Green[] = [
  {
    name: 'Quince Park',
    prefix: 'Q',
    box: [25, 628, 235, 716],
    kind: 'park',
    zone: 'valley_loam',
    trees: 70,
    preparing: 6,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
  {
    name: 'Harbour Green',
    prefix: 'G',
    box: [-495, 78, -285, 152],
    kind: 'park',
    zone: 'harbour_fill',
    trees: 40,
    preparing: 4,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
  {
    name: 'Cistern Park',
    prefix: 'I',
    box: [285, 1100, 495, 1205],
    kind: 'park',
    zone: 'hill_clay',
    trees: 40,
    preparing: 4,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
  {
    name: 'Clinic Garden',
    prefix: 'K',
    box: [-235, 490, -120, 570],
    kind: 'park',
    zone: 'clinic_clay',
    trees: 24,
    preparing: 0,
    stripWidthMm: 'open',
    wireHeightM: 'none',
    trouble: 'overwatered',
  },
  {
    name: 'Potters Corner',
    prefix: 'P',
    box: [531, 1013, 575, 1052],
    kind: 'corner',
    zone: 'potters_clay',
    trees: 18,
    preparing: 0,
    stripWidthMm: 1400,
    wireHeightM: 'none',
    trouble: 'ponding_clay',
  },
  {
    name: 'Orchard yards',
    prefix: 'Y',
    box: [290, 355, 490, 430],
    kind: 'yards',
    zone: 'valley_loam',
    trees: 44,
    preparing: 6,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
];

/** Ground the town is preparing: these spots come as files to import, not with the demo database. */
export const preparedPlaces: readonly (CrossStreet | UphillStreet)[] = [
  ...uphillStreets.filter(({ name }) => name === 'Lamplighter Steps'),
  {
    name: 'Figgery Walk',
    prefix: 'F',
    northM: 980,
    zone: 'trodden_loam',
    trees: 0,
    preparing: 0,
    stripWidthMm: 1300,
    wireHeightM: 6.8,
  },
];
