import { assignmentNames, type RecordFacts, type RecordKind, type RemedyBefore } from '../record';
import type { Horizon, IrrigationWater, NeighbourRoots, SiteThing } from '../ground';
import type { MetRoot, TakenOver } from '../day';
import type { AdventitiousRoots, Arrival } from '../stock';
import {
  twigHeights,
  type AliveClass,
  type Anchor,
  type CirclingRoot,
  type InstrumentReading,
  type RemedySeen,
  type TwigHeight,
} from '../inspect';
import type { RemedyCode } from '../practice';
import { formatNumber, formatQuantity, type UnitSystem } from '../units';
import {
  aliveNames,
  barkNames,
  flareByNames,
  guardNames,
  instrumentNames,
  instrumentUnits,
  leftOnNames,
  rockingNames,
  rootTouchNames,
  lookSignNames,
  turfNames,
  twigHeightNames,
} from './look-names';
import { isMeasured, measuredFacts } from './measured';
import { sayIsoDay } from './sentence';
import {
  arboristAdviceNames,
  crownFaceNames,
  declinedByNames,
  removalWhyNames,
  stumpNames,
  cutAwayNames,
  factNames,
  hazardNames,
  fingerNames,
  sensorFlagNames,
  mulchContactNames,
  ownerNames,
  plumbNames,
  probeNames,
  rootWorkNames,
  rubbingNames,
  siteThingNames,
  siteVerdictNames,
  soilNames,
  stakeNames,
  stockNames,
  windNames,
  wishNames,
} from './names';
import { remedyWords } from './say-remedy';

export interface SaidFact {
  readonly key: string;
  readonly name: string;
  readonly value: string;
}

const words: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  soil: soilNames,
  kind: stockNames,
  mulchContact: mulchContactNames,
  stake: stakeNames,
  probe: probeNames,
  probeBefore: probeNames,
  probeAfter: probeNames,
  fingerBefore: fingerNames,
  flag: sensorFlagNames,
  toldBy: { keeper: 'its keeper, by link; not confirmed', controller: 'the controller; not seen at the tree' },
  stockKind: stockNames,
  owner: ownerNames,
  wind: windNames,
  wishes: wishNames,
  rubbedBy: rubbingNames,
  finger: fingerNames,
  face: crownFaceNames,
  verdict: siteVerdictNames,
  task: assignmentNames,
  roots: rootWorkNames,
  cutAway: cutAwayNames,
  plumb: plumbNames,
  hazard: hazardNames,
  alive: aliveNames,
  signs: lookSignNames,
  rocks: rockingNames,
  guard: guardNames,
  leftOn: leftOnNames,
  turf: turfNames,
  flareBy: flareByNames,
  bark: barkNames,
  advice: arboristAdviceNames,
  by: declinedByNames,
  why: removalWhyNames,
  stump: stumpNames,
};

/** The facts of a record as names and values in the reader's units; what was not looked at is left out. */
export function sayFacts<K extends RecordKind>(facts: RecordFacts[K], units: UnitSystem): SaidFact[] {
  const { seen, ...plain } = facts as RecordFacts[K] & { readonly seen?: RemedySeen };
  return Object.entries({ ...plain, ...seen })
    .filter(([key, value]) => value !== null && value !== '' && key in factNames)
    .filter(([key, value]) => !Array.isArray(value) || value.length > 0 || key in noneWords)
    .map(([key, value]) => ({ key, name: factNames[key] ?? key, value: sayFact(key, value, units) }));
}

function sayFact(key: string, value: unknown, units: UnitSystem): string {
  if (key === 'share') return `${Math.round(Number(value) * 100)} %`;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (key === 'remedy') return remedyWords[value as RemedyCode].act;
  if (key === 'circlingRoots') return sayRoots(value as readonly CirclingRoot[], units);
  if (key === 'clearances')
    return (value as readonly { thing: SiteThing; distanceM: number }[])
      .map(({ thing, distanceM }) => `${siteThingNames[thing]} ${formatQuantity(distanceM, 'clearanceM', units)}`)
      .join(', ');
  if (Array.isArray(value) && value.length === 0 && key in noneWords) return noneWords[key] ?? '';
  if (key in parts) return parts[key]?.(value as never, units) ?? '';
  if (key === 'percolation' || key === 'readings') return `${(value as unknown[]).length} readings`;
  if (Array.isArray(value)) return value.map((part) => sayFact(key, part, units)).join(', ');
  if (typeof value === 'string') return words[key]?.[value] ?? (isDay.test(value) ? sayIsoDay(value) : value);
  return isMeasured(key) ? formatQuantity(Number(value), measuredFacts[key].quantity, units) : String(value);
}

