import { actOfRecord, versionedKinds, type RecordReceipt, type SendRecord, type User } from '@sombra/contract';
import {
  addDaysTo,
  ConflictError,
  InvalidInputError,
  isLook,
  NotFoundError,
  ofKind,
  requirePractice,
  spotLife,
  standing,
  testReadings,
  whenItHappened,
  withChoice,
  type FieldRecord,
  type IsoDate,
  type RecordOfKind,
} from '@sombra/core';
import type { Knex } from 'knex';
import { isDeepStrictEqual } from 'node:util';
import { spotDetail } from '../ground/service';
import { requireCover } from '../ground/leave-service';
import { bumpSpot, lockSpot, lockSpots, placeSpot, setSpecies, type LockedSpot } from '../spots/repository';
import { asActor, type Db } from '../platform/db';
import { requireMay } from '../platform/sessions';
import { deriveAndKeep } from '../record/derive';
import { contextOf, programmeBasis } from '../record/spot-context';
import {
  findRecord,
  insertRecords,
  isSuperseded,
  ofPlaceAlone,
  recordOfRow,
  recordsOfSpots,
} from '../record/repository';
import { programmeToday } from '../programme/today';
import { releasePlaces } from '../orders/repository';

/**
 * Keeps one record, as one transaction with what follows from it. A record that is already here is left
 * as it is and acknowledged again.
 * @throws ConflictError when the spot has changed since the facts were read (`details.current` holds it),
 *   when the record id carries other facts, or when the corrected record was corrected already.
 */
export async function keepRecord(
  db: Knex,
  user: User,
  sent: SendRecord,
  deviceNow: string | null,
): Promise<RecordReceipt> {
  const [receipt] = await keepRecords(db, user, [sent], deviceNow);
  return receipt as RecordReceipt;
}

/**
 * Keeps the records of one act on several spots, all or none; each by the rules of `keepRecord`.
 * @param deviceNow the clock of the device as it sent them, ISO 8601; `null` where it did not say
 */
export async function keepRecords(
  db: Knex,
  user: User,
  sent: readonly SendRecord[],
  deviceNow: string | null,
): Promise<RecordReceipt[]> {
  for (const { record } of sent) requireMay(user, actOfRecord(record));
  const today = await programmeToday(db);
  const arrival = { today, deviceNow, receivedAt: new Date().toISOString() };
  return asActor(db, user.name, async (trx) => {
    const receipts = new Map<string, RecordReceipt>();
    await lockSpots(
      trx,
      sent.map(({ spotId }) => spotId),
    );
    for (const one of sent) receipts.set(one.record.id, await keepOne(trx, user, one, arrival));
    const changed = sent.filter(({ record }) => receipts.get(record.id)?.stored).map(({ spotId }) => spotId);
    if (changed.length > 0) await deriveAndKeep(trx, [...new Set(changed)]);
    return sent.map(({ record }) => receipts.get(record.id) as RecordReceipt);
  });
}

interface Arrival {
  readonly today: IsoDate;
  readonly deviceNow: string | null;
  readonly receivedAt: string;
}

async function keepOne(trx: Knex.Transaction, user: User, sent: SendRecord, arrival: Arrival): Promise<RecordReceipt> {
  const spot = await lockSpot(trx, sent.spotId);
  if (!spot) throw new NotFoundError('no such spot', 'spotId');
  const before = await findRecord(trx, sent.record.id);
  if (before) {
    requireSame(sent, recordOfRow(before), before.spot_id);
    return { id: sent.record.id, stored: false, spotVersion: spot.version };
  }
  await requireVersion(trx, sent, spot);
  await requireFits(trx, user, sent, { spot, today: arrival.today });
  const { record, device } = sent;
  const happened = whenItHappened(record.recordedAt, arrival.deviceNow, arrival.receivedAt);
  const by = { recordedBy: user.name, recordedById: user.id };
  await insertRecords(trx, [{ spotId: spot.id, treeId: spot.treeId, ...by, device, record, happened }]);
  if (record.kind === 'planting') await releasePlaces(trx, [spot.id]);
  if (record.kind === 'move' || record.kind === 'retraction') await settlePosition(trx, sent);
  if (record.kind === 'choice' || record.kind === 'retraction') await settleSpecies(trx, sent, spot.treeId);
  return { id: record.id, stored: true, spotVersion: await bumpSpot(trx, spot.id, user.name) };
}

