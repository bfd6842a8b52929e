import { asActor, openDatabase } from './platform/db';
import { rebuildAll } from './record/derive';

/** Works every spot's state out afresh from its records and reports where the kept state differed. */
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is missing');
const db = openDatabase(url, { applicationName: 'sombra-rebuild' });
try {
  const report = await asActor(db, 'rebuild', (trx) => rebuildAll(trx));
  console.log(`${report.spots} spots rebuilt, ${report.differing.length} differed from what was kept`);
  for (const id of report.differing) console.log(`  ${id}`);
} finally {
  await db.destroy();
}
