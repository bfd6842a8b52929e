import { Router } from 'express';
import type { Knex } from 'knex';
import { plantingDays } from './repository';
import { programmeToday } from '../programme/today';

export function dayRoutes(db: Knex): Router {
  const router = Router();
  router.get('/planting-days', async (_request, response) => {
    response.json(await plantingDays(db, await programmeToday(db)));
  });
  return router;
}
