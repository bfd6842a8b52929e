import { deliveryStateSchema, entityId, newDeliverySchema, receiveLotSchema, waterHeldSchema } from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import express, { Router, type Request } from 'express';
import type { Knex } from 'knex';
import path from 'node:path';
import { z } from 'zod';
import type { Config } from '../platform/config';
import { parse } from '../platform/problems';
import { userOf } from '../platform/sessions';
import { currentRules } from '../rules/repository';
import { claimedLots, claimPdf } from './claim-sheet';
import { deliveryList, lotPhoto } from './repository';
import { addLotPhoto, keepState, oneDelivery, openDelivery, receiveLot, waterHeld } from './service';

const idSchema = z.object({ id: entityId });
const photoFile = express.raw({ type: () => true, limit: '6mb' });

export function stockRoutes(db: Knex, { storageFolder }: Pick<Config, 'storageFolder'>): Router {
  const router = Router();
  const idOf = (request: Request) => parse(idSchema, request.params).id;

  router.get('/deliveries', async (_request, response) => {
    response.json(await deliveryList(db));
  });
  router.post('/deliveries', async (request, response) => {
    response.status(201).json(await openDelivery(db, userOf(request), parse(newDeliverySchema, request.body)));
  });
  router.get('/deliveries/:id', async (request, response) => {
    response.json(await oneDelivery(db, idOf(request)));
  });
  router.put('/deliveries/:id', async (request, response) => {
    response.json(await keepState(db, userOf(request), idOf(request), parse(deliveryStateSchema, request.body)));
  });
  router.post('/deliveries/:id/water', async (request, response) => {
    const { onDay } = parse(waterHeldSchema, request.body);
    response.json(await waterHeld(db, userOf(request), idOf(request), onDay));
  });
  router.get('/deliveries/:id/claim', async (request, response) => {
    const delivery = await oneDelivery(db, idOf(request));
    if (claimedLots(delivery).length === 0) throw new NotFoundError('nothing of this delivery is claimed', 'id');
    const { match } = await currentRules(db);
    const programme = await db('programme').first<{ name: string } | undefined>('name');
    const photos = new Map<string, string>();
    for (const { id } of claimedLots(delivery)) {
      const photo = await lotPhoto(db, id);
      if (photo) photos.set(id, path.join(storageFolder, photo.storedAs));
    }
    response.type('application/pdf');
    claimPdf(delivery, { programme: programme?.name ?? 'Sombra', currency: match.currency, photos }).pipe(response);
  });
  router.put('/lots/:id', async (request, response) => {
    response.json(await receiveLot(db, userOf(request), idOf(request), parse(receiveLotSchema, request.body)));
  });
  router.put('/lots/:id/photo', photoFile, async (request, response) => {
    const bytes = Buffer.isBuffer(request.body) ? request.body : new Uint8Array();
    response.json(await addLotPhoto(db, userOf(request), idOf(request), { folder: storageFolder, bytes }));
  });
  router.get('/lots/:id/photo', async (request, response) => {
    const photo = await lotPhoto(db, idOf(request));
    if (!photo) throw new NotFoundError('no photo of this lot', 'id');
    response.type(photo.contentType).sendFile(path.resolve(storageFolder, photo.storedAs), { dotfiles: 'allow' });
  });
  return router;
}
