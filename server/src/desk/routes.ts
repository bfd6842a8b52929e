import { deskGroupQuerySchema, deskQuerySchema, openRemediesSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { openRemedies } from './repository';
import { desk, deskMembers } from './service';

export function deskRoutes(db: Knex): Router {
  const router = Router();
  router.get('/desk', async (request, response) => {
    response.json(await desk(db, parse(deskQuerySchema, request.query).on));
  });
  router.get('/desk/members', async (request, response) => {
    response.json(await deskMembers(db, parse(deskGroupQuerySchema, request.query)));
  });
  router.post('/desk/remedies', async (request, response) => {
    response.json(await openRemedies(db, parse(openRemediesSchema, request.body).spotIds));
  });
  return router;
}
