import {
  addHelperSchema,
  answerRegistrationSchema,
  askReportSchema,
  changeDaySchema,
  changeHelperSchema,
  countToolSchema,
  entityId,
  keepTeamsSchema,
  may,
  newDayEventSchema,
  newDaySchema,
  registerSchema,
  reportBuiltSchema,
  seekTeamsSchema,
  waiverSchema,
  type SeekProgress,
} from '@sombra/contract';
import express, { Router, type Request } from 'express';
import { NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import type pg from 'pg';
import { z } from 'zod';
import { deviceNow } from '../platform/device-time';
import { originOf } from '../platform/origin';
import { parse } from '../platform/problems';
import { hashOf } from '../platform/secrets';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { countTries, spendTry } from '../platform/tries';
import { findProgramme, timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { geojsonOf, gpxOf } from '../streets/way-files';
import { askForReport, builtReports, openReport, report, reportPhoto, takeReportBack } from './built-report-service';
import { drawDaySheets, openDaySheets } from './day-sheet';
import { writePacket } from './packet-service';
import { dayDetail, requireDay, withoutNames } from './detail-service';
import { calendarOf } from './letters';
import { nameTags } from './name-tags';
import { addHelper, changeHelper, privateFacts } from './helpers-service';
import { answerRegistration, openDay, openRegistration, register } from './registration-service';
import type { Doorway } from './told-service';
import { currentWaiver, plantingDays } from './repository';
import { arrangeTeams, changeDay, keepEvent, keepToolCount, keepWaiver, makeDay, renewLink } from './service';
import { seekForDay, type TeamSeeker } from './team-service';
import { waysOf } from './team-ways';

const idSchema = z.object({ id: entityId });
const tokenSchema = z.object({ token: z.string().regex(/^[\w-]{20,64}$/, 'must be a link of ours') });
const onePhoto = express.raw({ type: () => true, limit: '12mb' });
const linkSchema = z.strictObject({ open: z.boolean() });

export interface DayParts {
  readonly doorway: Doorway;
  readonly seeker: TeamSeeker;
  readonly storageFolder: string;
  readonly simulatedWeather: boolean;
  /** Where a simulated mail server shows what it took. */
  readonly mailPage: string | null;
}

/** Doors of people without an account. Counted by link, since a whole school may come from one address. */
export function openDayRoutes(
  db: Knex,
  pool: pg.Pool,
  { doorway, storageFolder }: Pick<DayParts, 'doorway' | 'storageFolder'>,
): Router {
  const router = Router();
  const tries = countTries(pool, { keyPrefix: 'day-link', points: 600, windowS: 5 * 60 });
  const byLink = async (token: string) =>
    spendTry(tries, hashOf(token), 'token', (minutes) => `Too many at once; wait ${minutes} min`);
  router.get('/open/days/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    response.json(await openDay(db, token));
  });
  router.post('/open/days/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    await register(db, doorway, token, parse(registerSchema, request.body));
    response.status(202).json({});
  });
  router.get('/open/places/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    response.json(await openRegistration(db, token));
  });
  router.post('/open/places/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    const { answer } = parse(answerRegistrationSchema, request.body);
    response.json(await answerRegistration(db, doorway, token, answer));
  });
  router.get('/open/planted/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    response.json(await openReport(db, token));
  });
  router.post('/open/planted/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    response.json(await report(db, token, parse(reportBuiltSchema, request.body)));
  });
  router.put('/open/planted/:token/photo', onePhoto, async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await byLink(token);
    const bytes = Buffer.isBuffer(request.body) ? request.body : new Uint8Array();
    response.json(await reportPhoto(db, token, { folder: storageFolder, bytes }));
  });
  return router;
}

