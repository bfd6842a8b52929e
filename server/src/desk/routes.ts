import { Router } from 'express';
import type { Knex } from 'knex';
import { desk } from './service';

export function deskRoutes(db: Knex): Router {
  const router = Router();
  router.get('/desk', async (_request, response) => {
    response.json(await desk(db));
  });
  return router;
}
