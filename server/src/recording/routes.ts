import { clockAnswerSchema, recordId, sendBatchSchema, sendRecordSchema } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { answerClock, clockQuestions } from './clock-service';
import { keepRecord, keepRecords } from './service';
import { deviceNow } from '../platform/device-time';

const idSchema = z.object({ id: recordId });

export function recordRoutes(db: Knex): Router {
  const router = Router();
  router.post('/records', forAct('record'), async (request, response) => {
    const receipt = await keepRecord(db, userOf(request), parse(sendRecordSchema, request.body), deviceNow(request));
    response.status(receipt.stored ? 201 : 200).json(receipt);
  });
  router.post('/records/batch', forAct('record'), async (request, response) => {
    const { records } = parse(sendBatchSchema, request.body);
    response.json({ receipts: await keepRecords(db, userOf(request), records, deviceNow(request)) });
  });
  router.get('/clock-questions', forAct('answer_clock'), async (_request, response) => {
    response.json(await clockQuestions(db));
  });
  router.post('/clock-questions/:id', forAct('answer_clock'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    const { happenedAt } = parse(clockAnswerSchema, request.body);
    response.json(await answerClock(db, userOf(request), id, happenedAt));
  });
  return router;
}
