import { pino } from 'pino';
import { readConfig } from './platform/config';
import { serve } from './platform/serve';

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel });
const running = await serve(config, logger);
logger.info({ port: running.port }, 'listening');
process.send?.({ listening: running.port });

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    running.stop().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  });
}
