import {
  answerCareSchema,
  careWishesSchema,
  entityId,
  giveCareSchema,
  nameDeputySchema,
  tellWateredSchema,
  tellWordSchema,
} from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type pg from 'pg';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { hashOf } from '../platform/secrets';
import { forAct, userOf } from '../platform/sessions';
import { countTries, spendTry } from '../platform/tries';
import {
  answerCare,
  careWaiting,
  giveCare,
  keepersCsv,
  keepersOf,
  listKeepers,
  nameDeputy,
  openCare,
  renewCare,
  takeCareBack,
  tellWatered,
  tellWord,
  wishCare,
  type CareDoorway,
} from './service';

const idSchema = z.object({ id: entityId });
const tokenSchema = z.object({ token: z.string().regex(/^[\w-]{20,64}$/, 'must be a link of ours') });

/** Doors of keepers, who have no account. Counted by link: a house of many may share one address. */
export function openCareRoutes(db: Knex, pool: pg.Pool, doorway: CareDoorway): Router {
  const router = Router();
  const tries = countTries(pool, { keyPrefix: 'care-link', points: 120, windowS: 5 * 60 });
  const tokenOf = async (params: unknown) => {
    const { token } = parse(tokenSchema, params);
    // Counted by its fingerprint: the table of tries holds no link.
    await spendTry(tries, hashOf(token), 'token', (minutes) => `Too many at once; wait ${minutes} min`);
    return token;
  };
  router.get('/open/care/:token', async (request, response) => {
    response.json(await openCare(db, await tokenOf(request.params)));
  });
  router.post('/open/care/:token/watered', async (request, response) => {
    const token = await tokenOf(request.params);
    response.json(await tellWatered(db, token, parse(tellWateredSchema, request.body)));
  });
  router.post('/open/care/:token/words', async (request, response) => {
    const token = await tokenOf(request.params);
    response.json(await tellWord(db, token, parse(tellWordSchema, request.body)));
  });
  router.post('/open/care/:token/deputies', async (request, response) => {
    const token = await tokenOf(request.params);
    response.json(await nameDeputy(db, doorway, token, parse(nameDeputySchema, request.body)));
  });
  router.post('/open/care/:token/wishes', async (request, response) => {
    const token = await tokenOf(request.params);
    response.json(await wishCare(db, token, parse(careWishesSchema, request.body)));
  });
  return router;
}

export function careRoutes(db: Knex, doorway: CareDoorway): Router {
  const router = Router();
  const idOf = (params: unknown) => parse(idSchema, params).id;
  router.get('/care', forAct('give_care'), async (_request, response) => {
    response.json(await listKeepers(db));
  });
  router.get('/care/waiting', forAct('give_care'), async (_request, response) => {
    response.json(await careWaiting(db));
  });
  router.get('/care/keepers.csv', forAct('give_care'), async (_request, response) => {
    response.type('text/csv; charset=utf-8');
    response.setHeader('content-disposition', 'attachment; filename="sombra-keepers.csv"');
    await pipeline(Readable.from(keepersCsv(db)), response);
  });
  router.get('/spots/:id/care', forAct('give_care'), async (request, response) => {
    response.json(await keepersOf(db, idOf(request.params)));
  });
  router.post('/spots/:id/care', forAct('give_care'), async (request, response) => {
    const ask = { ...parse(giveCareSchema, request.body), spotId: idOf(request.params) };
    response.status(201).json(await giveCare(db, doorway, userOf(request), ask));
  });
  router.post('/care/:id/link', forAct('give_care'), async (request, response) => {
    response.json(await renewCare(db, userOf(request), idOf(request.params)));
  });
  router.post('/care/:id/revoke', forAct('give_care'), async (request, response) => {
    await takeCareBack(db, userOf(request), idOf(request.params));
    response.status(204).end();
  });
  router.post('/care/words/:id/answer', forAct('give_care'), async (request, response) => {
    const { answer } = parse(answerCareSchema, request.body);
    await answerCare(db, doorway, userOf(request), { id: idOf(request.params), answer });
    response.status(204).end();
  });
  return router;
}
