/** Volumes and shapes of pits, rings and bowls. Lengths in mm, volumes in litres. */

const litres = (mm3: number): number => mm3 / 1e6;
const discArea = (diameterMm: number): number => (Math.PI / 4) * diameterMm ** 2;

/** Area of a stadium: a rectangle with a half disc at each end. `lengthMm` is end to end. mm² */
export function stadiumArea(widthMm: number, lengthMm: number): number {
  return widthMm * (lengthMm - widthMm) + discArea(widthMm);
}

export interface PitShape {
  /** Width across, at grade. A round pit is as long as it is wide. */
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly bottomWidthMm: number;
  readonly bottomLengthMm: number;
  /** How far the sides lean in from grade to base, each side, along the length. */
  readonly insetMm: number;
}

/**
 * Shape of a pit of full width W for a ball of diameter D: sloped sides down to a base of
 * min(W, D + margin). In a strip narrower than W the pit becomes a stadium as wide as the strip and of
 * the same area at grade, L = w + (πW²/4 − πw²/4)/w, its base min(w, Wb) wide and L − 2e long.
 */
export function pitShape(input: {
  ballMm: number;
  fullWidthMm: number;
  baseMarginMm: number;
  stripMm: number | 'open';
}): PitShape {
  const full = input.fullWidthMm;
  const fullBottom = Math.min(full, input.ballMm + input.baseMarginMm);
  const insetMm = (full - fullBottom) / 2;
  const strip = input.stripMm;
  if (strip === 'open' || strip >= full) {
    return { widthMm: full, lengthMm: full, bottomWidthMm: fullBottom, bottomLengthMm: fullBottom, insetMm };
  }
  const lengthMm = strip + (discArea(full) - discArea(strip)) / strip;
  return {
    widthMm: strip,
    lengthMm,
    bottomWidthMm: Math.min(strip, fullBottom),
    bottomLengthMm: lengthMm - 2 * insetMm,
    insetMm,
  };
}

/** Volume of a pit of this shape by Simpson's rule over top, middle and base; exact for these solids. L */
export function pitVolumeL(shape: PitShape, meanDepthMm: number): number {
  const top = stadiumArea(shape.widthMm, shape.lengthMm);
  const base = stadiumArea(shape.bottomWidthMm, shape.bottomLengthMm);
  const middle = stadiumArea((shape.widthMm + shape.bottomWidthMm) / 2, (shape.lengthMm + shape.bottomLengthMm) / 2);
  return litres(((top + 4 * middle + base) / 6) * meanDepthMm);
}

/**
 * Mulch around the trunk, at full thickness: π/4·(Dm² − (c + 2g)²)·t on open ground; within a strip the part of the
 * ring that lies in it, with all of the pit, so that no end of a stretched pit stays bare. 0 where the gap takes up the
 * whole ring. L
 */
export function mulchVolumeL(input: {
  ringDiameterMm: number;
  trunkMm: number;
  gapMm: number;
  thicknessMm: number;
  stripMm: number | 'open';
  pit?: PitShape;
}): number {
  const { ringDiameterMm, stripMm, pit } = input;
  const bed = pit && stripMm !== 'open' ? ringAndPitArea(ringDiameterMm, stripMm, pit).together : 0;
  const ring = Math.max(bed, ringWithinStripArea(ringDiameterMm, stripMm));
  const clear = ringWithinStripArea(input.trunkMm + 2 * input.gapMm, stripMm);
  return litres(Math.max(0, ring - clear) * input.thicknessMm);
}

/** Soil of a ring that lies outside the pit, in the strip where there is one. mm² */
export function ringOutsidePitArea(ringDiameterMm: number, stripMm: number | 'open', pit: PitShape): number {
  if (stripMm === 'open') return Math.max(0, discArea(ringDiameterMm) - stadiumArea(pit.widthMm, pit.lengthMm));
  return ringAndPitArea(ringDiameterMm, stripMm, pit).outsidePit;
}

/** Slices across a strip: areas come out right to a thousandth of a percent. */
const slices = 128;

/** The ring and the pit in a strip, cut into lengths across it (Simpson's rule over y = h·sin θ). mm² */
function ringAndPitArea(ringMm: number, stripMm: number, pit: PitShape): { together: number; outsidePit: number } {
  const half = Math.min(stripMm, Math.max(ringMm, pit.widthMm)) / 2;
  const disc = (y: number) => (Math.abs(y) < ringMm / 2 ? Math.sqrt((ringMm / 2) ** 2 - y ** 2) : 0);
  const r = pit.widthMm / 2;
  const stadium = (y: number) => (Math.abs(y) <= r ? (pit.lengthMm - pit.widthMm) / 2 + Math.sqrt(r ** 2 - y ** 2) : 0);
  let together = 0;
  let outsidePit = 0;
  for (let i = 0; i <= slices; i++) {
    const turn = (Math.PI * i) / slices - Math.PI / 2;
    const weight = i === 0 || i === slices ? 1 : i % 2 === 1 ? 4 : 2;
    const share = ((weight * Math.PI) / slices / 3) * half * Math.cos(turn);
    const [ring, hole] = [disc(half * Math.sin(turn)), stadium(half * Math.sin(turn))];
    together += share * 2 * Math.max(ring, hole);
    outsidePit += share * 2 * Math.max(0, ring - hole);
  }
  return { together, outsidePit };
}

