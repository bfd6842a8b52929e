import { entityId, mostPhotoBytes } from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import type { Server } from '@tus/server';
import { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { mkdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import path from 'node:path';
import type { Config } from '../platform/config';
import { deviceNow } from '../platform/device-time';
import { problemOf } from '../platform/problems';
import { forAct, userOf } from '../platform/sessions';
import { takeParcel } from './parcel-service';

/** Half a picture whose phone never came back. */
const keptForMs = 14 * 24 * 3_600_000;

/** The request as Express knows it, behind the one of the upload library. */
const expressOf = (request: unknown): Request =>
  (request as { runtime: { node: { req: IncomingMessage } } }).runtime.node.req as Request;

/** What the library is told, in its own words, of one of our problems. */
function refusal(error: unknown, request: Request): { status_code: number; body: string } {
  const { problem, ours } = problemOf(error, String(request.id));
  if (ours) request.log.error({ err: error }, 'unexpected error');
  const { current: _shown, ...told } = problem;
  return { status_code: problem.status, body: JSON.stringify(told) };
}

/**
 * Pictures in parts: where the line is cut, what has arrived stays, and the rest follows (the tus protocol, 1.0.0). A
 * whole picture goes to the door its metadata names (`url`), with the rights of whoever sends it.
 */
export function uploadRoutes(db: Knex, { storageFolder }: Pick<Config, 'storageFolder'>): Router {
  const router = Router();
  const directory = path.join(storageFolder, 'parts');
  let made: Promise<Server> | null = null;
  const uploads = (): Promise<Server> => (made ??= makeServer(db, storageFolder, directory));
  const pass = async (request: Request, response: Response) => {
    // The library builds addresses from the whole path.
    request.url = request.originalUrl;
    await (await uploads()).handle(request, response);
  };
  router.post('/uploads', forAct('record'), pass);
  router.head('/uploads/:id', forAct('record'), pass);
  router.patch('/uploads/:id', forAct('record'), pass);
  return router;
}

async function makeServer(db: Knex, storageFolder: string, directory: string): Promise<Server> {
  // Loaded with the first picture: most servers start far more often than they see one.
  const [{ FileStore }, { Server }] = await Promise.all([import('@tus/file-store'), import('@tus/server')]);
  mkdirSync(directory, { recursive: true });
  const store = new FileStore({ directory, expirationPeriodInMilliseconds: keptForMs });
  const server = new Server({
    path: '/api/uploads',
    datastore: store,
    maxSize: mostPhotoBytes,
    relativeLocation: true,
    // Only this page's own origin: the library else tells everybody they may read its answers.
    allowedOrigins: ['https://nowhere.invalid'],
    // Named by who sends it and by the picture: sent anew from the beginning it takes its own place.
    namingFunction: (incoming, metadata) => {
      const request = expressOf(incoming);
      const id = entityId.safeParse(metadata?.['id']);
      if (!id.success) throw refusal(new InvalidInputError('id must be a UUID', 'id'), request);
      return `${userOf(request).id}.${id.data}`;
    },
    onIncomingRequest: (request, id) => {
      const own = id.startsWith(`${userOf(expressOf(request)).id}.`) || request.method === 'POST';
      return own ? Promise.resolve() : Promise.reject({ status_code: 404, body: 'no such upload' });
    },
    onUploadFinish: async (incoming, { id, metadata }) => {
      const request = expressOf(incoming);
      try {
        const picture = await readFile(path.join(directory, id));
        const parcel = { method: 'PUT', url: metadata?.['url'] ?? '', picture } as const;
        const at = { author: userOf(request), storageFolder, deviceNow: deviceNow(request) };
        await takeParcel(db, parcel, at);
      } catch (error) {
        throw refusal(error, request);
      }
      await store.remove(id).catch(() => undefined);
      return {};
    },
  });
  void server.cleanUpExpiredUploads().catch(() => undefined);
  return server;
}
