import { adoptPracticeSchema, savePracticeSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { userOf } from '../platform/sessions';
import { allPractices } from './repository';
import { adoptPractice, savePractice } from './service';

export function practiceRoutes(db: Knex): Router {
  const router = Router();
  router.get('/practices', async (_request, response) => {
    response.json(await allPractices(db));
  });
  router.put('/practices', async (request, response) => {
    response.json(await savePractice(db, userOf(request), parse(savePracticeSchema, request.body).practice));
  });
  router.post('/practices/adopt', async (request, response) => {
    response.json(await adoptPractice(db, userOf(request), parse(adoptPracticeSchema, request.body)));
  });
  return router;
}
