import { sendBatchSchema, sendRecordSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { keepRecord, keepRecords } from './service';

export function recordRoutes(db: Knex): Router {
  const router = Router();
  router.post('/records', forAct('record'), async (request, response) => {
    const receipt = await keepRecord(db, userOf(request), parse(sendRecordSchema, request.body));
    response.status(receipt.stored ? 201 : 200).json(receipt);
  });
  router.post('/records/batch', forAct('record'), async (request, response) => {
    const { records } = parse(sendBatchSchema, request.body);
    response.json({ receipts: await keepRecords(db, userOf(request), records) });
  });
  return router;
}