const isDay = /^\d{4}-\d{2}-\d{2}$/;

/** Lists that were looked for and are empty say so. */
const noneWords: Readonly<Record<string, string>> = {
  circlingRoots: 'none seen',
  signs: 'none seen',
  leftOn: 'nothing',
  anchors: 'none seen',
};

/** Facts that have parts of their own. */
const parts: Readonly<Record<string, (value: never, units: UnitSystem) => string>> = {
  adventitious: ({ count, thickestMm }: AdventitiousRoots, units) =>
    `${count}, up to ${formatQuantity(thickestMm, 'lengthMm', units)}`,
  metRoot: ({ thickestMm, cut }: MetRoot, units) =>
    `up to ${formatQuantity(thickestMm, 'lengthMm', units)}${cut === undefined ? '' : cut ? ', cut' : ', kept'}`,
  irrigation: ({ saltDsM, sodiumSar }: IrrigationWater, units) =>
    [
      saltDsM === null ? '' : `salt ${formatQuantity(saltDsM, 'saltDsM', units)}`,
      sodiumSar === null ? '' : `sodium ${formatQuantity(sodiumSar, 'sodiumSar', units)}`,
    ]
      .filter(Boolean)
      .join(', '),
  neighbourRoots: ({ species, distanceM, thickestMm }: NeighbourRoots, units) =>
    `${species || 'species not known'}, ${formatQuantity(distanceM, 'clearanceM', units)} away, up to ${formatQuantity(thickestMm, 'lengthMm', units)}`,
  anchors: (all: readonly Anchor[], units) =>
    all
      .map(({ bearingDeg, diameterMm }) => `${formatQuantity(diameterMm, 'lengthMm', units)} at ${bearingDeg}°`)
      .join(', '),
  aliveAt: (at: Partial<Record<TwigHeight, AliveClass>>) =>
    twigHeights
      .flatMap((height) => (at[height] ? [`${twigHeightNames[height]} ${aliveNames[at[height]]}`] : []))
      .join(', '),
  instruments: (all: readonly InstrumentReading[]) =>
    all
      .map(
        ({ kind, device, value }) =>
          `${instrumentNames[kind]} ${formatNumber(value, 1)} ${instrumentUnits[kind]} by ${device}`,
      )
      .join(', '),
  before: (at: RemedyBefore, units) =>
    (['flareDepthMm', 'mulchDepthMm'] as const)
      .flatMap((fact) =>
        at[fact] === undefined ? [] : [`${measuredFacts[fact].name} ${formatQuantity(at[fact], 'lengthMm', units)}`],
      )
      .join(', '),
  takenOver: ({ on, from }: TakenOver) => `from ${from}, ${sayIsoDay(on)}`,
  arrival: ({ covered, moist, wateredEveryDays }: Arrival) =>
    [
      covered === null ? '' : covered ? 'covered' : 'uncovered',
      moist === null ? '' : moist ? 'moist' : 'dry',
      wateredEveryDays === null ? '' : `watered every ${wateredEveryDays} days by the nursery`,
    ]
      .filter(Boolean)
      .join(', ') || 'not asked',
  horizons: (layers: readonly Horizon[], units) =>
    layers
      .map(({ soil, toMm, fill, rateMmPerH }) => {
        const rate = rateMmPerH === null ? '' : `, ${formatQuantity(rateMmPerH, 'rateMmPerH', units)}`;
        return `${fill ? 'filled ' : ''}${soilNames[soil]} to ${formatQuantity(toMm, 'lengthMm', units)}${rate}`;
      })
      .join('; '),
};

function sayRoots(roots: readonly CirclingRoot[], units: UnitSystem): string {
  return roots
    .map(({ arc, diameterMm, touch }) => {
      const where = `${formatQuantity(diameterMm, 'lengthMm', units)} over ${arc.fromDeg}–${arc.toDeg}°`;
      return touch ? `${where}, ${rootTouchNames[touch]}` : where;
    })
    .join(', ');
}
