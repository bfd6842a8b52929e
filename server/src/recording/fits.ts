import { actOfRecord, type KeptRecord, type User } from '@sombra/contract';
import {
  addDaysTo,
  ConflictError,
  contradictions,
  establishedOn,
  happenedOn,
  InvalidInputError,
  isLook,
  ofKind,
  openHazards,
  recordTable,
  requirePractice,
  spotLife,
  standing,
  testReadings,
  withChoice,
  type FieldRecord,
  type IsoDate,
  type RecordKind,
  type RecordOfKind,
} from '@sombra/core';
import { requireCover } from '../ground/leave-service';
import { spotDetail } from '../ground/service';
import type { Db } from '../platform/db';
import { requireMay } from '../platform/sessions';
import { contextOf, type ProgrammeBasis } from '../record/spot-context';
import type { LockedSpot } from '../spots/repository';

interface At {
  readonly user: User;
  readonly spot: LockedSpot;
  readonly programme: ProgrammeBasis;
  /** All of the spot, before this one. */
  readonly records: readonly KeptRecord[];
}

/**
 * What a record asks of its spot, as the table of kinds says it, and then what its own kind asks.
 * @throws InvalidInputError where it cannot be, ConflictError where somebody else was first
 */
export async function requireFits(trx: Db, record: FieldRecord, at: At): Promise<void> {
  const { of, when } = recordTable[record.kind];
  if (of === 'tree' && at.spot.treeId === null) {
    throw new InvalidInputError('a tree must be assigned to the spot first', 'record.kind');
  }
  if (record.kind !== 'retraction') await requireCorrectable(trx, record, at);
  requireSound(record);
  const plantedOn = when === 'any_time' ? undefined : latestPlanting(at.records);
  if (plantedOn && when === 'not_planted') {
    throw new InvalidInputError('a tree stands here already', 'record.kind', { title: 'A tree stands here already' });
  }
  if (!plantedOn && when === 'planted') {
    throw new InvalidInputError('the tree must be recorded as planted first', 'record.kind');
  }
  requireDay(record, (when === 'planted' && plantedOn) || firstDay, at.programme.today);
  await ownRules[record.kind]?.(trx, record as never, at);
}

/** Facts whose parts are each within their limits and still say nothing, or nothing that can be. */
export function requireSound(record: FieldRecord): void {
  if (record.kind === 'percolation') testReadings(record.facts, 'record.facts.readings');
  if (record.kind === 'inspection' && !isLook(record.facts)) {
    const title = 'Nothing was looked at: record one thing at least';
    throw new InvalidInputError('must hold one thing that was looked at', 'record.facts', { title });
  }
  if (record.kind === 'remedy' && record.facts.seen && Object.keys(record.facts.seen).length === 0) {
    const title = 'Nothing was seen: leave it out, or say what shows that it was done';
    throw new InvalidInputError('must hold one thing that was seen', 'record.facts.seen', { title });
  }
}

const ownRules: {
  readonly [K in RecordKind]?: (trx: Db, record: RecordOfKind<K>, at: At) => Promise<void> | void;
} = {
  planting: (trx, { facts }, { spot, programme }) => requireCover(trx, { spotId: spot.id }, facts, programme),
  override: requireOverride,
  both_stand: requireContradicting,
  hazard_closed: requireOpenHazard,
  signed_off: requireShownOrSaid,
  move: requireMovable,
  retraction: requireRetractable,
};

const firstDay = '1900-01-01';

/** One day of grace: a phone may live in a time zone ahead of the programme's. */
function requireDay(record: FieldRecord, first: IsoDate, today: IsoDate): void {
  const { day } = recordTable[record.kind];
  if (day === 'recorded' || day === 'none') return;
  const given = happenedOn(record) ?? '';
  const last = addDaysTo(today, 1);
  if (given < first || given > last) {
    const path = `record.facts.${day}`;
    throw new InvalidInputError(`${path} must be within ${first} to ${last}, got ${given}`, path);
  }
}

/** A hazard is closed once, at the tree it was told of. */
function requireOpenHazard(_trx: Db, { facts }: RecordOfKind<'hazard_closed'>, { records }: At): void {
  if (openHazards(standing(records)).some(({ id }) => id === facts.hazardId)) return;
  const title = 'This hazard is closed already, or was never told of this tree';
  throw new InvalidInputError('hazardId must be of an open hazard of this tree', 'record.facts.hazardId', { title });
}

