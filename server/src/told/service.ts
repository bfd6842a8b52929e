import type { MakePlaceLink, OpenTold, PlaceLinks, TellOfTree, Told, ToldWaiting, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { v5 as uuidv5 } from 'uuid';
import { insertPhoto } from '../ground/leave-repository';
import { asActor, type Db } from '../platform/db';
import { hashOf, newToken } from '../platform/secrets';
import { keepPhoto, type KeptFile } from '../platform/uploads';
import { findProgramme } from '../programme/repository';
import { dayOf } from '../programme/today';
import { announce } from '../record/repository';
import { keepTold } from '../recording/service';
import {
  findReport,
  insertLink,
  insertReport,
  keepReportPhoto,
  openReports,
  placeId,
  placeLinks,
  placeOfLink,
  revokeLink,
  settleReport,
  treesOfPlaces,
  waitingCount,
  waitingReports,
  type PlaceOfLink,
} from './repository';

const namespace = '5f0a4f0b-7be5-5b5e-8f52-7c1f5a2a6e41';
const byLink = 'resident, by link';
/** So many reports of one link wait for an answer: then it takes no more. */
const mostOpen = 40;

/** A link for a place; told once, since only its fingerprint is kept. @throws NotFoundError for a place there is none of */
export async function makePlaceLink(db: Knex, user: User, { id, place }: MakePlaceLink): Promise<{ path: string }> {
  const token = newToken();
  return asActor(db, user.name, async (trx) => {
    const of = await placeId(trx, place);
    if (!of) throw new NotFoundError('no such place', 'place', { title: 'There is no place of this name' });
    const made = await insertLink(trx, { id, placeId: of, tokenHash: hashOf(token), by: user.name });
    return { path: made ? `/told/${token}` : '' };
  });
}

export const listPlaceLinks = (db: Db): Promise<PlaceLinks> => placeLinks(db);

export async function takePlaceLinkBack(db: Knex, user: User, id: string): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    if (!(await revokeLink(trx, id))) throw new NotFoundError('no such link', 'id');
  });
}

async function found(db: Db, token: string): Promise<PlaceOfLink> {
  const link = await placeOfLink(db, hashOf(token));
  if (!link) throw new NotFoundError('no such link', 'token', { title: 'This link is no longer open' });
  return link;
}

export async function openTold(db: Db, token: string): Promise<OpenTold> {
  const { placeId: of, place } = await found(db, token);
  const trees = await treesOfPlaces(db, [of]);
  return {
    programme: (await findProgramme(db))?.name ?? '',
    place,
    trees: trees.map(({ ref, species }) => ({ ref, species })),
  };
}

/** Keeps what a resident tells: a report, until somebody of the programme says which tree is looked at. */
export async function tellOfTree(db: Knex, token: string, told: TellOfTree): Promise<void> {
  await asActor(db, byLink, async (trx) => {
    const { linkId, placeId: of } = await found(trx, token);
    const trees = await treesOfPlaces(trx, [of]);
    if (told.ref !== null && !trees.some(({ ref }) => ref === told.ref)) {
      throw new InvalidInputError(`ref must be of a tree of this place, got ${told.ref}`, 'ref', {
        title: 'No tree of this place has this number',
      });
    }
    const before = await findReport(trx, told.id);
    if (before && before.linkId !== linkId) throw new ConflictError('this id is taken', 'id');
    if (before) return;
    if ((await openReports(trx, linkId)) >= mostOpen) {
      throw new InvalidInputError(`${mostOpen} reports of this place wait`, 'words', {
        title: 'Many reports of this place wait already; the programme sees to them first',
      });
    }
    await insertReport(trx, linkId, told);
    await announce(trx, []);
  });
}

/** One photo a report, drawn anew; sent again it is the same one. */
export async function photoOfTold(
  db: Knex,
  { token, id }: { readonly token: string; readonly id: string },
  upload: { readonly folder: string; readonly bytes: Uint8Array },
): Promise<void> {
  const { linkId } = await found(db, token);
  const open = async (at: Db) => {
    const report = await findReport(at, id);
    if (!report || report.linkId !== linkId) throw new NotFoundError('no such report', 'id');
    return report;
  };
  const before = await open(db);
  if (before.photo || before.settled) return;
  const file = await keepPhoto(upload.folder, upload.bytes);
  await asActor(db, byLink, async (trx) => {
    const report = await open(trx);
    if (!report.photo && !report.settled) await keepReportPhoto(trx, id, file);
  });
}

export async function toldReports(db: Db): Promise<Told> {
  const reports = await waitingReports(db);
  const trees = await treesOfPlaces(db, [...new Set(reports.map(({ placeId: of }) => of))]);
  return {
    reports: reports.map(({ placeId: of, ...report }) => ({
      ...report,
      trees: trees.filter((tree) => tree.placeId === of).map(({ spotId, ref }) => ({ spotId, ref })),
    })),
  };
}

export const toldWaiting = async (db: Db): Promise<ToldWaiting> => ({ reports: await waitingCount(db) });

export async function toldPhoto(db: Db, id: string): Promise<KeptFile> {
  const photo = (await findReport(db, id))?.photo;
  if (!photo) throw new NotFoundError('no such photo', 'id');
  return photo;
}

/** What was told becomes a look at a tree of that place, with the words and the photo; settled twice it is settled once. */
export async function lookAtTold(db: Knex, user: User, { id, spotId }: { id: string; spotId: string }): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const report = await openReport(trx, id);
    const trees = await treesOfPlaces(trx, [report.placeId]);
    if (!trees.some((tree) => tree.spotId === spotId)) {
      throw new InvalidInputError('spotId must be of a standing tree of that place', 'spotId', {
        title: 'Choose a tree that stands in that place',
      });
    }
    await settleReport(trx, id, { by: user.name, spotId });
    const toldOn = await dayOf(trx, report.toldAt);
    const told = { kind: 'resident_told' as const, facts: { toldOn, words: report.words } };
    const kept = await keepTold(trx, { spotId, by: user.name, recordId: id, told });
    if (!kept) throw new ConflictError('this id is taken by another record', 'id');
    if (report.photo) {
      const photo = { id: uuidv5(id, namespace), spotId, step: 'resident', ...report.photo };
      await insertPhoto(trx, photo, byLink);
    }
    await announce(trx, [spotId]);
  });
}

export async function dropTold(db: Knex, user: User, { id, reason }: { id: string; reason: string }): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    await openReport(trx, id);
    await settleReport(trx, id, { by: user.name, reason });
    await announce(trx, []);
  });
}

async function openReport(trx: Db, id: string) {
  const report = await findReport(trx, id);
  if (!report) throw new NotFoundError('no such report', 'id');
  if (report.settled) {
    throw new ConflictError('this report is settled', 'id', { title: 'Somebody else has seen to this report' });
  }
  return report;
}
