import { Router } from 'express';
import type { Knex } from 'knex';
import * as z from 'zod';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { programmeToday } from '../programme/today';
import { establishingSeasons } from './establishing-repository';
import { referralPdf } from './referral-pdf';
import { referralOf } from './referral-service';

const mostSeasons = 6;
const idSchema = z.object({ id: z.uuid() });

export function inspectRoutes(db: Knex, storageFolder: string): Router {
  const router = Router();
  router.get('/trees/:id/referral.pdf', forAct('see'), async (request, response) => {
    const referral = await referralOf(db, userOf(request), parse(idSchema, request.params).id, storageFolder);
    response.type('application/pdf');
    referralPdf(referral).pipe(response);
  });
  router.get('/establishing', forAct('see'), async (_request, response) => {
    response.json(await establishingSeasons(db, await programmeToday(db), mostSeasons));
  });
  return router;
}
