import {
  aliveClasses,
  barkStates,
  guardStates,
  leftOnThings,
  lookSigns,
  rockingClasses,
  type Inspection,
} from '../src/inspect';

const root = (touch: 'clear' | 'touching' | 'grown_in') => ({ arc: { fromDeg: 0, toDeg: 40 }, diameterMm: 20, touch });

/** Looks that bring every reason of a tree, its collar and what hangs on it. */
export const lookCases: readonly Partial<Inspection>[] = [
  ...aliveClasses.map((alive) => ({ alive })),
  { alive: 'dry', aliveAt: { top: 'dry', middle: 'green' } },
  { alive: 'brittle', aliveAt: { top: 'brittle', base: 'green' } },
  { alive: 'dry', aliveAt: { top: 'green', base: 'dry' } },
  { signs: [] },
  { signs: lookSigns },
  { diebackPct: 10 },
  { shootMm: 100, shootBeforeMm: 300 },
  { shootMm: 250, shootBeforeMm: 300 },
  ...rockingClasses.map((rocks) => ({ rocks })),
  ...guardStates.map((guard) => ({ guard })),
  { leftOn: [] },
  { leftOn: leftOnThings },
  { turf: 'clear' },
  { turf: 'creeping' },
  { flareDepthMm: 10, flareBy: 'guessed' },
  ...barkStates.map((bark) => ({ bark, barkPct: 10 })),
  ...(['clear', 'touching', 'grown_in'] as const).map((touch) => ({ circlingRoots: [root(touch)] })),
  { anchors: [] },
  { anchors: [{ bearingDeg: 0, diameterMm: 30 }] },
  { anchors: [0, 120, 240].map((bearingDeg) => ({ bearingDeg, diameterMm: 30 })) },
];
