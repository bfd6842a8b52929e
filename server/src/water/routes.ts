import { Router } from 'express';
import type { Knex } from 'knex';
import { forAct } from '../platform/sessions';
import { waterBasis } from './service';

export function waterRoutes(db: Knex): Router {
  const router = Router();
  router.get('/water/basis', forAct('see'), async (_request, response) => {
    response.json(await waterBasis(db));
  });
  return router;
}
