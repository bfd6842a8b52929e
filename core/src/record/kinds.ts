import type { HazardClosedFacts, HazardFacts } from './hazard-facts';
import type { AsBuilt } from '../day';
import type { Assessment, GroundFacts, PercolationTest, SiteVerdict } from '../ground';
import type { FingerClass, Inspection, ProbeClass, RemedySeen } from '../inspect';
import type { Override, RemedyCode } from '../practice';
import type { Stock, StockKind } from '../stock';
import type { IsoDate } from '../calendar';
import type { AssignmentKind } from './assignment-kinds';
import type { SensorFlag } from '../water';
import type {
  ArboristAnswerFacts,
  ClaimFacts,
  DeclinedFacts,
  PestToldFacts,
  RemovalFacts,
  ResidentToldFacts,
} from './settled-facts';
import type { Stage } from './stage';

/** The planting keeps the practice it was planned under, so that outcomes can be told apart by school. */
export interface PlantingFacts extends AsBuilt {
  readonly practiceId: string;
  readonly practiceVersion: number;
}

/** Water that somebody brought to a tree. */
export interface Watering {
  readonly wateredOn: IsoDate;
  /** Poured, whatever of it missed the ball. */
  readonly litres: number;
  /** Found in the ball before it was poured, and after. */
  readonly probeBefore?: ProbeClass | undefined;
  readonly probeAfter?: ProbeClass | undefined;
  /** In the top of the ball, before it was poured. */
  readonly fingerBefore?: FingerClass | undefined;
  /** Water over the soil of its ring, and how long the ring took to empty: a reading of the drainage. */
  readonly ringMm?: number | undefined;
  readonly ringMinutes?: number | undefined;
  /** Told by whoever keeps the tree, by its link, or by a controller of valves: nobody of the programme was there. */
  readonly toldBy?: 'keeper' | 'controller' | undefined;
}

/** Something that brings its water, set at a tree. */
export interface DeviceFacts {
  readonly setOn: IsoDate;
  /** Of the catalogue. */
  readonly deviceId: string;
  /** As it was called then. */
  readonly deviceName: string;
  /** How many were joined. */
  readonly joined: number;
  /** Off by then; `null` where it may stay. */
  readonly offBy: IsoDate | null;
}

export interface RemedyDone {
  readonly remedy: RemedyCode;
  readonly doneOn: IsoDate;
  /** What shows it, seen once it was done; left out where nothing can, or nobody looked. */
  readonly seen?: RemedySeen | undefined;
  /** Measured before anything was done, where the measure is what shows it. */
  readonly before?: RemedyBefore | undefined;
}

/** mm; a flare's depth is below the surface. */
export interface RemedyBefore {
  readonly flareDepthMm?: number | undefined;
  readonly mulchDepthMm?: number | undefined;
}

/** A tree that drinks otherwise than its species and crown say, as its own readings show. */
export interface SiteWaterFacts {
  readonly decidedOn: IsoDate;
  /** Of what is expected of it; 1 sets it back. */
  readonly useTimes: number;
  readonly reason: string;
}

/** What a sensor in the ball said of a day. */
export interface SensorFacts {
  readonly readOn: IsoDate;
  readonly sensor: string;
  /** Of what the ball holds at field capacity; `null` where it said nothing. */
  readonly share: number | null;
  /** It is the middle of so many. */
  readonly values: number;
  /** Why it is not believed; `null` where it is. */
  readonly flag: SensorFlag | null;
}

/** Degrees, [longitude, latitude], WGS 84. */
export type Position = readonly [lng: number, lat: number];

/** A spot set elsewhere: both places, so that the record can be read by itself. */
export interface Move {
  readonly movedOn: IsoDate;
  readonly from: Position;
  readonly to: Position;
  readonly reason: string;
}

/** Takes back the record it supersedes: that one was a slip and counts for no date. */
export interface Retraction {
  readonly reason: string;
}

/** What the coordinator decided about a place, after what Sombra proposed. */
export interface VerdictFacts {
  readonly decidedOn: IsoDate;
  readonly verdict: SiteVerdict;
  /** Why; for `plant_if` what must change first, for `move` where to. */
  readonly reason: string;
}

/** The tree to buy for a spot. */
export interface ChoiceFacts {
  readonly chosenOn: IsoDate;
  /** Botanical name. */
  readonly species: string;
  readonly stockKind: StockKind | null;
  readonly caliperMm: number | null;
  readonly reason: string;
}

