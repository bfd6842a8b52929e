import type { SensorFlag } from '../water';
import type {
  ArboristAdvice,
  DecisionKind,
  EstablishingState,
  EstablishmentStep,
  HazardKind,
  RemovalWhy,
  Stage,
  StumpState,
} from '../record';
import type { Level } from '../reason';
import type { PercolationQuestion } from '../ground';
import type {
  GroundOwner,
  PercolationClass,
  ReplyState,
  Rubbing,
  SiteThing,
  SiteVerdict,
  SizeClass,
  SoilClass,
  TicketStanding,
  WindExposure,
  Wish,
} from '../ground';
import type { FingerClass, MulchContact, ProbeClass, StakeState } from '../inspect';
import type { CutAway, PlumbState, RootWork } from '../day';
import type { FitPart, Grade, NameSign, Rank } from '../match';
import type { Hands, LabourTask } from '../pit';
import type {
  BallState,
  CrownFace,
  LabelKind,
  LeaderState,
  ReceivingVerdict,
  RootNature,
  SignState,
  StockKind,
  WoundGrade,
  WrapKind,
} from '../stock';
import { measuredFacts, type MeasuredName } from './measured';

export const soilNames: Readonly<Record<SoilClass, string>> = {
  sand: 'sand',
  sandy_loam: 'sandy loam',
  loam: 'loam',
  clay_loam: 'clay loam',
  clay: 'clay',
};

export const percolationNames: Readonly<Record<PercolationClass, string>> = {
  stands: 'water stands',
  slow: 'slow',
  good: 'good',
  fast: 'fast',
};

export const stockNames: Readonly<Record<StockKind, string>> = {
  container: 'container',
  balled: 'balled',
  bare_root: 'bare-root',
};

export const mulchContactNames: Readonly<Record<MulchContact, string>> = {
  clear: 'clear of the trunk',
  touching: 'touching the trunk',
  heaped: 'heaped on the trunk',
};

export const stakeNames: Readonly<Record<StakeState, string>> = {
  none: 'no stake',
  in_place: 'in place, loose',
  tight: 'tie tight',
  biting: 'tie biting',
  broken: 'broken or leaning',
};

export const probeNames: Readonly<Record<ProbeClass, string>> = {
  dry: 'dry',
  slightly_dry: 'drying',
  moist: 'moist',
  wet: 'wet',
  saturated: 'waterlogged',
};

export const levelNames: Readonly<Record<Level, string>> = {
  good: 'Good',
  watch: 'Watch',
  act: 'Act',
  urgent: 'Urgent',
};

export const stageNames: Readonly<Record<Stage, string>> = {
  ground: 'Ground',
  match: 'Match',
  stock: 'Stock',
  pit: 'Pit',
  day: 'Day',
  water: 'Water',
  inspect: 'Inspect',
  results: 'Results',
};

export const decisionNames: Readonly<Record<DecisionKind, string>> = {
  measure_ground: 'Measure the ground',
  settle_ground: 'Decide on the place',
  move_spot: 'Move the spot',
  change_ground: 'Mend the place',
  choose_species: 'Choose the species',
  measure_stock: 'Measure the stock',
  resolve_pit: 'No pit plan',
  record_planting: 'Plant and record as built',
  settle_contradiction: 'Two records contradict each other',
  hazard: 'Hazard',
  do_remedy: 'Remedy',
  look: 'Inspect',
  sign_off: 'Say whether it is established',
  claim: 'Claim another tree while the warranty runs',
};

export const arboristAdviceNames: Readonly<Record<ArboristAdvice, string>> = {
  carried_out: 'work carried out',
  for_crew: 'the crew may do what is written',
  watch: 'to be watched, nothing to do now',
  take_out: 'to be taken out',
};

export const removalWhyNames: Readonly<Record<RemovalWhy, string>> = {
  dead: 'dead',
  hazard: 'a hazard',
  past_correction: 'past correction',
  storm: 'thrown by a storm',
  damaged: 'damaged',
  works: 'in the way of works',
  other: 'another reason',
};

