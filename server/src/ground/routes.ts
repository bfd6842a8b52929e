import {
  answerConsentSchema,
  askConsentSchema,
  clearanceQuerySchema,
  entityId,
  permitSchema,
  photoQuerySchema,
  photoStepSchema,
} from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import express, { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import type { Config } from '../platform/config';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { sendKept, sendSmall } from '../platform/uploads';
import { keptFile } from './leave-repository';
import {
  addPermit,
  addPhoto,
  answerConsent,
  askConsent,
  attachClearance,
  openConsent,
  takeConsentBack,
} from './leave-service';
import { spotDetail, spotDetailOfTree } from './service';
import { surroundingsOf } from './surroundings-repository';

const idSchema = z.object({ id: entityId });
const photoSchema = z.object({ id: entityId, photoId: entityId });
const anyFile = express.raw({ type: () => true, limit: '12mb' });
const bytesOf = ({ body }: Request): Uint8Array => (Buffer.isBuffer(body) ? body : new Uint8Array());

type GroundConfig = Pick<Config, 'storageFolder' | 'sessionSecret'>;

export function groundRoutes(db: Knex, { storageFolder, sessionSecret }: GroundConfig): Router {
  const router = Router();
  const idOf = (request: Request) => parse(idSchema, request.params).id;
  async function sendFile(response: Response, table: 'lawful_clearance' | 'spot_photo', id: string): Promise<void> {
    const file = await keptFile(db, table, id);
    if (!file) throw new NotFoundError('no such file', 'id');
    await sendKept(response, storageFolder, file);
  }

  /** An address somebody mistyped names nothing: there is no value to put right. */
  const named = (request: Request, what: 'spot' | 'tree'): string => {
    const id = entityId.safeParse(request.params['id']);
    if (id.success) return id.data;
    throw new NotFoundError(`no such ${what}`, 'id', { title: `There is no such ${what}.` });
  };
  router.get('/spots/:id', async (request, response) => {
    response.json(await spotDetail(db, named(request, 'spot')));
  });
  router.get('/trees/:id', async (request, response) => {
    response.json(await spotDetailOfTree(db, named(request, 'tree')));
  });
  router.get('/spots/:id/surroundings', async (request, response) => {
    response.json(await surroundingsOf(db, idOf(request)));
  });
  router.put('/spots/:id/photos/:photoId', forAct('add_photo'), anyFile, async (request, response) => {
    const { id, photoId } = parse(photoSchema, request.params);
    const upload = { folder: storageFolder, bytes: bytesOf(request) };
    const { step } = parse(photoStepSchema, request.query);
    await addPhoto(db, userOf(request), { id: photoId, spotId: id, step }, upload);
    response.status(201).json({ id: photoId });
  });
  router.get('/photos/:id', async (request, response) => {
    const { px } = parse(photoQuerySchema, request.query);
    const file = await keptFile(db, 'spot_photo', idOf(request));
    if (px === undefined || !file) return sendFile(response, 'spot_photo', idOf(request));
    await sendSmall(response, storageFolder, file, px);
  });
  router.put('/spots/:id/clearances', forAct('attach_clearance'), anyFile, async (request, response) => {
    const clearance = parse(clearanceQuerySchema, request.query);
    const upload = { folder: storageFolder, bytes: bytesOf(request) };
    response.status(201).json(await attachClearance(db, userOf(request), idOf(request), clearance, upload));
  });
  router.get('/clearances/:id', (request, response) => sendFile(response, 'lawful_clearance', idOf(request)));
  router.post('/permits', forAct('record_permit'), async (request, response) => {
    await addPermit(db, userOf(request), parse(permitSchema, request.body));
    response.status(201).json({});
  });
  router.post('/spots/:id/consents', forAct('ask_owner'), async (request, response) => {
    const ask = { ...parse(askConsentSchema, request.body), spotId: idOf(request), secret: sessionSecret };
    response.status(201).json(await askConsent(db, userOf(request), ask));
  });
  router.post('/consents/:id/revoke', forAct('ask_owner'), async (request, response) => {
    response.json(await takeConsentBack(db, userOf(request), idOf(request)));
  });
  return router;
}

const tokenSchema = z.object({ token: z.string().min(10).max(200) });

/** Doors for people without an account: what a signed link opens, and nothing else. */
export function consentRoutes(db: Knex, { sessionSecret }: Pick<Config, 'sessionSecret'>): Router {
  const router = Router();
  router.get('/open/consents/:token', async (request, response) => {
    response.json(await openConsent(db, sessionSecret, parse(tokenSchema, request.params).token));
  });
  router.post('/open/consents/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    response.json(await answerConsent(db, sessionSecret, token, parse(answerConsentSchema, request.body)));
  });
  return router;
}
