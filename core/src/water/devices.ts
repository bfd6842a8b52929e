import { requireWithin } from '../errors';
import { limits } from '../limits';
import { because, type WaterReason } from './reasons';

export const deviceForms = ['carried', 'standing', 'stem', 'ground', 'buried', 'piped', 'truck'] as const;
/** How it comes to the tree: carried there, stood beside it, hung on its stem, laid round it, sunk in, piped, from a truck. */
export type DeviceForm = (typeof deviceForms)[number];
export const deviceLooks = ['hidden', 'plain', 'glaring'] as const;
export type DeviceLooks = (typeof deviceLooks)[number];

/** Something that brings water slowly to a ball. What a label promises and what was measured are two things. */
export interface WaterDevice {
  /** Letters, digits and hyphens. */
  readonly id: string;
  readonly name: string;
  readonly form: DeviceForm;
  /** What one holds, L; `null` where it runs as long as it is let. */
  readonly volumeL: number | null;
  readonly outlets: number;
  /** Of its opening, mm; `null` where it is not filled. */
  readonly inletMm: number | null;
  /** To fill one, min. */
  readonly fillMinutes: number;
  /** It has to stand in water itself so long before it works, min. */
  readonly soakMinutes: number;
  /** Through all outlets of one, L/h, by its label; `null` where it says nothing. */
  readonly labelledLPerH: number | null;
  /** One is joined for each so much caliper, mm; `null` where one is enough for any. */
  readonly perCaliperMm: number | null;
  /** Of one, in the programme's money. */
  readonly cost: number;
  readonly upkeep: string;
  readonly looks: DeviceLooks;
  /** Of trunk free of branches that it hangs on, mm; `null` where it needs none. */
  readonly clearStemMm: number | null;
  /** On steeper ground it empties beside the ball. % */
  readonly mostSlopePct: number | null;
  /** It has to be sunk in: not into compacted soil. */
  readonly dug: boolean;
  /** Off the tree by then, months after it was set; `null` where it may stay. */
  readonly offAfterMonths: number | null;
}

/** What ships with Sombra: kinds of thing, not makes. Numbers are estimates until the programme measures its own. */
export const deviceCatalogue: readonly WaterDevice[] = [
  {
    id: 'buckets',
    name: 'Buckets, poured slowly',
    form: 'carried',
    volumeL: 10,
    outlets: 1,
    inletMm: 250,
    fillMinutes: 1,
    soakMinutes: 0,
    labelledLPerH: null,
    perCaliperMm: null,
    cost: 6,
    upkeep: 'none',
    looks: 'hidden',
    clearStemMm: null,
    mostSlopePct: null,
    dug: false,
    offAfterMonths: null,
  },
  {
    id: 'drilled-bucket',
    name: 'Bucket with holes in its base',
    form: 'standing',
    volumeL: 20,
    outlets: 2,
    inletMm: 280,
    fillMinutes: 1.5,
    soakMinutes: 0,
    labelledLPerH: null,
    perCaliperMm: 40,
    cost: 8,
    upkeep: 'clear the holes each month',
    looks: 'plain',
    clearStemMm: null,
    mostSlopePct: 8,
    dug: false,
    offAfterMonths: 30,
  },
  {
    id: 'stem-bag',
    name: 'Bag round the trunk',
    form: 'stem',
    volumeL: 75,
    outlets: 2,
    inletMm: 60,
    fillMinutes: 4,
    soakMinutes: 0,
    labelledLPerH: 11,
    perCaliperMm: 75,
    cost: 28,
    upkeep: 'look for animals and damp bark below it; clear the outlets',
    looks: 'glaring',
    clearStemMm: 650,
    mostSlopePct: 12,
    dug: false,
    offAfterMonths: 8,
  },
  {
    id: 'ground-ring',
    name: 'Flat ring on the ground',
    form: 'ground',
    volumeL: 55,
    outlets: 4,
    inletMm: 50,
    fillMinutes: 4,
    soakMinutes: 0,
    labelledLPerH: 6,
    perCaliperMm: 100,
    cost: 32,
    upkeep: 'lift it each month and look at the mulch and bark below',
    looks: 'plain',
    clearStemMm: null,
    mostSlopePct: 5,
    dug: false,
    offAfterMonths: 20,
  },
  {
    id: 'clay-jar',
    name: 'Unglazed clay jar, sunk in',
    form: 'buried',
    volumeL: 8,
    outlets: 1,
    inletMm: 70,
    fillMinutes: 1,
    soakMinutes: 60,
    labelledLPerH: 0.15,
    perCaliperMm: 15,
    cost: 14,
    upkeep: 'lift it before the ground freezes',
    looks: 'hidden',
    clearStemMm: null,
    mostSlopePct: null,
    dug: true,
    offAfterMonths: null,
  },
  {
    id: 'well',
    name: 'Ring of soil or turf, filled',
    form: 'ground',
    volumeL: 35,
    outlets: 1,
    inletMm: null,
    fillMinutes: 2,
    soakMinutes: 0,
    labelledLPerH: null,
    perCaliperMm: null,
    cost: 0,
    upkeep: 'mend its wall; level it once the tree is established',
    looks: 'hidden',
    clearStemMm: null,
    mostSlopePct: 10,
    dug: false,
    offAfterMonths: 30,
  },
  {
    id: 'drip-ring',
    name: 'Ring of drip line on a valve',
    form: 'piped',
    volumeL: null,
    outlets: 10,
    inletMm: 13,
    fillMinutes: 0,
    soakMinutes: 0,
    labelledLPerH: 23,
    perCaliperMm: null,
    cost: 45,
    upkeep: 'flush each spring; look for cut line after mowing',
    looks: 'hidden',
    clearStemMm: null,
    mostSlopePct: 25,
    dug: false,
    offAfterMonths: 36,
  },
  {
    id: 'truck-hose',
    name: 'Hose from the truck',
    form: 'truck',
    volumeL: null,
    outlets: 1,
    inletMm: null,
    fillMinutes: 0,
    soakMinutes: 0,
    labelledLPerH: 1500,
    perCaliperMm: null,
    cost: 0,
    upkeep: 'none at the tree',
    looks: 'hidden',
    clearStemMm: null,
    mostSlopePct: null,
    dug: false,
    offAfterMonths: null,
  },
];

