import { saveProgrammeSchema, setUpSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import type { Renewal } from '../record/renew-service';
import { programme, saveProgramme, setUp } from './service';

export function programmeRoutes(db: Knex, renewal: Pick<Renewal, 'begin'>): Router {
  const router = Router();
  router.get('/programme', async (_request, response) => {
    response.json(await programme(db));
  });
  router.put('/programme', forAct('change_programme'), async (request, response) => {
    const settings = parse(saveProgrammeSchema, request.body);
    response.json(await saveProgramme(db, userOf(request), settings, () => renewal.begin()));
  });
  return router;
}

/** The one door of an empty programme. */
export function setUpRoutes(db: Knex): Router {
  const router = Router();
  router.post('/open/set-up', async (request, response) => {
    await setUp(db, parse(setUpSchema, request.body));
    response.status(201).json({});
  });
  return router;
}
