import { openDatabase } from './platform/db';
import { migrate } from './platform/migrations';
import { knitIfMissing } from './streets/repository';
import { beginDerived } from './record/derive';

/** Brings the database up to date. Runs as the owner of the schema, not as the application. */
const url = process.env['OWNER_DATABASE_URL'];
if (!url) throw new Error('OWNER_DATABASE_URL is missing');
const db = openDatabase(url, { applicationName: 'sombra-migrate' });
try {
  await migrate(db);
  await db.transaction(beginDerived);
  await db.transaction(knitIfMissing);
} finally {
  await db.destroy();
}