/** One choice of the practice made otherwise for this spot. */
export interface OverrideFacts extends Override {
  readonly decidedOn: IsoDate;
}

/** A tree that needs no more help, and why it counts as such where something is not shown. */
export interface SignedOffFacts {
  readonly signedOn: IsoDate;
  /** Empty where all of it is shown. */
  readonly reason: string;
}

/** What somebody was sent out to do at a spot and could not do. */
export interface NotDoneFacts {
  readonly task: AssignmentKind;
  readonly triedOn: IsoDate;
  readonly reason: string;
}

/** Two records that seem to contradict each other may both be so. */
export interface BothStandFacts {
  readonly first: string;
  readonly second: string;
  readonly decidedOn: IsoDate;
  readonly reason: string;
}

export interface RecordFacts {
  ground: GroundFacts;
  assessment: Assessment;
  percolation: PercolationTest;
  verdict: VerdictFacts;
  choice: ChoiceFacts;
  override: OverrideFacts;
  stock: Stock;
  planting: PlantingFacts;
  inspection: Inspection;
  remedy: RemedyDone;
  watering: Watering;
  device: DeviceFacts;
  site_water: SiteWaterFacts;
  sensor: SensorFacts;
  move: Move;
  not_done: NotDoneFacts;
  both_stand: BothStandFacts;
  hazard: HazardFacts;
  hazard_closed: HazardClosedFacts;
  signed_off: SignedOffFacts;
  arborist_answer: ArboristAnswerFacts;
  declined: DeclinedFacts;
  claim: ClaimFacts;
  pest_told: PestToldFacts;
  resident_told: ResidentToldFacts;
  removal: RemovalFacts;
  retraction: Retraction;
}

export type RecordKind = keyof RecordFacts;

/** Who makes records of a kind; the contract says which roles that is. */
export type Recorders = 'field' | 'leads' | 'coordinator' | 'everyone_in_the_field';

type DayFact<F> = { [K in keyof F]-?: F[K] extends IsoDate ? K : never }[keyof F];

interface RecordKindRow<F> {
  /** Heads what was recorded. */
  readonly name: string;
  /** Goes on after *may*. */
  readonly act: string;
  readonly by: Recorders;
  /** The stage whose bench holds its form. */
  readonly stage: Stage;
  /** The fact with the day it speaks of: else the day it was `recorded`, or `none`, where it speaks of all days. */
  readonly day: DayFact<F> | 'recorded' | 'none';
  /** Of the place alone, of the tree assigned to it, or of either. */
  readonly of: 'place' | 'tree' | 'either';
  /** Whether it asks for a tree that is planted, or for none. */
  readonly when: 'planted' | 'not_planted' | 'any_time';
  /** Edited by one person at a time: a save from an older state is shown both, never merged by itself. */
  readonly versioned: boolean;
  /** Taken back by a retraction: `offered` at once as the act is done, or only `possible`. */
  readonly takeBack: 'offered' | 'possible' | 'never';
}

/**
 * What there is to know of each kind of record. A new kind is its facts above, its row here, its schema in the
 * contract, its form, and what follows from it; the compiler asks for each.
 */
