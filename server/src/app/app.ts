import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { constants } from 'node:zlib';
import type pg from 'pg';
import { pinoHttp } from 'pino-http';
import type { Logger } from 'pino';
import { adoptionRoutes } from '../adoption/routes';
import type { Adoptions } from '../adoption/runs-service';
import { assignmentRoutes } from '../assignments/routes';
import { isToBeWiped } from '../devices/repository';
import { deviceRoutes, sealedRoutes } from '../devices/routes';
import { uploadRoutes } from '../devices/upload-routes';
import { deskRoutes } from '../desk/routes';
import { fileRoutes } from '../files/routes';
import { findRoutes } from '../find/routes';
import type { LocateCentre } from '../adapters/locate-centre';
import { httpNurseries } from '../adapters/nursery';
import { consentRoutes, groundRoutes } from '../ground/routes';
import { inspectRoutes } from '../inspect/routes';
import type { LiveHub } from '../live/hub';
import { liveRoutes } from '../live/routes';
import { matchRoutes } from '../match/routes';
import { mapRoutes } from '../map/routes';
import { invitationRoutes, peopleRoutes, sessionRoutes } from '../people/routes';
import { sessionWithPerson } from '../people/repository';
import { makePeople } from '../people/service';
import { programmeRoutes, setUpRoutes } from '../settings/routes';
import { recordRoutes } from '../recording/routes';
import { careRoutes, openCareRoutes } from '../care/routes';
import { dayRoutes, openDayRoutes } from '../day/routes';
import type { Doorway } from '../day/told-service';
import { SeasonKeys } from '../day/season-key';
import { directSeeker, type TeamSeeker } from '../day/team-service';
import { pitRoutes } from '../pit/routes';
import { stockRoutes } from '../stock/routes';
import { practiceRoutes } from '../practice/routes';
import type { Renewal } from '../record/renew-service';
import { rulesRoutes } from '../rules/routes';
import { seasonRoutes } from '../season/routes';
import { directRoundSeeker, type RoundSeeker } from '../water/rounds-service';
import { openToldRoutes, toldRoutes } from '../told/routes';
import { directTrier, type RulesTrier } from '../water/rules-service';
import { waterRoutes } from '../water/routes';
import { spotRoutes } from '../town/routes';
import { ticketRoutes } from '../tickets/routes';
import { viewRoutes } from '../views/routes';
import type { Config } from '../platform/config';
import { answerErrors, noSuchDoor } from '../platform/problems';
import { limitTries } from '../platform/tries';
import { csrf, knowPerson, requireUser, sessions } from '../platform/sessions';

/** A step over the library's: scripts come a twentieth smaller for a third more time, some 30 ms of a first visit. */
const brotliQuality = 5;

export interface AppParts {
  readonly config: Config;
  readonly db: Knex;
  readonly sessionPool: pg.Pool;
  readonly logger: Logger;
  readonly live: LiveHub;
  readonly centre: LocateCentre | null;
  readonly adoptions: Adoptions;
  readonly renewal: Pick<Renewal, 'begin'>;
  readonly seeker?: TeamSeeker;
  readonly roundSeeker?: RoundSeeker;
  readonly rulesTrier?: RulesTrier;
}

/** A path without what was typed and without the token of a link: who reads the log gets in nowhere. */
export const loggedPath = (url: string): string =>
  (url.split('?')[0] ?? '').replace(
    /^((?:\/api\/open)?\/(?:consents?|invitations|welcome|days|places|join|place|planted|care|told)\/).+/,
    '$1…',
  );

export function makeApp(parts: AppParts): Express {
  const { config, logger } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', config.trustedProxy ?? false);
  app.use(
    pinoHttp({
      logger,
      genReqId: () => randomUUID(),
      // Paths only: queries may hold what people typed.
      serializers: {
        req: (request: { id: unknown; method: unknown; url: string }) => ({
          id: request.id,
          method: request.method,
          path: loggedPath(request.url),
        }),
        res: (response: { statusCode: unknown }) => ({ status: response.statusCode }),
      },
      customLogLevel: (_request, response, error) => (error || response.statusCode >= 500 ? 'error' : 'debug'),
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // Angular writes component styles into style elements.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: config.secureCookies ? [] : null,
        },
      },
      strictTransportSecurity: config.secureCookies,
    }),
  );
  app.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: brotliQuality } } }));
  app.use('/api', api(parts));
  if (config.webRoot) serveWeb(app, config.webRoot);
  app.use(noSuchDoor);
  app.use(answerErrors);
  return app;
}

