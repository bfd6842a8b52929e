import {
  actOfRecord,
  fieldRecordSchema,
  type KeptRecord,
  type RecordReceipt,
  type SendRecord,
  type User,
} from '@sombra/contract';
import {
  ConflictError,
  inOrder,
  NotFoundError,
  ofKind,
  standing,
  recordTable,
  whenItHappened,
  type FieldRecord,
  type RecordFacts,
  type RecordKind,
} from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { spotDetail } from '../ground/service';
import {
  bumpSpot,
  lockSpot,
  lockedFrom,
  placeSpot,
  replaceTree,
  rowLocks,
  setSpecies,
  standingQuestion,
  treeStandsAgain,
  type LockedSpot,
} from '../spots/repository';
import { asActor, askTogether, type Db } from '../platform/db';
import { parse } from '../platform/problems';
import { requireMay } from '../platform/sessions';
import { deriveAndKeep } from '../record/derive';
import { requireFits } from './fits';
import {
  findRecord,
  groundsQuestion,
  insertRecord,
  knownQuestion,
  recordOfRow,
  recordsFrom,
  recordsOfSpots,
  recordsQuestion,
  type RecordRow,
  type SpotGround,
} from '../record/repository';
import { basisQuestion } from '../record/basis-repository';
import { basisOf, programmeBasis, type ProgrammeBasis } from '../record/spot-context';
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
  const receivedAt = new Date().toISOString();
  return asActor(db, user.name, async (trx) => {
    const spotIds = [...new Set(sent.map(({ spotId }) => spotId))];
    const act = await openAct(trx, {
      user,
      deviceNow,
      receivedAt,
      spotIds,
      recordIds: sent.map((one) => one.record.id),
    });
    const receipts: RecordReceipt[] = [];
    for (const one of sent) receipts.push(await keepOne(act, one));
    const stored = new Set(receipts.filter((one) => one.stored).map(({ id }) => id));
    const changed = spotIds.filter((id) => sent.some(({ spotId, record }) => spotId === id && stored.has(record.id)));
    const unsettled = sent.some(({ record }) => unsettling.includes(record.kind));
    const grounds = unsettled ? null : act.grounds.filter(({ id }) => changed.includes(id));
    if (changed.length > 0) await deriveAndKeep(trx, changed, { ...act, grounds });
    return receipts;
  });
}

/** One act on several spots: what it found when it had locked them, and what it has made of that so far. */
interface Act {
  readonly trx: Knex.Transaction;
  readonly user: User;
  /** Of the device, ISO 8601; `null` where it did not say. */
  readonly deviceNow: string | null;
  readonly receivedAt: string;
  readonly programme: ProgrammeBasis;
  readonly spots: Map<string, LockedSpot>;
  readonly grounds: readonly SpotGround[];
  readonly records: Map<string, KeptRecord[]>;
  /** Records whose ids were sent and that are here already. */
  readonly known: Map<string, RecordRow>;
}

async function openAct(
  trx: Knex.Transaction,
  {
    spotIds,
    recordIds,
    ...of
  }: Pick<Act, 'user' | 'deviceNow' | 'receivedAt'> & {
    readonly spotIds: readonly string[];
    readonly recordIds: readonly string[];
  },
): Promise<Act> {
  const locks = await rowLocks(trx, spotIds);
  const asked = await askTogether(trx, {
    standing: standingQuestion(trx, spotIds),
    grounds: groundsQuestion(trx, spotIds),
    known: knownQuestion(trx, recordIds),
    records: recordsQuestion(trx, spotIds),
    basis: basisQuestion(trx),
  });
  return {
    trx,
    ...of,
    programme: await basisOf(trx, asked.basis),
    spots: lockedFrom(locks, asked.standing),
    grounds: asked.grounds as readonly SpotGround[],
    records: recordsFrom(spotIds, asked.records),
    known: new Map((asked.known as readonly RecordRow[]).map((row) => [row.id, row])),
  };
}

/** Kinds that may set a spot elsewhere, or another tree in the place of the one that stood there. */
const unsettling: readonly RecordKind[] = ['removal', 'move', 'retraction'];