export function dayRoutes(
  db: Knex,
  { doorway, seeker, simulatedWeather, mailPage }: Omit<DayParts, 'storageFolder'>,
): Router {
  const router = Router();
  const detailOf = async (request: Request, id = idOf(request.params)) => {
    const user = userOf(request);
    const detail = await dayDetail(db, id, { simulatedWeather, mailPage, units: user.units });
    return may(user.role, 'run_day') ? detail : withoutNames(detail);
  };
  const idOf = (params: unknown) => parse(idSchema, params).id;
  router.get('/planting-days', forAct('see'), async (_request, response) => {
    response.json(await plantingDays(db, await programmeToday(db)));
  });
  router.post('/planting-days', forAct('plan_day'), async (request, response) => {
    const day = parse(newDaySchema, request.body);
    await makeDay(db, userOf(request), day);
    response.status(201).json(await detailOf(request, day.id));
  });
  router.get('/planting-days/:id', forAct('see'), async (request, response) => {
    response.json(await detailOf(request));
  });
  router.put('/planting-days/:id', forAct('plan_day'), async (request, response) => {
    const id = idOf(request.params);
    await changeDay(db, userOf(request), id, parse(changeDaySchema, request.body));
    response.json(await detailOf(request, id));
  });
  router.put('/planting-days/:id/teams', forAct('run_day'), async (request, response) => {
    const id = idOf(request.params);
    await arrangeTeams(db, userOf(request), id, parse(keepTeamsSchema, request.body));
    response.json(await detailOf(request, id));
  });
  router.post('/planting-days/:id/teams/seek', forAct('plan_day'), async (request, response) => {
    const asked = { ...parse(seekTeamsSchema, request.body), dayId: idOf(request.params) };
    await requireDay(db, asked.dayId);
    await streamProgress<SeekProgress>(request, response, (run) => seekForDay(db, seeker, asked, run));
  });
  router.post('/planting-days/:id/link', forAct('plan_day'), async (request, response) => {
    const { open } = parse(linkSchema, request.body);
    response.json(await renewLink(db, userOf(request), idOf(request.params), open));
  });
  router.get('/planting-days/:id/private', forAct('run_day'), async (request, response) => {
    response.json(await privateFacts(db, doorway, idOf(request.params)));
  });
  router.post('/planting-days/:id/people', forAct('run_day'), async (request, response) => {
    const id = idOf(request.params);
    await addHelper(db, doorway, userOf(request), id, parse(addHelperSchema, request.body));
    response.status(201).json(await detailOf(request, id));
  });
  router.put('/day-people/:id', forAct('run_day'), async (request, response) => {
    const change = parse(changeHelperSchema, request.body);
    const dayId = await changeHelper(db, doorway, userOf(request), idOf(request.params), change);
    response.json(await detailOf(request, dayId));
  });
  router.post('/planting-days/:id/events', forAct('run_day'), async (request, response) => {
    const id = idOf(request.params);
    const event = parse(newDayEventSchema, request.body);
    await keepEvent(db, doorway, userOf(request), id, { event, deviceNow: deviceNow(request) });
    response.status(201).json({});
  });
  router.get('/planting-days/:id/sheets.pdf', forAct('run_day'), async (request, response) => {
    const detail = await detailOf(request);
    const programme = await findProgramme(db);
    response.type('application/pdf');
    const doc = openDaySheets(detail, programme?.name ?? 'Sombra');
    drawDaySheets(doc, detail, userOf(request).units);
    doc.pipe(response);
    doc.end();
  });
  router.get('/planting-days/:id/packet.pdf', forAct('run_day'), async (request, response) => {
    const detail = await detailOf(request);
    const stopped = () => response.destroyed;
    const asked = { origin: originOf(request), units: userOf(request).units, by: userOf(request).name, stopped };
    response.type('application/pdf');
    await writePacket(db, response, detail, asked);
  });
  router.get('/planting-days/:id/name-tags.pdf', forAct('run_day'), async (request, response) => {
    const detail = await detailOf(request);
    const programme = await findProgramme(db);
    response.type('application/pdf');
    const tags = await nameTags(detail, { programme: programme?.name ?? 'Sombra', origin: originOf(request) });
    tags.pipe(response);
  });
  router.get('/planting-days/:id/teams.gpx', forAct('see'), async (request, response) => {
    const detail = await detailOf(request);
    response
      .type('application/gpx+xml')
      .attachment('teams.gpx')
      .send(gpxOf(waysOf(detail)));
  });
  router.get('/planting-days/:id/teams.geojson', forAct('see'), async (request, response) => {
    const detail = await detailOf(request);
    response
      .type('application/geo+json')
      .attachment('teams.geojson')
      .send(JSON.stringify(geojsonOf(waysOf(detail), 'team')));
  });
  router.get('/planting-days/:id/day.ics', forAct('see'), async (request, response) => {
    const day = await requireDay(db, idOf(request.params));
    const programme = await findProgramme(db);
    const about = { ...day, programme: programme?.name ?? 'Sombra', timeZone: await timeZone(db) };
    response
      .type('text/calendar')
      .attachment('planting-day.ics')
      .send(calendarOf(about, { uid: day.id }));
  });
  router.get('/spots/:id/built-reports', forAct('run_day'), async (request, response) => {
    response.json(await builtReports(db, idOf(request.params)));
  });
  router.post('/spots/:id/built-reports', forAct('run_day'), async (request, response) => {
    const ask = { ...parse(askReportSchema, request.body), spotId: idOf(request.params) };
    response.status(201).json(await askForReport(db, userOf(request), ask));
  });
  router.post('/built-reports/:id/revoke', forAct('run_day'), async (request, response) => {
    await takeReportBack(db, userOf(request), idOf(request.params));
    response.status(204).end();
  });
  router.put('/tools', forAct('count_store'), async (request, response) => {
    await keepToolCount(db, userOf(request), parse(countToolSchema, request.body));
    response.status(204).end();
  });
  router.get('/waiver', forAct('see'), async (_request, response) => {
    const waiver = await currentWaiver(db);
    if (!waiver) throw new NotFoundError('no waiver is written yet', 'waiver');
    response.json(waiver);
  });
  router.put('/waiver', forAct('plan_day'), async (request, response) => {
    await keepWaiver(db, userOf(request), parse(waiverSchema, request.body));
    response.status(204).end();
  });
  return router;
}