/** After a move, or one taken back, the spot stands where its records put it. */
async function settlePosition(trx: Knex.Transaction, { spotId, record }: SendRecord): Promise<void> {
  const records = (await recordsOfSpots(trx, [spotId])).get(spotId) ?? [];
  const moves = ofKind(records, 'move');
  const from = moves.find(({ id }) => id === record.supersedes)?.facts.from;
  const at = ofKind(standing(records), 'move').at(-1)?.facts.to ?? from;
  if (at) await placeSpot(trx, spotId, at);
}

/** The tree of a spot is of the species chosen last; a choice taken back leaves none. */
async function settleSpecies(
  trx: Knex.Transaction,
  { spotId, record }: SendRecord,
  treeId: string | null,
): Promise<void> {
  const records = (await recordsOfSpots(trx, [spotId])).get(spotId) ?? [];
  const takenBack = ofKind(records, 'choice').some(({ id }) => id === record.supersedes);
  if (!treeId || (record.kind === 'retraction' && !takenBack)) return;
  await setSpecies(trx, treeId, ofKind(standing(records), 'choice').at(-1)?.facts.species ?? null);
}

function requireSame(sent: SendRecord, kept: FieldRecord, keptSpotId: string): void {
  const same =
    keptSpotId === sent.spotId && kept.kind === sent.record.kind && isDeepStrictEqual(kept.facts, sent.record.facts);
  if (!same)
    throw new ConflictError('this record id is taken by other facts', 'record.id', {
      title: 'This record was already stored with other facts',
    });
}

/** Facts edited at a desk must be based on the newest ones; looks and plantings stand side by side. */
async function requireVersion(trx: Db, sent: SendRecord, spot: LockedSpot): Promise<void> {
  if (!versionedKinds.includes(sent.record.kind)) return;
  if (sent.spotVersion === spot.version) return;
  throw new ConflictError(`spot is at version ${spot.version}, got ${sent.spotVersion ?? 'none'}`, 'spotVersion', {
    title: `${spot.changedBy} changed this spot while you were editing it. Nothing of yours was stored yet.`,
    current: await spotDetail(trx, spot.id),
  });
}

async function requireFits(
  trx: Db,
  user: User,
  { record }: SendRecord,
  { spot, today }: { spot: LockedSpot; today: IsoDate },
): Promise<void> {
  if (record.kind === 'retraction') return requireRetractable(trx, user, record, spot.id);
  if (!ofPlaceAlone.includes(record.kind) && spot.treeId === null) {
    throw new InvalidInputError('a tree must be assigned to the spot first', 'record.kind');
  }
  if (record.supersedes !== null) await requireCorrectable(trx, record, spot.id);
  if (record.kind === 'move') return requireMovable(trx, record, spot.id, today);
  if (record.kind === 'override') await requireOverride(trx, record, spot.id);
  requireSound(record);
  const plantedOn = latestPlanting((await recordsOfSpots(trx, [spot.id])).get(spot.id) ?? []);
  // One day of grace: a phone may live in a time zone ahead of the programme's.
  const lastDay = addDaysTo(today, 1);
  if (record.kind === 'planting') {
    requireDay('record.facts.plantedOn', record.facts.plantedOn, '1900-01-01', lastDay);
    await requireCover(trx, { spotId: spot.id }, record.facts.plantedOn);
  }
  if (plantedOn && (record.kind === 'choice' || record.kind === 'verdict')) {
    throw new InvalidInputError('a tree stands here already', 'record.kind', { title: 'A tree stands here already' });
  }
  if (record.kind === 'inspection' || record.kind === 'remedy') {
    if (!plantedOn) throw new InvalidInputError('the tree must be recorded as planted first', 'record.kind');
    if (record.kind === 'inspection')
      requireDay('record.facts.inspectedOn', record.facts.inspectedOn, plantedOn, lastDay);
    else requireDay('record.facts.doneOn', record.facts.doneOn, plantedOn, lastDay);
  }
}

