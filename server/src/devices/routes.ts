import { decideAsideSchema, entityId, registerDeviceSchema, sealedSchema } from '@sombra/contract';
import express, { Router, type RequestHandler } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import type { Config } from '../platform/config';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { allDevices } from './repository';
import { asidesFor, decideAside, deviceWiped, registerDevice, takeSealed, wipeDevice } from './service';

const idSchema = z.object({ id: entityId });
type DeviceConfig = Pick<Config, 'storageFolder'>;

/** Doors for a device on which nobody need be signed in: what it brings is sealed and signed. */
export function sealedRoutes(db: Knex, { storageFolder }: DeviceConfig, limited: RequestHandler): Router {
  const router = Router();
  // A sealed photo; read here, since other doors take far less.
  router.post('/sealed', express.json({ limit: '21mb' }), async (request, response) => {
    response.json(await takeSealed(db, parse(sealedSchema, request.body), storageFolder));
  });
  router.post('/open/devices/:id/wiped', limited, async (request, response) => {
    await deviceWiped(db, parse(idSchema, request.params).id);
    response.status(204).end();
  });
  return router;
}

export function deviceRoutes(db: Knex, { storageFolder }: DeviceConfig): Router {
  const router = Router();
  router.post('/devices', forAct('see'), async (request, response) => {
    response.json(await registerDevice(db, userOf(request), parse(registerDeviceSchema, request.body)));
  });
  router.get('/devices', forAct('manage_people'), async (_request, response) => {
    response.json(await allDevices(db));
  });
  router.post('/devices/:id/wipe', forAct('manage_people'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    response.json(await wipeDevice(db, userOf(request), id, request.sessionID));
  });
  router.get('/aside', forAct('see'), async (request, response) => {
    response.json(await asidesFor(db, userOf(request)));
  });
  router.post('/aside/:id', forAct('keep_own'), async (request, response) => {
    const { id } = parse(idSchema, request.params);
    const { decision } = parse(decideAsideSchema, request.body);
    response.json(await decideAside(db, userOf(request), id, { decision, storageFolder }));
  });
  return router;
}
