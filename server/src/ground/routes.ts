import { entityId } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { spotDetail, spotDetailOfTree } from './service';

const idSchema = z.object({ id: entityId });

export function groundRoutes(db: Knex): Router {
  const router = Router();
  router.get('/spots/:id', async (request, response) => {
    response.json(await spotDetail(db, parse(idSchema, request.params).id));
  });
  router.get('/trees/:id', async (request, response) => {
    response.json(await spotDetailOfTree(db, parse(idSchema, request.params).id));
  });
  return router;
}
