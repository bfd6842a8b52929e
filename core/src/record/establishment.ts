import { addDaysTo, addMonthsTo, daysBetween, monthsBetween, type IsoDate } from '../calendar';
import { aspectOf, waitedForMonths, type LookAspect } from '../inspect';
import type { Practice, RemedyCode } from '../practice';
import type { Stock } from '../stock';
import type { Decision } from './decision';
import { ofKind, type FieldRecord } from './record';
import type { RemedyBasis } from './open-remedies';
import { because, type Reason } from './reasons';

/** What a tree that needs no more help shows, in the order it is asked about. */
export const establishmentSteps = ['time', 'growth', 'firm', 'water', 'look'] as const;
export type EstablishmentStep = (typeof establishmentSteps)[number];

/** How a planted tree comes along: signed off; to be signed off; asks for something or was not looked at in time; or neither. */
export const establishingStates = ['established', 'ready', 'hangs', 'on_the_way'] as const;
export type EstablishingState = (typeof establishingStates)[number];

export interface EstablishmentLine {
  readonly step: EstablishmentStep;
  /** `unknown` where nobody looked or measured. */
  readonly state: 'met' | 'not_yet' | 'unknown';
  readonly because: Reason;
}

export interface Establishment {
  readonly lines: readonly EstablishmentLine[];
  /** Not before; `null` where its caliper is not known. */
  readonly floorOn: IsoDate | null;
  readonly lastLookOn: IsoDate | null;
  /** The day from which all of it is met, by what is known; `null` while something is missing. */
  readonly readyOn: IsoDate | null;
  /** When somebody said that it is established; `null` until then. */
  readonly signedOn: IsoDate | null;
}

/** Of last year's shoots, from how much of them on growth counts as back to normal. An estimate */
const normalShoots = 0.8;
/** So long without a watering, and the ball not dry: roots live by the soil around it. Days, an estimate */
const unwateredDays = 28;
/** A look tells of a tree for about a year. Months */
const lookHoldsMonths = 13;
/** What a clean look has looked at. */
const cleanAspects: readonly LookAspect[] = ['tree', 'stake', 'mulch', 'flare'];
/** Left to the yearly look, and no help. */
const noHelp: readonly RemedyCode[] = ['none', 'watch_yearly_clear'];

const plantedMonths = ({ plantedOn }: RemedyBasis, on: IsoDate): number => monthsBetween(plantedOn, on);

/**
 * Whether a planted tree is established, by time, growth, stand, water and its last look: each by itself, with why. Time is
 * a floor and never a proof; a person signs it off. What holds from a day on, or until one, is taken to hold: `establishedOn`
 * says it of a day.
 */
export function establishment(
  known: RemedyBasis,
  of: {
    readonly kept: readonly FieldRecord[];
    readonly stock: Stock | null;
    readonly practice: Practice;
    readonly open: readonly Decision[];
  },
): Establishment {
  const floor = floorOf(known, of);
  const lastLook = known.looks.at(-1)?.facts.inspectedOn ?? null;
  const lines = [
    timeLine(floor, of),
    growthLine(known),
    firmLine(known),
    waterLine(known, of.kept),
    lookLine(known, of),
  ];
  const others = lines.filter(({ step }) => step !== 'time');
  const ready = floor !== null && lastLook !== null && others.every(({ state }) => state === 'met');
  return {
    ...{ lines, floorOn: floor, lastLookOn: lastLook },
    readyOn: ready ? (floor > lastLook ? floor : lastLook) : null,
    signedOn: signedOff(of.kept, known.plantedOn),
  };
}

/** The same as it stands on a day: whether its time has come, and its last look still tells of it. */
export function establishedOn(
  { lines, floorOn, lastLookOn }: Establishment,
  day: IsoDate,
): readonly EstablishmentLine[] {
  return lines.map((line) => {
    if (line.step === 'time' && floorOn !== null && day < floorOn) return { ...line, state: 'not_yet' };
    const old = lastLookOn !== null && monthsBetween(lastLookOn, day) >= lookHoldsMonths;
    if (line.step !== 'look' || line.state !== 'met' || !old) return line;
    return { ...line, state: 'unknown', because: because('established_look_old', { on: lastLookOn }) };
  });
}

/** When somebody said that the tree that stands is established; a planting since begins anew. */
export const signedOff = (kept: readonly FieldRecord[], plantedOn: IsoDate): IsoDate | null =>
  ofKind(kept, 'signed_off').findLast(({ facts }) => facts.signedOn >= plantedOn)?.facts.signedOn ?? null;

/** The earliest day, by caliper and by the time the practice gives each 25 mm of it; `null` without a caliper. */
function floorOf({ plantedOn }: RemedyBasis, { stock, practice }: { stock: Stock | null; practice: Practice }) {
  if (!stock) return null;
  const months = (stock.caliperMm / 25) * practice.inspection.establishMonthsPer25Mm;
  return addMonthsTo(plantedOn, Math.ceil(months));
}

