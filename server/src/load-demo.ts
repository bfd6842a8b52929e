import { demoTown } from '@sombra/demo';
import { asActor, openDatabase } from './platform/db';
import { loadTown } from './demo/service';
import { programmeToday } from './programme/today';
import { followTrees } from './water/follow-service';

/** Fills an empty database with the demo town; leaves a filled one alone. */
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is missing');
const db = openDatabase(url, { applicationName: 'sombra-demo' });
try {
  const filled = (await db('programme').first()) !== undefined;
  if (!filled) {
    const seed = process.env['DEMO_SEED'] ?? 'talhamar';
    await asActor(db, 'demo', async (trx) => {
      const today = process.env['DEMO_TODAY'] ?? (await programmeToday(db));
      await loadTown(trx, demoTown({ seed, today }));
    });
  }
  if (!filled) await followTrees(db);
  // The planner has seen nothing of what was just loaded.
  if (!filled) await db.raw('analyze');
} finally {
  await db.destroy();
}
