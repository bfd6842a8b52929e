import {
  addSpotSchema,
  nearQuerySchema,
  positionSchema,
  rankQuerySchema,
  spotCsvQuerySchema,
  spotFilterSchema,
  spotListQuerySchema,
  withdrawSchema,
} from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { facets, listSpots } from './counts-service';
import { rankOf } from './repository';
import { addSpot, listCsv, near, withdraw } from './service';
import { programmeToday } from '../programme/today';

export function spotRoutes(db: Knex): Router {
  const router = Router();
  router.get('/spots', async (request, response) => {
    response.json(await listSpots(db, parse(spotListQuerySchema, request.query), await programmeToday(db)));
  });
  router.get('/spots.csv', async (request, response) => {
    const query = parse(spotCsvQuerySchema, request.query);
    response.type('text/csv; charset=utf-8');
    response.setHeader('content-disposition', 'attachment; filename="sombra-list.csv"');
    await pipeline(Readable.from(listCsv(db, query)), response);
  });
  router.get('/spots/facets', async (request, response) => {
    response.json(await facets(db, parse(spotFilterSchema, request.query), await programmeToday(db)));
  });
  router.get('/spots/rank', async (request, response) => {
    const query = parse(rankQuerySchema, request.query);
    response.json({ index: await rankOf(db, query, await programmeToday(db)) });
  });
  router.get('/spots/near', async (request, response) => {
    const { lng, lat } = parse(nearQuerySchema, request.query);
    response.json(await near(db, parse(positionSchema, [lng, lat])));
  });
  router.post('/spots', forAct('add_spot'), async (request, response) => {
    const added = await addSpot(db, userOf(request), parse(addSpotSchema, request.body));
    response.status(added.stored ? 201 : 200).json(added);
  });
  router.post('/spots/withdraw', forAct('withdraw_spots'), async (request, response) => {
    response.json(await withdraw(db, userOf(request), parse(withdrawSchema, request.body)));
  });
  return router;
}
