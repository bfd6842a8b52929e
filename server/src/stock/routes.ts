import {
  claimQuerySchema,
  deliveryStateSchema,
  entityId,
  newDeliverySchema,
  newLotTreeSchema,
  photoPlaceSchema,
  receiveLotSchema,
  waterHeldSchema,
  type Delivery,
} from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import express, { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import type { Config } from '../platform/config';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { sendKept } from '../platform/uploads';
import { findProgramme } from '../programme/repository';
import { currentRules } from '../rules/repository';
import { claimPdf } from './claim-sheet';
import { claimedLots } from './claims';
import { treePhoto } from './repository';
import {
  addTreePhoto,
  allDeliveries,
  claimedDeliveries,
  keepState,
  oneDelivery,
  openDelivery,
  openTree,
  receiveLot,
  waterHeld,
} from './service';
import { deviceNow } from '../platform/device-time';

const idSchema = z.object({ id: entityId });
const photoFile = express.raw({ type: () => true, limit: '12mb' });
const nowhere = { lng: null, lat: null };

export function stockRoutes(db: Knex, { storageFolder }: Pick<Config, 'storageFolder'>): Router {
  const router = Router();
  async function sendClaim(response: Response, nursery: string, deliveries: readonly Delivery[]): Promise<void> {
    const { match } = await currentRules(db);
    const programme = await findProgramme(db);
    const photos = new Map<string, string>();
    for (const { lot } of deliveries.flatMap(claimedLots)) {
      for (const { id } of lot.trees.filter(({ hasPhoto }) => hasPhoto)) {
        const photo = await treePhoto(db, id);
        const file = photo && path.join(storageFolder, photo.storedAs);
        // A missing file is a missing picture, not a failed claim.
        if (file && existsSync(file)) photos.set(id, file);
      }
    }
    response.type('application/pdf');
    claimPdf(nursery, deliveries, {
      programme: programme?.name ?? 'Sombra',
      currency: match.currency,
      photos,
    }).pipe(response);
  }
  const idOf = (request: Request) => parse(idSchema, request.params).id;

  router.get('/deliveries', async (_request, response) => {
    response.json(await allDeliveries(db));
  });
  router.post('/deliveries', forAct('receive_stock'), async (request, response) => {
    response.status(201).json(await openDelivery(db, userOf(request), parse(newDeliverySchema, request.body)));
  });
  router.get('/deliveries/:id', async (request, response) => {
    response.json(await oneDelivery(db, idOf(request)));
  });
  router.put('/deliveries/:id', forAct('receive_stock'), async (request, response) => {
    response.json(await keepState(db, userOf(request), idOf(request), parse(deliveryStateSchema, request.body)));
  });
  router.post('/deliveries/:id/water', forAct('water_held'), async (request, response) => {
    const { onDay } = parse(waterHeldSchema, request.body);
    response.json(await waterHeld(db, userOf(request), idOf(request), onDay));
  });
  router.get('/deliveries/:id/claim', async (request, response) => {
    const delivery = await oneDelivery(db, idOf(request));
    if (claimedLots(delivery).length === 0) throw new NotFoundError('nothing of this delivery is claimed', 'id');
    await sendClaim(response, delivery.nursery, [delivery]);
  });
  router.get('/claims', async (request, response) => {
    const { nursery } = parse(claimQuerySchema, request.query);
    await sendClaim(response, nursery, await claimedDeliveries(db, nursery));
  });
  router.put('/lots/:id', forAct('receive_stock'), async (request, response) => {
    response.json(await receiveLot(db, userOf(request), idOf(request), parse(receiveLotSchema, request.body)));
  });
  router.post('/lots/:id/trees', forAct('receive_stock'), async (request, response) => {
    const seen = parse(newLotTreeSchema, request.body);
    response.status(201).json(await openTree(db, userOf(request), idOf(request), seen, deviceNow(request)));
  });
  router.put('/lot-trees/:id/photo', forAct('receive_stock'), photoFile, async (request, response) => {
    const bytes = Buffer.isBuffer(request.body) ? request.body : new Uint8Array();
    const { lng = null, lat = null } = parse(photoPlaceSchema, request.query);
    const upload = { folder: storageFolder, bytes, ...(lng === null || lat === null ? nowhere : { lng, lat }) };
    response.json(await addTreePhoto(db, userOf(request), idOf(request), upload));
  });
  router.get('/lot-trees/:id/photo', async (request, response) => {
    const photo = await treePhoto(db, idOf(request));
    if (!photo) throw new NotFoundError('no photo of this tree', 'id');
    await sendKept(response, storageFolder, photo);
  });
  return router;
}