/** Where something is not shown, whoever signs a tree off says why it counts as established all the same. */
function requireShownOrSaid(
  _trx: Db,
  { facts: { signedOn, reason } }: RecordOfKind<'signed_off'>,
  { spot, programme, records }: At,
): void {
  const { establishment } = spotLife(records, contextOf(programme, spot.id, records));
  const lacks = establishment && establishedOn(establishment, signedOn).some(({ state }) => state !== 'met');
  if (!lacks || reason.length >= 3) return;
  const title = 'Something is not shown yet: say why it counts as established all the same';
  throw new InvalidInputError('reason must say why, in 3 letters or more', 'record.facts.reason', { title });
}

/** One choice made otherwise must leave a practice that could be adopted: no choice above the one it leads up to. */
function requireOverride(_trx: Db, { facts }: RecordOfKind<'override'>, { spot, programme, records }: At): void {
  const { care } = spotLife(records, contextOf(programme, spot.id, records));
  try {
    requirePractice(withChoice(care, facts.path, facts.value));
  } catch (error) {
    if (!(error instanceof InvalidInputError)) throw error;
    throw new InvalidInputError(error.message, 'record.facts.value', { ...error.details, title: `${error.message}.` });
  }
}

/** A move starts where the spot is; a planted tree does not move by record. */
async function requireMovable(trx: Db, { facts }: RecordOfKind<'move'>, { spot: { id: spotId } }: At): Promise<void> {
  const detail = await spotDetail(trx, spotId);
  const [lng, lat] = detail.spot.position;
  // About a metre: the spot was moved by somebody else since this was drawn.
  if (Math.abs(lng - facts.from[0]) > 1e-5 || Math.abs(lat - facts.from[1]) > 1e-5) {
    throw new ConflictError('the spot is elsewhere by now', 'record.facts.from', {
      title: 'Someone moved this spot first. Nothing of yours was stored yet.',
      current: detail,
    });
  }
  if (latestPlanting(standing(detail.records))) {
    throw new InvalidInputError('a planted tree cannot be moved by moving its spot', 'record.kind', {
      title: 'A tree stands here: lifting and replanting is recorded as a planting, not as a move',
    });
  }
}

/** Both can stand only where they contradict each other, at this spot. */
function requireContradicting(
  _trx: Db,
  { facts: { first, second } }: RecordOfKind<'both_stand'>,
  { records }: At,
): void {
  const names = new Set([first, second]);
  const found = contradictions(records).some((one) => names.has(one.first.id) && names.has(one.second.id));
  if (!found) {
    const title = 'These two records do not contradict each other any more';
    throw new InvalidInputError('must name two records that contradict each other', 'record.facts', { title });
  }
}

/** Only an act that nothing builds on can be taken back: not a correction, not one corrected since. */
async function requireRetractable(
  trx: Db,
  record: RecordOfKind<'retraction'>,
  { user, spot: { id: spotId }, records }: At,
): Promise<void> {
  const target = records.find(({ id }) => id === record.supersedes);
  if (!target || recordTable[target.kind].takeBack === 'never' || target.supersedes !== null) {
    const rule = 'must name an act of this spot that can be taken back and corrects no other';
    throw new InvalidInputError(rule, 'record.supersedes');
  }
  if (target.kind === 'planting') requireOtherPlanting(records, target.id);
  // Who may not make it may not take it back either.
  requireMay(user, actOfRecord(target));
  if (isSuperseded(records, target.id)) {
    throw new ConflictError('that record was corrected already', 'record.supersedes', {
      title: 'Someone corrected this record first; it was not taken back.',
      current: await spotDetail(trx, spotId),
    });
  }
}

/** A planting is taken back where it was told twice; a tree that stands there has one. */
function requireOtherPlanting(records: readonly KeptRecord[], id: string): void {
  if (ofKind(standing(records), 'planting').some((one) => one.id !== id)) return;
  throw new InvalidInputError('must leave a planting of the tree that stands here', 'record.supersedes', {
    title: 'This is the only planting on record here: correct it, rather than take it back',
  });
}

function latestPlanting(records: readonly FieldRecord[]): IsoDate | undefined {
  return ofKind(standing(records), 'planting').at(-1)?.facts.plantedOn;
}

const isSuperseded = (records: readonly KeptRecord[], id: string): boolean =>
  records.some(({ supersedes }) => supersedes === id);

async function requireCorrectable(trx: Db, record: FieldRecord, { spot, records }: At): Promise<void> {
  if (record.supersedes === null) return;
  const target = records.find(({ id }) => id === record.supersedes);
  if (target?.kind !== record.kind) {
    throw new InvalidInputError('must name a record of the same kind at this spot', 'record.supersedes');
  }
  if (isSuperseded(records, record.supersedes)) {
    throw new ConflictError('that record was corrected already', 'record.supersedes', {
      title: 'Someone corrected this record first. Nothing of yours was stored yet.',
      current: await spotDetail(trx, spot.id),
    });
  }
}