function timeLine(
  floor: IsoDate | null,
  { stock, practice }: { stock: Stock | null; practice: Practice },
): EstablishmentLine {
  if (!floor || !stock) return { step: 'time', state: 'unknown', because: because('established_caliper_unknown', {}) };
  const { establishMonthsPer25Mm: monthsPer25Mm } = practice.inspection;
  const facts = { on: floor, caliperMm: stock.caliperMm, monthsPer25Mm };
  return { step: 'time', state: 'met', because: because('established_floor', facts) };
}

function growthLine(known: RemedyBasis): EstablishmentLine {
  const look = known.looks.findLast(({ facts }) => facts.shootMm !== undefined && facts.shootBeforeMm !== undefined);
  const { shootMm, shootBeforeMm, inspectedOn } = look?.facts ?? {};
  if (shootMm === undefined || shootBeforeMm === undefined || inspectedOn === undefined) {
    return { step: 'growth', state: 'unknown', because: because('established_growth_unknown', {}) };
  }
  const facts = { shootMm, beforeMm: shootBeforeMm, on: inspectedOn, sharePct: normalShoots * 100 };
  // In the first year shoots tell of the nursery.
  const normal = shootMm >= shootBeforeMm * normalShoots && plantedMonths(known, inspectedOn) >= waitedForMonths;
  return { step: 'growth', state: normal ? 'met' : 'not_yet', because: because('established_growth', facts) };
}

function firmLine({ looks }: RemedyBasis): EstablishmentLine {
  const stake = looks.findLast(({ facts }) => facts.stake !== null)?.facts.stake ?? null;
  const rocks = looks.findLast(({ facts }) => facts.rocks !== undefined)?.facts.rocks ?? null;
  if (stake !== null && stake !== 'none') {
    return { step: 'firm', state: 'not_yet', because: because('established_staked', {}) };
  }
  if (rocks === 'ball_moves') return { step: 'firm', state: 'not_yet', because: because('ball_moves', {}) };
  if (stake === null || rocks === null) {
    return { step: 'firm', state: 'unknown', because: because('established_firm_unknown', {}) };
  }
  return { step: 'firm', state: 'met', because: because('established_firm', {}) };
}

/** Felt some weeks after the last watering, and not dry: it lives by the soil around its ball. */
function waterLine(known: RemedyBasis, kept: readonly FieldRecord[]): EstablishmentLine {
  const felt = [
    ...known.looks.map(({ facts }) => ({ on: facts.inspectedOn, probe: facts.probe })),
    ...ofKind(kept, 'watering').map(({ facts }) => ({ on: facts.wateredOn, probe: facts.probeBefore ?? null })),
  ]
    .filter(({ on, probe }) => probe !== null && plantedMonths(known, on) >= waitedForMonths)
    .sort((a, b) => a.on.localeCompare(b.on));
  const poured = [...known.watered].sort((a, b) => a.localeCompare(b));
  const dry = felt.findLast(
    ({ on, probe }) => probe === 'dry' && !poured.some((day) => day < on && day > addDaysTo(on, -unwateredDays)),
  );
  const lived = felt.findLast(({ on, probe }) => {
    const last = poured.findLast((day) => day < on);
    return probe !== 'dry' && (last === undefined || daysBetween(last, on) >= unwateredDays);
  });
  if (lived && (!dry || dry.on < lived.on)) {
    const facts = { on: lived.on, days: unwateredDays };
    return { step: 'water', state: 'met', because: because('established_by_soil', facts) };
  }
  if (dry) return { step: 'water', state: 'not_yet', because: because('established_still_dries', { on: dry.on }) };
  return { step: 'water', state: 'unknown', because: because('established_water_unknown', { days: unwateredDays }) };
}

function lookLine({ looks }: RemedyBasis, { open }: { open: readonly Decision[] }): EstablishmentLine {
  const line = (state: EstablishmentLine['state'], reason: Reason): EstablishmentLine => ({
    step: 'look',
    state,
    because: reason,
  });
  const last = looks.at(-1);
  if (!last) return line('unknown', because('established_no_look', {}));
  const { inspectedOn: on } = last.facts;
  const asked = open.find(({ remedy }) => remedy !== null && !noHelp.includes(remedy));
  if (asked?.remedy) return line('not_yet', because('established_open', { remedy: asked.remedy }));
  const seen = new Set(
    looks.filter(({ facts }) => monthsBetween(facts.inspectedOn, on) < lookHoldsMonths).flatMap(aspects),
  );
  const missing = cleanAspects.filter((aspect) => !seen.has(aspect));
  return missing.length > 0
    ? line('unknown', because('established_not_looked', { on, missing }))
    : line('met', because('established_clean', { on }));
}

const aspects = ({ facts: { inspectedOn: _day, ...seen } }: RemedyBasis['looks'][number]): LookAspect[] =>
  Object.entries(seen)
    .filter(([, value]) => value !== null && value !== undefined)
    .map(([fact]) => aspectOf[fact as keyof typeof seen]);

/** Somebody is asked whether it is established, once all that is known says so. */
export const signOffDecision = ({ readyOn, signedOn, lines }: Establishment): Decision[] =>
  readyOn === null || signedOn !== null
    ? []
    : [
        {
          kind: 'sign_off',
          stage: 'inspect',
          // Nothing is lost by waiting.
          level: 'good',
          dueOn: readyOn,
          remedy: null,
          because: lines.map((line) => line.because),
        },
      ];
