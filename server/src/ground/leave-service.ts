import type {
  AnswerConsent,
  AskConsent,
  ConsentLink,
  Leave,
  NewClearance,
  NewPermit,
  OpenConsent,
  Rules,
  User,
} from '@sombra/contract';
import {
  addDaysTo,
  ConflictError,
  digCover,
  InvalidInputError,
  NotFoundError,
  sayIsoDay,
  sayReason,
  type IsoDate,
  type PlantingFacts,
} from '@sombra/core';
import type { Knex } from 'knex';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { asActor, type Db } from '../platform/db';
import { keepFile, keepPhoto, type UploadKind } from '../platform/uploads';
import { findProgramme } from '../programme/repository';
import { announce } from '../record/repository';
import { currentRules, ticketsSince } from '../rules/repository';
import { findSpot } from '../spots/repository';
import {
  findConsent,
  insertClearance,
  insertConsent,
  insertPermit,
  insertPhoto,
  keepAnswer,
  leaveOf,
  revokeConsent,
  keptFile,
  type KeptUpload,
} from './leave-repository';
import { programmeToday } from '../programme/today';
import { coverAt } from '../tickets/cover-repository';

/** Days an owner's link stays open. */
const consentDays = 30;

/**
 * Refuses to dig on a day that no ticket and no clearance covers; nobody can override this. Days before the
 * programme kept its tickets in Sombra are history and pass, and so does what others planted: nobody of here dug.
 * @param known what the act has read of the programme already
 * @throws InvalidInputError naming the day and why it is not covered
 */
export async function requireCover(
  db: Db,
  where: { spotId: string } | { position: readonly [number, number] },
  { plantedOn, takenOver }: Pick<PlantingFacts, 'plantedOn' | 'takenOver'>,
  known?: { readonly ticketsSince: IsoDate; readonly rules: Rules },
): Promise<void> {
  if (takenOver || plantedOn < (known?.ticketsSince ?? (await ticketsSince(db)))) return;
  const { ground } = known?.rules ?? (await currentRules(db));
  const cover = digCover(await coverAt(db, where, plantedOn), plantedOn, ground);
  if (cover.kind !== 'none') return;
  const why = cover.because.map((reason) => sayReason(reason, 'metric')).join(' ');
  throw new InvalidInputError(
    `record.facts.plantedOn must be a day on which a locate ticket or a lawful clearance covers this spot: ${why}`,
    'record.facts.plantedOn',
    { title: `Nobody may dig here on ${sayIsoDay(plantedOn)}. ${why}` },
  );
}

async function requireSpot(db: Db, spotId: string): Promise<void> {
  if (!(await findSpot(db, spotId))) throw new NotFoundError('no such spot', 'id');
}

const answer = async (db: Db, spotId: string): Promise<Leave> => leaveOf(db, spotId, await programmeToday(db));

export interface Upload {
  readonly folder: string;
  readonly bytes: Uint8Array;
}

/** Attaches a lawful clearance: its document, who cleared, and until when. */
export async function attachClearance(
  db: Knex,
  user: User,
  spotId: string,
  clearance: NewClearance,
  upload: Upload,
): Promise<Leave> {
  await requireSpot(db, spotId);
  const mine = { spotId, addedBy: user.name };
  requireMine(await keptFile(db, 'lawful_clearance', clearance.id), mine);
  const kinds: readonly UploadKind[] = ['application/pdf', 'image/jpeg', 'image/png'];
  const file = await keepFile(upload.folder, upload.bytes, kinds);
  return asActor(db, user.name, async (trx) => {
    await insertClearance(trx, spotId, clearance, file, user.name);
    requireMine(await keptFile(trx, 'lawful_clearance', clearance.id), { ...mine, storedAs: file.storedAs });
    await announce(trx, [spotId]);
    return answer(trx, spotId);
  });
}

export async function addPhoto(
  db: Knex,
  user: User,
  photo: { id: string; spotId: string; step?: string | undefined },
  upload: Upload,
): Promise<void> {
  await requireSpot(db, photo.spotId);
  const mine = { spotId: photo.spotId, addedBy: user.name };
  requireMine(await keptFile(db, 'spot_photo', photo.id), mine);
  const file = await keepPhoto(upload.folder, upload.bytes);
  await asActor(db, user.name, async (trx) => {
    await insertPhoto(trx, { ...photo, ...file }, user.name);
    requireMine(await keptFile(trx, 'spot_photo', photo.id), { ...mine, storedAs: file.storedAs });
  });
}