/** One run of a device into a measured vessel. */
export interface VesselRun {
  readonly litres: number;
  readonly minutes: number;
}

export interface Calibration {
  readonly lPerH: number;
  /** Between runs, of the mean, %; `null` from a single run: nobody knows how it varies. */
  readonly spreadPct: number | null;
  /** Standard error of the mean, L/h; `null` from a single run. */
  readonly errorLPerH: number | null;
  readonly runs: number;
  readonly because: readonly WaterReason[];
}

const runMinutes = { min: 0.1, max: 1440, unit: 'min' } as const;
const mostRuns = 20;
/** Runs that differ by more than this were not of one thing: a kink, air in the line, a head that changed. % */
const steadyPct = 15;

/**
 * The flow of what has no trustworthy label, from runs into a measured vessel: the mean of the runs, and how far they lie
 * apart (standard deviation with n − 1).
 * @throws InvalidInputError without a run, or for one that nobody can measure
 */
export function calibrate(runs: readonly VesselRun[]): Calibration {
  requireWithin('runs', runs.length, { min: 1, max: mostRuns, unit: '' });
  runs.forEach(({ litres, minutes }, i) => {
    requireWithin(`runs.${i}.litres`, litres, limits.vesselL);
    requireWithin(`runs.${i}.minutes`, minutes, runMinutes);
  });
  const flows = runs.map(({ litres, minutes }) => (litres / minutes) * 60);
  const lPerH = flows.reduce((sum, flow) => sum + flow, 0) / flows.length;
  if (flows.length === 1) {
    return { lPerH, spreadPct: null, errorLPerH: null, runs: 1, because: [because('device_run_once', {})] };
  }
  const deviation = Math.sqrt(flows.reduce((sum, flow) => sum + (flow - lPerH) ** 2, 0) / (flows.length - 1));
  const spreadPct = (deviation / lPerH) * 100;
  const why = [because('device_runs', { runs: flows.length, spreadPct })];
  return {
    lPerH,
    spreadPct,
    errorLPerH: deviation / Math.sqrt(flows.length),
    runs: flows.length,
    because: spreadPct > steadyPct ? [...why, because('device_unsteady', { mostPct: steadyPct })] : why,
  };
}

/** What a tree and its place ask of a device. */
export interface DeviceSite {
  /** Poured at a time, L. */
  readonly doseL: number;
  readonly caliperMm: number;
  /** Of trunk below its first branch, mm; `null` where nobody measured it. */
  readonly clearStemMm: number | null;
  readonly slopePct: number;
  /** `null` where nobody probed. */
  readonly compacted: boolean | null;
  readonly slowSoil: boolean;
  /** Down into the ground under the ball, L/h. */
  readonly takesLPerH: number;
}

