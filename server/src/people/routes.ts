import { preferencesSchema, signInSchema, type Session } from '@sombra/contract';
import { Router, type Request } from 'express';
import { promisify } from 'node:util';
import { parse } from '../platform/problems';
import { csrf, requireUser, sessionKey, userOf } from '../platform/sessions';
import type { People } from './service';

export function peopleRoutes(people: People): Router {
  const router = Router();

  const describe = async (request: Request): Promise<Session> => ({
    user: request.person ?? null,
    csrfToken: csrf.generateToken(request),
    today: request.person ? await people.today() : null,
  });

  router.get('/session', async (request, response) => {
    response.json(await describe(request));
  });

  router.post('/session', csrf.csrfSynchronisedProtection, async (request, response) => {
    const user = await people.signIn(parse(signInSchema, request.body), request.ip ?? 'unknown');
    // A new session id at sign-in, so that one fixed beforehand is worth nothing.
    await promisify(request.session.regenerate.bind(request.session))();
    request.session.userId = user.id;
    request.session.renewedAt = Date.now();
    request.person = user;
    response.json(await describe(request));
  });

  router.delete('/session', csrf.csrfSynchronisedProtection, requireUser, async (request, response) => {
    const key = sessionKey(request);
    await promisify(request.session.destroy.bind(request.session))();
    await people.endStreams(key);
    response.clearCookie('sombra.sid').status(204).end();
  });

  router.put('/session/preferences', csrf.csrfSynchronisedProtection, requireUser, async (request, response) => {
    const { units } = parse(preferencesSchema, request.body);
    request.person = await people.changeUnits(userOf(request), units);
    response.json(await describe(request));
  });

  return router;
}
