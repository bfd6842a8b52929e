import type { Page } from '@playwright/test';
import type { Delivery, DeliveryList, Session } from '@sombra/contract';
import { cp, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import path from 'node:path';
import qr from 'qrcode';
import { root } from '../../scripts/root.mjs';
import { Desk, ready } from '../rig/desk';
import { Phone } from '../rig/phone';
import { soundTree } from '../rig/sound-tree';
import { expect, knownAs, signIn, test, type Town } from '../rig/town';
import { Wire } from '../rig/wire';

/** A picture a phone may have taken. */
const png = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const picture = { name: 'tree.png', mimeType: 'image/png', buffer: png };

const count = async (town: Town, kind: string): Promise<number> => {
  const [row] = await town.query<{ n: number }>('select count(*)::int as n from field_record where kind = $1', [kind]);
  return row?.n ?? 0;
};
const rows = async (town: Town, table: 'spot_photo' | 'lot_tree'): Promise<number> => {
  const [row] = await town.query<{ n: number }>(`select count(*)::int as n from ${table}`);
  return row?.n ?? 0;
};

/** One stop of a round, looked at as sound. */
async function look(page: Page): Promise<void> {
  for (const name of soundTree) await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('heading', { name: /is it so/ })).toBeVisible();
}

test('a day without any network: delivery, test hole, planting, looks and photos, then a bad line, and all is there once', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const [toPlant] = await desk.refs('stage=day&place=Tramway%20Avenue&find=A-0105', 1);
  const planted = await desk.refs('planted=yes&place=Upper%20Terrace', 2);
  const [hole] = await desk.refs('stage=ground', 1);
  const { deliveries } = await desk.get<DeliveryList>('/api/deliveries');
  const delivery = await desk.get<Delivery>(`/api/deliveries/${deliveries[0]?.id}`);
  await desk.assign('crew_lead', { kind: 'planting', title: 'Team of today', spotIds: [toPlant?.id ?? ''] });
  await desk.assign('crew_lead', { title: 'Two looks', spotIds: planted.map(({ id }) => id) });
  await desk.assign('crew_lead', { kind: 'test_holes', title: 'One hole', spotIds: [hole?.id ?? ''] });
  await desk.assign('crew_lead', { kind: 'delivery', title: 'At the depot', deliveryId: delivery.id });
  const kinds = ['inspection', 'planting', 'percolation'] as const;
  const before = await Promise.all(kinds.map((kind) => count(town, kind)));
  const treesBefore = await rows(town, 'lot_tree');
  const photosBefore = await rows(town, 'spot_photo');

  // The phone reaches the server over a line that can be cut.
  const line = await Wire.to(town.port);
  const far = { url: line.through(town.url).replace(/\/$/, '') };
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    let page = await phone.open();
    await knownAs(page, { url: far.url } as Town, 'bento');
    await ready(page, far);
    await phone.close();
    line.cut();

    // Nothing is reached before the page is opened.
    page = await phone.open();
    await page.goto(far.url);
    await expect(page.getByRole('heading', { name: 'Taken along' })).toBeVisible();
    await expect(page.getByText('1 of 1 left').first()).toBeVisible();

    await page.getByRole('link', { name: 'Receive it' }).click();
    await page.getByRole('link', { name: 'Open a tree' }).first().click();
    await expect(page.getByText(/Question 1 of \d+/)).toBeVisible();
    await page.getByRole('button', { name: 'container', exact: true }).click();
    await page.getByRole('button', { name: 'Store what was seen' }).click();
    await expect(page.getByText(/kept on this device/).first()).toBeVisible();

    await page.goto(`${far.url}/along`);
    const card = (title: string) => page.locator('s-assignment-card').filter({ hasText: title });
    await card('One hole').getByRole('link', { name: 'Begin' }).click();
    await page.getByRole('link', { name: 'Open it' }).click();
    await page.getByRole('button', { name: /^Percolation/ }).click();
    await page.getByLabel('Depth of the hole').fill('400');
    await page.getByRole('button', { name: 'Filled: start reading' }).click();
    for (const level of ['300', '290']) {
      for (const digit of level) await page.getByRole('button', { name: digit, exact: true }).click();
      await page.getByRole('button', { name: 'Read now' }).click();
    }
    await page.getByRole('button', { name: 'Finish and store the test' }).click();
    await expect(page.getByText(/kept on this device/i).first()).toBeVisible();

    await page.goto(`${far.url}/along`);
    await card('Team of today').getByRole('link', { name: 'Begin' }).click();
    await expect(page.getByText('A-0105').first()).toBeVisible();
    await page.getByRole('button', { name: 'I know the work' }).click();
    await page.getByRole('button', { name: 'It is this tree' }).click();
    const usual = page.getByRole('group', { name: 'Usual values' }).getByRole('button');
    // Depth, flare, width, water; dug as planned, nothing is put back.
    for (let i = 0; i < 4; i++) {
      await expect(page.getByText(`question ${i + 1} of 4`)).toBeVisible();
      if (i === 3) await page.locator('.ask input[type=file]').setInputFiles(picture);
      await usual.nth(1).click();
    }
    await expect(page.getByText('1 photo taken here.')).toBeVisible();
    await page.getByRole('button', { name: 'Store', exact: true }).click();
    await expect(page.getByText('Nothing is left of it on this device.')).toBeVisible();

    // Left half-way, it is still there.
    await page.goto(`${far.url}/along`);
    await card('Two looks').getByRole('link', { name: 'Begin' }).click();
    await page.getByRole('button', { name: 'It is this tree' }).click();
    await page.getByRole('button', { name: 'Green, nothing wrong' }).click();
    await page.getByRole('button', { name: 'no stake' }).click();
    await phone.close();
    page = await phone.open();
    await page.goto(far.url);
    await page
      .locator('s-assignment-card')
      .filter({ hasText: 'Two looks' })
      .getByRole('link', { name: 'Begin' })
      .click();
    await page.getByRole('button', { name: 'nothing moves' }).click();
    for (let i = 0; i < 7; i++) await page.getByRole('button', { name: 'Skip' }).click();
    await page.getByRole('button', { name: 'Store', exact: true }).click();
    await expect(page.getByText('1 of 2 left')).toBeVisible();
    // At the second something is wrong: it asks on, its roots are drawn, and it is photographed.
    for (const name of [
      'It is this tree',
      'wound on the trunk',
      'Next',
      'tie tight',
      'nothing moves',
      'Nothing wrong',
    ]) {
      await page.getByRole('button', { name, exact: true }).click();
    }
    for (const name of ['clear of the trunk', '50 mm', 'free of grass', '40 mm', 'sound', 'some: draw them']) {
      await page.getByRole('button', { name, exact: true }).click();
    }
    await page.getByRole('button', { name: 'Add a root by numbers' }).click();
    await page.getByLabel('Presses to', { exact: true }).fill('90');
    await page.getByRole('button', { name: 'Next', exact: true }).click();
    await page.getByRole('button', { name: 'moist', exact: true }).click();
    await expect(page.getByRole('heading', { name: '8 Photo' })).toBeVisible();
    await page.locator('.ask input[type=file]').setInputFiles(picture);
    await expect(page.getByText('1 taken here.')).toBeVisible();
    await page.getByRole('button', { name: 'Next' }).click();
    // Judged without a network: a quarter of the trunk is pressed.
    await expect(page.getByText(/Roots press on 25\.0 % of the trunk/)).toBeVisible();
    await expect(page.getByText('Seen: wound on the trunk.')).toBeVisible();
    await page.getByRole('button', { name: 'Store', exact: true }).click();

    // The way on the map, out of what the device holds.
    await page.getByRole('link', { name: 'Map' }).click();
    await expect(page.getByRole('region', { name: /Map of what is here/ }).locator('canvas')).toBeVisible();
    await page.getByRole('link', { name: 'Waiting' }).click();
    await expect(page.getByText(/^7 to be sent, 2 of them photos\./)).toBeVisible();

    // A line that comes and goes, with a gateway that has lost its server in between.
    await line.mend();
    for (let i = 0; i < 20; i++) {
      line.badGateway = i % 4 === 1;
      await page.evaluate(() => window.dispatchEvent(new Event('online')));
      await page.waitForTimeout((i * 37) % 90);
      await line.flicker();
    }
    line.badGateway = false;
    await page.reload();
    await expect(page.getByText('Nothing of yours waits here')).toBeVisible({ timeout: 60_000 });
    expect(await Promise.all(kinds.map((kind) => count(town, kind)))).toEqual(
      before.map((n, i) => n + (i === 0 ? 2 : 1)),
    );
    expect([(await rows(town, 'lot_tree')) - treesBefore, (await rows(town, 'spot_photo')) - photosBefore]).toEqual([
      1, 2,
    ]);
    const steps = await town.query<{ step: string }>(
      `select step from spot_photo where step is not null order by step`,
    );
    expect(steps.map(({ step }) => step)).toEqual(['looks.photo', 'planting.firstWaterL']);
  } finally {
    await phone.throwAway();
    line.cut();
  }
});

