import { Router } from 'express';
import { sessionKey } from '../platform/sessions';
import type { LiveHub } from './hub';

const beatMs = 25_000;

/** Server-sent events: `changed` with the ids of the spots, or `null` for many. */
export function liveRoutes(hub: LiveHub): Router {
  const router = Router();
  router.get('/live', (request, response) => {
    response.setHeader('content-type', 'text/event-stream');
    response.setHeader('x-accel-buffering', 'no');
    const write = (text: string) => {
      response.write(text);
      response.flush?.();
    };
    write('retry: 2000\n\n');
    const beat = setInterval(() => write(': still here\n\n'), beatMs);
    const leave = hub.subscribe((payload) => {
      if (payload === '') response.end();
      else write(`event: changed\ndata: ${payload}\n\n`);
    }, sessionKey(request));
    response.on('close', () => {
      clearInterval(beat);
      leave();
    });
  });
  return router;
}
