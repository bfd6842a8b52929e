import { expect, importExample, openSpot, readFile, signIn, test } from '../rig/town';

const csv = (name: string, text: string | Buffer) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
const header = 'ref,place,lng,lat,stock_kind,ball_diameter_mm,ball_height_mm,top_roots_depth_mm,caliper_mm,height_m';

test('a broken file is explained, and its good rows still come in', async ({ signedIn: page, town }) => {
  await readFile(page, town, csv('latin.csv', Buffer.from('ref,place,lng,lat\nX-1,Rua S\xe3o,-25.4,36.9\n', 'latin1')));
  await expect(page.getByRole('alert')).toContainText('not UTF-8: line 2');

  await readFile(page, town, csv('short.csv', 'ref,place,lng\nX-1,Mole Street,-25.4\n'));
  await expect(page.getByRole('alert')).toContainText('The column lat is missing from short.csv');

  const many = Array.from({ length: 20_000 }, (_, i) => `M-${i},Mole Street,-25.4,36.9`).join('\n');
  await readFile(page, town, csv('many.csv', `ref,place,lng,lat\n${many}\n`));
  await expect(page.getByRole('alert')).toContainText('20000 rows; the limit is 10000');

  const rows = [
    'A-1,Mole Street,-25.4,36.9,container,450,400,60,50,3',
    'A-2,Mole Street,-25.4,36.9,container,450,400,60,50,40000',
    'A-3,Mole Street,-25.4,36.9,container,wide,400,60,50,3',
  ];
  await readFile(page, town, csv('mixed.csv', `${header}\n${rows.join('\n')}\n`));
  await expect(page.getByText('height_m “40000” must be within 0.2–25 m')).toBeVisible();
  await expect(page.getByText('ball_diameter_mm “wide” must be a number')).toBeVisible();
  await page.getByRole('button', { name: 'Import 1 spot', exact: true }).click();
  await expect(page.getByText('1 spot stored')).toBeVisible();
});

test('ten thousand rows come in with progress, and can be looked through', async ({ signedIn: page, town }) => {
  const many = Array.from({ length: 10_000 }, (_, i) => `M-${i},Mole Street,-25.4,36.9`).join('\n');
  await readFile(page, town, csv('many.csv', `ref,place,lng,lat\n${many}\n`));
  await page.getByRole('button', { name: 'Import 10000 spots' }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  await expect(page.getByText('10000 spots stored')).toBeVisible({ timeout: 60_000 });
});

test('a cancelled import leaves nothing behind', async ({ signedIn: page, town }) => {
  const many = Array.from({ length: 8000 }, (_, i) => `C-${i},Mole Street,-25.4,36.9`).join('\n');
  await readFile(page, town, csv('many.csv', `ref,place,lng,lat\n${many}\n`));
  await page.getByRole('button', { name: 'Import 8000 spots' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('nothing of it was stored')).toBeVisible();
  // The rollback ends when the next import may begin.
  await readFile(page, town, csv('one.csv', 'ref,place,lng,lat\nC-AFTER,Mole Street,-25.4,36.9\n'));
  await page.getByRole('button', { name: 'Import 1 spot', exact: true }).click();
  await expect(page.getByText('1 spot stored')).toBeVisible();
  expect(await town.query('select 1 from spot where ref = $1', ['C-0'])).toHaveLength(0);
});

test('a value out of its limits is named at its field, and not sent', async ({ signedIn: page, town }) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0113');
  await page.getByLabel('Ball diameter').fill('45000');
  await expect(page.getByText('Must be within 100–3000 mm, got 45\u202f000')).toBeVisible();
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(page.getByText('A measure above is missing or outside its limits.')).toBeVisible();
  await expect(page.getByLabel('Ball diameter')).toHaveValue('45000');
});

test('typing survives a reload', async ({ signedIn: page, town }) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0113');
  await page.getByLabel('Ball diameter').fill('470');
  await page.getByLabel('Caliper').fill('44');
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).some((key) => key.includes('draft'))))
    .toBe(true);
  await page.reload();
  await expect(page.getByText('Unsaved typing restored.')).toBeVisible();
  await expect(page.getByLabel('Ball diameter')).toHaveValue('470');
  await page.getByRole('button', { name: 'Discard it' }).click();
  await expect(page.getByLabel('Ball diameter')).toHaveValue('');
});

test('a session that runs out mid-form asks for the password and loses nothing', async ({ signedIn: page, town }) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0101');
  await page.getByLabel('Caliper').fill('71.5');
  await town.query('delete from session');
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(page.getByRole('dialog', { name: 'Sign in again' })).toBeVisible();
  await page.getByLabel('Name').fill('ines');
  await page.getByLabel('Password').fill('shade-walks');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByLabel('Caliper')).toHaveValue('71.5');
  // The record waited on this device and goes out by itself.
  await expect
    .poll(async () => (await town.query(`select 1 from field_record where facts->>'caliperMm' = '71.5'`)).length)
    .toBe(1);
});

