import type { Locator, Page } from '@playwright/test';
import type { Delivery, DeliveryList } from '@sombra/contract';
import { randomBytes } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { pdfText } from '../../server/testing/pdf-text';
import { expect, openSpot, test, type Town } from '../rig/town';

const species = ['Crataegus monogyna', 'Fraxinus ornus', 'Pyrus salicifolia'];

/** Orders 24 trees of three species from one nursery, as the desk would. */
async function order24(page: Page, town: Town): Promise<void> {
  await page.goto(`${town.url}/nurseries`);
  const lists = {
    'Viveiro Azul': species.map((name, i) => `${name},container,40,3,${80 + i},20`),
    'Outra Margem': ['Quercus ilex,bare_root,20,2,30,1'],
  };
  for (const [nursery, rows] of Object.entries(lists)) {
    await page.getByLabel('Nursery the file is from').fill(nursery);
    const text = ['species,stock_kind,caliper_mm,height_m,price,available', ...rows].join('\n');
    const file = { name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(text) };
    await page.locator('input[type=file]').setInputFiles(file);
    await expect(page.getByText(`${rows.length} ${rows.length === 1 ? 'row' : 'rows'} stored`)).toBeVisible();
  }
  const propose = async (refs: readonly string[]) => {
    await page.goto(`${town.url}/lists?chosen=${refs.join(',')}`);
    await page.getByRole('button', { name: `Propose a list for ${refs.length} places` }).click();
    await expect(page.getByText('proven: no list fits better')).toBeVisible({ timeout: 60_000 });
    return page.locator('s-list-picks tbody tr td:first-child').allTextContents();
  };
  const answer = await page.request.get(`${town.url}/api/spots?stage=match&limit=100`);
  const { lines } = (await answer.json()) as { lines: { ref: string }[] };
  // Not every place takes one of the three: 24 of those that do.
  const fitting = await propose(lines.map(({ ref }) => ref));
  await propose(fitting.slice(0, 24).map((ref) => ref.trim()));
  page.once('dialog', (dialog) => void dialog.accept());
  await page.getByRole('button', { name: 'Accept and write the orders' }).click();
  await expect(page.getByRole('heading', { name: 'Orders' })).toBeVisible();
}

