import {
  giveLooksSchema,
  giveWorkSchema,
  seekLooksSchema,
  workQuerySchema,
  workSheetQuerySchema,
  worthQuerySchema,
  type SeekLooksProgress,
} from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import * as z from 'zod';
import { parse } from '../platform/problems';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { programmeToday } from '../programme/today';
import type { RoundSeeker } from '../water/rounds-service';
import { giveLooks, planLooks, worthCsv, worthList } from './looks-service';
import { cohortOfTree } from './cohort-service';
import { establishingSeasons } from './establishing-repository';
import { remediesPdf } from './remedies-pdf';
import { giveWork, workList, workSheet } from './remedies-service';
import { claimPdf, referralPdf } from './referral-pdf';
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
  router.get('/trees/:id/claim.pdf', forAct('see'), async (request, response) => {
    const claim = await referralOf(db, userOf(request), parse(idSchema, request.params).id, storageFolder);
    response.type('application/pdf');
    claimPdf(claim).pipe(response);
  });
  router.get('/trees/:id/cohort', forAct('see'), async (request, response) => {
    response.json(await cohortOfTree(db, parse(idSchema, request.params).id));
  });
  router.get('/establishing', forAct('see'), async (_request, response) => {
    response.json(await establishingSeasons(db, await programmeToday(db), mostSeasons));
  });
  router.get('/looks', forAct('see'), async (request, response) => {
    response.json(await worthList(db, parse(worthQuerySchema, request.query)));
  });
  router.get('/remedies', forAct('see'), async (request, response) => {
    response.json(await workList(db, parse(workQuerySchema, request.query)));
  });
  router.get('/remedies/sheet.pdf', forAct('see'), async (request, response) => {
    const sheet = await workSheet(db, userOf(request), parse(workSheetQuerySchema, request.query));
    response.type('application/pdf');
    remediesPdf(sheet).pipe(response);
  });
  router.post('/remedies/give', forAct('assign'), async (request, response) => {
    await giveWork(db, userOf(request), parse(giveWorkSchema, request.body));
    response.status(204).end();
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
