import type {
  CareWaiting,
  CareWishes,
  GiveCare,
  Keeper,
  NameDeputy,
  OpenCare,
  TellWatered,
  TellWord,
  User,
} from '@sombra/contract';
import {
  addDaysTo,
  ballStore,
  ConflictError,
  drainsSlowly,
  holdsOf,
  InvalidInputError,
  keeperState,
  mostByLinkL,
  NotFoundError,
  ofKind,
  sayReason,
  standing,
  wateringLeave,
  type IsoDate,
} from '@sombra/core';
import type { Knex } from 'knex';
import { v5 as uuidv5 } from 'uuid';
import { queueMail } from '../mail/repository';
import { csvRow } from '../platform/csv';
import { asActor, type Db } from '../platform/db';
import { hashOf, newToken } from '../platform/secrets';
import { findProgramme } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { announce, recordsOfSpots } from '../record/repository';
import { storedWater } from '../record/water-repository';
import { currentRules } from '../rules/repository';
import { keepTold } from '../recording/service';
import { findSpot, lockSpot } from '../spots/repository';
import { careLetters, type CareLetter } from './letters';
import {
  addLink,
  allKeepers,
  answerWord,
  deputiesOf,
  dropLinks,
  findKeeper,
  findWord,
  inCharge,
  insertKeeper,
  insertWord,
  isOver,
  keeperByToken,
  keeperOf,
  keepersOfSpot,
  openWords,
  revokeKeeper,
  setKeeper,
  wordsOf,
  type KeptTree,
} from './repository';

const mailNamespace = '8c1b1a1e-5f0e-5d0b-9a43-3a4b8c0b7c55';
/** A watering may be told so late, days. */
const toldLateDays = 14;
/** Nobody is away longer than a season, days. */
const longestAwayDays = 120;

/** Where people reach the programme: links begin with it. */
export interface CareDoorway {
  readonly publicUrl: string;
}

const pathOf = (token: string): string => `/care/${token}`;

/** A letter to a keeper, with a link of its own: the links before are kept as fingerprints alone. */
export async function writeTo(
  trx: Db,
  { publicUrl }: CareDoorway,
  keeper: Pick<KeptTree, 'id' | 'name' | 'email' | 'ref' | 'place'>,
  letter: (about: { programme: string; name: string; ref: string; place: string; link: string }) => CareLetter,
): Promise<void> {
  const { id, name, email, ref, place } = keeper;
  if (email === null) return;
  const token = newToken();
  await addLink(trx, id, hashOf(token));
  const programme = (await findProgramme(trx))?.name ?? 'Sombra';
  const words = letter({ programme, name, ref, place, link: `${publicUrl}${pathOf(token)}` });
  const mail = {
    id: uuidv5(token, mailNamespace),
    about: 'care' as const,
    dayId: null,
    personId: null,
    calendar: null,
  };
  await queueMail(trx, [{ ...mail, to: email, ...words }]);
}

async function plantedTree(db: Db, spotId: string): Promise<{ treeId: string; plantedOn: IsoDate } | null> {
  const spot = await findSpot(db, spotId);
  if (!spot) throw new NotFoundError('no such spot', 'id');
  const planting = ofKind(standing((await recordsOfSpots(db, [spotId])).get(spotId) ?? []), 'planting').at(-1);
  return spot.treeId && planting ? { treeId: spot.treeId, plantedOn: planting.facts.plantedOn } : null;
}

/** Gives a planted tree to a keeper. The path of the link is told this once. */
export async function giveCare(
  db: Knex,
  doorway: CareDoorway,
  user: User,
  ask: GiveCare & { readonly spotId: string },
): Promise<{ path: string }> {
  const [token, today] = [newToken(), await programmeToday(db)];
  return asActor(db, user.name, async (trx) => {
    const tree = await plantedTree(trx, ask.spotId);
    if (!tree) {
      throw new InvalidInputError('no planted tree stands here', 'id', { title: 'No planted tree stands here yet' });
    }
    const made = await insertKeeper(trx, { ...ask, treeId: tree.treeId, since: today, by: user.name });
    if (!made) return { path: '' };
    await addLink(trx, ask.id, hashOf(token));
    const keeper = await findKeeper(trx, ask.id, today);
    if (keeper) await writeTo(trx, doorway, keeper, careLetters.given);
    await announce(trx, [ask.spotId]);
    return { path: pathOf(token) };
  });
}