/** A file sent again is the same file; an id that is taken by another place, person or picture is refused. */
function requireMine(kept: KeptUpload | undefined, mine: { spotId: string; addedBy: string; storedAs?: string }): void {
  const { spotId, addedBy, storedAs = kept?.storedAs } = mine;
  if (!kept || (kept.spotId === spotId && kept.addedBy === addedBy && kept.storedAs === storedAs)) return;
  throw new ConflictError('this id is taken by another file', 'id', {
    title: 'Another file was stored under this id already; nothing was changed',
  });
}

/** Records a road authority's permit for several spots. */
export async function addPermit(db: Knex, user: User, permit: NewPermit): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    for (const spotId of permit.spotIds) await requireSpot(trx, spotId);
    await insertPermit(trx, permit, user.name);
    await announce(trx, permit.spotIds);
  });
}

// No dot in it: a path with a dot is taken for a file. The link carries the consent's id and last day, signed with the server's secret: nothing to guess, nothing to keep.
const signature = (secret: string, id: string, expiresOn: IsoDate): string =>
  createHmac('sha256', secret).update(`owner-consent/${id}/${expiresOn}`).digest('base64url');

const tokenOf = (secret: string, id: string, expiresOn: IsoDate): string =>
  `${id}~${expiresOn}~${signature(secret, id, expiresOn)}`;

/** Asks a yard's owner: the link opens one page, once, until its last day. */
export async function askConsent(
  db: Knex,
  user: User,
  ask: AskConsent & { spotId: string; secret: string },
): Promise<ConsentLink> {
  await requireSpot(db, ask.spotId);
  const today = await programmeToday(db);
  const expiresOn = addDaysTo(today, consentDays);
  return asActor(db, user.name, async (trx) => {
    await insertConsent(trx, ask.spotId, ask, expiresOn, user.name);
    const kept = await findConsent(trx, ask.id, today);
    if (!kept) throw new NotFoundError('no such consent', 'id');
    await announce(trx, [ask.spotId]);
    return { consent: kept.consent, path: `/consent/${tokenOf(ask.secret, ask.id, kept.consent.expiresOn)}` };
  });
}

export async function takeConsentBack(db: Knex, user: User, id: string): Promise<Leave> {
  return asActor(db, user.name, async (trx) => {
    const kept = await findConsent(trx, id, await programmeToday(trx));
    if (!kept) throw new NotFoundError('no such consent', 'id');
    await revokeConsent(trx, id);
    await announce(trx, [kept.spotId]);
    return answer(trx, kept.spotId);
  });
}

/** @throws NotFoundError for a token that was not made here; the same words whatever is wrong with it */
async function byToken(db: Db, secret: string, token: string) {
  const wrong = () => new NotFoundError('no such link', 'token', { title: 'This link is not valid' });
  const [id, expiresOn, given] = token.split('~');
  if (!id || !expiresOn || !given || !/^[0-9a-f-]{36}$/.test(id)) throw wrong();
  const expected = Buffer.from(signature(secret, id, expiresOn));
  const received = Buffer.from(given);
  if (expected.length !== received.length || !timingSafeEqual(expected, received)) throw wrong();
  const kept = await findConsent(db, id, await programmeToday(db));
  if (!kept || kept.consent.expiresOn !== expiresOn) throw wrong();
  return kept;
}

export async function openConsent(db: Knex, secret: string, token: string): Promise<OpenConsent> {
  const { consent, spotId } = await byToken(db, secret, token);
  const spot = await findSpot(db, spotId);
  const programme = await findProgramme(db);
  return {
    programme: programme?.name ?? '',
    owner: consent.owner,
    place: spot?.place ?? '',
    ref: spot?.ref ?? '',
    species: spot?.species ?? null,
    state: consent.state,
    expiresOn: consent.expiresOn,
  };
}

/** Keeps the owner's answer; the link is then used up. */
export async function answerConsent(
  db: Knex,
  secret: string,
  token: string,
  given: AnswerConsent,
): Promise<OpenConsent> {
  await asActor(db, 'owner, by link', async (trx) => {
    const { consent, spotId } = await byToken(trx, secret, token);
    if (consent.state !== 'asked') {
      throw new InvalidInputError('this link was answered, revoked or has run out', 'token', {
        title: 'This link has been answered already or is no longer open; ask the programme for a new one',
      });
    }
    await keepAnswer(trx, consent.id, given);
    await announce(trx, [spotId]);
  });
  return openConsent(db, secret, token);
}
