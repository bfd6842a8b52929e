import { demoTown } from '@sombra/demo';
import { addRegion } from './demo/big-town';
import { loadTown } from './demo/service';
import { asActor, openDatabase } from './platform/db';
import { programmeToday } from './programme/today';
import { followTrees } from './water/follow-service';

/** Fills an empty database with the demo town and a region of many spots around it. */
const url = process.env['DATABASE_URL'];
const ownerUrl = process.env['OWNER_DATABASE_URL'];
const count = Number(process.argv[2] ?? 250_000);
if (!url || !ownerUrl) throw new Error('DATABASE_URL or OWNER_DATABASE_URL is missing');
if (!Number.isInteger(count) || count < 1 || count > 2_000_000) {
  throw new Error(`The number of spots must be within 1–2 000 000, got ${process.argv[2]}`);
}
const db = openDatabase(url, { applicationName: 'sombra-demo' });
const owner = openDatabase(ownerUrl, { applicationName: 'sombra-demo-big' });
try {
  if (await db('programme').first()) throw new Error('The database is filled already');
  const town = demoTown({ seed: 'talhamar', today: await programmeToday(db) });
  await asActor(db, 'demo', (trx) => loadTown(trx, town));
  await followTrees(db);
  await addRegion(owner, town.spots, count);
  const [row] = await db('spot').count<{ count: number }[]>('* as count');
  console.log(`${row?.count ?? 0} spots are in the database`);
} finally {
  await Promise.all([db.destroy(), owner.destroy()]);
}