test('two hundred records and their photos, the page killed ten times among them: nothing lost, nothing twice', async ({
  town,
}, info) => {
  test.slow();
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    let page = await phone.open();
    await knownAs(page, town, 'marta');
    await page.goto(`${town.url}/waiting`);
    await expect(page.getByText('Nothing of yours waits here')).toBeVisible();
    const user = ((await (await page.request.get(`${town.url}/api/session`)).json()) as Session).user?.id ?? '';
    const spots = await town.query<{ id: string }>('select id from spot order by id limit 40');
    const before = await count(town, 'not_done');
    const photosBefore = await rows(town, 'spot_photo');
    // As the application lays them there, while the page it was made on is being killed again and again.
    await page.evaluate(
      async ({ user, ids, photo }) => {
        const open = indexedDB.open('sombra');
        const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)));
        const act = db.transaction(['entries', 'parcels'], 'readwrite');
        const bytes = Uint8Array.from(atob(photo), (c) => c.charCodeAt(0));
        const idOf = (n: number) => `0190a5c2-0000-7000-8000-${String(n).padStart(12, '0')}`;
        for (let n = 0; n < 200; n++) {
          const spotId = ids[n % ids.length] ?? '';
          const facts = { task: 'looks', triedOn: new Date().toISOString().slice(0, 10), reason: `gate locked ${n}` };
          const made = { id: idOf(n), kind: 'not_done', recordedAt: new Date().toISOString(), supersedes: null, facts };
          const sent = { spotId, device: 'browser', spotVersion: null, format: 2, aheadMs: 0, record: made };
          act.objectStore('entries').put({ id: made.id, userId: user, sent, madeAt: n, refused: null });
          if (n % 20 === 0) {
            const id = idOf(1000 + n);
            const url = `/api/spots/${spotId}/photos/${id}?step=looks.end`;
            const body = new Blob([bytes], { type: 'image/png' });
            act
              .objectStore('parcels')
              .put({ id, userId: user, method: 'PUT', url, body, name: 'Photo', madeAt: n, refused: null });
          }
        }
        await new Promise((resolve) => (act.oncomplete = resolve));
        db.close();
      },
      { user, ids: spots.map(({ id }) => id), photo: png.toString('base64') },
    );
    for (let i = 0; i < 10; i++) {
      await page.goto(`${town.url}/waiting`, { waitUntil: 'commit' });
      await page.waitForTimeout(500 + ((i * 211) % 700));
      // The page alone, or the whole browser with it.
      const context = page.context();
      if (i % 3 < 2) page = await context.newPage();
      for (const old of context.pages().filter((one) => one !== page)) await old.close({ runBeforeUnload: false });
      if (i % 3 < 2) continue;
      await phone.close();
      page = await phone.open();
    }
    await page.goto(`${town.url}/waiting`);
    await expect(page.getByText('Nothing of yours waits here')).toBeVisible({ timeout: 300_000 });
    expect((await count(town, 'not_done')) - before).toBe(200);
    expect((await rows(town, 'spot_photo')) - photosBefore).toBe(10);
    // In the order made at each spot.
    const order = await town.query<{ reasons: number[] }>(
      `select array_agg((regexp_match(facts->>'reason', '(\\d+)$'))[1]::int order by received_at, id) as reasons
       from field_record where kind = 'not_done' and facts->>'reason' like 'gate locked %' group by spot_id`,
    );
    for (const { reasons } of order) expect(reasons).toEqual([...reasons].sort((a, b) => a - b));
  } finally {
    await phone.throwAway();
  }
});

