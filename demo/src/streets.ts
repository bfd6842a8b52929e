import type { SoilClass } from '@sombra/core';

/** A street of the invented town: where it runs and what its ground is like. */
export interface Street {
  readonly name: string;
  readonly prefix: string;
  /** Start and end, [lng, lat]. */
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly soil: SoilClass;
  readonly stony: boolean;
  readonly compacted: boolean;
  /** Usual rate of percolation, mm/h. */
  readonly percolationMmPerH: number;
  readonly slopePct: number;
  readonly fallsTowardsDeg: number;
  readonly stripWidthMm: number | 'open';
  readonly wireHeightM: number | 'none';
  readonly trouble?: 'deep_stock' | 'forgotten_stakes' | 'ponding_clay' | 'overwatered' | 'mulch_heaps';
}

/** Zones from the quay up: harbour fill, valley loam, sandy terraces, hill clay. */
export const streets: readonly Street[] = [
  {
    name: 'Harbour Parade',
    prefix: 'H',
    from: [-25.4098, 36.8962],
    to: [-25.4021, 36.8969],
    soil: 'sandy_loam',
    stony: true,
    compacted: true,
    percolationMmPerH: 70,
    slopePct: 0,
    fallsTowardsDeg: 180,
    stripWidthMm: 1800,
    wireHeightM: 'none',
  },
  {
    name: 'Customs Lane',
    prefix: 'U',
    from: [-25.4089, 36.8976],
    to: [-25.4032, 36.8981],
    soil: 'sandy_loam',
    stony: true,
    compacted: true,
    percolationMmPerH: 55,
    slopePct: 2,
    fallsTowardsDeg: 175,
    stripWidthMm: 1200,
    wireHeightM: 7.5,
    trouble: 'mulch_heaps',
  },
  {
    name: 'Mole Street',
    prefix: 'C',
    from: [-25.4085, 36.8991],
    to: [-25.4018, 36.8996],
    soil: 'loam',
    stony: false,
    compacted: false,
    percolationMmPerH: 45,
    slopePct: 3,
    fallsTowardsDeg: 170,
    stripWidthMm: 1500,
    wireHeightM: 'none',
    trouble: 'forgotten_stakes',
  },
  {
    name: 'Weavers Row',
    prefix: 'W',
    from: [-25.4079, 36.9004],
    to: [-25.4022, 36.901],
    soil: 'loam',
    stony: false,
    compacted: true,
    percolationMmPerH: 38,
    slopePct: 5,
    fallsTowardsDeg: 165,
    stripWidthMm: 1600,
    wireHeightM: 8.2,
    trouble: 'deep_stock',
  },
  {
    name: 'Clinic Garden',
    prefix: 'K',
    from: [-25.4052, 36.9014],
    to: [-25.4038, 36.9018],
    soil: 'clay_loam',
    stony: false,
    compacted: false,
    percolationMmPerH: 14,
    slopePct: 1,
    fallsTowardsDeg: 160,
    stripWidthMm: 'open',
    wireHeightM: 'none',
    trouble: 'overwatered',
  },
  {
    name: 'Quince Park',
    prefix: 'Q',
    from: [-25.4072, 36.9019],
    to: [-25.4059, 36.903],
    soil: 'loam',
    stony: false,
    compacted: false,
    percolationMmPerH: 52,
    slopePct: 4,
    fallsTowardsDeg: 190,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
  {
    name: 'Upper Terrace',
    prefix: 'T',
    from: [-25.4069, 36.9039],
    to: [-25.4019, 36.9047],
    soil: 'sand',
    stony: false,
    compacted: false,
    percolationMmPerH: 130,
    slopePct: 6,
    fallsTowardsDeg: 168,
    stripWidthMm: 2200,
    wireHeightM: 'none',
  },
  {
    name: 'Potters Corner',
    prefix: 'P',
    from: [-25.4031, 36.9052],
    to: [-25.4019, 36.9058],
    soil: 'clay',
    stony: false,
    compacted: true,
    percolationMmPerH: 3.2,
    slopePct: 2,
    fallsTowardsDeg: 200,
    stripWidthMm: 1400,
    wireHeightM: 'none',
    trouble: 'ponding_clay',
  },
  {
    name: 'School Hill',
    prefix: 'S',
    from: [-25.4066, 36.9057],
    to: [-25.4028, 36.9066],
    soil: 'clay',
    stony: true,
    compacted: false,
    percolationMmPerH: 11,
    slopePct: 14,
    fallsTowardsDeg: 172,
    stripWidthMm: 'open',
    wireHeightM: 9,
  },
];

/** Ground the town is preparing: these spots come as files to import, not with the demo database. */
export const preparedStreets: readonly Street[] = [
  {
    name: 'Lamplighter Steps',
    prefix: 'L',
    from: [-25.4083, 36.8985],
    to: [-25.4027, 36.899],
    soil: 'clay_loam',
    stony: false,
    compacted: false,
    percolationMmPerH: 17,
    slopePct: 8,
    fallsTowardsDeg: 112,
    stripWidthMm: 'open',
    wireHeightM: 'none',
  },
  {
    name: 'Figgery Walk',
    prefix: 'F',
    from: [-25.4063, 36.9034],
    to: [-25.4036, 36.9036],
    soil: 'loam',
    stony: false,
    compacted: true,
    percolationMmPerH: 41,
    slopePct: 2,
    fallsTowardsDeg: 185,
    stripWidthMm: 1300,
    wireHeightM: 6.8,
  },
];
