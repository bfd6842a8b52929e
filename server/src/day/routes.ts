import { Router } from 'express';
import type { Knex } from 'knex';
import { programmeToday } from '../people/service';
import { plantingDays } from './repository';

export function dayRoutes(db: Knex): Router {
  const router = Router();
  router.get('/planting-days', async (_request, response) => {
    response.json(await plantingDays(db, await programmeToday(db)));
  });
  return router;
}
