import { cardsQuerySchema, materialsQuerySchema, storeSchema } from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import { Router } from 'express';
import type { Knex } from 'knex';
import { originOf } from '../platform/origin';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { findProgramme } from '../programme/repository';
import { cardSpots, writeCards } from './card-service';
import { materialsPdf } from './materials-pdf';
import { countStore, materialsCsv, seasonMaterials } from './materials-service';

export function pitRoutes(db: Knex): Router {
  const router = Router();
  router.get('/materials', async (request, response) => {
    response.json(await seasonMaterials(db, parse(materialsQuerySchema, request.query)));
  });
  router.get('/materials.csv', async (request, response) => {
    const sum = await seasonMaterials(db, parse(materialsQuerySchema, request.query));
    response.type('text/csv').attachment('materials.csv').send(materialsCsv(sum));
  });
  router.get('/materials.pdf', async (request, response) => {
    const sum = await seasonMaterials(db, parse(materialsQuerySchema, request.query));
    const programme = await findProgramme(db);
    response.type('application/pdf');
    materialsPdf(sum, programme?.name ?? 'Sombra', userOf(request).units).pipe(response);
  });
  router.put('/store', forAct('count_store'), async (request, response) => {
    await countStore(db, userOf(request), parse(storeSchema, request.body));
    response.status(204).end();
  });
  router.post('/cards', async (request, response) => {
    const asked = parse(cardsQuerySchema, request.body);
    const spots = await cardSpots(db, asked);
    if (spots.length === 0) throw new NotFoundError('no spot is ready to plant', 'spots');
    response.type('application/pdf').setHeader('x-cards', String(spots.length));
    let gone = false;
    response.on('close', () => (gone = true));
    await writeCards(db, response, {
      spots,
      onPage: asked.layout === 'four' ? 'four' : 'one',
      origin: originOf(request),
      units: userOf(request).units,
      stopped: () => gone,
      by: userOf(request).name,
    });
  });
  return router;
}
