import { askListSchema, entityId, offersQuerySchema, saveSpeciesSchema } from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import express, { Router, type Request } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import type { NurseryService } from '../adapters/nursery';
import { bytesOf, csvFile } from '../platform/csv-rows';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { findProgramme } from '../programme/repository';
import { listCsv } from './list-csv';
import { acceptList, askList, cancelList, oneList } from './list-service';
import { orderCsv, orderPdf } from './order-sheet';
import { allOffers, listHeads, speciesWithCounts } from './repository';
import { importOffers, importSpecies, readNurseries, saveSpecies, speciesCsv } from './species-service';
import { findOrder } from '../orders/repository';

const idSchema = z.object({ id: entityId });

export function matchRoutes(db: Knex, nurseries: NurseryService | null): Router {
  const router = Router();
  const idOf = (request: Request) => parse(idSchema, request.params).id;
  const order = async (request: Request) => {
    const found = await findOrder(db, idOf(request));
    if (!found) throw new NotFoundError('no such order', 'id');
    return found;
  };

  router.get('/species', async (_request, response) => {
    response.json(await speciesWithCounts(db));
  });
  router.put('/species', forAct('change_species'), async (request, response) => {
    await saveSpecies(db, userOf(request), parse(saveSpeciesSchema, request.body));
    response.json(await speciesWithCounts(db));
  });
  router.get('/species.csv', async (_request, response) => {
    response
      .type('text/csv')
      .attachment('species.csv')
      .send(await speciesCsv(db));
  });
  router.post('/species/import', forAct('change_species'), csvFile, async (request, response) => {
    response.json(await importSpecies(db, userOf(request), bytesOf(request)));
  });

  router.get('/offers', async (_request, response) => {
    response.json(await allOffers(db));
  });
  router.post('/offers/import', forAct('read_offers'), csvFile, async (request, response) => {
    const { nursery } = parse(offersQuerySchema, request.query);
    response.json(await importOffers(db, userOf(request), nursery, bytesOf(request)));
  });
  router.post('/offers/read', forAct('read_offers'), async (request, response) => {
    response.json(await readNurseries(db, userOf(request), nurseries));
  });

  router.get('/lists', async (_request, response) => {
    response.json(await listHeads(db));
  });
  router.post('/lists', forAct('make_list'), express.json({ limit: '1mb' }), async (request, response) => {
    response.status(201).json(await askList(db, userOf(request), parse(askListSchema, request.body)));
  });
  router.get('/lists/:id.csv', async (request, response) => {
    const list = await oneList(db, idOf(request));
    response.type('text/csv').attachment('season-list.csv').send(listCsv(list));
  });
  router.get('/lists/:id', async (request, response) => {
    response.json(await oneList(db, idOf(request)));
  });
  router.post('/lists/:id/cancel', forAct('make_list'), async (request, response) => {
    response.json(await cancelList(db, userOf(request), idOf(request)));
  });
  router.post('/lists/:id/accept', forAct('make_list'), async (request, response) => {
    response.json(await acceptList(db, userOf(request), idOf(request)));
  });
  router.get('/orders/:id.csv', async (request, response) => {
    const found = await order(request);
    response.type('text/csv').attachment(`order-${found.number}.csv`).send(orderCsv(found));
  });
  router.get('/orders/:id.pdf', async (request, response) => {
    const found = await order(request);
    const programme = await findProgramme(db);
    response.type('application/pdf').setHeader('content-disposition', `inline; filename="order-${found.number}.pdf"`);
    orderPdf(found, programme?.name ?? 'Sombra').pipe(response);
  });
  return router;
}