export const stumpNames: Readonly<Record<StumpState, string>> = {
  out: 'dug out',
  ground_down: 'ground down',
  left: 'left in the ground',
};

export const declinedByNames = { owner: 'its owner, who was advised', programme: 'the programme' } as const;
export const claimedFromNames = { nursery: 'the nursery', contractor: 'the contractor' } as const;

export const establishingNames: Readonly<Record<EstablishingState, string>> = {
  established: 'established, signed off',
  ready: 'to be signed off',
  hangs: 'hangs: asks for something, or overdue for its look',
  on_the_way: 'on its way',
};

export const establishmentStepNames: Readonly<Record<EstablishmentStep, string>> = {
  time: 'Time',
  growth: 'Growth',
  firm: 'Stands',
  water: 'Water',
  look: 'Last look',
};

export const questionNames: Readonly<Record<PercolationQuestion, string>> = {
  too_few_readings: 'A rate needs at least three readings',
  clock_backwards: 'A reading is not later than the one before it',
  level_rises: 'The level rises between two readings',
  refilled: 'The hole was refilled: start a new series from there',
  hole_empty_too_soon: 'The hole emptied before three readings: read more often',
};

export const siteThingNames: Readonly<Record<SiteThing, string>> = {
  building: 'building',
  wire: 'overhead wire',
  kerb: 'kerb',
  junction: 'junction, along its kerbs',
  hydrant: 'hydrant',
  driveway: 'driveway',
  lamp: 'lamp post',
  sign: 'sign',
  private_line: 'private line',
  tree: 'next tree',
};

export const sizeNames: Readonly<Record<SizeClass, string>> = { small: 'small', medium: 'medium', large: 'large' };

export const siteVerdictNames: Readonly<Record<SiteVerdict, string>> = {
  plant: 'Plant',
  plant_if: 'Plant if',
  move: 'Move the spot',
  not_here: 'Not here',
};

export const ownerNames: Readonly<Record<GroundOwner, string>> = { road: 'road', park: 'park', yard: 'yard' };

export const windNames: Readonly<Record<WindExposure, string>> = {
  sheltered: 'sheltered',
  open: 'open',
  exposed: 'exposed',
};

export const wishNames: Readonly<Record<Wish, string>> = {
  no_thorns: 'no thorns',
  no_litter: 'little litter',
  no_pollen: 'little pollen',
  not_toxic: 'nothing poisonous',
  evergreen: 'green all year',
  deciduous: 'sun in winter',
};

export const ticketNames: Readonly<Record<TicketStanding, string>> = {
  unsent: 'Not taken yet',
  waiting: 'Replies open',
  overdue: 'Reply missing',
  conflict: 'Conflict',
  not_yet: 'Valid later',
  valid: 'Valid',
  renew: 'Renew',
  expired: 'Expired',
  withdrawn: 'Withdrawn',
};

export const replyNames: Readonly<Record<ReplyState, string>> = {
  waiting: 'no reply yet',
  clear: 'clear',
  marked: 'marked',
  conflict: 'conflict',
};

export const fitPartNames: Readonly<Record<FitPart, string>> = {
  soil: 'soil',
  water: 'water',
  chemistry: 'pH and salt',
  light: 'light',
  wind: 'wind',
  paving: 'paving',
  upkeep: 'upkeep',
  wishes: 'wishes',
  shade: 'shade given',
  nature: 'nature',
};

export const gradeNames: Readonly<Record<Grade, string>> = { low: 'low', medium: 'medium', high: 'high' };
/** A grade as an adverb: bears drought little. */
export const gradeWords: Readonly<Record<Grade, string>> = { low: 'little', medium: 'fairly', high: 'well' };