/** Area of a disc, or of the part of it within a strip through its middle. mm² */
export function ringWithinStripArea(diameterMm: number, strip: number | 'open'): number {
  if (strip === 'open' || strip >= diameterMm) return discArea(diameterMm);
  const r = diameterMm / 2;
  const h = strip / 2;
  return 2 * (r ** 2 * Math.asin(h / r) + h * Math.sqrt(r ** 2 - h ** 2));
}

/** Water a berm of this height holds over what it rings, which may be a stretched pit. L */
export const bermStoreL = (widthMm: number, heightMm: number, lengthMm = widthMm): number =>
  litres(stadiumArea(widthMm, lengthMm) * heightMm);

/** How soil is drawn up to a ball that stands proud: over so many times its height, and over so much at least. */
export interface ShoulderRule {
  readonly runPerHeight: number;
  readonly leastRunMm: number;
}

/** How far soil drawn up to this height runs out; 0 where none is. mm */
export const shoulderRunMm = (heightMm: number, { runPerHeight, leastRunMm }: ShoulderRule): number =>
  heightMm > 0 && runPerHeight > 0 ? Math.max(leastRunMm, runPerHeight * heightMm) : 0;

/** Steps around the ball: each stands for its slice. Even, so that both ends of the slope are met. */
const around = 96;
/** Of these, those of one side; the other is its mirror image, since a strip runs along the slope. */
const oneSide = Array.from({ length: around / 2 + 1 }, (_, i) => {
  const turn = (2 * Math.PI * i) / around;
  return { weight: i === 0 || i === around / 2 ? 1 : 2, across: Math.sin(turn), down: 1 - Math.cos(turn) };
});

/**
 * Soil drawn up around a round ball of radius R whose top stands h above the ground at its edge, falling evenly to
 * nothing over the run a: h·∫₀ᵃ (R + t)(1 − t/a) dt = h·a·(R/2 + a/6) for each radian, and cut off where a strip ends.
 * On a slope h grows from the uphill edge to the downhill one, h(θ) = p + s·R·(1 − cos θ). What level ground would take
 * is the mound, the rest the bank. L
 */
export function shoulderSoilL(input: {
  readonly ballMm: number;
  /** Of the ball's top over the ground at its uphill edge. */
  readonly heightMm: number;
  readonly slopePct: number;
  readonly stripMm: number | 'open';
  readonly rule: ShoulderRule;
}): { readonly moundL: number; readonly bankL: number } {
  const radius = input.ballMm / 2;
  const roomAt = (sinAcross: number) =>
    input.stripMm === 'open' || sinAcross < 1e-9 ? Infinity : input.stripMm / 2 / sinAcross - radius;
  const slice = (heightMm: number, roomMm: number): number => {
    const run = shoulderRunMm(heightMm, input.rule);
    if (run === 0) return 0;
    const end = Math.max(0, Math.min(run, roomMm));
    return heightMm * (radius * end + end ** 2 / 2 - (radius * end ** 2) / (2 * run) - end ** 3 / (3 * run));
  };
  const total = (slope: number): number => {
    if (slope === 0 && input.stripMm === 'open') return litres(2 * Math.PI * slice(input.heightMm, Infinity));
    let sum = 0;
    for (const { weight, across, down } of oneSide) {
      // The strip runs along the slope as far as anybody says; across it the ground is level.
      sum += weight * slice(input.heightMm + slope * radius * down, roomAt(across));
    }
    return litres((sum * 2 * Math.PI) / around);
  };
  const moundL = total(0);
  return { moundL, bankL: input.slopePct === 0 ? 0 : total(input.slopePct / 100) - moundL };
}

/** Across the foot of a ring of soil: half a wave of a sine, as it is drawn. mm */
export const bermWidthMm = 220;
/** The ring's foot begins this far inside the edge of the ball, or of the pit. mm */
const bermInsideMm = { ball: 20, pit: 60 } as const;

/** From the trunk to where the ring's foot begins. mm */
export const bermFromMm = (at: 'ball' | 'pit', edge: { readonly ballMm: number; readonly pitMm: number }): number =>
  (at === 'pit' ? edge.pitMm : edge.ballMm) / 2 - bermInsideMm[at];

/**
 * Soil of a ring of height H: a section of 2/π·width·H led along the middle of its foot (Pappus), which goes along the
 * straight sides too where a pit is stretched. L
 */
export function bermSoilL(ring: {
  readonly fromMm: number;
  readonly heightMm: number;
  /** Straight stretch of each long side. */
  readonly straightMm: number;
}): number {
  const section = (2 / Math.PI) * bermWidthMm * ring.heightMm;
  return litres(section * (2 * Math.PI * (ring.fromMm + bermWidthMm / 2) + 2 * ring.straightMm));
}

/** Soil in a collar bowl: the frustum between its radii less the trunk. L */
export function collarBowlL(input: {
  depthMm: number;
  innerRadiusMm: number;
  outerRadiusMm: number;
  trunkMm: number;
}): number {
  const { depthMm, innerRadiusMm: r, outerRadiusMm: R, trunkMm } = input;
  return litres(((Math.PI * depthMm) / 3) * (R ** 2 + R * r + r ** 2) - discArea(trunkMm) * depthMm);
}
