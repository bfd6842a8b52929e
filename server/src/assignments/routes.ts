import { assignSchema, endAssignmentSchema, entityId, takeOverSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import type pg from 'pg';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { countTries, spendTry } from '../platform/tries';
import { assign, assignmentsFor, fieldPeople, finish, handOver, takeOver } from './service';

const idSchema = z.object({ id: entityId });
const codeTries = { keyPrefix: 'hand-over', points: 10, windowS: 15 * 60 };

export function assignmentRoutes(db: Knex, pool: pg.Pool): Router {
  const router = Router();
  const tries = countTries(pool, codeTries);
  router.get('/assignments', forAct('see'), async (request, response) => {
    response.json(await assignmentsFor(db, userOf(request)));
  });
  router.get('/assignments/people', forAct('assign'), async (_request, response) => {
    response.json(await fieldPeople(db));
  });
  router.post('/assignments', forAct('assign'), async (request, response) => {
    response.status(201).json(await assign(db, userOf(request), parse(assignSchema, request.body)));
  });
  router.post('/assignments/take-over', forAct('keep_own'), async (request, response) => {
    const { code } = parse(takeOverSchema, request.body);
    const user = userOf(request);
    await spendTry(tries, user.id, 'code', (minutes) => `Too many codes; wait ${minutes} min`);
    response.json(await takeOver(db, user, code));
  });
  router.post('/assignments/:id/end', forAct('keep_own'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    const { version } = parse(endAssignmentSchema, request.body);
    response.json(await finish(db, userOf(request), id, version));
  });
  router.post('/assignments/:id/hand-over', forAct('keep_own'), async (request, response) => {
    response.json(await handOver(db, userOf(request), parse(idSchema, request.params).id));
  });
  return router;
}
