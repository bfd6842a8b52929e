import type { CareWord, CareWordKind, GiveCare, Keeper, NameDeputy } from '@sombra/contract';
import type { IsoDate, NextWater } from '@sombra/core';
import type { Knex } from 'knex';
import type { Db } from '../platform/db';

export interface KeeperRow {
  readonly id: string;
  readonly spot_id: string;
  readonly tree_id: string;
  readonly name: string;
  readonly email: string | null;
  readonly bucket_l: number;
  readonly deputy_of: string | null;
  readonly from_day: IsoDate | null;
  readonly until_day: IsoDate | null;
  readonly wants_letters: boolean;
  readonly since: IsoDate;
  readonly heard_on: IsoDate | null;
  readonly reminded_on: IsoDate | null;
  /** They were told that their tree needs them no more. */
  readonly last_told_on: IsoDate | null;
  readonly revoked_at: Date | null;
}

/** A keeper with the tree they keep, and when that tree next asks for water. */
export interface KeptTree extends KeeperRow {
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  /** Whether the tree they were given still stands there. */
  readonly standing: boolean;
  readonly deputy_of_name: string | null;
  /** Somebody stands in for them on the day asked about. */
  readonly has_deputy: boolean;
  readonly next: NextWater | null;
  /** Signed off: it needs no keeper any more. */
  readonly established_on: IsoDate | null;
}