/** A record of Bento's made where nothing is reached. */
async function couldNot(page: Page, reason: string): Promise<void> {
  await page.getByRole('button', { name: 'Cannot be done' }).click();
  await page.getByLabel('Another reason').fill(reason);
  await page.getByRole('button', { name: 'Keep this reason' }).click();
  await expect(page.getByText(/Kept on this device/)).toBeVisible();
}

test('a phone of several people: sealed when one leaves, sent by whoever comes next, saved as a file, wiped when lost', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const spots = await desk.refs('planted=yes&place=Upper%20Terrace', 3);
  const assignment = await desk.assign('crew_lead', { spotIds: spots.map(({ id }) => id) });
  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const phone = await Phone.made(info.project.use.launchOptions);
  const reasons = async () =>
    (
      await town.query<{ reason: string; by: string }>(
        `select facts->>'reason' as reason, recorded_by as by from field_record where kind = 'not_done' order by received_at`,
      )
    ).map(({ reason, by }) => `${by.split(' ')[0]}: ${reason}`);
  try {
    const page = await phone.open();
    await knownAs(page, { url: far } as Town, 'bento');
    await ready(page, { url: far });
    line.cut();
    await page.goto(`${far}/walk/${assignment}`);
    await couldNot(page, 'gate locked');

    // Saved as a file, which only the server reads.
    await page.getByRole('link', { name: 'Waiting' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save all as a file' }).click(),
    ]);
    const file = path.join(info.outputDir, 'phone.sealed');
    await download.saveAs(file);
    await expect(page.getByText(/1 saved, sealed/)).toBeVisible();
    await signedIn.goto(`${town.url}/waiting`);
    const choose = signedIn.locator('s-read-sealed-file input[type=file]');
    await choose.setInputFiles(file);
    await expect(signedIn.getByText('1 of 1: 1 stored.')).toBeVisible();
    expect(await reasons()).toEqual(['Bento: gate locked']);
    await writeFile(file, 'not a seal\n');
    await choose.setInputFiles(file);
    await expect(signedIn.getByText(/Line 1 was not saved by Sombra/)).toBeVisible();

    // Another record, and Bento leaves the phone where nothing is reached.
    await page.goto(`${far}/walk/${assignment}`);
    await couldNot(page, 'car on the strip');
    await page.getByRole('button', { name: 'Bento Quarel' }).click();
    await page.getByRole('button', { name: 'Sign out' }).click();
    await expect(page.getByRole('heading', { name: 'Sombra cannot be reached' })).toBeVisible();
    const left = await page.evaluate(async () => {
      const open = indexedDB.open('sombra');
      const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)));
      const all = (store: string) =>
        new Promise<unknown[]>((resolve) => {
          const asked = db.transaction(store).objectStore(store).getAll();
          asked.onsuccess = () => resolve(asked.result as unknown[]);
        });
      const found = { entries: await all('entries'), sealed: await all('sealed') };
      db.close();
      return { entries: found.entries.length, sealed: found.sealed.length, text: JSON.stringify(found) };
    });
    expect([left.entries, left.sealed]).toEqual([0, 2]);
    expect(left.text).not.toContain('car on the strip');

    // The old session lets nobody in; the next contact brings what was sealed, and what was there stays once.
    await line.mend();
    await page.goto(far);
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await expect.poll(reasons, { timeout: 60_000 }).toEqual(['Bento: gate locked', 'Bento: car on the strip']);

    // Marta works on; then the phone is lost with a record on it.
    await knownAs(page, { url: far } as Town, 'marta');
    await desk.assign('inspector', { spotIds: spots.map(({ id }) => id), title: 'Third' });
    await ready(page, { url: far });
    line.cut();
    await page.locator('s-assignment-card').filter({ hasText: 'Third' }).getByRole('link', { name: 'Begin' }).click();
    await couldNot(page, 'not found');
    const office = await signedIn.context().browser()?.newContext();
    const admin = await office?.newPage();
    if (!admin) throw new Error('no page for the office');
    await signIn(admin, town, 'admin');
    await admin.goto(`${town.url}/people`);
    const device = admin.getByRole('row').filter({ hasText: 'Bento Quarel, Marta' });
    await device.getByRole('button', { name: 'Wipe it' }).click();
    await device.getByRole('button', { name: 'Yes, wipe it' }).click();
    await expect(device).toContainText('to be wiped on its next contact');
    await line.mend();
    await page.goto(far);
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible({ timeout: 30_000 });
    await expect.poll(async () => (await reasons()).at(-1)).toMatch(/^Marta: not found$/);
    await expect.poll(async () => (await town.query('select 1 from device where wiped_at is not null')).length).toBe(1);
    // The device leaves its pages while it wipes itself: asked again where one went under the question.
    await expect(async () => {
      const kept = await page.evaluate(async () => (await indexedDB.databases()).map(({ name }) => name));
      expect(kept).not.toContain('sombra-along');
    }).toPass();
    await office?.close();
  } finally {
    await phone.throwAway();
    line.cut();
  }
});