async function requireKeeper(db: Db, id: string, today: IsoDate): Promise<KeptTree> {
  const keeper = await findKeeper(db, id, today);
  if (!keeper) throw new NotFoundError('no such keeper', 'id');
  return keeper;
}

/** A new link for a keeper who lost theirs; all before it end. */
export async function renewCare(db: Knex, user: User, id: string): Promise<{ path: string }> {
  const [token, today] = [newToken(), await programmeToday(db)];
  return asActor(db, user.name, async (trx) => {
    const keeper = await requireKeeper(trx, id, today);
    if (isOver(keeper, today)) {
      throw new InvalidInputError('this keeper keeps no tree any more', 'id', { title: 'They keep no tree any more' });
    }
    await dropLinks(trx, id);
    await addLink(trx, id, hashOf(token));
    return { path: pathOf(token) };
  });
}

export async function takeCareBack(db: Knex, user: User, id: string): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const keeper = await requireKeeper(trx, id, await programmeToday(trx));
    await revokeKeeper(trx, id);
    await announce(trx, [keeper.spot_id]);
  });
}

async function keepersFrom(db: Db, rows: readonly KeptTree[], today: IsoDate): Promise<Keeper[]> {
  const open = await openWords(
    db,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => {
    const since = row.from_day ?? row.since;
    const state = inCharge(row, today) ? keeperState({ next: row.next, since, heardOn: row.heard_on, today }) : 'fine';
    return keeperOf(row, { state, open: open.get(row.id) ?? [], today });
  });
}

export async function keepersOf(db: Db, spotId: string): Promise<Keeper[]> {
  const today = await programmeToday(db);
  return keepersFrom(db, await keepersOfSpot(db, spotId, today), today);
}

const stateOrder = { silent: 0, due: 1, fine: 2 } as const;
/** Who calls for help stands before who complains, and both before the others. */
const urgencyOf = ({ open }: Keeper): number =>
  open.some(({ kind }) => kind === 'help') ? 2 : open.length > 0 ? 1 : 0;

/** All who keep a tree: who waits for an answer first, then who has gone silent. */
export async function listKeepers(db: Db): Promise<Keeper[]> {
  const today = await programmeToday(db);
  const keepers = (await keepersFrom(db, await allKeepers(db, today), today)).filter(({ over }) => !over);
  return keepers.sort((a, b) => urgencyOf(b) - urgencyOf(a) || stateOrder[a.state] - stateOrder[b.state]);
}

export async function* keepersCsv(db: Db): AsyncGenerator<string> {
  yield csvRow([
    'ref',
    'place',
    'species',
    'keeper',
    'deputy_of',
    'since',
    'heard_on',
    'reminded_on',
    'state',
    'waits',
  ]);
  for (const one of await listKeepers(db)) {
    const { ref, place, species, name, deputyOf, since, heardOn, remindedOn, state, open } = one;
    const waits = open.map(({ words }) => words).join(' / ');
    yield csvRow([
      ref,
      place,
      species ?? '',
      name,
      deputyOf ?? '',
      since,
      heardOn ?? '',
      remindedOn ?? '',
      state,
      waits,
    ]);
  }
}

/** What of keepers needs somebody. */
export async function careWaiting(db: Db): Promise<CareWaiting> {
  const keepers = await listKeepers(db);
  const open = keepers.flatMap((one) => one.open);
  return {
    help: open.filter(({ kind }) => kind === 'help').length,
    complaints: open.filter(({ kind }) => kind === 'complaint').length,
    silent: keepers.filter(({ state }) => state === 'silent').length,
  };
}

/** Answers what a keeper told; they get it by letter where there is an address. */
export async function answerCare(
  db: Knex,
  doorway: CareDoorway,
  user: User,
  { id, answer }: { readonly id: string; readonly answer: string },
): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const found = await findWord(trx, id);
    if (!found || found.word.kind === 'watered') throw new NotFoundError('no such word of a keeper', 'id');
    if (found.word.answeredBy !== null) {
      if (found.word.answer === answer) return;
      throw new InvalidInputError('this was answered already', 'answer', {
        title: `${found.word.answeredBy} answered this already`,
      });
    }
    const keeper = await requireKeeper(trx, found.keeperId, await programmeToday(trx));
    await answerWord(trx, id, { by: user.name, answer });
    if (answer !== '' && keeper.wants_letters) {
      await writeTo(trx, doorway, keeper, (about) => careLetters.answer(about, { said: found.word.words, answer }));
    }
    await announce(trx, [keeper.spot_id]);
  });
}

