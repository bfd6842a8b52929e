import { adoptPracticeSchema, savePracticeSchema, type AdoptProgress } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { allPractices } from './repository';
import { adoptPractice } from './adoption-service';
import { measuredSettlement, savePractice } from './service';

export function practiceRoutes(db: Knex): Router {
  const router = Router();
  router.get('/practices', async (_request, response) => {
    response.json(await allPractices(db));
  });
  router.get('/practices/settlement', async (_request, response) => {
    response.json(await measuredSettlement(db));
  });
  router.put('/practices', forAct('change_practice'), async (request, response) => {
    response.json(await savePractice(db, userOf(request), parse(savePracticeSchema, request.body).practice));
  });
  router.post('/practices/adopt', forAct('adopt_practice'), async (request, response) => {
    const asked = parse(adoptPracticeSchema, request.body);
    await streamProgress<AdoptProgress>(request, response, (run) => adoptPractice(db, userOf(request), asked, run));
  });
  return router;
}
