import { importLimits, importQuerySchema, type ImportProgress } from '@sombra/contract';
import express, { Router, type Request } from 'express';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { streamProgress } from '../platform/progress';
import { forAct, userOf } from '../platform/sessions';
import { exportCsv, exportGeoJson } from './export-service';
import { previewImport, runImport } from './import-service';

const anyFile = express.raw({ type: () => true, limit: importLimits.bytes });
const previewQuerySchema = importQuerySchema.pick({ fileName: true });
const bytesOf = (request: Request): Uint8Array => (Buffer.isBuffer(request.body) ? request.body : new Uint8Array());

export function fileRoutes(db: Knex): Router {
  const router = Router();

  router.post('/imports/preview', forAct('import_file'), anyFile, async (request, response) => {
    const { fileName } = parse(previewQuerySchema, request.query);
    response.json(await previewImport(db, userOf(request), { bytes: bytesOf(request), fileName }));
  });

  router.post('/imports', forAct('import_file'), anyFile, async (request, response) => {
    const { id, fileName } = parse(importQuerySchema, request.query);
    const file = { id, fileName, bytes: bytesOf(request) };
    await streamProgress<ImportProgress>(request, response, (run) =>
      runImport(db, userOf(request), { ...file, ...run }),
    );
  });

  router.get('/exports/trees.:format', async (request, response) => {
    const { format } = parse(z.object({ format: z.enum(['csv', 'geojson']) }), request.params);
    response.type(format === 'csv' ? 'text/csv; charset=utf-8' : 'application/geo+json');
    response.setHeader('content-disposition', `attachment; filename="sombra-trees.${format}"`);
    await pipeline(Readable.from(format === 'csv' ? exportCsv(db) : exportGeoJson(db)), response);
  });

  return router;
}