async function byLink(db: Db, token: string, today: IsoDate): Promise<KeptTree> {
  const keeper = await keeperByToken(db, hashOf(token), today);
  if (!keeper) throw new NotFoundError('no such link', 'token', { title: 'This link is not valid' });
  return keeper;
}

function requireOpen(keeper: KeptTree, today: IsoDate): void {
  if (!isOver(keeper, today)) return;
  throw new InvalidInputError('this link is over', 'token', {
    title: 'This link is no longer open; ask the programme for a new one',
  });
}

/** The tree behind a care link: when it wants water, how much, and what its keeper told so far. */
export async function openCare(db: Db, token: string): Promise<OpenCare> {
  const today = await programmeToday(db);
  const keeper = await byLink(db, token, today);
  const { id, spot_id: spotId } = keeper;
  const over = isOver(keeper, today);
  const water = (await storedWater(db, [spotId])).get(spotId);
  const subject = water?.inputs.subject;
  const leave = wateringLeave((await currentRules(db)).watering, today, 'hand');
  return {
    programme: (await findProgramme(db))?.name ?? '',
    ref: keeper.ref,
    place: keeper.place,
    species: keeper.species,
    keeper: keeper.name,
    today,
    plantedOn: subject?.plantedOn ?? (await plantedTree(db, spotId))?.plantedOn ?? null,
    state: over ? 'over' : 'open',
    next: over ? null : keeper.next,
    establishedOn: keeper.established_on,
    mostL: mostByLinkL(subject ? holdsOf(ballStore(subject)) : 0),
    bucketL: keeper.bucket_l,
    slowSoil: drainsSlowly(subject?.percolation ?? undefined),
    restriction: leave.because.map((reason) => sayReason(reason, 'metric')).join(' '),
    wantsLetters: keeper.wants_letters,
    hasAddress: keeper.email !== null,
    isDeputy: keeper.deputy_of !== null,
    deputies: (await deputiesOf(db, id, today)).map((one) => ({
      id: one.id,
      name: one.name,
      fromDay: one.from_day ?? today,
      untilDay: one.until_day ?? today,
    })),
    said: await wordsOf(db, id),
  };
}

const actorOf = (keeper: KeptTree): string => `${keeper.name}, by link`;

/** One act of a keeper behind a link, as one transaction; answered with what the link then shows. */
async function actByLink(
  db: Knex,
  token: string,
  act: (trx: Knex.Transaction, keeper: KeptTree, today: IsoDate) => Promise<void>,
): Promise<OpenCare> {
  const asked = await byLink(db, token, await programmeToday(db));
  await asActor(db, actorOf(asked), async (trx) => {
    const today = await programmeToday(trx);
    // Spots before keepers: the order of every act.
    await lockSpot(trx, asked.spot_id);
    const keeper = await byLink(trx, token, today);
    requireOpen(keeper, today);
    await act(trx, keeper, today);
    await announce(trx, [keeper.spot_id]);
  });
  return openCare(db, token);
}

/** Keeps a watering told by a link: it counts in the balance, trusted less, and is shown as not confirmed. */
export async function tellWatered(db: Knex, token: string, told: TellWatered): Promise<OpenCare> {
  return actByLink(db, token, async (trx, keeper, today) => {
    const { id, wateredOn, litres, finger } = told;
    const [first, last] = [addDaysTo(today, -toldLateDays), addDaysTo(today, 1)];
    if (wateredOn < first || wateredOn > last) {
      throw new InvalidInputError(`wateredOn must be within ${first} to ${last}, got ${wateredOn}`, 'wateredOn');
    }
    const water = (await storedWater(trx, [keeper.spot_id])).get(keeper.spot_id);
    const mostL = mostByLinkL(water ? holdsOf(ballStore(water.inputs.subject)) : 0);
    if (litres > mostL) {
      throw new InvalidInputError(`litres must be at most ${mostL} L, got ${litres}`, 'litres', {
        title: `Told by a link, one watering is ${mostL} L at most. Was it more, tell the programme`,
      });
    }
    if (!(await insertWord(trx, { id, keeperId: keeper.id, kind: 'watered', words: '', litres }))) return;
    const facts = { wateredOn, litres, toldBy: 'keeper' as const, ...(finger ? { fingerBefore: finger } : {}) };
    const kept = await keepTold(trx, {
      spotId: keeper.spot_id,
      by: actorOf(keeper),
      recordId: id,
      told: { kind: 'watering', facts },
    });
    if (!kept) throw new ConflictError('this id is taken by another record', 'id');
    await setKeeper(trx, keeper.id, { heard_on: today });
  });
}