test('the work of one phone goes over to another by one code, and the desk is asked where two looks contradict', async ({
  signedIn,
  browser,
  town,
}) => {
  const desk = await Desk.of(signedIn, town);
  const [tree] = await desk.refs('planted=yes&place=Upper%20Terrace', 1);
  await desk.assign('inspector', { title: 'Handed over', spotIds: [tree?.id ?? ''] });
  const phones = await Promise.all(
    ['marta', 'bento'].map(async (name) => {
      const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
      const page = await context.newPage();
      await knownAs(page, town, name);
      await page.goto(`${town.url}/along`);
      return page;
    }),
  );
  const [marta, bento] = phones as [Page, Page];
  const card = (page: Page) => page.locator('s-assignment-card').filter({ hasText: 'Handed over' });
  await expect(card(marta)).toBeVisible({ timeout: 30_000 });
  await card(marta).getByRole('button', { name: 'Hand over' }).click();
  const code = (await card(marta).locator('.code b').textContent()) ?? '';
  await bento.getByLabel('Take over what somebody hands you').fill('000 000');
  await bento.getByRole('button', { name: 'Take over' }).click();
  await expect(bento.getByRole('alert')).toContainText(/This code gives nothing|Too many/);
  await bento.getByLabel('Take over what somebody hands you').fill(code);
  await bento.getByRole('button', { name: 'Take over' }).click();
  await expect(card(bento)).toBeVisible({ timeout: 30_000 });
  await card(bento).getByRole('link', { name: 'Begin' }).click();
  await look(bento);
  await bento.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(bento.getByText('0 of 1 left')).toBeVisible();

  // Marta saw it otherwise an hour later.
  await marta.goto(`${town.url}/inspect/${tree?.id}`);
  const choose = (group: string, name: string) =>
    marta.getByRole('group', { name: group }).locator('label', { hasText: name }).click();
  await choose('Probe at ball depth', 'waterlogged');
  await choose('Mulch at the trunk', 'heaped on the trunk');
  await marta.getByRole('button', { name: 'Store the look' }).click();
  await expect(marta.getByText('Inspection stored.')).toBeVisible();
  await signedIn.goto(`${town.url}/inspect/${tree?.id}`);
  const pair = signedIn.getByRole('region', { name: 'Inspection, twice' });
  await expect(pair).toContainText('Bento Quarel');
  await expect(pair).toContainText('Marta');
  await expect(pair).toContainText('one finds the mulch clear of the trunk and the other heaped on it');
  await pair.getByRole('button', { name: 'This one stands' }).first().click();
  await expect(pair).toHaveCount(0);
  for (const page of phones) await page.context().close();
});

