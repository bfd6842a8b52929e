import type { IsoDate } from '../calendar';
import {
  groundPercolationClass,
  inTime,
  percolationClass,
  testReadings,
  unknownGround,
  type Assessment,
  type GroundFacts,
  type PercolationClass,
  type PercolationLimits,
} from '../ground';
import { judgePlantingTime, type PlantingTimeVerdict } from '../match';
import { pitPlan, type PitResult } from '../pit';
import { asItStandsNow, practiceAt, type Practice } from '../practice';
import { inPlantingWindow, isAutumn, noonSunDeg, type PlantingWindow } from '../season';
import type { Stock, StockOffer } from '../stock';
import { wellDrainsMmPerH } from '../water';
import type { OverrideFacts, RecordFacts, RecordKind } from './kinds';
import { ofKind, type FieldRecord } from './record';

/** What a programme brings to every spot. */
export interface SpotContext {
  /** The one the programme works by now. */
  readonly practice: Practice;
  /** The one its tree was planted under; left out before planting. */
  readonly plantedUnder?: Practice | undefined;
  /** When each kind of stock may be planted: what is planted while bare roots may be, rests. */
  readonly windows?: readonly PlantingWindow[] | undefined;
  /** The planting day it is booked for. */
  readonly plantOn?: IsoDate | null | undefined;
  /** Of the programme: which half of the year is autumn, and where the sun stands at noon. */
  readonly latDeg?: number | undefined;
  /** What nurseries have of its species. */
  readonly offers?: readonly StockOffer[] | undefined;
}

/**
 * What a spot is planned, judged and drawn by, in one place: every view, card, list and file reads it, and none works
 * out for itself which practice, which drainage or which pit goes for a spot.
 */
export interface SpotBasis {
  /** The newest ground facts, with the newest percolation test. */
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  readonly stock: Stock | null;
  /** What was decided otherwise here: the last word on each choice. */
  readonly overrides: readonly OverrideFacts[];
  /** Of these, what contradicts the practice as it is by now and does not count. */
  readonly setAside: readonly OverrideFacts[];
  /** What the place is judged and the tree looked after by: the programme's practice, with what was decided otherwise. */
  readonly care: Practice;
  /** What its pit is planned and judged by: the practice it was planted under, else `care`. */
  readonly practice: Practice;
  /** Where `care` draws the lines between drainage classes, and the class they give; `undefined` without a sound test. */
  readonly drainage: PercolationLimits;
  readonly percolation: PercolationClass | undefined;
  /** Soil put back and firmed under the ball as it was planted. */
  readonly putBackMm: number | null;
  readonly dormant: boolean;
  readonly autumn: boolean;
  readonly windows: readonly PlantingWindow[];
  readonly sunDeg: number | null;
  readonly offers: readonly StockOffer[] | undefined;
  /** The pit, with what was put back; `null` while no stock is measured. */
  readonly plan: PitResult | null;
}

/** What the basis rests on; of waterings, those that tell how fast a ring emptied. */
const basisKinds: ReadonlySet<RecordKind> = new Set<RecordKind>([
  'ground',
  'percolation',
  'assessment',
  'stock',
  'override',
  'planting',
  'watering',
]);

/** Of the records that stand, those the basis rests on: while they are the same, so is the basis. */
export const basisRecords = (kept: readonly FieldRecord[]): FieldRecord[] =>
  kept.filter((record) => basisKinds.has(record.kind) && (record.kind !== 'watering' || ringSeen(record.facts)));