function api({
  config,
  db,
  sessionPool,
  live,
  centre,
  adoptions,
  renewal,
  seeker = directSeeker(),
  roundSeeker = directRoundSeeker(),
  rulesTrier,
}: AppParts): express.Router {
  const router = express.Router();
  router.use((_request, response, next) => {
    response.setHeader('cache-control', 'no-store');
    next();
  });
  router.use(sessions(config, sessionPool, (sid) => sessionWithPerson(sessionPool, sid)));
  const limited = limitTries(sessionPool);
  router.use(sealedRoutes(db, config, limited));
  router.use(express.json({ limit: '256kb' }));
  const people = makePeople(db, sessionPool);
  router.use(knowPerson);
  router.use(sessionRoutes(people, (deviceId) => isToBeWiped(db, deviceId)));
  const doorway: Doorway = {
    keys: new SeasonKeys(config.seasonKeys),
    secret: config.sessionSecret,
    publicUrl: config.publicUrl,
  };
  router.use(openDayRoutes(db, sessionPool, { doorway, storageFolder: config.storageFolder }));
  router.use(openCareRoutes(db, sessionPool, doorway));
  router.use(openToldRoutes(db, sessionPool, config.storageFolder));
  router.use('/open', limited);
  router.use(consentRoutes(db, config), invitationRoutes(db), setUpRoutes(db));
  router.use(requireUser);
  router.use(csrf.csrfSynchronisedProtection);
  router.use(peopleRoutes(db), programmeRoutes(db, renewal));
  router.use(assignmentRoutes(db, sessionPool), deviceRoutes(db, config), uploadRoutes(db, config));
  router.use(deskRoutes(db), spotRoutes(db), groundRoutes(db, config), recordRoutes(db), fileRoutes(db));
  router.use(seasonRoutes(db), findRoutes(db), viewRoutes(db), mapRoutes(db, config), liveRoutes(live));
  router.use(
    rulesRoutes(db),
    practiceRoutes(db),
    adoptionRoutes(db, adoptions),
    stockRoutes(db, config),
    pitRoutes(db),
    dayRoutes(db, {
      doorway,
      seeker,
      simulatedWeather: config.weather?.simulated ?? false,
      mailPage: config.mail?.page ?? null,
    }),
    ticketRoutes(db, centre),
    waterRoutes(db, {
      seeker: roundSeeker,
      trier: rulesTrier ?? directTrier(db),
      controller: config.controller ? (config.controller.simulated ? 'simulated' : 'real') : 'none',
    }),
    careRoutes(db, doorway),
    toldRoutes(db, config.storageFolder),
    inspectRoutes(db, config.storageFolder, roundSeeker),
  );
  router.use(matchRoutes(db, config.nurseries ? httpNurseries(config.nurseries.url) : null));
  router.use(noSuchDoor);
  return router;
}

/** Said of a document, which a script inside it cannot change: half a kilobyte spared on each of some sixty scripts. */
const ofDocuments = [
  'content-security-policy',
  'cross-origin-opener-policy',
  'origin-agent-cluster',
  'referrer-policy',
  'x-dns-prefetch-control',
  'x-download-options',
  'x-frame-options',
  'x-permitted-cross-domain-policies',
  'x-xss-protection',
];

/** Built files carry a hash in their name and may be kept; the page itself may not. */
function serveWeb(app: Express, webRoot: string): void {
  const hashed = /-[A-Z0-9]{8}\.(js|css|woff2)$/;
  // A worker has a policy of its own, and keeps it.
  const script = /^(chunk|main|polyfills)-[A-Z0-9]{8}\.js$/;
  app.use(
    express.static(webRoot, {
      index: false,
      setHeaders: (response, file) => {
        response.setHeader('cache-control', hashed.test(file) ? 'public, max-age=31536000, immutable' : 'no-cache');
        if (script.test(path.basename(file))) for (const header of ofDocuments) response.removeHeader(header);
      },
    }),
  );
  app.get(/^\/(?!api\/)[^.]*$/, (_request, response) => {
    response.sendFile(path.join(webRoot, 'index.html'), { headers: { 'cache-control': 'no-cache' } });
  });
}
