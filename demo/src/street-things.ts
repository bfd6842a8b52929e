import { allStreets, besideStreet, nearCrossing, spacingM, streetLengthM } from './street-plan';
import type { Metres } from './terrain';

/** From the middle of the carriageway to the kerb: the strip of the trees begins there. */
export const kerbM = (street: { stripWidthMm: number | 'open' }): number =>
  6.2 - (typeof street.stripWidthMm === 'number' ? street.stripWidthMm : 1800) / 2000;

/** Half way between two trees, so many places along the street. */
const between = (place: number): number => 20 + spacingM * (place + 0.5);

export interface StreetThings {
  readonly kerb: readonly (readonly Metres[])[];
  readonly driveway: readonly (readonly Metres[])[];
  readonly hydrant: readonly Metres[];
  readonly lamp: readonly Metres[];
  readonly sign: readonly Metres[];
}

/** Kerbs along both sides, lamps and signs by them, a hydrant now and then, and driveways between the trees. */
export function streetThings(): StreetThings {
  const things = {
    kerb: [] as Metres[][],
    driveway: [] as Metres[][],
    hydrant: [] as Metres[],
    lamp: [] as Metres[],
    sign: [] as Metres[],
  };
  for (const street of allStreets) {
    const length = streetLengthM(street);
    const kerb = kerbM(street);
    for (const side of [1, -1]) {
      const stops = Math.ceil(length / 20);
      things.kerb.push(
        Array.from({ length: stops + 1 }, (_, i) => besideStreet(street, Math.min(length, i * 20), side * kerb)),
      );
    }
    for (let place = 0; between(place) < length - 20; place += 1) {
      const along = between(place);
      if (nearCrossing(street, along)) continue;
      const side = place % 2 === 0 ? 1 : -1;
      const at = (sideM: number, more = 0): Metres => besideStreet(street, along + more, side * sideM);
      if (place % 4 === 1) things.lamp.push(at(kerb + 0.4));
      if (place % 13 === 6) things.hydrant.push(at(kerb + 0.5, 1.4));
      if (place % 9 === 4) things.sign.push(at(kerb + 0.3, 2));
      if (place % 7 === 3) things.driveway.push([at(kerb, -1.5), at(kerb, 1.5), at(11.4, 1.5), at(11.4, -1.5)]);
    }
  }
  return things;
}