const kept = (db: Db, today: IsoDate): Knex.QueryBuilder =>
  db('care_keeper as keeper')
    .join('spot', 'spot.id', 'keeper.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .join('tree', 'tree.id', 'keeper.tree_id')
    .leftJoin('tree_water as water', 'water.spot_id', 'keeper.spot_id')
    .leftJoin('spot_period as period', (on) => on.on('period.spot_id', 'keeper.spot_id').andOnNull('period.until_day'))
    .leftJoin('care_keeper as stood', 'stood.id', 'keeper.deputy_of')
    .select(
      'keeper.*',
      'spot.ref',
      'place.name as place',
      'tree.species',
      'tree.standing',
      'stood.name as deputy_of_name',
      'water.next',
      'period.established_on',
      db.raw(
        `exists (select from care_keeper as deputy where deputy.deputy_of = keeper.id and deputy.revoked_at is null
           and ? between deputy.from_day and deputy.until_day) as has_deputy`,
        [today],
      ),
    );

export const keepersOfSpot = async (db: Db, spotId: string, today: IsoDate): Promise<KeptTree[]> =>
  kept(db, today).where('keeper.spot_id', spotId).orderBy('keeper.made_at') as Promise<KeptTree[]>;

/** All who keep a tree now, by the number of their tree. */
export const allKeepers = async (db: Db, today: IsoDate): Promise<KeptTree[]> =>
  kept(db, today)
    .whereNull('keeper.revoked_at')
    .where('tree.standing', true)
    .orderBy(['spot.ref', 'keeper.made_at']) as Promise<KeptTree[]>;

/** In a transaction nobody else changes the keeper meanwhile. */
export async function findKeeper(db: Db, id: string, today: IsoDate): Promise<KeptTree | undefined> {
  if (db.isTransaction) await db('care_keeper').where({ id }).forUpdate().first('id');
  return ((await kept(db, today).where('keeper.id', id)) as KeptTree[])[0];
}

export async function keeperByToken(db: Db, tokenHash: string, today: IsoDate): Promise<KeptTree | undefined> {
  const link = await db('care_link').where({ token_hash: tokenHash }).first<{ keeper_id: string } | undefined>();
  return link && findKeeper(db, link.keeper_id, today);
}

/** Returns false where this id is there already. */
export async function insertKeeper(
  trx: Db,
  keeper: Omit<GiveCare, 'bucketL'> & {
    bucketL: number;
    spotId: string;
    treeId: string;
    since: IsoDate;
    by: string;
  } & {
    readonly deputy?: Pick<NameDeputy, 'fromDay' | 'untilDay'> & { readonly of: string };
  },
): Promise<boolean> {
  const { id, name, email, bucketL, spotId, treeId, since, by, deputy } = keeper;
  const row = {
    id,
    spot_id: spotId,
    tree_id: treeId,
    name,
    email: email === '' ? null : email,
    bucket_l: bucketL,
    since,
    made_by: by,
    deputy_of: deputy?.of ?? null,
    from_day: deputy?.fromDay ?? null,
    until_day: deputy?.untilDay ?? null,
  };
  return (await trx('care_keeper').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

/** Letters with older links lie in a mailbox for weeks; beyond these they open nothing. */
const mostLinks = 12;

export async function addLink(trx: Db, keeperId: string, tokenHash: string): Promise<void> {
  await trx('care_link').insert({ token_hash: tokenHash, keeper_id: keeperId });
  await trx('care_link')
    .where({ keeper_id: keeperId })
    .whereNotIn(
      'token_hash',
      trx('care_link').where({ keeper_id: keeperId }).orderBy('made_at', 'desc').limit(mostLinks).select('token_hash'),
    )
    .delete();
}

/** Their links open nothing any more, and their address is forgotten; so are those of who stands in for them. */
export async function revokeKeeper(trx: Db, id: string): Promise<void> {
  const them = await trx('care_keeper')
    .where((asked) => asked.where({ id }).orWhere({ deputy_of: id }))
    .whereNull('revoked_at')
    .update({ revoked_at: trx.fn.now(), email: null })
    .returning<{ id: string }[]>('id');
  await trx('care_link')
    .whereIn(
      'keeper_id',
      them.map((one) => one.id),
    )
    .delete();
}

/** Every link of a keeper ends: somebody else may have it. */
export async function dropLinks(trx: Db, keeperId: string): Promise<void> {
  await trx('care_link').where({ keeper_id: keeperId }).delete();
}

export async function setKeeper(
  trx: Db,
  id: string,
  change: {
    heard_on?: IsoDate;
    reminded_on?: IsoDate;
    last_told_on?: IsoDate | null;
    wants_letters?: boolean;
    bucket_l?: number;
  },
): Promise<void> {
  await trx('care_keeper').where({ id }).update(change);
}

export async function deputiesOf(db: Db, keeperId: string, today: IsoDate): Promise<KeeperRow[]> {
  return db<KeeperRow>('care_keeper')
    .where({ deputy_of: keeperId, revoked_at: null })
    .where('until_day', '>=', today)
    .orderBy('from_day');
}

interface WordRow {
  id: string;
  keeper_id: string;
  kind: CareWordKind;
  words: string;
  litres: number | null;
  said_at: Date;
  answered_at: Date | null;
  answered_by: string | null;
  answer: string;
}

const wordOf = ({ id, kind, words, litres, said_at, answered_by, answer }: WordRow): CareWord => ({
  id,
  kind,
  words,
  litres,
  saidAt: said_at.toISOString(),
  answeredBy: answered_by,
  answer,
});

/** Returns false where it was told already. */
export async function insertWord(
  trx: Db,
  word: { id: string; keeperId: string; kind: CareWordKind; words: string; litres: number | null },
): Promise<boolean> {
  const { keeperId, ...rest } = word;
  const row = { ...rest, keeper_id: keeperId };
  return (await trx('care_word').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

const mostWords = 20;

export async function wordsOf(db: Db, keeperId: string): Promise<CareWord[]> {
  const rows = await db<WordRow>('care_word')
    .where({ keeper_id: keeperId })
    .orderBy('said_at', 'desc')
    .limit(mostWords);
  return rows.map(wordOf);
}

/** What waits for an answer, by keeper. */
export async function openWords(db: Db, keeperIds: readonly string[]): Promise<Map<string, CareWord[]>> {
  const rows = await db<WordRow>('care_word')
    .whereRaw('keeper_id = any(?::uuid[])', [[...keeperIds]])
    .whereNull('answered_at')
    .whereNot({ kind: 'watered' })
    .orderBy('said_at');
  const by = new Map<string, CareWord[]>();
  for (const row of rows) by.set(row.keeper_id, [...(by.get(row.keeper_id) ?? []), wordOf(row)]);
  return by;
}

export async function findWord(trx: Db, id: string): Promise<{ keeperId: string; word: CareWord } | undefined> {
  const row = await trx<WordRow>('care_word').where({ id }).forUpdate().first();
  return row && { keeperId: row.keeper_id, word: wordOf(row) };
}

export async function answerWord(trx: Db, id: string, { by, answer }: { by: string; answer: string }): Promise<void> {
  await trx('care_word').where({ id }).update({ answered_at: trx.fn.now(), answered_by: by, answer });
}

export const keeperOf = (
  row: KeptTree,
  { state, open, today }: { state: Keeper['state']; open: readonly CareWord[]; today: IsoDate },
): Keeper => ({
  id: row.id,
  spotId: row.spot_id,
  treeId: row.tree_id,
  ref: row.ref,
  place: row.place,
  species: row.species,
  name: row.name,
  hasAddress: row.email !== null,
  wantsLetters: row.wants_letters,
  bucketL: row.bucket_l,
  since: row.since,
  deputyOf: row.deputy_of_name,
  fromDay: row.from_day,
  untilDay: row.until_day,
  over: isOver(row, today),
  heardOn: row.heard_on,
  remindedOn: row.reminded_on,
  next: row.next,
  state,
  open: [...open],
});

/** A link opens nothing any more: taken back, past its time, or the tree is gone. */
export const isOver = (row: Pick<KeptTree, 'revoked_at' | 'standing' | 'until_day'>, today: IsoDate): boolean =>
  row.revoked_at !== null || !row.standing || (row.until_day !== null && row.until_day < today);

/** It is theirs to water: not while somebody stands in for them, nor before a deputy's days. */
export const inCharge = (row: KeptTree, today: IsoDate): boolean =>
  !isOver(row, today) && !row.has_deputy && (row.from_day === null || row.from_day <= today);
