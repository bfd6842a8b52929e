import { waterCsvQuerySchema, waterListQuerySchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { parse } from '../platform/problems';
import { forAct } from '../platform/sessions';
import { waterBasis, waterCsv, waterList } from './service';

export function waterRoutes(db: Knex): Router {
  const router = Router();
  router.get('/water/basis', forAct('see'), async (_request, response) => {
    response.json(await waterBasis(db));
  });
  router.get('/water/trees', forAct('see'), async (request, response) => {
    response.json(await waterList(db, parse(waterListQuerySchema, request.query)));
  });
  router.get('/water/trees.csv', forAct('see'), async (request, response) => {
    const filter = parse(waterCsvQuerySchema, request.query);
    response.type('text/csv; charset=utf-8');
    response.setHeader('content-disposition', 'attachment; filename="sombra-water.csv"');
    await pipeline(Readable.from(waterCsv(db, filter)), response);
  });
  return router;
}
