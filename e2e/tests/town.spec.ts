import { zxyToTileId } from 'pmtiles';
import type { Page } from '@playwright/test';
import { expect, signIn, test, type Town } from '../rig/town';

const slider = (page: Page) => page.getByRole('slider', { name: 'Chosen day' });
const heading = (page: Page) => page.getByRole('heading', { level: 1 }).first();
const lines = (page: Page) => page.locator('.row[role=row]');

/** Waits until the map has drawn what it asked for. */
async function mapReady(page: Page): Promise<void> {
  await page.locator('.map-box[aria-busy=false]').waitFor();
}

async function positionOf(town: Town, ref: string): Promise<{ id: string; lng: number; lat: number }> {
  const [row] = await town.query<{ id: string; lng: number; lat: number }>(
    'select id, st_x(position) as lng, st_y(position) as lat from spot where ref = $1',
    [ref],
  );
  if (!row) throw new Error(`no spot ${ref}`);
  return row;
}

/** The middle of the map as it stands. */
async function middle(page: Page): Promise<{ x: number; y: number }> {
  const box = await page.locator('.map-box').boundingBox();
  if (!box) throw new Error('no map');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

test('the desk is worked by keyboard alone, and an act is undone', async ({ signedIn: page, town }) => {
  await page.goto(`${town.url}/town`);
  await expect(heading(page)).toHaveText('Town');
  await page.keyboard.press('g');
  await page.keyboard.press('d');
  await expect(heading(page)).toContainText('decisions today');
  const before = await heading(page).textContent();
  // Down to the first line that one tap settles.
  const single = page.locator('li.one', { has: page.getByRole('button', { name: 'Done today' }) }).first();
  const steps = await page
    .locator('li.one')
    .evaluateAll((all, one) => all.indexOf(one as HTMLElement), await single.elementHandle());
  for (let i = 0; i < steps; i++) await page.keyboard.press('j');
  await expect(single).toHaveClass(/here/);
  await page.keyboard.press('d');
  await expect(page.getByText(/stored as done on 1 tree/)).toBeVisible();
  await expect(heading(page)).not.toHaveText(before ?? '');
  const undo = page.getByRole('button', { name: 'Undo' });
  await undo.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Taken back on 1 tree.')).toBeVisible();
  await expect(heading(page)).toHaveText(before ?? '');
  expect(await town.query('select 1 from field_record where kind = $1', ['retraction'])).toHaveLength(1);
});

test('keys lead everywhere: find, key map, pages, list', async ({ signedIn: page, town }) => {
  await page.goto(town.url);
  await expect(heading(page)).toContainText('decisions today');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog').getByText('find a tree, place, species')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('/');
  await page.keyboard.type('W-0103');
  await page.getByRole('option', { name: /W-0103/ }).waitFor();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/town\/[0-9a-f-]{36}/);
  await page.keyboard.press('g');
  await page.keyboard.press('6');
  await expect(heading(page)).toHaveText('Dry by when');
  await page.keyboard.press('g');
  await page.keyboard.press('7');
  await expect(heading(page)).toHaveText('Inspect');
  await page.getByRole('grid').focus();
  await lines(page).first().waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: '1 chosen' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: '1 chosen' })).toHaveCount(0);
  await page.getByRole('grid').focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/inspect\/[0-9a-f-]{36}/);
});

