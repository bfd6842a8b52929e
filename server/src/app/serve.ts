import type { Logger } from 'pino';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Adoptions, directWalker, type AdoptionWalker } from '../adoption/runs-service';
import { httpLocateCentre } from '../adapters/locate-centre';
import { smtpMail } from '../adapters/mail';
import { httpController } from '../adapters/controller';
import { httpSensors } from '../adapters/sensors';
import { httpWeather } from '../adapters/weather';
import { SeasonKeys } from '../day/season-key';
import { keepReminding } from '../care/reminding-service';
import { keepSending } from '../mail/sending-service';
import { programmeToday } from '../programme/today';
import { keepReadingSensors } from '../water/sensors-service';
import { keepTendingZones } from '../water/zones-service';
import { keepFollowing, type Follower } from '../water/follow-service';
import { keepReading } from '../weather/reading-service';
import { keepSolving, type ListSolver } from '../match/list-service';
import { keepTending } from '../tickets/tend';
import { foldCells } from '../map/tiles-repository';
import { LiveHub } from '../live/hub';
import { pruneLimits, pruneSessions } from '../people/repository';
import { makeApp, type AppParts } from './app';
import type { Config } from '../platform/config';
import { openDatabase } from '../platform/db';
import { pruneChanges } from '../platform/place-change-repository';
import { directRenewer, keepRenewing, type Renewer } from '../record/renew-service';
import { openSessionPool } from '../platform/sessions';

const foldEveryMs = 10 * 60_000;
const idleMs = 75_000;

export interface RunningServer {
  readonly port: number;
  stop(): Promise<void>;
}

/** Starts the server and resolves once it accepts connections. */
export async function serve(
  config: Config,
  logger: Logger,
  {
    solver = null,
    walker,
    renewer,
    follower,
    ...seekers
  }: { solver?: ListSolver | null; walker?: AdoptionWalker; renewer?: Renewer; follower?: Follower } & Pick<
    AppParts,
    'seeker' | 'roundSeeker' | 'rulesTrier'
  > = {},
): Promise<RunningServer> {
  const db = openDatabase(config.databaseUrl, { onWarning: (message) => logger.warn({ message }, 'database driver') });
  const sessionPool = openSessionPool(config, (error) => logger.warn({ err: error }, 'session connection lost'));
  const live = new LiveHub(config.databaseUrl, (error) => logger.warn({ err: error }, 'live updates lost'));
  await live.start();
  const keys = new SeasonKeys(config.seasonKeys);
  const destroyOver = async () => keys.destroyOver(await programmeToday(db));
  // How often hardly matters: until then a reader sums a few more rows.
  const fold = () =>
    void Promise.all([
      foldCells(db),
      pruneChanges(db),
      pruneLimits(db, Date.now()),
      pruneSessions(db),
      destroyOver(),
    ]).catch((error: unknown) => logger.warn({ err: error }, 'cells not folded'));
  const folding = setInterval(fold, foldEveryMs);
  folding.unref();
  const centre = config.locate ? httpLocateCentre(config.locate.url) : null;
  const stopTending = centre
    ? keepTending(db, centre, (error) => logger.warn({ err: error }, 'tickets not tended'))
    : null;
  const stopSolving = solver
    ? keepSolving(db, solver, (error) => logger.error({ err: error }, 'list not solved'))
    : null;
  const stopReading = config.weather
    ? keepReading(db, httpWeather(config.weather.url), (error) => logger.warn({ err: error }, 'weather not read'))
    : null;
  const stopFollowing = keepFollowing(db, follower ?? null, (error) =>
    logger.warn({ err: error }, 'water not followed'),
  );
  const stopSensors = config.sensors
    ? keepReadingSensors(db, httpSensors(config.sensors.url), (error) =>
        logger.warn({ err: error }, 'sensors not read'),
      )
    : null;
  const stopValves = config.controller
    ? keepTendingZones(db, httpController(config.controller.url), (error) =>
        logger.warn({ err: error }, 'valves not tended'),
      )
    : null;
  const stopReminding = config.mail
    ? keepReminding(db, config, (error) => logger.warn({ err: error }, 'keepers not reminded'))
    : null;
  const stopSending = config.mail
    ? keepSending(db, smtpMail(config.mail.url, config.mail.from), (error) =>
        logger.warn({ err: error }, 'mail not sent'),
      )
    : null;
  const adoptions = new Adoptions(db, walker ?? directWalker(db));
  const stopAdopting = adoptions.keepTakingUp((error) => logger.error({ err: error }, 'practice not adopted'));
  const renewal = keepRenewing(renewer ?? directRenewer(db), (error) =>
    logger.error({ err: error }, 'spots not renewed'),
  );
  const app = makeApp({ adoptions, renewal, config, db, sessionPool, logger, live, centre, ...seekers });
  const server = await new Promise<Server>((resolve, reject) => {
    const listening = app.listen(config.port, config.host, (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  // Longer than a proxy keeps an idle connection: whoever asks on one that is just being closed is cut off.
  server.keepAliveTimeout = idleMs;
  server.headersTimeout = idleMs + 1000;
  const { port } = server.address() as AddressInfo;
  return {
    port,
    async stop() {
      const closed = new Promise<void>((resolve) => server.close(() => resolve()));
      clearInterval(folding);
      // All at once: each leaves what it is at before its threads are ended.
      await Promise.all([
        ...[stopTending, stopSolving, stopReading, stopSensors, stopValves, stopReminding, stopSending].map((end) =>
          end?.(),
        ),
        ...[stopAdopting(), renewal.stop(), stopFollowing(), live.stop()],
      ]);
      server.closeIdleConnections();
      setTimeout(() => server.closeAllConnections(), 2000).unref();
      await closed;
      await Promise.all([db.destroy(), sessionPool.end()]);
    },
  };
}
