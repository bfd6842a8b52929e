import { importLimits, importQuerySchema, type ImportProgress } from '@sombra/contract';
import express, { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { parse, problemOf } from '../platform/problems';
import { userOf } from '../platform/sessions';
import { exportCsv, exportGeoJson } from './export-service';
import { previewImport, runImport } from './import-service';

const anyFile = express.raw({ type: () => true, limit: importLimits.bytes });
const previewQuerySchema = importQuerySchema.pick({ fileName: true });
const bytesOf = (request: Request): Uint8Array => (Buffer.isBuffer(request.body) ? request.body : new Uint8Array());

export function fileRoutes(db: Knex): Router {
  const router = Router();

  router.post('/imports/preview', anyFile, async (request, response) => {
    const { fileName } = parse(previewQuerySchema, request.query);
    response.json(await previewImport(db, userOf(request), { bytes: bytesOf(request), fileName }));
  });

  router.post('/imports', anyFile, async (request, response) => {
    const { id, fileName } = parse(importQuerySchema, request.query);
    await streamImport(db, request, response, { id, fileName });
  });

  router.get('/exports/trees.:format', async (request, response) => {
    const { format } = parse(z.object({ format: z.enum(['csv', 'geojson']) }), request.params);
    response.type(format === 'csv' ? 'text/csv; charset=utf-8' : 'application/geo+json');
    response.setHeader('content-disposition', `attachment; filename="sombra-trees.${format}"`);
    await pipeline(Readable.from(format === 'csv' ? exportCsv(db) : exportGeoJson(db)), response);
  });

  return router;
}

/** Answers line by line as the import goes on; a client that hangs up cancels it. */
async function streamImport(
  db: Knex,
  request: Request,
  response: Response,
  act: { id: string; fileName: string },
): Promise<void> {
  const abort = new AbortController();
  response.on('close', () => abort.abort());
  const say = (progress: ImportProgress) => {
    if (!response.headersSent) response.type('application/x-ndjson').setHeader('x-accel-buffering', 'no');
    response.write(`${JSON.stringify(progress)}\n`);
    response.flush?.();
  };
  try {
    await runImport(db, userOf(request), { ...act, bytes: bytesOf(request), signal: abort.signal, onProgress: say });
  } catch (error) {
    if (!response.headersSent) throw error;
    const { problem, ours } = problemOf(error, String(request.id));
    if (ours) request.log.error({ err: error }, 'import failed');
    say({ kind: 'failed', title: problem.title, reference: problem.reference });
  }
  response.end();
}