/** The built application as a later version: what a deploy lays beside the old one. */
async function laterVersion(of: string, words: string): Promise<string> {
  const folder = await mkdtemp(path.join(tmpdir(), 'sombra-web-'));
  await cp(of, folder, { recursive: true });
  const page = path.join(folder, 'index.html');
  const text = (await readFile(page, 'utf8')).replace('</body>', `<!-- ${words} --></body>`);
  await writeFile(page, text);
  const manifest = path.join(folder, 'ngsw.json');
  const worker = JSON.parse(await readFile(manifest, 'utf8')) as {
    timestamp: number;
    hashTable: Record<string, string>;
  };
  worker.timestamp += 1;
  worker.hashTable['/index.html'] = createHash('sha1').update(text).digest('hex');
  await writeFile(manifest, JSON.stringify(worker));
  return folder;
}

test('an update comes between a record made away and its sending: it waits for the hand, and the record goes once', async ({
  town,
}, info) => {
  test.slow();
  const built = path.join(root, 'dist/web/browser');
  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const phone = await Phone.made(info.project.use.launchOptions);
  const [later, broken] = [await laterVersion(built, 'later'), await laterVersion(built, 'broken')];
  const shown = (page: Page) => page.content();
  try {
    let page = await phone.open();
    await knownAs(page, { url: far } as Town, 'bento');
    await ready(page, { url: far });
    line.cut();
    const before = await count(town, 'planting');
    await page.getByLabel('Find among what is here').fill('A-0105');
    await page
      .getByRole('link', { name: /A-0105/ })
      .first()
      .click();
    const fill = (label: string, value: string) => page.getByLabel(label, { exact: true }).fill(value);
    await fill('Flare, point 1', '40');
    await fill('Hole width', '1100');
    await fill('First water', '45');
    await page.getByRole('button', { name: 'Store as built' }).click();
    await expect(page.getByText(/1 kept on this device, to be sent/)).toBeVisible();
    await phone.close();

    // A deploy that is not whole: a file its list names is not there. The phone stays with what it has.
    const manifest = JSON.parse(await readFile(path.join(broken, 'ngsw.json'), 'utf8')) as {
      hashTable: Record<string, string>;
    };
    const missing = Object.keys(manifest.hashTable).find((name) => /^\/chunk-/.test(name)) ?? '';
    await rm(path.join(broken, missing));
    await town.kill('SIGKILL');
    town.environment = { WEB_ROOT: broken };
    await town.start();
    await line.mend();
    page = await phone.open();
    await page.goto(far);
    await expect.poll(() => count(town, 'planting'), { timeout: 60_000 }).toBe(before + 1);
    await page.waitForTimeout(1500);
    await page.reload();
    await expect(page.getByRole('navigation', { name: 'Work order' })).toBeVisible();
    expect(await shown(page)).not.toContain('<!-- broken -->');

    // The next deploy is whole, and mends it by itself; it waits while something is typed.
    await town.kill('SIGKILL');
    town.environment = { WEB_ROOT: later };
    await town.start();
    await page.goto(`${far}/along`);
    await page.getByLabel('Find among what is here').fill('A-0');
    const told = page.getByText('A new version of Sombra is here.');
    await expect(async () => {
      await page.evaluate(() => navigator.serviceWorker.getRegistration().then((one) => one?.update()));
      await page.reload();
      await page.getByLabel('Find among what is here').fill('A-0');
      // Told of while something is typed, or taken over already between two pages.
      const here = (await shown(page)).includes('<!-- later -->');
      if (!here) await expect(told).toBeVisible({ timeout: 4000 });
    }).toPass({ timeout: 90_000 });
    if (await told.isVisible()) {
      await expect(page.getByLabel('Find among what is here')).toHaveValue('A-0');
      await page.getByRole('button', { name: 'Take it over now' }).click();
    }
    await expect.poll(() => shown(page)).toContain('<!-- later -->');
    expect(await count(town, 'planting')).toBe(before + 1);
  } finally {
    await phone.throwAway();
    line.cut();
    for (const folder of [later, broken]) await rm(folder, { recursive: true, force: true });
  }
});

