import { changeViewSchema, entityId, saveViewSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { viewsOf } from './repository';
import { changeView, dropView, saveView } from './service';

const idSchema = z.object({ id: entityId });

export function viewRoutes(db: Knex): Router {
  const router = Router();
  router.get('/views', async (request, response) => {
    response.json(await viewsOf(db, userOf(request).id));
  });
  router.post('/views', forAct('keep_own'), async (request, response) => {
    response.json(await saveView(db, userOf(request), parse(saveViewSchema, request.body)));
  });
  router.put('/views/:id', forAct('keep_own'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    response.json(await changeView(db, userOf(request), id, parse(changeViewSchema, request.body)));
  });
  router.delete('/views/:id', forAct('keep_own'), async (request, response) => {
    response.json(await dropView(db, userOf(request), parse(idSchema, request.params).id));
  });
  return router;
}