export interface DeviceFit {
  readonly device: WaterDevice;
  /** How many stand at the tree. */
  readonly count: number;
  /** How often all are filled for one dose; 1 where it runs as long as it is let. */
  readonly fills: number;
  /** From the first drop to the last, of all fills, h; `null` where nobody measured its flow and no label says. */
  readonly runHours: number | null;
  /** Of somebody standing there, for one dose, min. */
  readonly handMinutes: number;
  readonly cost: number;
  readonly fits: boolean;
  readonly because: readonly WaterReason[];
}

/** What the ground under a ball takes down, L/h. */
export const takesLPerHOf = (ballDiameterMm: number, downMmPerDay: number): number =>
  ((Math.PI / 4) * (ballDiameterMm / 1000) ** 2 * downMmPerDay) / 24;

/** Hands are dear: minutes of a visit weigh so much of the programme's money, over so many visits of a season. */
const [moneyPerMinute, visitsOfSeason] = [0.6, 24] as const;
const looksCost: Readonly<Record<DeviceLooks, number>> = { hidden: 0, plain: 6, glaring: 20 };
/** Without a flow somebody stands by and pours about so fast. L/min, an estimate */
const pouredLPerMin = 6;

/**
 * Devices for a tree, those that fit first and the cheapest of them first: what each costs with the hands it asks for over
 * a season, and how it looks. A flow that was measured stands before what a label says.
 * @param measured L/h of one device, by its id
 */
export function chooseDevice(
  site: DeviceSite,
  catalogue: readonly WaterDevice[],
  measured: Readonly<Record<string, number>> = {},
): DeviceFit[] {
  requireWithin('doseL', site.doseL, { min: 0.1, max: 2000, unit: 'L' });
  const fits = catalogue.map((device) => deviceFit(site, device, measured[device.id] ?? null));
  const price = ({ cost, handMinutes, device }: DeviceFit): number =>
    cost + handMinutes * moneyPerMinute * visitsOfSeason + looksCost[device.looks];
  return fits.sort(
    (a, b) => Number(b.fits) - Number(a.fits) || price(a) - price(b) || a.device.id.localeCompare(b.device.id),
  );
}

function deviceFit(site: DeviceSite, device: WaterDevice, measuredLPerH: number | null): DeviceFit {
  const count = device.perCaliperMm === null ? 1 : Math.max(1, Math.ceil(site.caliperMm / device.perCaliperMm));
  const lPerH = measuredLPerH ?? device.labelledLPerH;
  const flow = lPerH === null ? null : lPerH * count;
  const fills = device.volumeL === null ? 1 : Math.max(1, Math.ceil(site.doseL / (device.volumeL * count) - 1e-9));
  const runHours = flow === null ? null : site.doseL / flow;
  const standsBy = device.form === 'truck' || device.form === 'carried';
  const pourMinutes = device.form === 'truck' && flow !== null ? (site.doseL / flow) * 60 : site.doseL / pouredLPerMin;
  const handMinutes = device.form === 'piped' ? 0 : standsBy ? pourMinutes : fills * count * device.fillMinutes;
  const against = againstDevice(site, device);
  const floods = runHours !== null && flow !== null && site.slowSoil && flow > site.takesLPerH;
  const why: WaterReason[] = [
    ...(device.volumeL === null
      ? []
      : [because('device_holds', { count, volumeL: device.volumeL, fills, doseL: site.doseL })]),
    ...(lPerH === null
      ? [because('device_flow_unknown', {})]
      : [because(measuredLPerH === null ? 'device_labelled' : 'device_measured', { lPerH })]),
    ...(measuredLPerH !== null && device.labelledLPerH !== null
      ? [because('device_label_off', { lPerH: device.labelledLPerH, timesOff: measuredLPerH / device.labelledLPerH })]
      : []),
    ...(floods ? [because('device_floods', { lPerH: flow, takesLPerH: site.takesLPerH })] : []),
    ...(device.soakMinutes > 0 ? [because('device_soaks', { minutes: device.soakMinutes })] : []),
    ...(device.looks === 'glaring' ? [because('device_glaring', {})] : []),
    ...(device.offAfterMonths === null ? [] : [because('device_off_after', { months: device.offAfterMonths })]),
  ];
  return {
    device,
    count,
    fills,
    runHours,
    handMinutes,
    cost: device.cost * count,
    fits: against.length === 0,
    because: [...against, ...why],
  };
}

