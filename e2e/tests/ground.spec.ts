import type { Page } from '@playwright/test';
import { expect, openSpot, signIn, test, type Town } from '../rig/town';

const fill = (page: Page, label: string, value: string) => page.getByLabel(label, { exact: true }).fill(value);
const choose = (page: Page, group: string, choice: string) =>
  page.getByRole('group', { name: group }).getByText(choice, { exact: true }).click();

/** The first spot of a street that nobody has looked at. */
async function unassessed(page: Page, town: Town): Promise<string> {
  const answer = await page.request.get(`${town.url}/api/spots?place=Kelp%20Road&stage=ground&limit=1`);
  const { lines } = (await answer.json()) as { lines: { ref: string }[] };
  return lines[0]?.ref ?? '';
}

test('from an unassessed street to an ordered list at the desk', async ({ signedIn: page, town }) => {
  const ref = await unassessed(page, town);
  await openSpot(page, town, 'ground', ref);

  // The feel test: a ball that holds, a ribbon up to 25 mm, smooth.
  await page.getByRole('button', { name: 'Guide me by feel' }).click();
  await page.getByRole('button', { name: 'Yes, it holds' }).click();
  await page.getByRole('button', { name: 'Up to 25 mm' }).click();
  await page.getByRole('button', { name: 'Smooth, or a little of both' }).click();
  await page.getByRole('button', { name: 'Take loam' }).click();
  await fill(page, 'Slope', '4');
  await choose(page, 'Room for the pit', 'Strip');
  await fill(page, 'Strip width', '1800');
  await choose(page, 'Wires overhead', 'Wires');
  await fill(page, 'Lowest wire above ground', '9');
  for (const [i, level] of ['300', '280', '260', '240'].entries()) {
    await page.getByRole('button', { name: 'Add a reading' }).click();
    await page.getByLabel(`Minute of reading ${i + 1}`).fill(String(i * 30));
    await page.getByLabel(`Level of reading ${i + 1}`).fill(level);
  }
  await page.getByRole('button', { name: 'Store ground facts' }).click();

  // Surroundings: the map proposes, the tape corrects; an impossible distance is named and kept.
  await page.getByRole('button', { name: /distances off the map/ }).click();
  await expect(page.getByLabel('building', { exact: true })).not.toHaveValue('');
  await fill(page, 'kerb', '900');
  await expect(page.getByText('Must be within 0.1–100 m, got 900')).toBeVisible();
  await fill(page, 'kerb', '0.9');
  await fill(page, 'overhead wire', '1');
  await choose(page, 'Ground of', 'road');
  await choose(page, 'Private lines: irrigation, cable, drain', 'Asked: none');
  await fill(page, 'Open soil', '40');
  await fill(page, 'Soil depth', '900');
  await fill(page, 'Sun on midsummer day', '9');
  await page.getByRole('button', { name: 'Store surroundings' }).click();

  // 9 m of wire less 1.5 m headroom.
  await expect(page.getByText(/7\.5 m high at most/)).toBeVisible();
  await choose(page, 'This place is to', 'Plant');
  await page.getByRole('button', { name: 'Store the verdict' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'say why' })).toBeVisible();
  await page.getByLabel('Why', { exact: true }).fill('room for a small tree');
  await page.getByRole('button', { name: 'Store the verdict' }).click();

  await expect(page.getByRole('heading', { name: /\d+ species fit this place/ })).toBeVisible();
  await page
    .getByRole('checkbox', { name: /^Compare/ })
    .first()
    .check();
  await expect(page.getByRole('img', { name: /high after 30 years/ })).toBeVisible();
  await page.getByText(/species are left out by a hard limit/).click();
  await expect(page.getByText(/the wire allows 7\.5 m/).first()).toBeVisible();

  // The season's list for this place: too little money first, then what it takes.
  await page.goto(`${town.url}/lists?chosen=${ref}`);
  await expect(page.getByText(/1 place chosen/)).toBeVisible();
  await expect(
    page.getByText(/Within the planting season of container stock|Outside the planting season/).first(),
  ).toBeVisible();
  await page.getByLabel('Budget, EUR').fill('lots');
  await page.getByRole('button', { name: 'Propose a list for 1 place' }).click();
  await expect(page.getByRole('alert')).toContainText('must be a number of 0–100 000 000');
  await page.getByLabel('Budget, EUR').fill('10');
  await page.getByRole('button', { name: 'Propose a list for 1 place' }).click();
  await expect(page.getByText(/The budget of 10 EUR: would have to be \d+ EUR more/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Change and ask again' }).click();
  const enough = Number(await page.getByLabel('Budget, EUR').inputValue());
  expect(enough).toBeGreaterThan(10);
  await page.getByRole('button', { name: 'Propose a list for 1 place' }).click();
  await expect(page.getByText('proven: no list fits better')).toBeVisible({ timeout: 30_000 });
  const row = page.getByRole('row').filter({ hasText: ref });
  const species = (await row.locator('i').first().textContent()) ?? '';
  page.once('dialog', (dialog) => void dialog.accept());
  await page.getByRole('button', { name: 'Accept and write the orders' }).click();
  await expect(page.getByRole('heading', { name: 'Orders' })).toBeVisible();
  const sheet = await page.getByRole('link', { name: 'CSV', exact: true }).first().getAttribute('href');
  const order = await (await page.request.get(town.url + sheet)).text();
  expect(order).toContain(`${species},`);
  expect(order).toContain(ref);
  await row.getByRole('link', { name: ref }).click();
  await expect(page.getByText(`Chosen: ${species}`)).toBeVisible();
});

test('one species is chosen for one place, with its reasons', async ({ signedIn: page, town }) => {
  const answer = await page.request.get(`${town.url}/api/spots?stage=match&limit=1`);
  const [line] = ((await answer.json()) as { lines: { ref: string }[] }).lines;
  await openSpot(page, town, 'match', line?.ref ?? '');
  await page.getByRole('button', { name: 'Choose', exact: true }).first().click();
  await expect(page.getByText(/Chosen: [A-Z]/)).toBeVisible();
});

test('a list of a nursery with a double row is refused whole, and the last one stays', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/nurseries`);
  await page.getByRole('button', { name: 'Viveiro Azul' }).click();
  const before = await page.getByRole('status').filter({ hasText: 'lines of Viveiro Azul' }).textContent();
  const rows = ['species,stock_kind,caliper_mm,height_m,price,available'];
  rows.push('Quercus ilex,container,40,3,90,10', 'Quercus ilex,container,40,3,95,4');
  const file = { name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) };
  await page.locator('input[type=file]').setInputFiles(file);
  await expect(page.getByRole('row').filter({ hasText: 'says again what row 2 says' })).toContainText('3');
  await expect(page.getByText('the file was refused whole')).toBeVisible();
  expect(await page.getByRole('status').filter({ hasText: 'lines of Viveiro Azul' }).textContent()).toBe(before);
});

test('a species with a spread and no height is not stored, and what was typed stays', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/species?name=new`);
  await page.getByLabel('Botanical name').fill('Acer novum');
  await page.getByLabel('Mature spread, from').fill('4');
  await page.getByRole('button', { name: 'Store the species' }).click();
  await expect(page.getByText(/entries are not right yet/)).toBeVisible();
  await expect(page.getByLabel('Mature height, from')).toHaveAttribute('aria-invalid', 'true');
  await page.reload();
  await expect(page.getByLabel('Botanical name')).toHaveValue('Acer novum');

  await page.goto(`${town.url}/species?name=${encodeURIComponent('Acer campestre')}`);
  await page.getByLabel('Mature height, to').fill('14');
  await page.getByRole('button', { name: 'Store 1 change' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Acer campestre' })).toContainText('8–14');
});

test('a percolation test on a phone goes on through a lost connection', async ({ browser, town }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await signIn(page, town, 'ines');
  const ref = await unassessed(page, town);
  await openSpot(page, town, 'ground', ref);
  await page.clock.install();
  await page.getByRole('button', { name: 'Percolation', exact: true }).click();
  await page.getByRole('button', { name: 'Filled: start reading' }).click();
  await expect(page.getByRole('alert')).toContainText('Depth of the hole must be within');
  await page.getByLabel('Depth of the hole').fill('400');
  await page.getByRole('button', { name: 'Start the soak now' }).click();
  await page.clock.fastForward('01:05:00');
  await page.getByRole('button', { name: 'Filled: start reading' }).click();

  const read = async (level: string) => {
    for (const digit of level) await page.getByRole('button', { name: digit, exact: true }).click();
    await page.getByRole('button', { name: 'Read now' }).click();
  };
  await read('300');
  await context.setOffline(true);
  for (const level of ['290', '280', '270']) {
    await page.clock.fastForward('30:00');
    await read(level);
  }
  // 10 mm in half an hour.
  await expect(page.getByText(/20 mm\/h, between \d+ mm\/h and \d+ mm\/h: slow\./)).toBeVisible();
  await expect(page.getByText(/^No berm in slow soil, by the practice/)).toBeVisible();
  await page.getByRole('button', { name: 'Finish and store the test' }).click();
  await expect(page.getByText(/kept on this device/i).first()).toBeVisible();
  await context.setOffline(false);
  await page.clock.fastForward('02:00');
  const spots = await page.request.get(`${town.url}/api/spots?ref=${ref}`);
  const { lines } = (await spots.json()) as { lines: { spotId: string }[] };
  await expect
    .poll(async () => {
      await page.clock.fastForward('01:30');
      const answer = await page.request.get(`${town.url}/api/spots/${lines[0]?.spotId}`);
      return ((await answer.json()) as { records: { kind: string }[] }).records.map(({ kind }) => kind);
    })
    .toContain('percolation');
  await context.close();
});

test('nobody plants outside a ticket, and a ticket is raised for a day that lacks one', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/tickets`);
  const day = page.getByRole('status').filter({ hasText: 'Tramway Avenue' });
  await expect(day).toContainText('nobody may dig at');
  const spot = (await day.textContent())?.match(/A-\d{4}/)?.[0] ?? '';
  await openSpot(page, town, 'day', spot);
  await expect(page.getByText('Nobody may dig here on that day.')).toBeVisible();
  await fill(page, 'Flare, point 1', '40');
  await fill(page, 'Hole width', '1200');
  await fill(page, 'First water', '60');
  await page.getByRole('button', { name: 'Store as built' }).click();
  await expect(page.getByText(/locate ticket or a lawful clearance covers this spot/).first()).toBeVisible();

  await page.goto(`${town.url}/tickets`);
  await day.getByRole('button', { name: /Raise a ticket for/ }).click();
  await expect(page.getByRole('heading', { name: /^LC-/ })).toBeVisible({ timeout: 15_000 });
  const gas = page.getByRole('region', { name: /^LC-/ }).getByRole('row').filter({ hasText: 'Nordal Gas' });
  await gas.getByRole('button', { name: 'Remind' }).click();
  await expect(gas).toContainText('clear', { timeout: 20_000 });
});

test('an owner consents by a link, once, without an account', async ({ signedIn: page, town, browser }) => {
  const answer = await page.request.get(`${town.url}/api/spots?place=Orchard%20yards&planted=no&limit=1`);
  const { lines } = (await answer.json()) as { lines: { spotId: string }[] };
  await page.goto(`${town.url}/ground/${lines[0]?.spotId}?part=leave`);
  await page.getByLabel('Owner', { exact: true }).fill('R. Vale');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = await page.getByLabel(/Send this link/).inputValue();

  const context = await browser.newContext();
  const owner = await context.newPage();
  await owner.goto(link);
  await expect(owner.getByRole('heading', { name: 'May we plant a tree in your yard?' })).toBeVisible();
  await owner.getByRole('button', { name: 'Yes, plant it' }).click();
  await expect(owner.getByRole('alert')).toContainText('Write your name');
  await owner.getByLabel('Your name, as your signature').fill('Rosa Vale');
  await owner.getByRole('button', { name: 'Yes, plant it' }).click();
  await expect(owner.getByText('your consent is stored')).toBeVisible();
  await owner.goto(`${link}x`);
  await expect(owner.getByRole('alert')).toContainText('not valid');
  await context.close();
  await page.reload();
  await expect(page.getByText('signed Rosa Vale')).toBeVisible();
});

test('an area drawn as open soil comes into the surroundings and is stored', async ({ signedIn: page, town }) => {
  const answer = await page.request.get(`${town.url}/api/spots?stage=match&limit=1`);
  const [line] = ((await answer.json()) as { lines: { spotId: string }[] }).lines;
  await page.goto(`${town.url}/ground/${line?.spotId}?part=around&soil=24.5`);
  await expect(page.getByLabel('Open soil')).toHaveValue('24.5');
  await expect(page).not.toHaveURL(/soil=/);
  await expect(page.getByLabel('Open soil')).toHaveValue('24.5');
});