test('a tree opened on the map is opened in the list, and chosen ones are chosen in both', async ({
  signedIn: page,
  town,
}) => {
  const { id, lng, lat } = await positionOf(town, 'T-0180');
  await page.goto(`${town.url}/inspect?as=both&at=19/${lat}/${lng}`);
  await mapReady(page);
  const at = await middle(page);
  await page.mouse.click(at.x, at.y);
  await expect(page).toHaveURL(new RegExp(`/inspect/${id}`));
  await expect(page.getByRole('link', { name: 'T-0180' })).toHaveAttribute('aria-current', 'true');
  await page.keyboard.down('Control');
  await page.mouse.click(at.x, at.y);
  await page.keyboard.up('Control');
  await expect(page.getByRole('heading', { name: '1 chosen' })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Choose T-0180' })).toBeChecked();
  await expect(page).toHaveURL(/chosen=T-0180/);
  // From the list: one more, then both are side by side, after a reload too.
  await page.getByRole('checkbox', { name: 'Choose T-0181' }).click();
  await expect(page.getByRole('region', { name: 'Side by side' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: '2 chosen' })).toBeVisible();
});

test('a lasso chooses what lies inside it, and the area becomes a filter', async ({ signedIn: page, town }) => {
  const { lng, lat } = await positionOf(town, 'Q-0120');
  await page.goto(`${town.url}/town?as=map&at=17.5/${lat}/${lng}`);
  await mapReady(page);
  await page.getByRole('button', { name: 'Lasso' }).click();
  const { x, y } = await middle(page);
  await page.mouse.move(x - 120, y - 120);
  await page.mouse.down();
  for (const [dx, dy] of [
    [120, -120],
    [120, 120],
    [-120, 120],
    [-120, -110],
  ] as const) {
    await page.mouse.move(x + dx, y + dy, { steps: 8 });
  }
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: /\d+ chosen/ })).toBeVisible();
  const chosen = Number((await page.getByRole('heading', { name: /\d+ chosen/ }).textContent())?.split(' ')[0]);
  expect(chosen).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Show only these' }).click();
  await expect(page).toHaveURL(/area=/);
  await expect(page.locator('.count')).toHaveText(`${chosen} spots`);
});