/** A complaint, or a call for help: it waits on the desk until somebody answers. */
export async function tellWord(db: Knex, token: string, told: TellWord): Promise<OpenCare> {
  return actByLink(db, token, async (trx, keeper, today) => {
    const open = (await openWords(trx, [keeper.id])).get(keeper.id) ?? [];
    if (open.length >= mostOpen && !open.some(({ id }) => id === told.id)) {
      throw new InvalidInputError(`${mostOpen} of your messages wait for an answer`, 'words', {
        title: 'Your messages are with the programme; it answers them first',
      });
    }
    await insertWord(trx, { ...told, keeperId: keeper.id, litres: null });
    await setKeeper(trx, keeper.id, { heard_on: today });
  });
}

/** What waits for an answer from one link, at most. */
const mostOpen = 10;
const mostDeputies = 5;

/** Names who stands in for some days: they get a link of their own, shown this once. */
export async function nameDeputy(
  db: Knex,
  doorway: CareDoorway,
  token: string,
  named: NameDeputy,
): Promise<{ path: string; care: OpenCare }> {
  const fresh = newToken();
  let made = false;
  const care = await actByLink(db, token, async (trx, keeper, today) => {
    const { id, name, email, fromDay, untilDay } = named;
    if (keeper.deputy_of !== null) {
      throw new InvalidInputError('a deputy names no deputy', 'name', {
        title: 'Ask whose tree it is to name another',
      });
    }
    const last = addDaysTo(fromDay, longestAwayDays);
    if (fromDay < addDaysTo(today, -1) || fromDay > addDaysTo(today, 365)) {
      throw new InvalidInputError(`fromDay must be from today, ${today}, within a year, got ${fromDay}`, 'fromDay');
    }
    if (untilDay < fromDay || untilDay > last) {
      throw new InvalidInputError(`untilDay must be within ${fromDay} to ${last}, got ${untilDay}`, 'untilDay');
    }
    if ((await deputiesOf(trx, keeper.id, today)).length >= mostDeputies) {
      throw new InvalidInputError(`${mostDeputies} deputies are named already`, 'name', {
        title: `${mostDeputies} deputies are named already`,
      });
    }
    const { spot_id: spotId, tree_id: treeId, bucket_l: bucketL } = keeper;
    const deputy = { of: keeper.id, fromDay, untilDay };
    made = await insertKeeper(trx, {
      id,
      name,
      email,
      bucketL,
      spotId,
      treeId,
      since: today,
      by: actorOf(keeper),
      deputy,
    });
    if (!made) return;
    await addLink(trx, id, hashOf(fresh));
    await setKeeper(trx, keeper.id, { heard_on: today });
    const row = await findKeeper(trx, id, today);
    const about = { of: keeper.name, from: fromDay, until: untilDay };
    if (row) await writeTo(trx, doorway, row, (to) => careLetters.deputy(to, about));
  });
  return { path: made ? pathOf(fresh) : '', care };
}

/** Whether reminders are wanted, and how large their bucket is. */
export async function wishCare(db: Knex, token: string, { letters, bucketL }: CareWishes): Promise<OpenCare> {
  return actByLink(db, token, async (trx, keeper) => {
    const change = {
      ...(letters === undefined ? {} : { wants_letters: letters }),
      ...(bucketL === undefined ? {} : { bucket_l: bucketL }),
    };
    if (Object.keys(change).length > 0) await setKeeper(trx, keeper.id, change);
  });
}
