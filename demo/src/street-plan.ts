import {
  crossStreets,
  preparedPlaces,
  uphillStreets,
  type CrossStreet,
  type Green,
  type UphillStreet,
} from './streets';
import { extent, type Metres } from './terrain';
import type { Dice } from './seed';

/** Streets sway a little: nothing here was drawn with a ruler. */
export const crossStreetY = ({ northM }: CrossStreet, x: number): number =>
  northM + 13 * Math.sin(x / 310 + northM / 140) + 0.012 * x;

export const uphillStreetX = ({ eastM }: UphillStreet, y: number): number =>
  eastM + 11 * Math.sin(y / 260 + eastM / 300);

type Street = CrossStreet | UphillStreet;
const isCross = (street: Street): street is CrossStreet => 'northM' in street;

/** The first metre of an uphill street and its last: between the quay and School Hill. */
const uphillSpan = { from: 35, to: 1300 } as const;

/** A place along a street's middle, `along` m from its west or south end. */
export function onStreet(street: Street, along: number): Metres {
  if (isCross(street)) {
    const x = -extent.halfWidthM + along;
    return [x, crossStreetY(street, x)];
  }
  const y = uphillSpan.from + along;
  return [uphillStreetX(street, y), y];
}

export const streetLengthM = (street: Street): number =>
  isCross(street) ? 2 * extent.halfWidthM : uphillSpan.to - uphillSpan.from;

/** A place beside the street, `sideM` to the right of its direction (negative: to the left). */
export function besideStreet(street: Street, along: number, sideM: number): Metres {
  const [x, y] = onStreet(street, along);
  const [nextX, nextY] = onStreet(street, along + 1);
  const length = Math.hypot(nextX - x, nextY - y);
  return [x + (sideM * (nextY - y)) / length, y - (sideM * (nextX - x)) / length];
}

export const allStreets: readonly Street[] = [
  ...crossStreets,
  ...uphillStreets,
  ...preparedPlaces.filter((place) => isCross(place)),
];

export function streetLine(street: Street, stepM = 30): Metres[] {
  const length = streetLengthM(street);
  const count = Math.ceil(length / stepM);
  return Array.from({ length: count + 1 }, (_, i) => onStreet(street, Math.min(length, i * stepM)));
}

/** Where a street passes another, with the room a crossing needs. */
export function nearCrossing(street: Street, along: number): boolean {
  const [x, y] = onStreet(street, along);
  const clear = 17;
  return isCross(street)
    ? uphillStreets.some((other) => Math.abs(uphillStreetX(other, y) - x) < clear)
    : allStreets.some((other) => isCross(other) && Math.abs(crossStreetY(other, x) - y) < clear);
}

/** From tree to tree along a street. */
export const spacingM = 11.5;
const stripFromMiddleM = 6.2;

/** Places for trees in the strips of a street, in order along it, both sides in turn. */
export function stripPlaces(street: Street, count: number, from: Dice): Metres[] {
  const length = streetLengthM(street);
  const free: Metres[] = [];
  for (let along = 20; along < length - 20; along += spacingM) {
    if (nearCrossing(street, along)) continue;
    for (const side of [1, -1]) {
      free.push(besideStreet(street, along + from.between(-1, 1), side * (stripFromMiddleM + from.between(-0.2, 0.2))));
    }
  }
  // Evenly over the whole street, so that a small number is not all at one end.
  return Array.from(
    { length: Math.min(count, free.length) },
    (_, i) => free[Math.floor((i * free.length) / count)] ?? free[0] ?? [0, 0],
  );
}

/** Places for trees in a green: a loose grid that nobody planted with a string. */
export function greenPlaces(green: Green, count: number, from: Dice): Metres[] {
  const [west, south, east, north] = green.box;
  const cellM = Math.sqrt(((east - west) * (north - south)) / (count * 1.15));
  const columns = Math.max(1, Math.floor((east - west) / cellM));
  return Array.from({ length: count }, (_, i) => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    const jitter = () => from.between(0.25, 0.75);
    return [
      Math.min(east - 1, west + (column + jitter()) * cellM),
      Math.min(north - 1, south + (row + jitter()) * cellM),
    ];
  });
}
