import { findQuerySchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { findDays, findPeople, findPlaces, findSpecies, findTrees } from './repository';

/** One box for everything that has a name, a number or a date. */
export function findRoutes(db: Knex): Router {
  const router = Router();
  router.get('/find', async (request, response) => {
    const { words } = parse(findQuerySchema, request.query);
    const kinds = [findTrees, findPlaces, findSpecies, findPeople, findDays];
    const hits = await Promise.all(kinds.map((find) => find(db, words)));
    response.json(hits.flat().slice(0, 20));
  });
  return router;
}
