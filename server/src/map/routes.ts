import {
  baseLayerSchema,
  deskQuerySchema,
  mapLimits,
  spotFilterSchema,
  spotTileQuerySchema,
  tilePathSchema,
  type Extent,
} from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import express, { Router, type Response } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { readPosition } from '../adapters/position';
import type { Config } from '../platform/config';
import { parse } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { bookedOn, spotBounds } from './repository';
import { mapInfo, pmtilesFile, removePmtiles, setLayer, spotTile, storePmtiles } from './service';
import { baseTile } from './tiles-repository';
import { programmeToday } from '../programme/today';

const anyFile = express.raw({ type: () => true, limit: mapLimits.layerBytes });
const fileQuerySchema = z.object({ fileName: z.string().min(1).max(200) });
const oneDayS = 86_400;

export function mapRoutes(db: Knex, { storageFolder, position }: Pick<Config, 'storageFolder' | 'position'>): Router {
  const router = Router();
  const sendTile = (response: Response, tile: Buffer) => response.type('application/x-protobuf').send(tile);

  router.get('/position', async (_request, response) => {
    response.json(await readPosition(position));
  });
  router.get('/map', async (_request, response) => {
    response.json(await mapInfo(db));
  });
  router.get('/map/extent', async (request, response) => {
    const filter = parse(spotFilterSchema, request.query);
    response.json({ bounds: await spotBounds(db, filter, await programmeToday(db)) } satisfies Extent);
  });
  router.get('/map/booked', async (request, response) => {
    const today = await programmeToday(db);
    response.json(await bookedOn(db, parse(deskQuerySchema, request.query).on ?? today, today));
  });
  router.get('/map/spots/:z/:x/:y', async (request, response) => {
    const { stamp: _stamp, ...filter } = parse(spotTileQuerySchema, request.query);
    sendTile(response, await spotTile(db, parse(tilePathSchema, request.params), filter));
  });
  router.get('/map/base/:z/:x/:y', async (request, response) => {
    const tile = await baseTile(db, parse(tilePathSchema, request.params));
    // The address carries the stamp of the layers: what it names never changes.
    response.setHeader('cache-control', `private, max-age=${oneDayS}`);
    sendTile(response, tile);
  });
  router.put('/map/layers/:layer', forAct('change_base_map'), anyFile, async (request, response) => {
    const { layer } = parse(z.object({ layer: baseLayerSchema }), request.params);
    const bytes = Buffer.isBuffer(request.body) ? request.body : new Uint8Array();
    response.json(await setLayer(db, userOf(request), layer, bytes));
  });
  router.get('/map/base.pmtiles', async (_request, response) => {
    const file = await pmtilesFile(db, storageFolder);
    if (!file) throw new NotFoundError('no PMTiles file', 'path');
    response.sendFile(file, { dotfiles: 'allow', headers: { 'content-encoding': 'identity' } });
  });
  router.put('/map/base.pmtiles', forAct('change_base_map'), async (request, response) => {
    const { fileName } = parse(fileQuerySchema, request.query);
    response.json(await storePmtiles(db, userOf(request), { folder: storageFolder, fileName, body: request }));
  });
  router.delete('/map/base.pmtiles', forAct('change_base_map'), async (request, response) => {
    response.json(await removePmtiles(db, userOf(request), storageFolder));
  });
  return router;
}