/** A film of a card with a code on it, as a camera gives one: a Y4M of grey frames. */
async function filmOf(code: string, file: string): Promise<void> {
  const { modules } = qr.create(code, { errorCorrectionLevel: 'M' });
  const [width, height, unit] = [640, 480, Math.floor(360 / (modules.size + 8))];
  const left = Math.floor((width - unit * modules.size) / 2);
  const top = Math.floor((height - unit * modules.size) / 2);
  const grey = Buffer.alloc(width * height, 235);
  for (let y = 0; y < modules.size * unit; y++) {
    for (let x = 0; x < modules.size * unit; x++) {
      if (modules.get(Math.floor(y / unit), Math.floor(x / unit))) grey[(top + y) * width + left + x] = 16;
    }
  }
  const colour = Buffer.alloc((width * height) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), grey, colour]);
  await writeFile(file, Buffer.concat([Buffer.from('YUV4MPEG2 W640 H480 F10:1 Ip A1:1 C420jpeg\n'), frame, frame]));
}

test('the tag of a tree is read by the camera: this one, or another one', async ({ signedIn, town }, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const trees = await desk.refs('planted=yes&place=Upper%20Terrace', 2);
  const [first, second] = trees.map(({ ref }) => ref);
  const tree = await town.query<{ id: string }>(
    'select tree.id from tree join spot on spot.id = tree.spot_id where spot.ref = $1 and tree.standing',
    [second],
  );
  await desk.assign('inspector', { title: 'By tag', spotIds: trees.map(({ id }) => id) });
  const film = path.join(info.outputDir, 'tag.y4m');
  await mkdir(info.outputDir, { recursive: true });
  await filmOf(`${town.url}/tree/${tree[0]?.id}`, film);
  const { launchOptions } = info.project.use;
  const camera = [
    '--use-fake-device-for-media-stream',
    '--use-fake-ui-for-media-stream',
    `--use-file-for-fake-video-capture=${film}`,
  ];
  const phone = await Phone.made({ ...launchOptions, args: [...(launchOptions?.args ?? []), ...camera] });
  try {
    const page = await phone.open();
    await knownAs(page, town, 'marta');
    await page.goto(`${town.url}/along`);
    const begin = page.locator('s-assignment-card').filter({ hasText: 'By tag' }).getByRole('link', { name: 'Begin' });
    await begin.click({ timeout: 60_000 });
    await page.getByRole('button', { name: 'Read the tag' }).click();
    await expect(page.getByText(`This is ${second}, not ${first}.`)).toBeVisible({ timeout: 30_000 });
    await page.getByRole('button', { name: 'Later' }).click();
    await page.getByRole('button', { name: 'Read the tag' }).click();
    await expect(page.getByText(`The tag says ${second}: this is the tree.`)).toBeVisible({ timeout: 30_000 });
  } finally {
    await phone.throwAway();
  }
});

