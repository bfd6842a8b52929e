import { sendRecordSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { userOf } from '../platform/sessions';
import { keepRecord } from './service';

export function recordRoutes(db: Knex): Router {
  const router = Router();
  router.post('/records', async (request, response) => {
    const receipt = await keepRecord(db, userOf(request), parse(sendRecordSchema, request.body));
    response.status(receipt.stored ? 201 : 200).json(receipt);
  });
  return router;
}