test.describe('over a wire that is cut', () => {
  test.use({ wired: true });

  test('a database that stops while saving costs nothing', async ({ signedIn: page, town }) => {
    await importExample(page, town);
    await openSpot(page, town, 'stock', 'F-0101');
    await page.getByLabel('Caliper').fill('72.5');
    town.wire?.cut();
    try {
      await page.getByRole('button', { name: 'Store stock measures' }).click();
      await expect(page.getByText(/The database cannot be reached/)).toBeVisible();
      await expect(page.getByText('1 kept on this device, to be sent')).toBeVisible();
    } finally {
      await town.wire?.mend();
    }
    // It may go by itself before somebody presses.
    await page
      .getByRole('button', { name: 'Send now' })
      .click({ timeout: 5_000 })
      .catch(() => undefined);
    await expect(page.getByText('kept on this device, to be sent')).toHaveCount(0, { timeout: 30_000 });
    expect(await town.query(`select 1 from field_record where facts->>'caliperMm' = '72.5'`)).toHaveLength(1);
    await page.reload();
    await expect(page.getByLabel('Caliper')).toHaveValue('72.5');
  });
});

test('the second of two people at one spot is told, and may go on', async ({ signedIn: page, town, browser }) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0101');
  const second = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(second, town, 'duarte');
  await openSpot(second, town, 'stock', 'F-0101');
  // A form nobody types in follows what others store; one with typing does not move under the hand.
  await page.getByLabel('Caliper').fill('60.1');
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(second.getByLabel('Caliper')).toHaveValue('2 3/8');
  await second.getByLabel('Height', { exact: true }).fill('12');
  await page.getByLabel('Caliper').fill('66.2');
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  // By the word of the database: the toast of the store before may still stand.
  const stored = () => town.query(`select 1 from field_record where facts->>'caliperMm' = '66.2'`);
  await expect.poll(async () => (await stored()).length).toBe(1);
  await expect(second.getByLabel('Caliper')).toHaveValue('2 3/8');
  await second.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(second.getByRole('alert')).toContainText('Inês Tavoro changed this spot while you were editing it');
  await expect(second.getByRole('row', { name: /Caliper 2 5\/8 in/ })).toBeVisible();
  expect(await stored()).toHaveLength(1);
  await second.getByRole('button', { name: 'Take theirs' }).click();
  await expect(second.getByLabel('Caliper')).toHaveValue('2 5/8');
  await expect(second.getByRole('alert')).toHaveCount(0);
});

test('a kill in the middle of an import leaves all or nothing', async ({ signedIn: page, town }) => {
  const many = Array.from({ length: 2000 }, (_, i) => `KILL-${i},Mole Street,-25.4,36.9`).join('\n');
  await readFile(page, town, csv('many.csv', `ref,place,lng,lat\n${many}\n`));
  // A lock on a table the import writes last in each part holds it half way, its first spots written.
  const blocker = await town.owner();
  await blocker.query('begin; lock table spot_period in exclusive mode');
  await page.getByRole('button', { name: 'Import 2000 spots' }).click();
  const waiting = async () =>
    (
      await town.query(
        `select 1 from pg_stat_activity where wait_event_type = 'Lock' and application_name = 'sombra' and datname = $1`,
        [town.database],
      )
    ).length;
  await expect.poll(waiting).toBe(1);
  await town.kill('SIGKILL');
  await blocker.query('rollback');
  await blocker.end();
  await expect.poll(waiting).toBe(0);
  await town.start();
  const spots = async () => (await town.query(`select 1 from spot where ref like 'KILL-%'`)).length;
  expect(await spots()).toBe(0);
  await page.goto(`${town.url}/import`);
  await page.locator('input[type=file]').setInputFiles(csv('many.csv', `ref,place,lng,lat\n${many}\n`));
  await page.getByRole('button', { name: 'Import 2000 spots' }).click();
  await expect(page.getByText('2000 spots stored')).toBeVisible({ timeout: 30_000 });
  expect(await spots()).toBe(2000);
});

test('signed out, only the sign-in shows', async ({ page, town }) => {
  await page.goto(`${town.url}/pit`);
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await expect(page.getByRole('navigation')).toHaveCount(0);
  await page.getByLabel('Name').fill('ines');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('Name and password do not fit together.');
});

test('a record sent late, after somebody else was first, waits for a decision', async ({
  signedIn: page,
  town,
  browser,
}) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0101');
  await page.route('**/api/records', (route) => route.abort());
  await page.getByLabel('Caliper').fill('73.5');
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(page.getByText('1 kept on this device, to be sent')).toBeVisible();

  const second = await (await browser.newContext()).newPage();
  await signIn(second, town, 'duarte');
  await openSpot(second, town, 'stock', 'F-0101');
  await second.getByLabel('Caliper').fill('3');
  await second.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(second.getByText('Stock measures stored.')).toBeVisible();

  await page.unroute('**/api/records');
  await expect(page.getByText('F-0101: Stock measures was not taken.')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: 'See what can be done' }).click();
  await expect(page.getByText(/Caliper 74 mm/)).toBeVisible();
  await page.getByRole('button', { name: 'Store it over what is there' }).click();
  await expect(page.getByText('was not taken')).toHaveCount(0);
  const newest = async () => {
    const [row] = await town.query<{ mm: string }>(
      `select facts->>'caliperMm' as mm from field_record where kind = 'stock' order by received_at desc limit 1`,
    );
    return row?.mm;
  };
  await expect.poll(newest).toBe('73.5');
});