test('a sound tree takes twelve taps and nothing typed, one hand, each step beside the look before', async ({
  signedIn,
  town,
}, info) => {
  const desk = await Desk.of(signedIn, town);
  const [tree] = await desk.refs('planted=yes&place=Upper%20Terrace', 1);
  await desk.assign('crew_lead', { title: 'One look', spotIds: [tree?.id ?? ''] });
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    const page = await phone.open();
    await knownAs(page, town, 'bento');
    await ready(page, town);
    await page
      .locator('s-assignment-card')
      .filter({ hasText: 'One look' })
      .getByRole('link', { name: 'Begin' })
      .click();
    const taps = [...soundTree, 'Store'];
    expect(taps.length).toBeLessThanOrEqual(12);
    for (const [i, name] of taps.entries()) {
      // A thumb reaches it where it stands: no question of a sound tree scrolls sideways.
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect([name, wide]).toEqual([name, 0]);
      if (i === 2) await expect(page.getByText(/^Last time: /)).toBeVisible();
      await page.getByRole('button', { name, exact: true }).click();
    }
    await expect(page.getByText('0 of 1 left')).toBeVisible();
    await expect
      .poll(async () => {
        const [last] = await town.query<{ facts: object }>(
          `select facts from field_record where kind = 'inspection' and facts ? 'turf' and spot_id = $1`,
          [tree?.id],
        );
        return last?.facts;
      })
      .toMatchObject({
        alive: 'green',
        signs: [],
        stake: 'none',
        rocks: 'firm',
        leftOn: [],
        mulchContact: 'clear',
        mulchDepthMm: 50,
        turf: 'clear',
        flareDepthMm: 0,
        circlingRoots: [],
        probe: 'moist',
      });
  } finally {
    await phone.throwAway();
  }
});
