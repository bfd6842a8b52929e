import { seasonQuerySchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { outlook, season } from './service';

export function seasonRoutes(db: Knex): Router {
  const router = Router();
  router.get('/season', async (request, response) => {
    response.json(await season(db, parse(seasonQuerySchema, request.query)));
  });
  router.get('/season/outlook', async (_request, response) => {
    response.json(await outlook(db));
  });
  return router;
}
