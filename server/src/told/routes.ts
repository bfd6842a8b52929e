import { dropToldSchema, entityId, lookAtToldSchema, makePlaceLinkSchema, tellOfTreeSchema } from '@sombra/contract';
import express, { Router } from 'express';
import type { Knex } from 'knex';
import type pg from 'pg';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { hashOf } from '../platform/secrets';
import { forAct, userOf } from '../platform/sessions';
import { countTries, spendTry } from '../platform/tries';
import { sendSmall } from '../platform/uploads';
import {
  dropTold,
  listPlaceLinks,
  lookAtTold,
  makePlaceLink,
  openTold,
  photoOfTold,
  takePlaceLinkBack,
  tellOfTree,
  toldPhoto,
  toldReports,
  toldWaiting,
} from './service';

const idSchema = z.object({ id: entityId });
const token = z.string().regex(/^[\w-]{20,64}$/, 'must be a link of ours');
const tokenSchema = z.object({ token });
const photoSchema = z.object({ token, id: entityId });
const onePhoto = express.raw({ type: () => true, limit: '12mb' });
const shownPx = 900;

/** Doors of residents, who have no account. Counted by link: a street may share one address. */
export function openToldRoutes(db: Knex, pool: pg.Pool, storageFolder: string): Router {
  const router = Router();
  const tries = countTries(pool, { keyPrefix: 'told-link', points: 90, windowS: 5 * 60 });
  const spend = (of: string) =>
    spendTry(tries, hashOf(of), 'token', (minutes) => `Too many at once; wait ${minutes} min`);
  router.get('/open/told/:token', async (request, response) => {
    const asked = parse(tokenSchema, request.params);
    await spend(asked.token);
    response.json(await openTold(db, asked.token));
  });
  router.post('/open/told/:token', async (request, response) => {
    const asked = parse(tokenSchema, request.params);
    await spend(asked.token);
    await tellOfTree(db, asked.token, parse(tellOfTreeSchema, request.body));
    response.status(201).json({});
  });
  router.put('/open/told/:token/:id/photo', onePhoto, async (request, response) => {
    const asked = parse(photoSchema, request.params);
    await spend(asked.token);
    const bytes = Buffer.isBuffer(request.body) ? request.body : new Uint8Array();
    await photoOfTold(db, asked, { folder: storageFolder, bytes });
    response.status(201).json({});
  });
  return router;
}

export function toldRoutes(db: Knex, storageFolder: string): Router {
  const router = Router();
  const idOf = (params: unknown) => parse(idSchema, params).id;
  router.get('/told', forAct('answer_residents'), async (_request, response) => {
    response.json(await toldReports(db));
  });
  router.get('/told/waiting', forAct('answer_residents'), async (_request, response) => {
    response.json(await toldWaiting(db));
  });
  router.get('/told/links', forAct('answer_residents'), async (_request, response) => {
    response.json(await listPlaceLinks(db));
  });
  router.post('/told/links', forAct('answer_residents'), async (request, response) => {
    response.status(201).json(await makePlaceLink(db, userOf(request), parse(makePlaceLinkSchema, request.body)));
  });
  router.post('/told/links/:id/revoke', forAct('answer_residents'), async (request, response) => {
    await takePlaceLinkBack(db, userOf(request), idOf(request.params));
    response.status(204).end();
  });
  router.get('/told/:id/photo', forAct('answer_residents'), async (request, response) => {
    await sendSmall(response, storageFolder, await toldPhoto(db, idOf(request.params)), shownPx);
  });
  router.post('/told/:id/look', forAct('answer_residents'), async (request, response) => {
    const { spotId } = parse(lookAtToldSchema, request.body);
    await lookAtTold(db, userOf(request), { id: idOf(request.params), spotId });
    response.status(204).end();
  });
  router.post('/told/:id/drop', forAct('answer_residents'), async (request, response) => {
    const { reason } = parse(dropToldSchema, request.body);
    await dropTold(db, userOf(request), { id: idOf(request.params), reason });
    response.status(204).end();
  });
  return router;
}
