import { adoptPracticeSchema, type AdoptProgress } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { allPractices } from '../practice/service';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import type { Adoptions } from './runs-service';
import { measuredSettlement } from './settlement';

export function adoptionRoutes(db: Knex, adoptions: Adoptions): Router {
  const router = Router();
  router.get('/practices/settlement', async (_request, response) => {
    response.json(await measuredSettlement(db));
  });
  router.post('/practices/adopt', forAct('adopt_practice'), async (request, response) => {
    const asked = parse(adoptPracticeSchema, request.body);
    await streamProgress<AdoptProgress>(request, response, (run) => adoptions.adopt(userOf(request), asked, run));
  });
  router.post('/practices/adopt/stop', forAct('adopt_practice'), async (_request, response) => {
    await adoptions.stop();
    response.json(await allPractices(db));
  });
  return router;
}