/** Facts whose parts are each within their limits and still say nothing, or nothing that can be. */
export function requireSound(record: FieldRecord): void {
  if (record.kind === 'percolation') testReadings(record.facts, 'record.facts.readings');
  if (record.kind === 'inspection' && !isLook(record.facts)) {
    const title = 'Nothing was looked at: record one thing at least';
    throw new InvalidInputError('must hold one thing that was looked at', 'record.facts', { title });
  }
}

/** One choice made otherwise must leave a practice that could be adopted: no choice above the one it leads up to. */
async function requireOverride(trx: Db, { facts }: RecordOfKind<'override'>, spotId: string): Promise<void> {
  const records = (await recordsOfSpots(trx, [spotId])).get(spotId) ?? [];
  const { care } = spotLife(records, contextOf(await programmeBasis(trx), spotId, records));
  try {
    requirePractice(withChoice(care, facts.path, facts.value));
  } catch (error) {
    if (!(error instanceof InvalidInputError)) throw error;
    throw new InvalidInputError(error.message, 'record.facts.value', { ...error.details, title: `${error.message}.` });
  }
}

/** A move starts where the spot is; a planted tree does not move by record. */
async function requireMovable(trx: Db, { facts }: RecordOfKind<'move'>, spotId: string, today: IsoDate): Promise<void> {
  requireDay('record.facts.movedOn', facts.movedOn, '1900-01-01', addDaysTo(today, 1));
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

/** Only an act that nothing builds on can be taken back: not a correction, not one corrected since. */
async function requireRetractable(
  trx: Db,
  user: User,
  record: RecordOfKind<'retraction'>,
  spotId: string,
): Promise<void> {
  const target = record.supersedes ? await findRecord(trx, record.supersedes) : undefined;
  const retractable: readonly FieldRecord['kind'][] = ['remedy', 'inspection', 'move', 'verdict', 'choice', 'override'];
  if (!target || target.spot_id !== spotId || !retractable.includes(target.kind) || target.supersedes !== null) {
    const rule = 'must name a remedy, look, move, verdict or choice of this spot that corrects no other';
    throw new InvalidInputError(rule, 'record.supersedes');
  }
  // Who may not make it may not take it back either.
  requireMay(user, actOfRecord(recordOfRow(target)));
  if (await isSuperseded(trx, target.id)) {
    throw new ConflictError('that record was corrected already', 'record.supersedes', {
      title: 'Someone corrected this record first; it was not taken back.',
      current: await spotDetail(trx, spotId),
    });
  }
}

function latestPlanting(records: readonly FieldRecord[]): IsoDate | undefined {
  return records.filter((r) => r.kind === 'planting').at(-1)?.facts.plantedOn;
}

function requireDay(path: string, day: IsoDate, first: IsoDate, last: IsoDate): void {
  if (day < first || day > last)
    throw new InvalidInputError(`${path} must be within ${first} to ${last}, got ${day}`, path);
}

async function requireCorrectable(trx: Db, record: FieldRecord, spotId: string): Promise<void> {
  if (record.supersedes === null) return;
  const target = await findRecord(trx, record.supersedes);
  if (!target || target.spot_id !== spotId || target.kind !== record.kind) {
    throw new InvalidInputError('must name a record of the same kind at this spot', 'record.supersedes');
  }
  if (await isSuperseded(trx, record.supersedes)) {
    throw new ConflictError('that record was corrected already', 'record.supersedes', {
      title: 'Someone corrected this record first. Nothing of yours was stored yet.',
      current: await spotDetail(trx, spotId),
    });
  }
}
