import {
  calibrateSchema,
  entityId,
  fillPointSchema,
  giveRoundSchema,
  rainGaugeSchema,
  saveDeviceSchema,
  saveZoneSchema,
  seekRoundsSchema,
  waterDeviceId,
  waterCsvQuerySchema,
  waterListQuerySchema,
  waterTruckSchema,
  weatherImportQuerySchema,
  type KeptZones,
  type SeekRoundsProgress,
  tryRulesSchema,
  type TryRulesProgress,
} from '@sombra/contract';
import { Router } from 'express';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { bytesOf, csvFile } from '../platform/csv-rows';
import { parse } from '../platform/problems';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { geojsonOf, gpxOf } from '../streets/way-files';
import {
  giveRound,
  listRounds,
  planRounds,
  readFleet,
  readRound,
  roundWays,
  saveFill,
  saveTruck,
  type RoundSeeker,
} from './rounds-service';
import { droughtWatch, waterBasis, waterCsv, waterList } from './service';
import { findProgramme } from '../programme/repository';
import { roundPdf } from './round-pdf';
import { calibrateDevice, readDevices, saveDevice } from './devices-service';
import { invoiceReport } from './invoice-service';
import { importWeather, readGauge } from './weather-service';
import { programmeTypicalYear, tryRules, type RulesTrier } from './rules-service';
import { readZones, saveZone } from './zones-service';

const idSchema = z.object({ id: entityId });
const deviceIdSchema = z.object({ deviceId: waterDeviceId });

export function waterRoutes(
  db: Knex,
  { seeker, trier, controller }: { seeker: RoundSeeker; trier: RulesTrier; controller: KeptZones['controller'] },
): Router {
  const router = Router();
  const idOf = (params: unknown) => parse(idSchema, params).id;
  router.get('/water/basis', forAct('see'), async (_request, response) => {
    response.json(await waterBasis(db));
  });
  router.get('/water/typical', forAct('see'), async (_request, response) => {
    response.json(await programmeTypicalYear(db));
  });
  router.post('/water/rules', forAct('see'), async (request, response) => {
    const asked = parse(tryRulesSchema, request.body);
    await streamProgress<TryRulesProgress>(request, response, (run) => tryRules(trier, asked, run));
  });
  router.get('/water/trees', forAct('see'), async (request, response) => {
    response.json(await waterList(db, parse(waterListQuerySchema, request.query)));
  });
  router.get('/water/trees.csv', forAct('see'), async (request, response) => {
    const filter = parse(waterCsvQuerySchema, request.query);
    response.type('text/csv; charset=utf-8');
    response.setHeader('content-disposition', 'attachment; filename="sombra-water.csv"');
    await pipeline(Readable.from(waterCsv(db, filter)), response);
  });
  router.post('/water/weather', forAct('record_weather'), csvFile, async (request, response) => {
    const { confirmed } = parse(weatherImportQuerySchema, request.query);
    const asked = { bytes: bytesOf(request), confirmed: confirmed === 'yes' };
    response.json(await importWeather(db, userOf(request), asked));
  });
  router.put('/water/gauge', forAct('record_weather'), async (request, response) => {
    await readGauge(db, userOf(request), parse(rainGaugeSchema, request.body));
    response.status(204).end();
  });
  router.get('/water/drought', forAct('see'), async (_request, response) => {
    response.json(await droughtWatch(db));
  });
  router.post('/water/invoice', forAct('plan_rounds'), csvFile, async (request, response) => {
    response.json(await invoiceReport(db, bytesOf(request)));
  });
  router.get('/water/fleet', forAct('see'), async (_request, response) => {
    response.json(await readFleet(db));
  });
  router.put('/water/trucks', forAct('plan_rounds'), async (request, response) => {
    response.json(await saveTruck(db, userOf(request), parse(waterTruckSchema, request.body)));
  });
  router.put('/water/fill-points', forAct('plan_rounds'), async (request, response) => {
    response.json(await saveFill(db, userOf(request), parse(fillPointSchema, request.body)));
  });
  router.get('/water/rounds', forAct('see'), async (_request, response) => {
    response.json(await listRounds(db));
  });
  router.post('/water/rounds', forAct('plan_rounds'), async (request, response) => {
    const asked = parse(seekRoundsSchema, request.body);
    const user = userOf(request);
    await streamProgress<SeekRoundsProgress>(request, response, (run) => planRounds(db, seeker, { user, asked }, run));
  });
  router.get('/water/rounds/:id.gpx', forAct('see'), async (request, response) => {
    const { plan } = await readRound(db, idOf(request.params));
    response
      .type('application/gpx+xml')
      .attachment('rounds.gpx')
      .send(gpxOf(roundWays(plan)));
  });
  router.get('/water/rounds/:id.pdf', forAct('see'), async (request, response) => {
    const [round, programme] = await Promise.all([readRound(db, idOf(request.params)), findProgramme(db)]);
    response.type('application/pdf');
    roundPdf(round, programme?.name ?? 'Sombra', userOf(request).units).pipe(response);
  });
  router.get('/water/rounds/:id.geojson', forAct('see'), async (request, response) => {
    const { plan } = await readRound(db, idOf(request.params));
    const body = JSON.stringify(geojsonOf(roundWays(plan), 'truck'));
    response.type('application/geo+json').attachment('rounds.geojson').send(body);
  });
  router.get('/water/rounds/:id', forAct('see'), async (request, response) => {
    response.json(await readRound(db, idOf(request.params)));
  });
  router.post('/water/rounds/:id/give', forAct('plan_rounds'), async (request, response) => {
    const asked = parse(giveRoundSchema, request.body);
    response.json(await giveRound(db, userOf(request), idOf(request.params), asked));
  });
  router.get('/water/devices', forAct('see'), async (_request, response) => {
    response.json(await readDevices(db));
  });
  router.put('/water/devices', forAct('change_devices'), async (request, response) => {
    response.json(await saveDevice(db, userOf(request), parse(saveDeviceSchema, request.body)));
  });
  router.post('/water/devices/:deviceId/runs', forAct('change_devices'), async (request, response) => {
    const { deviceId } = parse(deviceIdSchema, request.params);
    response.json(await calibrateDevice(db, userOf(request), deviceId, parse(calibrateSchema, request.body)));
  });
  router.get('/water/zones', forAct('see'), async (_request, response) => {
    response.json(await readZones(db, controller));
  });
  router.put('/water/zones', forAct('change_devices'), async (request, response) => {
    await saveZone(db, userOf(request), parse(saveZoneSchema, request.body));
    response.json(await readZones(db, controller));
  });
  return router;
}