/** Names of recorded facts, for tables and messages. */
export const factNames: Readonly<Record<string, string>> = {
  ...(Object.fromEntries(Object.entries(measuredFacts).map(([key, { name }]) => [key, name])) as Record<
    MeasuredName,
    string
  >),
  task: 'Asked',
  soil: 'Soil',
  stony: 'Stony',
  compacted: 'Compacted',
  percolation: 'Percolation readings',
  kind: 'Stock kind',
  plantedOn: 'Planted on',
  stakes: 'Stakes set',
  roots: 'Roots of the ball',
  cutAway: 'Cut away',
  metRoot: 'Root of a neighbour met',
  plumb: 'Trunk from two sides',
  departure: 'Otherwise than planned',
  inspectedOn: 'Inspected on',
  wateredOn: 'Watered on',
  mulchContact: 'Mulch at the trunk',
  stake: 'Stake and tie',
  probe: 'Probe at ball depth',
  probeBefore: 'Ball before watering',
  probeAfter: 'Ball after watering',
  fingerBefore: 'Finger before watering',
  toldBy: 'Told by',
  useTimes: 'Drinks, of what is expected',
  readOn: 'Of',
  sensor: 'Sensor',
  share: 'Of what the ball holds',
  flag: 'Not believed',
  setOn: 'Set on',
  deviceName: 'Device',
  joined: 'Joined',
  offBy: 'Off by',
  circlingRoots: 'Circling roots',
  seenOn: 'Seen on',
  hazard: 'What',
  called: 'Called',
  cordoned: 'Cordoned off',
  closedOn: 'Closed on',
  alive: 'Twig and bark',
  aliveAt: 'Twig and bark by height',
  signs: 'Signs',
  rocks: 'Rocked by hand',
  guard: 'Guard',
  leftOn: 'Still on the tree',
  turf: 'Ring',
  flareBy: 'Depth of the flare',
  bark: 'Bark below the old line',
  anchors: 'Roots that hold it',
  instruments: 'Instruments',
  before: 'Before it was done',
  takenOver: 'Taken over',
  remedy: 'Remedy',
  arborist: 'Arborist',
  advice: 'Says',
  by: 'Decided by',
  claimedOn: 'Claimed on',
  pest: 'Pest',
  told: 'Told',
  why: 'Why',
  stump: 'Stump',
  pitReusable: 'Pit may be planted again',
  doneOn: 'Done on',
  movedOn: 'Moved on',
  reason: 'Reason',
  assessedOn: 'Looked at on',
  owner: 'Ground of',
  clearances: 'Clearances',
  privateLines: 'Private lines',
  plannedBuilding: 'Building planned',
  wind: 'Wind',
  rubble: 'Rubble',
  rubbedBy: 'Rubbed by',
  soilTestedOn: 'Soil tested on',
  wishes: 'Wishes of neighbours',
  note: 'Note',
  testedOn: 'Tested on',
  readings: 'Readings',
  decidedOn: 'Decided on',
  verdict: 'Verdict',
  chosenOn: 'Chosen on',
  species: 'Species',
  stockKind: 'Stock kind',
  finger: 'Finger in the top of the ball',
  face: 'Crown can point',
  adventitious: 'Roots from the buried stem',
  irrigation: 'Water it is given',
  neighbourRoots: 'Roots of a neighbour in the pit',
  horizons: 'Layers',
  arrival: 'How it came',
};

export const rootWorkNames: Readonly<Record<RootWork, string>> = {
  none_needed: 'none to correct',
  corrected: 'corrected',
  left: 'left as they were',
};

export const plumbNames: Readonly<Record<PlumbState, string>> = { upright: 'upright', leans: 'leans' };

export const cutAwayNames: Readonly<Record<CutAway, string>> = {
  wrap: 'wrap',
  basket: 'basket',
  ties: 'ties and rope',
  labels: 'labels',
  nursery_stake: 'nursery stake',
  broken_branches: 'broken branches',
};

export const fingerNames: Readonly<Record<FingerClass, string>> = { finger_dry: 'Dry', finger_moist: 'Moist' };