test('the thread dragged back a year shows what was, and forward what is forecast', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/town?as=list`);
  const count = page.locator('.count');
  await expect(count).toHaveText(/^1\d{3} spots$/);
  const now = Number((await count.textContent())?.split(' ')[0]);
  const thread = await slider(page).boundingBox();
  const band = await page.locator('.band').boundingBox();
  if (!thread || !band) throw new Error('no band');
  await page.mouse.move(thread.x + 1, thread.y + 30);
  await page.mouse.down();
  await page.mouse.move(band.x + 70, thread.y + 30, { steps: 12 });
  await page.mouse.up();
  await expect(page.getByText('as it was', { exact: true })).toBeVisible();
  await expect(page).toHaveURL(/on=20\d\d-\d\d-\d\d/);
  await expect.poll(async () => Number((await count.textContent())?.split(' ')[0])).toBeLessThan(now - 200);
  // A tree planted since stands in the list as a spot that waits for the planting, if at all.
  await page.getByRole('button', { name: 'Back to today' }).click();
  await expect(count).toHaveText(`${now} spots`);
  await slider(page).focus();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('PageDown');
  await expect(page.getByText('as forecast', { exact: true })).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('d');
  await expect(heading(page)).toContainText('due by');
  await expect(page.getByRole('button', { name: 'Done today' })).toHaveCount(0);
});

test('a tree on a past day is read, not changed', async ({ signedIn: page, town }) => {
  const { id } = await positionOf(town, 'W-0101');
  await page.goto(`${town.url}/inspect/${id}`);
  await expect(page.getByRole('button', { name: /Store/ })).toBeVisible();
  await page.goto(`${town.url}/inspect/${id}?on=2025-01-01`);
  await expect(page.getByText('As it was on Wed 1 Jan 2025.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Store/ })).toHaveCount(0);
});

test('a list of 50,000 lines is drawn a screen at a time', async ({ signedIn: page, town }) => {
  await town.query(`
    with placed as (select id from place limit 1), made as (
      insert into spot (id, ref, place_id, position, added_on, changed_by)
      select gen_random_uuid(), 'ZZ-' || lpad(i::text, 5, '0'), placed.id,
        st_setsrid(st_makepoint(-25.5, 36.95), 4326), '2026-01-01', 'test'
      from placed, generate_series(1, 50000) i returning id, ref)
    insert into spot_period (spot_id, from_day, stage, level, decisions, lng, lat, ref)
    select id, '2026-01-01', 'ground', 'good', 1, -25.5, 36.95, ref from made`);
  await page.goto(`${town.url}/ground?find=ZZ-`);
  await expect(page.locator('.count')).toHaveText('50000 spots');
  await expect(page.getByRole('link', { name: 'ZZ-00001' })).toBeVisible();
  await page.getByRole('grid').focus();
  await page.keyboard.press('End');
  await expect(page.getByRole('link', { name: 'ZZ-50000' })).toBeVisible();
  expect(await lines(page).count()).toBeLessThan(120);
  await page.getByRole('button', { name: 'Number' }).click();
  await expect(page.getByRole('link', { name: 'ZZ-50000' })).toBeVisible();
});

test('a list is filtered, kept as a view, printed and saved as CSV as it is seen', async ({ page, town }) => {
  await page.addInitScript(() => {
    window.print = () => {
      (window as unknown as { paper: string }).paper = document.querySelector('s-list-sheet')?.textContent ?? '';
    };
  });
  await signIn(page, town, 'ines');
  await page.goto(`${town.url}/inspect`);
  await page.getByRole('button', { name: 'Filter' }).click();
  const panel = page.locator('.panel');
  await panel.getByLabel('Level').selectOption('urgent');
  await panel.getByLabel('Place').selectOption('Weavers Row');
  await page.keyboard.press('Escape');
  await expect(page.locator('.count')).toHaveText(/^\d{1,2} spots$/);
  const shown = Number((await page.locator('.count').textContent())?.split(' ')[0]);

  await page.getByRole('button', { name: 'Print' }).click();
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { paper?: string }).paper))
    .toContain(`${shown} spots`);
  const paper = await page.evaluate(() => (window as unknown as { paper: string }).paper);
  expect(paper.match(/W-0\d{3}/g)).toHaveLength(shown);

  const csv = await page.request.get(town.url + (await page.getByRole('link', { name: 'CSV' }).getAttribute('href')));
  const rows = (await csv.text()).trim().split('\r\n');
  expect(rows[0]).toBe('ref,place,species,level,dueOn,lng,lat');
  expect(rows).toHaveLength(shown + 1);

  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByPlaceholder('Keep this view as').fill('Urgent on the row');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('View “Urgent on the row” kept.')).toBeVisible();
  await page.goto(`${town.url}/ground`);
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByRole('button', { name: 'Urgent on the row', exact: true }).click();
  await expect(page.locator('.count')).toHaveText(`${shown} spots`);
});

test('units are switched for the list beside the bench and for the band', async ({ signedIn: page, town }) => {
  await page.goto(`${town.url}/inspect?chosen=W-0136,W-0148`);
  const caliper = page.getByRole('row', { name: /Caliper/ });
  await expect(caliper).toContainText('mm');
  await page.getByRole('button', { name: 'Inês Tavoro' }).click();
  await page.getByRole('button', { name: 'Use US customary units' }).click();
  await expect(caliper).toContainText(' in');
  await expect(caliper).not.toContainText('mm');
  await expect(page.locator('.band text').first()).toBeVisible();
  await expect(page.locator('.band')).toContainText(/\d in/);
});

test('a spot is added by a tap, moved with a reason, and both are undone', async ({ signedIn: page, town }) => {
  const { lng, lat } = await positionOf(town, 'M-0130');
  await page.goto(`${town.url}/town?as=map&at=19.5/${lat + 0.00012}/${lng + 0.00002}`);
  await mapReady(page);
  const { x, y } = await middle(page);
  await page.getByRole('button', { name: 'Add' }).click();
  await page.mouse.click(x, y);
  const form = page.locator('s-add-spot-form');
  const number = form.getByLabel('Number');
  await expect(number).toHaveValue(/^M-0\d{3}$/);
  await expect(form.getByLabel('Place')).toHaveValue('Saltmakers Street');
  await number.fill('M-0130');
  await page.getByRole('button', { name: 'Add M-0130' }).click();
  await expect(page.getByText('Number M-0130 is taken by another spot')).toBeVisible();
  await number.fill('M-0900');
  await page.getByRole('button', { name: 'Add M-0900' }).click();
  await expect(page.getByText('M-0900 added on Saltmakers Street.')).toBeVisible();
  await expect(page.locator('.bench').getByRole('heading', { name: 'M-0900' })).toBeVisible();

  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await page.mouse.click(x + 60, y);
  await expect(page.getByRole('heading', { name: /Move M-0900 by \d+ m/ })).toBeVisible();
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByText('Reason must say why')).toBeVisible();
  await page.getByLabel('Reason').fill('rock at 300 mm');
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByText('M-0900 moved.')).toBeVisible();
  const moved = await positionOf(town, 'M-0900');
  const toasts = page.locator('ngb-toast');
  await toasts.filter({ hasText: 'M-0900 moved.' }).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Taken back.')).toBeVisible();
  expect((await positionOf(town, 'M-0900')).lng).not.toBeCloseTo(moved.lng, 6);
  await toasts.filter({ hasText: 'M-0900 added' }).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('1 spot withdrawn; the records stay.')).toBeVisible();
});

test('a distance is measured and a crew is located', async ({ signedIn: page, town }) => {
  await page.goto(`${town.url}/town?as=map&at=18/36.9/-25.4059`);
  await mapReady(page);
  await page.getByRole('button', { name: 'Measure' }).click();
  const { x, y } = await middle(page);
  await page.mouse.click(x - 100, y);
  await page.mouse.click(x + 100, y);
  // 200 px at zoom 18 and 36.9° north: 200 · 40 075 017 m · cos 36.9° / (512 · 2^18) = 47.8 m.
  await expect(page.getByText('48 m', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'Me', exact: true }).click();
  await expect(page.getByText(/You are within \d+ m of the mark \(simulated position\)/)).toBeVisible();
});

test('what one person settles, another sees without asking', async ({ signedIn: page, browser, town }) => {
  const other = await (await browser.newContext()).newPage();
  await signIn(other, town, 'marta');
  const count = other.getByRole('link', { name: /^Inspect/ });
  await expect(count).toContainText(/\d+/);
  const before = await count.textContent();
  await page.goto(town.url);
  await page.getByRole('button', { name: 'Done today', exact: true }).first().click();
  await expect(page.getByText(/stored as done/)).toBeVisible();
  await expect(count).not.toHaveText(before ?? '');
});

test('each role lands where its work is, and a viewer cannot act', async ({ page, browser, town }) => {
  await signIn(page, town, 'marta');
  await expect(page).toHaveURL(/\/inspect\?due=week&sort=dueOn$/);
  // A browser of their own: answers still under way would renew the cookie of the one before.
  const visitor = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(visitor, town, 'visitor');
  await expect(visitor).toHaveURL(/\/town$/);
  await mapReady(visitor);
  await expect(visitor.getByRole('button', { name: 'Add', exact: true })).toHaveCount(0);
  await visitor.goto(`${town.url}/desk`);
  await expect(heading(visitor)).toContainText('decisions today');
  await expect(visitor.getByRole('button', { name: 'Done today' })).toHaveCount(0);
});

test('an administrator gives the town a base map, and a wrong file changes nothing', async ({ page, town }) => {
  await signIn(page, town, 'admin');
  await page.goto(`${town.url}/base-map`);
  const street = page.getByLabel('GeoJSON file for Streets: middle lines with a name');
  const file = (text: string) => ({
    name: 'streets.geojson',
    mimeType: 'application/geo+json',
    buffer: Buffer.from(text),
  });
  await street.setInputFiles(
    file(
      '{"type":"FeatureCollection","features":[{"type":"Feature","properties":{},"geometry":{"type":"Point","coordinates":[1,2]}}]}',
    ),
  );
  await expect(
    page.getByText('Feature 1: its geometry must be LineString or MultiLineString in the layer street'),
  ).toBeVisible();
  const line = {
    type: 'LineString',
    coordinates: [
      [-25.41, 36.9],
      [-25.4, 36.9],
    ],
  };
  const feature = { type: 'Feature', properties: { name: 'New Road' }, geometry: line };
  await street.setInputFiles(file(JSON.stringify({ type: 'FeatureCollection', features: [feature] })));
  await expect(page.getByText('Streets stored.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Streets/ })).toContainText('1');
});

/** A PMTiles file (version 3, nothing compressed) of one tile, by its published layout. */
function pmtilesOf(tileId: number, zoom: number, tile: Uint8Array): Buffer {
  const varint = (value: number): number[] =>
    value < 128 ? [value] : [(value % 128) | 128, ...varint(Math.floor(value / 128))];
  const directory = Buffer.from([...varint(1), ...varint(tileId), ...varint(1), ...varint(tile.length), ...varint(1)]);
  const metadata = Buffer.from(JSON.stringify({ vector_layers: [{ id: 'street', fields: { name: 'String' } }] }));
  const header = Buffer.alloc(127);
  header.write('PMTiles', 'latin1');
  header[7] = 3;
  const parts = [directory, metadata, Buffer.alloc(0), tile] as const;
  let offset = header.length;
  parts.forEach((part, i) => {
    header.writeBigUInt64LE(BigInt(offset), 8 + 16 * i);
    header.writeBigUInt64LE(BigInt(part.length), 16 + 16 * i);
    offset += part.length;
  });
  for (const at of [72, 80, 88]) header.writeBigUInt64LE(1n, at);
  for (const [at, value] of [
    [96, 1],
    [97, 1],
    [98, 1],
    [99, 1],
    [100, zoom],
    [101, zoom],
    [118, zoom],
  ] as const)
    header[at] = value;
  for (const [at, degrees] of [
    [102, -180],
    [106, -85],
    [110, 180],
    [114, 85],
    [119, -25.4],
    [123, 36.9],
  ] as const) {
    header.writeInt32LE(Math.round(degrees * 1e7), at);
  }
  return Buffer.concat([header, ...parts]);
}

test('a PMTiles file becomes the base map, read in parts, and can be left again', async ({ page, town }) => {
  await signIn(page, town, 'admin');
  const zoom = 14;
  const x = Math.floor(((-25.4059 + 180) / 360) * 2 ** zoom);
  const turn = (36.9 * Math.PI) / 180;
  const y = Math.floor(((1 - Math.asinh(Math.tan(turn)) / Math.PI) / 2) * 2 ** zoom);
  const tile = await (await page.request.get(`${town.url}/api/map/base/${zoom}/${x}/${y}`)).body();
  expect(tile.length).toBeGreaterThan(1000);
  await page.goto(`${town.url}/base-map`);
  const input = page.getByLabel('PMTiles file');
  await input.setInputFiles({
    name: 'not.pmtiles',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from('GIF89a, surely'),
  });
  await expect(page.getByText('The file is not a PMTiles file of version 3')).toBeVisible();
  const buffer = pmtilesOf(zxyToTileId(zoom, x, y), zoom, tile);
  await input.setInputFiles({ name: 'town.pmtiles', mimeType: 'application/octet-stream', buffer });
  await expect(page.getByText('town.pmtiles is the base map now.')).toBeVisible();
  const asked: string[] = [];
  page.on('response', (response) => {
    if (response.url().includes('/api/map/base'))
      asked.push(`${response.status()} ${new URL(response.url()).pathname}`);
  });
  await page.goto(`${town.url}/town?as=map&at=16/36.9/-25.4059`);
  await mapReady(page);
  // The head of the file, then at least one tile; the page may be done a moment before word of the answer is here.
  await expect.poll(() => asked.length).toBeGreaterThan(1);
  expect(new Set(asked)).toEqual(new Set(['206 /api/map/base.pmtiles']));
  await page.goto(`${town.url}/base-map`);
  await page.getByRole('button', { name: 'Use the layers again' }).click();
  await expect(page.getByText('The layers are the base map again.')).toBeVisible();
});

test('the desk comes with little to load, and the map only when a map shows', async ({ page, town }) => {
  const client = await page.context().newCDPSession(page);
  await client.send('Network.enable');
  const urls = new Map<string, string>();
  let scriptBytes = 0;
  client.on('Network.responseReceived', ({ requestId, response }) => urls.set(requestId, response.url));
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (/\.m?js$/.test(urls.get(requestId) ?? '')) scriptBytes += encodedDataLength;
  });
  await signIn(page, town, 'ines');
  await expect(heading(page)).toContainText('decisions today');
  await page.waitForLoadState('networkidle');
  expect(scriptBytes).toBeGreaterThan(100_000);
  // The benches of all stages, and what seals and sends, are loaded behind the first page, and count.
  expect(scriptBytes).toBeLessThan(490_000);
  expect([...urls.values()].filter((url) => url.includes('/map/'))).toEqual([]);
  await page.goto(`${town.url}/town?as=map`);
  await mapReady(page);
  // The map library came only now; its worker is asked for by another process than the page.
  await expect.poll(() => scriptBytes).toBeGreaterThan(550_000);
});

test('a tree’s history on a past day ends there', async ({ signedIn: page, town }) => {
  const [tree] = await town.query<{ id: string }>(
    `select tree.id from tree join spot on spot.id = tree.spot_id where spot.ref = 'W-0136'`,
  );
  await page.goto(`${town.url}/tree/${tree?.id}`);
  const entries = page.getByLabel('History').getByRole('listitem');
  await expect(entries.first()).toBeVisible();
  const all = await entries.count();
  await page.goto(`${town.url}/tree/${tree?.id}?on=2024-02-01`);
  await expect(page.getByRole('heading', { name: 'As it was on 1 Feb 2024' })).toBeVisible();
  await expect.poll(() => entries.count()).toBeLessThan(all);
  await expect(page.getByRole('button', { name: 'Done today' })).toHaveCount(0);
});
