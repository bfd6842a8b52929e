import { giveLooksSchema, seekLooksSchema, worthQuerySchema, type SeekLooksProgress } from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import * as z from 'zod';
import { parse } from '../platform/problems';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { programmeToday } from '../programme/today';
import type { RoundSeeker } from '../water/rounds-service';
import { giveLooks, planLooks, worthCsv, worthList } from './looks-service';
import { establishingSeasons } from './establishing-repository';
import { referralPdf } from './referral-pdf';
import { referralOf } from './referral-service';

const mostSeasons = 6;
const idSchema = z.object({ id: z.uuid() });

export function inspectRoutes(db: Knex, storageFolder: string, seeker: RoundSeeker): Router {
  const router = Router();
  router.get('/trees/:id/referral.pdf', forAct('see'), async (request, response) => {
    const referral = await referralOf(db, userOf(request), parse(idSchema, request.params).id, storageFolder);
    response.type('application/pdf');
    referralPdf(referral).pipe(response);
  });
  router.get('/establishing', forAct('see'), async (_request, response) => {
    response.json(await establishingSeasons(db, await programmeToday(db), mostSeasons));
  });
  router.get('/looks', forAct('see'), async (request, response) => {
    response.json(await worthList(db, parse(worthQuerySchema, request.query)));
  });
  router.get('/looks.csv', forAct('see'), async (request, response) => {
    response.type('text/csv; charset=utf-8');
    response.setHeader('content-disposition', 'attachment; filename="sombra-looks.csv"');
    response.send(await worthCsv(db, userOf(request), parse(worthQuerySchema, request.query)));
  });
  router.post('/looks/rounds', forAct('assign'), async (request, response) => {
    const asked = parse(seekLooksSchema, request.body);
    await streamProgress<SeekLooksProgress>(request, response, (run) => planLooks(db, seeker, asked, run));
  });
  router.post('/looks/give', forAct('assign'), async (request, response) => {
    await giveLooks(db, userOf(request), parse(giveLooksSchema, request.body));
    response.status(204).end();
  });
  return router;
}