/** Works out the basis from the records that stand. */
export function spotBasis(standing: readonly FieldRecord[], context: SpotContext): SpotBasis {
  const kept = basisRecords(standing);
  const overrides = standingOverrides(kept);
  const { practice: care, setAside } = practiceAt(context.practice, overrides);
  const built = ofKind(kept, 'planting').at(-1)?.facts;
  const under = built && context.plantedUnder;
  const ground = knownGround(kept);
  const plantedOn = built?.plantedOn ?? context.plantOn ?? null;
  return planned({
    ground,
    assessment: ofKind(kept, 'assessment').at(-1)?.facts ?? null,
    stock: ofKind(kept, 'stock').at(-1)?.facts ?? null,
    overrides,
    setAside,
    care,
    practice: under ? practiceAt(under, overrides).practice : care,
    drainage: care.percolation,
    percolation: groundPercolationClass(ground, care.percolation) ?? ringClass(kept, care.percolation),
    putBackMm: built?.putBackMm ?? null,
    dormant: restsOn(plantedOn, context.windows ?? []),
    windows: context.windows ?? [],
    autumn: plantedOn !== null && isAutumn(plantedOn, context.latDeg),
    sunDeg: noonSunDeg(context.latDeg),
    offers: context.offers,
  });
}

/** The basis as it is with what somebody is typing in the place of what is stored. */
export function basisWith(
  basis: SpotBasis,
  typed: Partial<Pick<SpotBasis, 'stock' | 'putBackMm' | 'practice' | 'assessment'>>,
): SpotBasis {
  return planned({ ...basis, ...typed });
}

/** Whether a day is a time to plant its tree, by the calendar and how it came; `null` without a tree or windows. */
export function plantingTime({ stock, windows }: SpotBasis, day: IsoDate): PlantingTimeVerdict | null {
  if (!stock || windows.length === 0) return null;
  return judgePlantingTime({ kind: stock.kind, day, windows, forecast: [], arrival: stock.arrival });
}

function planned(basis: Omit<SpotBasis, 'plan'>): SpotBasis {
  const { stock, ground, practice, putBackMm, dormant, offers, assessment, autumn } = basis;
  if (!stock) return { ...basis, plan: null };
  const dug = putBackMm === null ? {} : { fillUnderBallMm: putBackMm };
  const tested = { soilPh: assessment?.soilPh ?? null, irrigation: assessment?.irrigation };
  return { ...basis, plan: pitPlan({ ground, stock, practice, dormant, offers, autumn, ...tested, ...dug }) };
}

/** Without a day or windows a tree is thought to be planted while it rests. */
const restsOn = (day: IsoDate | null, windows: readonly PlantingWindow[]): boolean =>
  day === null || windows.length === 0 || inPlantingWindow(windows, 'bare_root', day);

/** The last word on each choice. */
function standingOverrides(kept: readonly FieldRecord[]): OverrideFacts[] {
  const now = ofKind(kept, 'override').flatMap(({ facts }) => asItStandsNow(facts));
  const latest = new Map(now.map((facts) => [facts.path, facts]));
  return [...latest.values()];
}

/** Where nobody ran a test, a ring that was seen to empty says how the ground drains. */
function ringClass(kept: readonly FieldRecord[], classLimits: PercolationLimits): PercolationClass | undefined {
  const seen = ofKind(kept, 'watering')
    .map(({ facts }) => facts)
    .findLast(ringSeen);
  return seen && percolationClass(wellDrainsMmPerH(seen.ringMm ?? 0, seen.ringMinutes ?? 0), classLimits);
}

const ringSeen = ({ ringMm, ringMinutes }: RecordFacts['watering']): boolean =>
  ringMm !== undefined && ringMinutes !== undefined;

/** Ground facts with the readings of a percolation test that was run since they were written. */
function knownGround(kept: readonly FieldRecord[]): GroundFacts {
  const facts = ofKind(kept, 'ground').at(-1);
  const test = ofKind(kept, 'percolation').at(-1);
  const ground = facts?.facts ?? unknownGround;
  const newer = test && (!facts || kept.indexOf(test) > kept.indexOf(facts) || facts.facts.percolation.length === 0);
  return test && newer ? { ...ground, percolation: testReadings(inTime(test.facts)) } : ground;
}
