import { adoptPracticeSchema, type AdoptProgress } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { adoptPractice } from './service';
import { measuredSettlement } from './settlement';

export function adoptionRoutes(db: Knex): Router {
  const router = Router();
  router.get('/practices/settlement', async (_request, response) => {
    response.json(await measuredSettlement(db));
  });
  router.post('/practices/adopt', forAct('adopt_practice'), async (request, response) => {
    const asked = parse(adoptPracticeSchema, request.body);
    await streamProgress<AdoptProgress>(request, response, (run) => adoptPractice(db, userOf(request), asked, run));
  });
  return router;
}