export const rubbingNames: Readonly<Record<Rubbing, string>> = { deer: 'deer', mowers: 'mowers' };

export const rankNames: Readonly<Record<Rank, string>> = { species: 'Species', genus: 'Genus', family: 'Family' };

export const labourTaskNames: Readonly<Record<LabourTask, string>> = {
  mark: 'mark out',
  turf: 'lift turf',
  carry: 'carry',
  unwrap: 'open and unwrap',
  roots: 'roots',
  prune: 'prune',
  dig: 'dig',
  place: 'place',
  fill: 'fill',
  feed: 'feed',
  stake: 'stake',
  berm: 'berm',
  mulch: 'mulch',
  water: 'water',
  guard: 'guard',
  label: 'label and record',
  look_on: 'show, watch, wait',
};

export const handsNames: Readonly<Record<Hands, string>> = { volunteers: 'volunteers', crews: 'crews' };

export const ballStateNames: Readonly<Record<BallState, string>> = {
  firm: 'firm',
  soft: 'soft',
  crumbling: 'crumbling',
  washed_out: 'washed out',
};

export const wrapKindNames: Readonly<Record<WrapKind, string>> = {
  none: 'none',
  natural: 'natural',
  treated: 'treated',
  synthetic: 'synthetic',
};

export const rootNatureNames: Readonly<Record<RootNature, string>> = {
  structural: 'structural',
  adventitious: 'adventitious',
  fine: 'fine',
};

export const labelKindNames: Readonly<Record<LabelKind, string>> = {
  as_ordered: 'the botanical name ordered',
  other: 'another botanical name',
  trade: 'a trade name only',
  none: 'no name',
};

export const signNames: Readonly<Record<SignState, string>> = {
  agrees: 'it is there',
  differs: 'it is not',
  unsure: 'cannot tell',
};

/** The one sign to look for, in a sentence. */
export function saySign(sign: NameSign | null): string {
  if (sign === null) return 'A leaf, a bud or the bark, beside a tree that is surely named.';
  const others = sign.others.map(({ botanical }) => botanical).join(', ');
  const leaves = { evergreen: 'green all year', semi: 'half green in winter', deciduous: 'bare in winter' } as const;
  const apart = sign.others.filter(({ foliage }) => foliage !== sign.foliage);
  const told =
    apart.length > 0
      ? `This one is ${leaves[sign.foliage]}; ${apart.map(({ botanical, foliage }) => `${botanical} is ${leaves[foliage]}`).join(', ')}.`
      : 'All keep their leaves alike: hold a leaf beside one that is surely named.';
  return `Sold as ${sign.common}, which may also be ${others}. ${told}`;
}

export const crownFaceNames: Readonly<Record<CrownFace, string>> = {
  even: 'even all round',
  marked: 'best face marked',
  one_sided: 'bare on one side',
};

export const leaderNames: Readonly<Record<LeaderState, string>> = { single: 'single', split: 'split', lost: 'lost' };

export const woundNames: Readonly<Record<WoundGrade, string>> = { none: 'none', small: 'small', large: 'large' };

export const receivingNames: Readonly<Record<ReceivingVerdict, string>> = {
  accept: 'Accept',
  correct: 'Correct at planting',
  hold: 'Hold',
  return: 'Return',
};

export const sensorFlagNames: Readonly<Record<SensorFlag, string>> = {
  silent: 'too few values',
  stuck: 'hangs at one value',
  jumps: 'falls as no ball does',
  out_of_range: 'a value that cannot be',
  drifts: 'runs away from the balance',
};

export const hazardNames: Readonly<Record<HazardKind, string>> = {
  branch_hanging: 'Branch broken or hanging',
  tree_leaning: 'Tree leaning or loose',
  roots_lifting: 'Ground lifting at the roots',
  stake_fallen: 'Stake or guard in the way',
  wire_touched: 'Touching a wire',
  other: 'Something else',
};
