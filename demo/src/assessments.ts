import { unknownAssessment, type Assessment, type IsoDate, type Wish } from '@sombra/core';
import type { Site } from './measures';
import type { Dice } from './seed';
import type { Green, Place } from './streets';

/** pH, salt and, where a laboratory was asked, sodium of each zone: sea spray by the harbour, sodic clay at the potters'. */
const chemistry: Readonly<Record<Place['zone'], { ph: number; saltDsM: number; sodiumSar?: number; depthMm: number }>> =
  {
    harbour_fill: { ph: 7.7, saltDsM: 3.2, sodiumSar: 6, depthMm: 600 },
    valley_loam: { ph: 6.6, saltDsM: 0.8, depthMm: 900 },
    trodden_loam: { ph: 6.9, saltDsM: 1, depthMm: 800 },
    sandy_terrace: { ph: 6.1, saltDsM: 0.6, depthMm: 700 },
    hill_clay: { ph: 6.3, saltDsM: 0.5, depthMm: 600 },
    clinic_clay: { ph: 6.7, saltDsM: 0.7, depthMm: 900 },
    garden: { ph: 6.7, saltDsM: 0.7, depthMm: 900 },
    potters_clay: { ph: 7, saltDsM: 0.9, sodiumSar: 15, depthMm: 500 },
  };

const asked: readonly (readonly Wish[])[] = [
  [],
  [],
  ['no_litter'],
  [],
  ['no_pollen'],
  ['deciduous'],
  ['no_thorns', 'no_litter'],
];

const round = (value: number, decimals: number): number => Number(value.toFixed(decimals));

/** What somebody with a tape saw around a spot. */
export function assessed(
  place: Place | Green,
  site: Site,
  found: { on: IsoDate; pavementDeg: number; i: number; from: Dice },
): Assessment {
  const { on, pavementDeg, i, from } = found;
  const street = !('box' in place);
  const { ph, saltDsM, sodiumSar = null, depthMm } = chemistry[place.zone];
  const stripM = typeof site.stripWidthMm === 'number' ? site.stripWidthMm / 1000 : 6;
  const tape = (thing: Assessment['clearances'][number]['thing'], distanceM: number) =>
    ({ thing, distanceM: round(Math.max(0.1, distanceM), 2), by: 'tape' }) as const;
  const yard = 'kind' in place && place.kind === 'yards';
  return {
    ...unknownAssessment(on),
    owner: street ? 'road' : yard ? 'yard' : 'park',
    clearances: [
      tape('building', street ? from.around(6.4, 0.4) : from.between(9, 24)),
      tape('kerb', street ? from.around(stripM / 2, 0.08) : from.between(6, 20)),
      tape('junction', from.between(16, 48)),
      tape('tree', from.around(11.2, 0.4)),
      ...(typeof site.wireHeightM === 'number' ? [tape('wire', from.around(1.2, 0.3))] : []),
    ],
    privateLines: 'none',
    sunHours: round(from.between(6, 11), 1),
    wind: place.zone === 'harbour_fill' ? 'exposed' : place.zone === 'sandy_terrace' ? 'open' : 'sheltered',
    winterWindDeg: 240,
    summerWindDeg: 40,
    openSoilM2: street ? round(stripM * from.between(8.5, 10.5), 1) : round(from.between(60, 140), 0),
    soilDepthMm: Math.round(from.around(depthMm, 40) / 10) * 10,
    underPavingM3: street ? round(from.between(6, 18), 1) : null,
    probeStopsMm: site.compacted ? from.whole(260, 330) : from.whole(380, 520),
    rubble: site.stony,
    soilPh: round(from.around(ph, 0.15), 1),
    saltDsM: round(Math.max(0, from.around(saltDsM, 0.2)), 1),
    sodiumSar,
    soilTestedOn: on,
    pavementM: street ? round(stripM / 2, 1) : null,
    pavementWidthM: street ? 2.4 : null,
    pavementDeg: street ? pavementDeg : null,
    wishes: asked[i % asked.length] ?? [],
  };
}