async function keepOne(act: Act, sent: SendRecord): Promise<RecordReceipt> {
  const { trx, user } = act;
  const spot = act.spots.get(sent.spotId);
  if (!spot) throw new NotFoundError('no such spot', 'spotId');
  const before = act.known.get(sent.record.id);
  if (before) {
    requireSame(sent, recordOfRow(before), before.spot_id);
    return { id: sent.record.id, stored: false, spotVersion: spot.version };
  }
  await requireVersion(trx, sent, spot);
  const { record, device } = sent;
  const { programme } = act;
  await requireFits(trx, record, { user, spot, programme, records: act.records.get(spot.id) ?? [] });
  const clock = { deviceNow: act.deviceNow, aheadMs: sent.aheadMs };
  const happened = whenItHappened(record.recordedAt, clock, act.receivedAt);
  const by = { recordedBy: user.name, recordedById: user.id };
  const row = await insertRecord(trx, { spotId: spot.id, treeId: spot.treeId, ...by, device, record, happened });
  act.known.set(record.id, row);
  const records = inOrder([...(act.records.get(spot.id) ?? []), recordOfRow(row)]);
  act.records.set(spot.id, records);
  if (record.kind === 'planting') await releasePlaces(trx, [spot.id]);
  if (record.kind === 'removal' && record.supersedes === null) {
    await replaceTree(trx, { spotId: spot.id, newId: randomUUID() });
  }
  if (record.kind === 'retraction') await settleRemoval(trx, sent);
  if (record.kind === 'move' || record.kind === 'retraction') await settlePosition(trx, sent, records);
  if (record.kind === 'choice' || record.kind === 'retraction') await settleSpecies(trx, sent, spot.treeId, records);
  const version = await bumpSpot(trx, spot.id, user.name);
  const now = unsettling.includes(record.kind)
    ? await lockSpot(trx, spot.id)
    : { ...spot, version, changedBy: user.name };
  if (now) act.spots.set(spot.id, now);
  return { id: record.id, stored: true, spotVersion: version };
}

/** What comes from no account: a keeper's link, a controller of valves, a sensor, a resident. */
type Told = {
  [K in 'watering' | 'sensor' | 'resident_told']: { readonly kind: K; readonly facts: RecordFacts[K] };
}['watering' | 'sensor' | 'resident_told'];

/**
 * Keeps a record that somebody or something without an account told, under what any of its kind asks of its spot. Kept
 * already, it is left as it is.
 * @returns whether it was kept now
 */
export async function keepTold(
  trx: Knex.Transaction,
  {
    spotId,
    by,
    recordId,
    told,
  }: {
    readonly spotId: string;
    readonly by: string;
    readonly recordId: string;
    readonly told: Told;
  },
): Promise<boolean> {
  const spot = await lockSpot(trx, spotId);
  if (!spot) throw new NotFoundError('no such spot', 'spotId');
  if (await findRecord(trx, recordId)) return false;
  const record: FieldRecord = { id: recordId, recordedAt: new Date().toISOString(), supersedes: null, ...told };
  const nobody: User = { id: '', signIn: '', name: by, role: 'waterer', units: 'metric' };
  // Everybody who opens the tree reads it: what no schema takes is never stored.
  parse(fieldRecordSchema, record);
  const records = (await recordsOfSpots(trx, [spotId])).get(spotId) ?? [];
  await requireFits(trx, record, { user: nobody, spot, programme: await programmeBasis(trx), records });
  await insertRecord(trx, { spotId, treeId: spot.treeId, recordedBy: by, device: 'link', record });
  await deriveAndKeep(trx, [spotId]);
  await bumpSpot(trx, spotId, by);
  return true;
}

/** After a move, or one taken back, the spot stands where its records put it. */
async function settlePosition(
  trx: Knex.Transaction,
  { spotId, record }: SendRecord,
  records: readonly KeptRecord[],
): Promise<void> {
  const moves = ofKind(records, 'move');
  const from = moves.find(({ id }) => id === record.supersedes)?.facts.from;
  const at = ofKind(standing(records), 'move').at(-1)?.facts.to ?? from;
  if (at) await placeSpot(trx, spotId, at);
}

/** A tree whose removal is taken back stands again. @throws ConflictError where the next one is on record already */
async function settleRemoval(trx: Knex.Transaction, { spotId, record }: SendRecord): Promise<void> {
  const removal = record.supersedes === null ? undefined : await findRecord(trx, record.supersedes);
  if (removal?.kind !== 'removal' || removal.tree_id === null) return;
  if (await treeStandsAgain(trx, { spotId, treeId: removal.tree_id })) return;
  throw new ConflictError('the next tree is on record already', 'record.supersedes', {
    title: 'Something was recorded of the tree that came after; it was not taken back.',
    current: await spotDetail(trx, spotId),
  });
}

/** The tree of a spot is of the species chosen last; a choice taken back leaves none. */
async function settleSpecies(
  trx: Knex.Transaction,
  { record }: SendRecord,
  treeId: string | null,
  records: readonly KeptRecord[],
): Promise<void> {
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
  if (!recordTable[sent.record.kind].versioned) return;
  if (sent.spotVersion === spot.version) return;
  throw new ConflictError(`spot is at version ${spot.version}, got ${sent.spotVersion ?? 'none'}`, 'spotVersion', {
    title: `${spot.changedBy} changed this spot while you were editing it. Nothing of yours was stored yet.`,
    current: await spotDetail(trx, spot.id),
  });
}
