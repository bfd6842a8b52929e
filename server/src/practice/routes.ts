import { savePracticeSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { allPractices, savePractice } from './service';

export function practiceRoutes(db: Knex): Router {
  const router = Router();
  router.get('/practices', async (_request, response) => {
    response.json(await allPractices(db));
  });
  router.put('/practices', forAct('change_practice'), async (request, response) => {
    response.json(await savePractice(db, userOf(request), parse(savePracticeSchema, request.body).practice));
  });
  return router;
}
