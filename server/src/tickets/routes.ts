import { entityId, raiseTicketSchema } from '@sombra/contract';
import { ConflictError } from '@sombra/core';
import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { CentreFault, type LocateCentre } from '../adapters/locate-centre';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { oneTicket, raiseTicket, remind, retryNow, ticketList, withdrawTicket } from './service';

const idSchema = z.object({ id: entityId });
const remindSchema = z.strictObject({ utility: z.string().min(1).max(80) });

/** The centre's own words reach the person who asked. */
async function saying<T>(act: Promise<T>): Promise<T> {
  try {
    return await act;
  } catch (error) {
    if (error instanceof CentreFault)
      throw new ConflictError(error.message, 'centre', { title: `${error.message}. Nothing was changed.` });
    throw error;
  }
}

export function ticketRoutes(db: Knex, centre: LocateCentre | null): Router {
  const router = Router();
  router.get('/tickets', async (_request, response) => {
    response.json(await ticketList(db));
  });
  router.get('/tickets/:id', async (request, response) => {
    response.json(await oneTicket(db, parse(idSchema, request.params).id));
  });
  router.post('/tickets', forAct('raise_ticket'), async (request, response) => {
    response.status(201).json(await raiseTicket(db, userOf(request), parse(raiseTicketSchema, request.body)));
  });
  router.post('/tickets/:id/remind', forAct('raise_ticket'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    const { utility } = parse(remindSchema, request.body);
    response.json(await saying(remind(db, userOf(request), { id, utility, centre })));
  });
  router.post('/tickets/:id/retry', forAct('raise_ticket'), async (request, response) => {
    response.json(await retryNow(db, userOf(request), parse(idSchema, request.params).id));
  });
  router.post('/tickets/:id/withdraw', forAct('withdraw_ticket'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    response.json(await saying(withdrawTicket(db, userOf(request), { id, centre })));
  });
  return router;
}