/** Why a device does not do here. */
function againstDevice(site: DeviceSite, device: WaterDevice): WaterReason[] {
  const { clearStemMm, mostSlopePct } = device;
  const lowBranch = clearStemMm !== null && site.clearStemMm !== null && site.clearStemMm < clearStemMm;
  const steep = mostSlopePct !== null && site.slopePct > mostSlopePct;
  return [
    ...(lowBranch ? [because('device_low_branch', { clearMm: site.clearStemMm ?? 0, neededMm: clearStemMm })] : []),
    ...(steep ? [because('device_steep', { slopePct: site.slopePct, mostPct: mostSlopePct })] : []),
    ...(device.dug && site.compacted === true ? [because('device_compacted', {})] : []),
    ...(device.id === 'well' && site.slowSoil ? [because('device_ponds', {})] : []),
  ];
}

export interface HosePosition {
  /** From the trunk, clockwise from north, or from uphill where that is not known. Degrees */
  readonly bearingDeg: number;
  readonly fromTrunkMm: number;
  readonly minutes: number;
  readonly litres: number;
}

export interface HosePlan {
  readonly positions: readonly HosePosition[];
  /** Of `bearingDeg`: by the compass, or clockwise from uphill. */
  readonly from: 'north' | 'uphill';
  readonly totalMinutes: number;
  readonly because: readonly WaterReason[];
}

/** So far apart along the ball's edge water still spreads together. mm, an estimate */
const spreadMm = 450;
const [fewestPlaces, mostPlaces] = [2, 8] as const;
/** From here on water runs down past the ball: all of it goes in uphill. % */
const hillPct = 5;
/** Uphill places lie within so much to either side of straight up. Degrees */
const uphillArcDeg = 75;
/** Over the ball, within its edge: of its radius. */
const overBall = 0.75;
/** Longer than this at one place it runs off, until it has sunk in. min, an estimate for a hand hose */
const longestMinutes = 10;

/**
 * Where a hose lies round a ball, and how long at each place: evenly spaced over the ball's edge on the level, all on the
 * uphill side of a slope, from a flow that was measured.
 * @param uphillDeg bearing of uphill; `null` where nobody recorded it
 * @throws InvalidInputError for a flow or a dose that cannot be
 */
export function hosePositions({
  ballDiameterMm,
  slopePct,
  uphillDeg,
  lPerMin,
  doseL,
}: {
  readonly ballDiameterMm: number;
  readonly slopePct: number;
  readonly uphillDeg: number | null;
  readonly lPerMin: number;
  readonly doseL: number;
}): HosePlan {
  requireWithin('ballDiameterMm', ballDiameterMm, { min: 50, max: 4000, unit: 'mm' });
  requireWithin('lPerMin', lPerMin, { min: 0.05, max: 500, unit: 'L/min' });
  requireWithin('doseL', doseL, { min: 0.1, max: 5000, unit: 'L' });
  if (uphillDeg !== null) requireWithin('uphillDeg', uphillDeg, { min: 0, max: 360, unit: '°' });
  const radiusMm = (ballDiameterMm / 2) * overBall;
  const hill = slopePct > hillPct;
  const arcMm = hill ? (2 * uphillArcDeg * Math.PI * radiusMm) / 180 : 2 * Math.PI * radiusMm;
  const places = Math.min(mostPlaces, Math.max(fewestPlaces, Math.ceil(arcMm / spreadMm)));
  const first = uphillDeg ?? 0;
  const turn = (i: number): number =>
    hill ? first - uphillArcDeg + ((2 * uphillArcDeg) / (places - 1)) * i : first + (360 / places) * i;
  const litres = doseL / places;
  const minutes = litres / lPerMin;
  const positions = Array.from({ length: places }, (_, i) => ({
    bearingDeg: ((turn(i) % 360) + 360) % 360,
    fromTrunkMm: radiusMm,
    minutes,
    litres,
  }));
  return {
    positions,
    from: uphillDeg === null ? 'uphill' : 'north',
    totalMinutes: doseL / lPerMin,
    because: [
      because('hose_places', { places, spreadMm }),
      ...(hill ? [because('hose_uphill', { slopePct })] : []),
      ...(minutes > longestMinutes ? [because('hose_in_turns', { minutes, longestMinutes })] : []),
    ],
  };
}

/**
 * What the ground takes down, from the time a ring or well takes to empty.
 * @param depthMm water over the soil at the start, mm
 * @returns mm/h
 */
export function wellDrainsMmPerH(depthMm: number, minutes: number): number {
  requireWithin('depthMm', depthMm, { min: 5, max: 500, unit: 'mm' });
  requireWithin('minutes', minutes, { min: 1, max: 2880, unit: 'min' });
  return (depthMm / minutes) * 60;
}
