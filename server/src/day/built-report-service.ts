import type { AskReport, BuiltReports, OpenReport, ReportBuilt, User } from '@sombra/contract';
import {
  addDaysTo,
  digCover,
  digDepthMm,
  InvalidInputError,
  NotFoundError,
  sayReason,
  spotLife,
  type IsoDate,
} from '@sombra/core';
import type { Knex } from 'knex';
import { v5 as uuidv5 } from 'uuid';
import { insertPhoto } from '../ground/leave-repository';
import { asActor, type Db } from '../platform/db';
import { hashOf, newToken } from '../platform/secrets';
import { keepPhoto } from '../platform/uploads';
import { findProgramme } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { announce, recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { currentRules } from '../rules/repository';
import { findSpot } from '../spots/repository';
import { coversOf } from '../tickets/cover-repository';
import {
  insertReport,
  keepReport,
  keepReportPhoto,
  reportByToken,
  reportsOf,
  revokeReport,
  type KeptReport,
} from './built-report-repository';

const photoNamespace = '2f6d2c9e-7a53-5c0e-9a50-6f0d6a4f4a11';
const byLink = 'keeper, by link';

/** A link for whoever takes a tree home; told once, since only its fingerprint is kept. */
export async function askForReport(
  db: Knex,
  user: User,
  ask: AskReport & { readonly spotId: string },
): Promise<{ path: string }> {
  if (!(await findSpot(db, ask.spotId))) throw new NotFoundError('no such spot', 'id');
  const [token, today] = [newToken(), await programmeToday(db)];
  return asActor(db, user.name, async (trx) => {
    const made = await insertReport(trx, { ...ask, tokenHash: hashOf(token) }, { by: user.name, today });
    await announce(trx, [ask.spotId]);
    return { path: made ? `/planted/${token}` : '' };
  });
}

export async function takeReportBack(db: Knex, user: User, id: string): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const spotId = await revokeReport(trx, id);
    if (!spotId) throw new NotFoundError('no such report', 'id');
    await announce(trx, [spotId]);
  });
}

export async function builtReports(db: Db, spotId: string): Promise<BuiltReports> {
  const reports = await reportsOf(db, spotId, await programmeToday(db));
  return reports.map(({ spotId: _of, ...report }) => report);
}

async function found(db: Db, token: string): Promise<KeptReport> {
  const report = await reportByToken(db, hashOf(token), await programmeToday(db));
  if (!report) throw new NotFoundError('no such link', 'token', { title: 'This link is not valid' });
  return report;
}

/** The tree behind a link, with its numbers and whether its ground may be dug. */
export async function openReport(db: Db, token: string): Promise<OpenReport> {
  const report = await found(db, token);
  const { spotId } = report;
  const today = await programmeToday(db);
  const spot = await findSpot(db, spotId);
  const records = (await recordsOfSpots(db, [spotId])).get(spotId) ?? [];
  const { plan } = spotLife(records, contextOf(await programmeBasis(db), spotId, records));
  const cover = await coverOn(db, spotId, today);
  return {
    programme: (await findProgramme(db))?.name ?? '',
    ref: spot?.ref ?? '',
    place: spot?.place ?? '',
    species: spot?.species ?? null,
    owner: report.owner,
    state: report.state,
    hasPhoto: report.photoId !== null,
    expiresOn: report.expiresOn,
    mayDig: cover.kind !== 'none',
    why: cover.because.map((reason) => sayReason(reason, 'metric')).join(' '),
    plan:
      plan?.kind === 'plan'
        ? {
            digMm: digDepthMm(plan),
            widthMm: plan.widthMm.value,
            flareAboveGradeMm: plan.proudMm.value,
            firstWaterL: plan.firstWaterL.value,
          }
        : null,
  };
}

async function coverOn(db: Db, spotId: string, day: IsoDate) {
  const { ground } = await currentRules(db);
  const covers = (await coversOf(db, [spotId], day)).get(spotId);
  return digCover(covers ?? { tickets: [], clearances: [] }, day, ground);
}

function requireOpen({ state }: KeptReport): void {
  if (state === 'asked' || state === 'reported') return;
  throw new InvalidInputError('this link is used up, taken back or has run out', 'token', {
    title: 'This link is no longer open; ask the programme for a new one',
  });
}

/**
 * Keeps what the keeper of a tree says. It stays a report, and may be told anew, until somebody of the programme records
 * the planting under the same check of leave to dig.
 */
export async function report(db: Knex, token: string, told: ReportBuilt): Promise<OpenReport> {
  await asActor(db, byLink, async (trx) => {
    const kept = await found(trx, token);
    requireOpen(kept);
    const today = await programmeToday(trx);
    const [first, last] = [addDaysTo(kept.expiresOn, -60), addDaysTo(today, 1)];
    if (told.plantedOn < first || told.plantedOn > last) {
      throw new InvalidInputError(`plantedOn must be within ${first} to ${last}, got ${told.plantedOn}`, 'plantedOn');
    }
    await keepReport(trx, kept.id, told);
    await announce(trx, [kept.spotId]);
  });
  return openReport(db, token);
}

/** One photo a link, drawn anew; sent again it is the same one. */
export async function reportPhoto(
  db: Knex,
  token: string,
  upload: { readonly folder: string; readonly bytes: Uint8Array },
): Promise<OpenReport> {
  const before = await found(db, token);
  requireOpen(before);
  if (before.photoId !== null) return openReport(db, token);
  const file = await keepPhoto(upload.folder, upload.bytes);
  await asActor(db, byLink, async (trx) => {
    const kept = await found(trx, token);
    requireOpen(kept);
    if (kept.photoId !== null) return;
    const id = uuidv5(kept.id, photoNamespace);
    await insertPhoto(trx, { id, spotId: kept.spotId, step: 'planting.keeper', ...file }, byLink);
    await keepReportPhoto(trx, kept.id, id);
    await announce(trx, [kept.spotId]);
  });
  return openReport(db, token);
}
