import { openDatabase } from './platform/db';
import { makeSetUpCode } from './settings/service';

/** Prints the one-time code of a programme that nobody has set up yet; says nothing where somebody has. */
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is missing');
const db = openDatabase(url, { applicationName: 'sombra-set-up' });
try {
  const code = await makeSetUpCode(db);
  if (code) console.log(`This programme is empty. Set it up in the browser with the one-time code ${code}`);
} finally {
  await db.destroy();
}
