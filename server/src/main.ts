import { pino } from 'pino';
import { pooledWalker } from './adoption/runs-service';
import { pooledSeeker } from './day/team-service';
import { pooledSolver } from './match/pooled-solver';
import { pooledRenewer } from './record/renew-service';
import { pooledFollower } from './water/follow-service';
import { pooledRoundSeeker } from './water/rounds-service';
import { pooledTrier } from './water/rules-service';
import { readConfig } from './platform/config';
import { serve, type RunningServer } from './app/serve';

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel });

function sayWhy(error: unknown): never {
  const inUse = error instanceof Error && (error as { code?: unknown }).code === 'EADDRINUSE';
  console.error(inUse ? `Port ${config.port} is in use. Stop what uses it, or set PORT to another.` : error);
  process.exit(1);
}

const solver = pooledSolver();
const walker = pooledWalker();
const renewer = pooledRenewer();
const follower = pooledFollower();
const seeker = pooledSeeker();
const roundSeeker = pooledRoundSeeker();
const rulesTrier = pooledTrier();
const running: RunningServer = await serve(config, logger, {
  solver,
  walker,
  renewer,
  follower,
  seeker,
  roundSeeker,
  rulesTrier,
}).catch(sayWhy);
logger.info({ port: running.port }, 'listening');
process.send?.({ listening: running.port });

function stop(): void {
  Promise.all([
    running.stop(),
    ...[solver, walker, renewer, follower, seeker, roundSeeker, rulesTrier].map((pool) => pool.close()),
  ]).then(
    () => process.exit(0),
    () => process.exit(1),
  );
}

for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, stop);
// Whoever started this server is gone without a word: do not hold the port against the next start.
process.once('disconnect', stop);
