import type { FingerClass, MulchContact, ProbeClass, StakeState } from '../inspect';
import { fingerNames, flareShapeNames, mulchContactNames, probeNames, stakeNames } from '../wording';
import type { Drawing, Point, Role, Shape } from './shapes';

const side = 96;
const ground = 74;

const polygon = (role: Role, ...points: Point[]): Shape => ({ kind: 'polygon', role, points });
const line = (role: Role, ...points: Point[]): Shape => ({ kind: 'line', role, points });
const soil = polygon('ground', [4, ground], [92, ground], [92, 92], [4, 92]);
const trunk = (foot = ground): Shape =>
  polygon('trunk', [44, 8], [52, 8], [54, foot - 6], [58, foot], [38, foot], [42, foot - 6]);
const picture = (description: string, ...shapes: Shape[]): Drawing => ({
  widthPx: side,
  heightPx: side,
  shapes,
  description,
});

/** How mulch lies at a trunk, as a picture to choose by. */
export function mulchPicture(contact: MulchContact): Drawing {
  const mulch: Readonly<Record<MulchContact, readonly Shape[]>> = {
    clear: [
      polygon('mulch', [6, ground], [10, 68], [28, 68], [32, ground]),
      polygon('mulch', [64, ground], [68, 68], [86, 68], [90, ground]),
    ],
    touching: [polygon('mulch', [6, ground], [10, 68], [86, 68], [90, ground])],
    heaped: [polygon('mulch', [6, ground], [34, 56], [42, 40], [54, 40], [62, 56], [90, ground])],
  };
  return picture(mulchContactNames[contact], soil, trunk(), ...mulch[contact]);
}

/** A stake with its tie, as a picture to choose by. */
export function stakePicture(state: StakeState): Drawing {
  const upright = polygon('stake', [72, 24], [78, 24], [78, 84], [72, 84]);
  const leaning = polygon('stake', [86, 34], [91, 37], [76, 84], [70, 82]);
  const parts: Readonly<Record<StakeState, readonly Shape[]>> = {
    none: [],
    // Slack shows as a belly, tight as a straight line, biting as a waist in the trunk.
    in_place: [upright, line('tie', [53, 36], [62, 43], [72, 36])],
    tight: [upright, line('tie', [43, 36], [72, 36]), line('tie', [43, 39], [72, 39])],
    biting: [
      upright,
      polygon('trunk', [40, 28], [56, 28], [51, 37], [56, 46], [40, 46], [45, 37]),
      line('tie', [45, 36], [72, 36]),
      line('tie', [45, 38], [72, 38]),
    ],
    broken: [leaning, line('tie', [54, 40], [66, 52], [82, 48])],
  };
  return picture(stakeNames[state], soil, trunk(), ...parts[state]);
}

/** How a trunk meets the ground: widening over its roots, or straight like a post, its flare somewhere below. */
export const flareShapes = ['widens', 'straight'] as const;
export type FlareShape = (typeof flareShapes)[number];

export function flarePicture(shape: FlareShape): Drawing {
  const roots = (y: number): Shape[] => [
    line('root', [40, y], [26, y + 6], [12, y + 8]),
    line('root', [56, y], [70, y + 6], [84, y + 8]),
  ];
  if (shape === 'widens') {
    const foot = polygon('trunk', [43, 8], [53, 8], [55, 50], [60, 66], [70, ground], [26, ground], [36, 66], [41, 50]);
    return picture(flareShapeNames.widens, soil, foot, ...roots(ground));
  }
  const post = polygon('trunk', [43, 8], [53, 8], [53, ground], [43, ground]);
  const below = polygon('trunk', [43, 60], [53, 60], [56, 74], [64, 84], [32, 84], [40, 74]);
  const deep = polygon('ground', [4, 50], [92, 50], [92, 92], [4, 92]);
  return picture(flareShapeNames.straight, deep, post, below, ...roots(82), line('flare', [20, 78], [76, 78]));
}

const fillOf: Readonly<Record<ProbeClass, number>> = {
  dry: 0,
  slightly_dry: 0.25,
  moist: 0.5,
  wet: 0.75,
  saturated: 1,
};

/** How wet a ball is, as a glass: the same that marks on the map fill by. */
export function probePicture(probe: ProbeClass): Drawing {
  const [top, bottom] = [16, 80];
  const level = bottom - (bottom - top) * fillOf[probe];
  const glass = line('pit', [30, top], [34, bottom], [62, bottom], [66, top]);
  const slope = (y: number) => ((y - top) * 4) / (bottom - top);
  const water = polygon('range', [30 + slope(level), level], [34, bottom], [62, bottom], [66 - slope(level), level]);
  const pond = probe === 'saturated' ? [line('rain', [20, top - 4], [76, top - 4])] : [];
  return picture(probeNames[probe], ...(fillOf[probe] > 0 ? [water] : []), glass, ...pond);
}

/** A finger in the top of a ball: soil that falls off it, or sticks to it. */
export function fingerPicture(finger: FingerClass): Drawing {
  const moist = finger === 'finger_moist';
  const near: readonly Point[] = [
    [58, 78],
    [74, 80],
    [60, 86],
    [73, 87],
  ];
  const crumbs = near.map(([x, y]) => polygon('ball', [x, y], [x + 5, y], [x + 3, y + 4], [x - 1, y + 4]));
  const hole = polygon(moist ? 'moisture_dose' : 'mulch', [60, ground], [72, ground], [72, 88], [60, 88]);
  // A fist with one finger out, and the cuff it comes from.
  const fist = polygon('stake', [60, 34], [64, 30], [86, 30], [88, 34], [88, 52], [84, 56], [60, 56]);
  const pointing = polygon('stake', [61, 54], [70, 54], [70, 82], [66, 86], [62, 83]);
  const folded = [40, 46].map((y) => line('pit', [72, y], [88, y]));
  const cuff = polygon('moisture_reading', [66, 12], [86, 12], [86, 30], [66, 30]);
  return picture(fingerNames[finger], soil, trunk(), hole, pointing, fist, ...folded, cuff, ...(moist ? [] : crumbs));
}
