import { preferencesSchema, signInSchema, type Session } from '@sombra/contract';
import { Router, type Request } from 'express';
import { promisify } from 'node:util';
import { parse } from '../platform/problems';
import { csrf, requireUser, userOf } from '../platform/sessions';
import type { People } from './service';

export function peopleRoutes(people: People): Router {
  const router = Router();

  const describe = async (request: Request): Promise<Session> => ({
    user: request.session.user ?? null,
    csrfToken: csrf.generateToken(request),
    today: request.session.user ? await people.today() : null,
  });

  router.get('/session', async (request, response) => {
    response.json(await describe(request));
  });

  router.post('/session', csrf.csrfSynchronisedProtection, async (request, response) => {
    const user = await people.signIn(parse(signInSchema, request.body), request.ip ?? 'unknown');
    // A new session id at sign-in, so that one fixed beforehand is worth nothing.
    await promisify(request.session.regenerate.bind(request.session))();
    request.session.user = user;
    response.json(await describe(request));
  });

  router.delete('/session', csrf.csrfSynchronisedProtection, requireUser, async (request, response) => {
    await promisify(request.session.destroy.bind(request.session))();
    response.clearCookie('sombra.sid').status(204).end();
  });

  router.put('/session/preferences', csrf.csrfSynchronisedProtection, requireUser, async (request, response) => {
    const { units } = parse(preferencesSchema, request.body);
    request.session.user = await people.changeUnits(userOf(request), units);
    response.json(await describe(request));
  });

  return router;
}