export const recordTable: { readonly [K in RecordKind]: RecordKindRow<RecordFacts[K]> } = {
  ground: {
    name: 'Ground facts',
    act: 'record the ground of a spot',
    by: 'field',
    stage: 'ground',
    day: 'recorded',
    of: 'place',
    when: 'any_time',
    versioned: true,
    takeBack: 'never',
  },
  assessment: {
    name: 'Surroundings',
    act: 'assess a place',
    by: 'field',
    stage: 'ground',
    day: 'assessedOn',
    of: 'place',
    when: 'any_time',
    versioned: true,
    takeBack: 'never',
  },
  percolation: {
    name: 'Percolation test',
    act: 'record a percolation test',
    by: 'field',
    stage: 'ground',
    day: 'testedOn',
    of: 'place',
    when: 'any_time',
    versioned: false,
    takeBack: 'never',
  },
  verdict: {
    name: 'Verdict on the place',
    act: 'decide whether a place is planted',
    by: 'coordinator',
    stage: 'ground',
    day: 'decidedOn',
    of: 'place',
    when: 'not_planted',
    versioned: false,
    takeBack: 'offered',
  },
  choice: {
    name: 'Species chosen',
    act: 'choose the tree of a spot',
    by: 'coordinator',
    stage: 'match',
    day: 'chosenOn',
    of: 'tree',
    when: 'not_planted',
    versioned: false,
    takeBack: 'offered',
  },
  override: {
    name: 'Practice made otherwise here',
    act: 'make a choice of the practice otherwise at one spot',
    by: 'coordinator',
    stage: 'pit',
    day: 'decidedOn',
    of: 'place',
    when: 'any_time',
    versioned: false,
    takeBack: 'offered',
  },
  stock: {
    name: 'Stock measures',
    act: 'record stock as received',
    by: 'leads',
    stage: 'stock',
    day: 'recorded',
    of: 'tree',
    when: 'any_time',
    versioned: true,
    takeBack: 'never',
  },
  planting: {
    name: 'Planted, as built',
    act: 'record a planting',
    by: 'leads',
    stage: 'day',
    day: 'plantedOn',
    of: 'tree',
    when: 'any_time',
    versioned: false,
    takeBack: 'possible',
  },
  inspection: {
    name: 'Inspection',
    act: 'record a look',
    by: 'field',
    stage: 'inspect',
    day: 'inspectedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'possible',
  },
  remedy: {
    name: 'Remedy done',
    act: 'record a remedy as done',
    by: 'field',
    stage: 'inspect',
    day: 'doneOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  watering: {
    name: 'Watered',
    act: 'record a watering',
    by: 'everyone_in_the_field',
    stage: 'inspect',
    day: 'wateredOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  device: {
    name: 'Watering device set',
    act: 'set a watering device',
    by: 'everyone_in_the_field',
    stage: 'inspect',
    day: 'setOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  site_water: {
    name: 'Water use set by its readings',
    act: 'set what a tree drinks by its readings',
    by: 'field',
    stage: 'inspect',
    day: 'decidedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  sensor: {
    name: 'Sensor in the ball',
    act: 'keep what a sensor says',
    by: 'field',
    stage: 'inspect',
    day: 'readOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'possible',
  },
  move: {
    name: 'Spot moved',
    act: 'move a spot',
    by: 'leads',
    stage: 'ground',
    day: 'movedOn',
    of: 'place',
    when: 'any_time',
    versioned: false,
    takeBack: 'offered',
  },
  not_done: {
    name: 'Could not be done',
    act: 'say that something could not be done, and why',
    by: 'everyone_in_the_field',
    stage: 'inspect',
    day: 'triedOn',
    of: 'either',
    when: 'any_time',
    versioned: false,
    takeBack: 'offered',
  },
  both_stand: {
    name: 'Both records stand',
    act: 'settle records that contradict each other',
    by: 'coordinator',
    stage: 'inspect',
    day: 'decidedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  hazard: {
    name: 'Hazard',
    act: 'tell of a hazard',
    by: 'everyone_in_the_field',
    stage: 'inspect',
    day: 'seenOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  hazard_closed: {
    name: 'Hazard closed',
    act: 'close a hazard',
    by: 'leads',
    stage: 'inspect',
    day: 'closedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  signed_off: {
    name: 'Signed off as established',
    act: 'sign a tree off as established',
    by: 'leads',
    stage: 'inspect',
    day: 'signedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  arborist_answer: {
    name: 'Answer of an arborist',
    act: 'record what an arborist says',
    by: 'leads',
    stage: 'inspect',
    day: 'answeredOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  declined: {
    name: 'Decided against advice',
    act: 'decide against a remedy',
    by: 'leads',
    stage: 'inspect',
    day: 'decidedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  claim: {
    name: 'Claimed within the warranty',
    act: 'claim another tree',
    by: 'leads',
    stage: 'inspect',
    day: 'claimedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  pest_told: {
    name: 'Told of a pest',
    act: 'tell of a notifiable pest',
    by: 'field',
    stage: 'inspect',
    day: 'toldOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  resident_told: {
    name: 'Told by a resident',
    act: 'pass on what a resident tells of a tree',
    by: 'leads',
    stage: 'inspect',
    day: 'toldOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  removal: {
    name: 'Tree taken out',
    act: 'record that a tree is gone',
    by: 'leads',
    stage: 'inspect',
    day: 'removedOn',
    of: 'tree',
    when: 'planted',
    versioned: false,
    takeBack: 'offered',
  },
  retraction: {
    name: 'Taken back',
    act: 'take back what one may record',
    by: 'everyone_in_the_field',
    stage: 'inspect',
    day: 'none',
    of: 'either',
    when: 'any_time',
    versioned: false,
    takeBack: 'never',
  },
};

export const recordKinds = Object.keys(recordTable) as readonly RecordKind[];
