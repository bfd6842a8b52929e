import { saveRulesSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { keptRules } from './repository';
import { saveRules } from './service';

export function rulesRoutes(db: Knex): Router {
  const router = Router();
  router.get('/rules', async (_request, response) => {
    response.json(await keptRules(db));
  });
  router.put('/rules', forAct('change_rules'), async (request, response) => {
    response.json(await saveRules(db, userOf(request), parse(saveRulesSchema, request.body)));
  });
  return router;
}
