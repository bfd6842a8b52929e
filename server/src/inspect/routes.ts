import { Router } from 'express';
import type { Knex } from 'knex';
import * as z from 'zod';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { referralPdf } from './referral-pdf';
import { referralOf } from './referral-service';

const idSchema = z.object({ id: z.uuid() });

export function inspectRoutes(db: Knex, storageFolder: string): Router {
  const router = Router();
  router.get('/trees/:id/referral.pdf', forAct('see'), async (request, response) => {
    const referral = await referralOf(db, userOf(request), parse(idSchema, request.params).id, storageFolder);
    response.type('application/pdf');
    referralPdf(referral).pipe(response);
  });
  return router;
}