test('a delivery of 24 with a pot-bound lot: the lot goes back with a claim, the rest is measured', async ({
  signedIn: page,
  town,
}) => {
  await order24(page, town);
  await page.goto(`${town.url}/deliveries`);
  const awaited = page.getByRole('row').filter({ hasText: 'Viveiro Azul' }).filter({ hasText: '24 trees' });
  await expect(awaited).toContainText('24 trees');
  await page.setViewportSize({ width: 390, height: 844 });
  await awaited.getByRole('button', { name: 'It has arrived' }).click();
  await expect(page.getByRole('heading', { name: /from Viveiro Azul/ })).toBeVisible();

  const names = await page.getByRole('article').evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')));
  const [bad, good] = [names[0] ?? '', names[1] ?? ''].map((name) => page.getByRole('article', { name }));
  if (!bad || !good) throw new Error('fewer than two lots came');
  const countOf = async (lot: Locator) =>
    Number((await lot.getByRole('button').first().textContent())?.match(/of (\d+)/)?.[1]);

  // The first tree opened is pot-bound: one question at a time, by thumb.
  const expected = await countOf(bad);
  await bad.getByLabel('Arrived').fill(String(expected));
  await bad.getByRole('link', { name: 'Open a tree' }).click();
  await page.getByRole('button', { name: 'container', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Caliper' })).toBeVisible();
  const pad = async (digits: string) => {
    for (const digit of digits) await page.getByRole('button', { name: digit, exact: true }).click();
    await page.getByRole('button', { name: 'Next' }).click();
  };
  // A caliper in inches is asked about, not taken.
  await pad('1.6');
  await expect(page.getByRole('alert')).toContainText('1.6 in are 41 mm');
  await page.getByRole('button', { name: 'Yes, inches' }).click();
  await pad('60');
  await expect(page.getByRole('alert')).toContainText('Height must be within 0.2–25 m, got 60.');
  await page.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Skip' }).click();
  await expect(page.getByRole('heading', { name: 'Circling roots' })).toBeVisible();
  await page.getByRole('button', { name: '75 %' }).click();
  await expect(page.getByText('Pot-bound: circling roots cover 75 %')).toBeVisible();
  await page.getByRole('button', { name: 'no', exact: true }).click();
  await expect(page.getByText('No soil shows between the roots')).toBeVisible();
  // What was answered is on the device: a reload loses nothing.
  await page.reload();
  await expect(page.getByText('Pot-bound: circling roots cover 75 %')).toBeVisible();
  await page.getByRole('button', { name: 'Store what was seen' }).click();
  await expect(bad.getByText(/^1 of \d+ opened$/)).toBeVisible();
  await expect(bad.getByRole('cell', { name: /Pot-bound/ })).toBeVisible();
  await expect(bad.getByText(/^One bad tree found: open the other \d+/)).toBeVisible();
  await bad.getByLabel('Arrived').fill(String(expected));
  await bad.getByRole('button', { name: 'Return' }).click();
  await expect(bad.getByRole('alert')).toContainText('must say why');
  await bad.getByLabel('Because').fill('roots circle from base to rim');
  await bad.getByRole('button', { name: 'Return' }).click();
  await expect(page.getByText(`${expected} returned, 0 did not come.`)).toBeVisible();

  // The yard loses its connection: the next tree and its picture wait on the phone, then go by themselves.
  const rest = await countOf(good);
  await good.getByLabel('Arrived').fill(String(rest));
  await good.getByRole('button', { name: 'Store the count, decide later' }).click();
  await good.getByRole('link', { name: 'Open a tree' }).click();
  await page.getByRole('button', { name: 'container', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Caliper' })).toBeVisible();
  await page.context().setOffline(true);
  for (const digits of ['40', '3', '400', '350']) await pad(digits);
  for (const [digits, nature] of [
    ['30', 'structural'],
    ['45', 'structural'],
    ['90', 'adventitious'],
  ] as const) {
    for (const digit of digits) await page.getByRole('button', { name: digit, exact: true }).click();
    await page.getByRole('button', { name: nature, exact: true }).click();
  }
  await expect(page.getByText('Topmost roots 45 mm down')).toBeVisible();
  await page.getByRole('button', { name: 'Store what was seen' }).click();
  await expect(page.getByText('1 kept on this device, to be sent')).toBeVisible();
  await expect(good.getByText(/^1 of \d+ opened$/)).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByText('kept on this device, to be sent')).toBeHidden();
  await good.getByRole('button', { name: 'Correct at planting' }).click();
  await expect(good.getByRole('button').first()).toContainText('Correct at planting');

  const claim = await page.getByRole('link', { name: 'Claim sheet, PDF' }).getAttribute('href');
  const text = pdfText(await (await page.request.get(town.url + claim)).body()).join(' ');
  expect(text).toContain(`returned ${expected}, missing 0`);
  expect(text).toContain('roots circle from base to rim');
  expect(text).toContain('Replacement of what dies within two growing seasons');
  const measured = await town.query<{ count: string }>(
    `select count(*) from field_record where kind = 'stock' and (facts->>'topRootsDepthMm')::int = 45 and device = 'receiving'`,
  );
  expect(Number(measured[0]?.count)).toBe(rest);
});

test('two practices stand side by side on one tree, and one is copied and changed', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/practices?b=garden-enriched`);
  // Container 450 × 400, surplus 60: 2.5 × at 40 mm proud, beside 2 × level with the ground.
  await expect(page.getByRole('row', { name: /Width of the pit 1125 mm 900 mm/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Depth of the pit 300 mm 340 mm/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Soil to dig 210 L/ })).toBeVisible();
  await page.getByLabel('Compare with Dormant bare-root').check();
  await expect(page.getByText('Dormant bare-root does not cover container stock')).toBeVisible();

  await page.getByRole('button', { name: 'Copy and change' }).click();
  await page.getByLabel('Name').fill('Talhamar way');
  await page.getByLabel('Width, times the ball').fill('9');
  await page.getByRole('button', { name: 'Store as a new practice' }).click();
  await expect(page.getByRole('alert')).toContainText('must be within 1–6');
  await expect(page.getByLabel('Width, times the ball')).toHaveValue('9');
  await page.getByLabel('Width, times the ball').fill('3');
  await page.getByRole('button', { name: 'Store as a new practice' }).click();
  await expect(page.getByRole('row', { name: /Width of the pit 1350 mm/ })).toBeVisible();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.getByRole('button', { name: 'Plant by it' }).click();
  await expect(page.getByRole('row', { name: /Talhamar way the programme's/ })).toBeVisible({ timeout: 120_000 });
});

test('cards printed for what is ready carry the numbers the bench shows', async ({ signedIn: page, town }) => {
  const answer = await page.request.get(`${town.url}/api/spots?stage=day&limit=1`);
  const ref = ((await answer.json()) as { lines: { ref: string }[] }).lines[0]?.ref ?? '';
  await openSpot(page, town, 'pit', ref);
  const heading = page.getByRole('heading', { name: /^Dig \d/ });
  const [, depth, width] = (await heading.textContent())?.match(/Dig (.+) deep, (.+) wide/) ?? [];
  const printed = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Spot cards' }).click();
  const file = await readFile(await (await printed).path());
  const pages = pdfText(file);
  expect(pages).toHaveLength(1);
  expect(pages[0]).toContain(ref);
  expect(pages[0]).toContain(`Depth at the uphill edge ${depth}`);
  expect(pages[0]).toContain(`Width at grade ${width}`);
  await page.getByText(/^\d+ steps$/).click();
  await expect(page.getByText('Find the flare.')).toBeVisible();
  expect(pages[0]).toContain('Find the flare.');

  // One choice made otherwise for this spot alone.
  await page.getByText('Make a choice otherwise for this spot').click();
  await page.getByLabel('Here', { exact: true }).selectOption('none');
  await page.getByRole('button', { name: 'Store for this spot' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'must say why' })).toBeVisible();
  await page.getByLabel('Because', { exact: true }).fill('water stands here in winter');
  await page.getByRole('button', { name: 'Store for this spot' }).click();
  await expect(page.getByText('Otherwise here:')).toContainText('water stands here in winter');
});

test('what cannot be is named at its field, and nothing of it is stored', async ({ signedIn: page, town }) => {
  const answer = await page.request.get(`${town.url}/api/spots?stage=day&limit=1`);
  const line = ((await answer.json()) as { lines: { ref: string; spotId: string }[] }).lines[0];
  const spot = `${town.url}/api/spots/${line?.spotId}`;
  const before = await (await page.request.get(spot)).json();
  await openSpot(page, town, 'stock', line?.ref ?? '');
  const fill = async (name: string, value: string) => {
    const field = page.getByLabel(name, { exact: true });
    await field.fill(value);
    await field.blur();
  };
  // Surplus deeper than the ball.
  await fill('Topmost roots below the surface', '590');
  await expect(page.getByText(/Must be less than the ball height, \d+ mm, got 590 mm/)).toBeVisible();
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(page.getByText('The topmost roots cannot lie below the ball.')).toBeVisible();
  await fill('Topmost roots below the surface', '120');
  // More left on than there is.
  await fill('Of that, what must stay on', '130');
  await expect(page.getByText('Must be at most the surplus, 120 mm, got 130 mm')).toBeVisible();
  await fill('Of that, what must stay on', '70');
  await expect(
    page.getByText(/70 mm of surplus stays on the ball and comes off after 12 months/).first(),
  ).toBeVisible();
  // A caliper in inches, typed as millimetres.
  await fill('Caliper', '2');
  await page.getByRole('button', { name: 'Inches? Take 51 mm' }).click();
  await expect(page.getByLabel('Caliper', { exact: true })).toHaveValue('51');
  // A ball wider than the strip, a slope no tree stands on.
  await openSpot(page, town, 'ground', line?.ref ?? '');
  await page.getByRole('button', { name: 'Ground facts' }).click();
  await fill('Slope', '80');
  await expect(page.getByText('Must be within 0–60 %, got 80')).toBeVisible();
  const after = await (await page.request.get(spot)).json();
  expect((after as { records: unknown[] }).records).toEqual((before as { records: unknown[] }).records);
  await fill('Slope', '0');
  await page.getByText('Strip', { exact: true }).click();
  await fill('Strip width', '310');
  await page.getByRole('button', { name: 'Store ground facts' }).click();
  await expect(page.getByText('Ground facts stored.')).toBeVisible();
  await openSpot(page, town, 'pit', line?.ref ?? '');
  await expect(page.getByText(/The ball, \d+ mm, is wider than the strip, 310 mm/)).toBeVisible();
});

test('a file that is no picture is refused by name, and a picture of 40 MB is made small before it is sent', async ({
  signedIn: page,
  town,
}) => {
  const list = (await (await page.request.get(`${town.url}/api/deliveries`)).json()) as DeliveryList;
  const delivery = list.deliveries[0]?.id ?? '';
  const whole = (await (await page.request.get(`${town.url}/api/deliveries/${delivery}`)).json()) as Delivery;
  const lot = whole.lots[2];
  await page.goto(`${town.url}/deliveries/${delivery}/lots/${lot?.id}/tree`);
  await expect(page.getByText(/Question 1 of \d+/)).toBeVisible();
  const last = page.getByRole('button', { name: 'Store this tree' });
  const asked = Number(/of (\d+)/.exec((await page.getByText(/^Question 1 of/).textContent()) ?? '')?.[1]);
  for (let i = 1; i < asked; i++) await page.getByRole('button', { name: 'Skip' }).click();
  const photo = page.locator('s-tree-photo input[type=file]');
  await photo.setInputFiles({ name: 'tree.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture at all') });
  await expect(page.getByRole('alert')).toContainText('This file is not a picture this device can read.');
  // Noise cannot be packed: 3700 × 3700 × 3 bytes are 41 MB as PNG.
  const noise = randomBytes(3700 * 3700 * 3);
  const large = await sharp(noise, { raw: { width: 3700, height: 3700, channels: 3 } })
    .png({ compressionLevel: 0 })
    .toBuffer();
  expect(large.length).toBeGreaterThan(40_000_000);
  await photo.setInputFiles({ name: 'tree.png', mimeType: 'image/png', buffer: large });
  await expect(page.getByRole('img', { name: 'The tree as photographed' })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('Keep where it was taken')).toBeHidden();
  // A camera that writes down where it stood: left out unless it is wanted.
  const gps = {
    GPSLatitudeRef: 'N',
    GPSLatitude: '36/1 54/1 0/1',
    GPSLongitudeRef: 'W',
    GPSLongitude: '25/1 24/1 0/1',
  };
  const placed = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#575' } })
    .withExif({ IFD3: gps })
    .jpeg()
    .toBuffer();
  await photo.setInputFiles({ name: 'placed.jpg', mimeType: 'image/jpeg', buffer: placed });
  await page.getByLabel('Keep where it was taken, 36.9000° N, 25.4000° W').check();
  await last.click();
  await expect(page).toHaveURL(`${town.url}/deliveries/${delivery}`);
  const kept = await town.query<{ photo_stored_as: string; photo_lng: number | null }>(
    `select photo_stored_as, photo_lng from lot_tree where lot_id = '${lot?.id}'`,
  );
  expect(kept.map(({ photo_stored_as, photo_lng }) => [photo_stored_as.split('.').at(-1), photo_lng])).toEqual([
    ['jpg', -25.4],
  ]);
});
