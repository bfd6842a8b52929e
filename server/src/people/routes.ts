import {
  acceptInvitationSchema,
  addPersonSchema,
  changePasswordSchema,
  changePersonSchema,
  deviceIdHeader,
  entityId,
  preferencesSchema,
  signInSchema,
  type Session,
} from '@sombra/contract';
import { Router, type Request } from 'express';
import type { Knex } from 'knex';
import { promisify } from 'node:util';
import { z } from 'zod';
import { parse } from '../platform/problems';
import { csrf, forAct, requireUser, sessionKey, userOf } from '../platform/sessions';
import {
  acceptInvitation,
  addPerson,
  changePerson,
  inviteAgain,
  openInvitation,
  signOutEverywhere,
} from './manage-service';
import { allPeople } from './repository';
import type { People } from './service';

const idSchema = z.object({ id: entityId });
const tokenSchema = z.object({ token: z.string().min(10).max(200) });

/** One's own session: the only doors, with those of signed links, that open to somebody not signed in. */
export function sessionRoutes(people: People, isToBeWiped: (deviceId: string) => Promise<boolean>): Router {
  const router = Router();
  const own = [csrf.csrfSynchronisedProtection, requireUser, forAct('keep_own')];

  const describe = async (request: Request): Promise<Session> => {
    const device = entityId.safeParse(request.get(deviceIdHeader));
    return {
      user: request.person ?? null,
      csrfToken: csrf.generateToken(request),
      today: request.person ? await people.today() : null,
      programme: await people.programme(),
      ...(device.success && (await isToBeWiped(device.data)) ? { wipe: true } : {}),
      now: new Date().toISOString(),
    };
  };

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

  router.put('/session/preferences', ...own, async (request, response) => {
    request.person = await people.change(userOf(request), parse(preferencesSchema, request.body));
    response.json(await describe(request));
  });

  router.put('/session/password', ...own, async (request, response) => {
    await people.changePassword(userOf(request), parse(changePasswordSchema, request.body), request.sessionID);
    response.status(204).end();
  });

  return router;
}

export function peopleRoutes(db: Knex): Router {
  const router = Router();
  const idOf = (request: Request) => parse(idSchema, request.params).id;
  router.get('/people', forAct('manage_people'), async (_request, response) => {
    response.json(await allPeople(db));
  });
  router.post('/people', forAct('manage_people'), async (request, response) => {
    response.status(201).json(await addPerson(db, userOf(request), parse(addPersonSchema, request.body)));
  });
  router.put('/people/:id', forAct('manage_people'), async (request, response) => {
    response.json(await changePerson(db, userOf(request), idOf(request), parse(changePersonSchema, request.body)));
  });
  router.post('/people/:id/link', forAct('manage_people'), async (request, response) => {
    response.status(201).json(await inviteAgain(db, userOf(request), idOf(request)));
  });
  router.delete('/people/:id/sessions', forAct('manage_people'), async (request, response) => {
    response.json(await signOutEverywhere(db, userOf(request), idOf(request), request.sessionID));
  });
  return router;
}

/** What a one-time link opens. */
export function invitationRoutes(db: Knex): Router {
  const router = Router();
  router.get('/open/invitations/:token', async (request, response) => {
    response.json(await openInvitation(db, parse(tokenSchema, request.params).token));
  });
  router.post('/open/invitations/:token', async (request, response) => {
    const { token } = parse(tokenSchema, request.params);
    await acceptInvitation(db, token, parse(acceptInvitationSchema, request.body).password);
    response.status(204).end();
  });
  return router;
}
