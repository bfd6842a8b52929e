import type { Page } from '@playwright/test';
import { expect, importExample, openSpot, test, type Town } from '../rig/town';

/** A container tree for the loam of Figgery Walk, which is compacted: three balls wide. */
const measures: readonly [label: string, value: string][] = [
  ['Ball diameter', '400'],
  ['Ball height as received', '400'],
  ['Topmost roots below the surface', '60'],
  ['Caliper', '50'],
  ['Height', '3.2'],
];

async function fill(page: Page, label: string, value: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(value);
}

const choose = (page: Page, group: string, choice: string) =>
  page.getByRole('group', { name: group }).getByText(choice, { exact: true }).click();

async function walk(page: Page, town: Town): Promise<void> {
  await importExample(page, town);

  await openSpot(page, town, 'ground', 'F-0113');
  await page.getByRole('button', { name: 'Ground facts' }).click();
  await expect(page.getByText(/mm\/h, between .*: good\./)).toBeVisible();

  await openSpot(page, town, 'stock', 'F-0113');
  for (const [label, value] of measures) await fill(page, label, value);
  // He = 400 − 60 = 340; level ground or not, 340 − 40 proud = 300 deep; 3 × 400 wide in compacted ground.
  await expect(page.getByRole('heading', { name: 'Dig 300 mm deep, 1200 mm wide' })).toBeVisible();
  await expect(page.getByRole('img', { name: /Section of the pit: 300 mm deep/ })).toBeVisible();
  await expect(page.getByText('3.0 × the ball of 400 mm, for compacted ground.')).toBeVisible();
  for (const name of [
    'Backfill, site soil',
    'Loose soil left over',
    'Mulch',
    'First water',
    'Mass as received',
    'Lifting',
    'Downhill edge stands',
  ]) {
    await expect(page.getByRole('rowheader', { name, exact: true })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(page.getByText('Stock measures stored.')).toBeVisible();

  await openSpot(page, town, 'day', 'F-0113');
  await fill(page, 'Flare, point 1', '20');
  await fill(page, 'Hole width', '1200');
  await fill(page, 'First water', '60');
  await expect(page.getByText('Flare 20 mm lower than planned (20 mm for 40 mm)')).toBeVisible();
  await page.getByRole('button', { name: 'Store as built' }).click();
  await expect(page.getByRole('heading', { name: 'Planted, as built' })).toBeVisible();
  await expect(page.getByLabel('Now').getByText('Raise the tree')).toBeVisible();

  await page.getByRole('link', { name: 'Inspect now' }).click();
  await choose(page, 'Stake and tie', 'tie biting');
  await choose(page, 'Mulch at the trunk', 'heaped on the trunk');
  await fill(page, 'Mulch depth', '140');
  await fill(page, 'Flare below the surface', '84');
  await choose(page, 'Circling roots at the collar', 'Yes');
  await page.getByRole('button', { name: 'Add a root by numbers' }).click();
  await fill(page, 'Presses from', '350');
  await fill(page, 'Presses to', '95');
  await fill(page, 'Thickness', '18');
  await choose(page, 'Probe at ball depth', 'moist');
  // 350→95 is 105° of 360°: 29.2 %, staged.
  await expect(page.getByText('Roots press on 29.2 % of the trunk, 25 to 50 %; thickest 18 mm.')).toBeVisible();
  await expect(page.getByText('Flare 84 mm deep; roots are examined from 75 mm.')).toBeVisible();
  await page.getByRole('button', { name: 'Store the look' }).click();

  const history = page.getByLabel('History');
  for (const name of ['Inspection', 'Planted, as built', 'Stock measures', 'Ground facts']) {
    await expect(history.getByRole('heading', { name: new RegExp(`^${name}`) })).toBeVisible();
  }
  await expect(page.getByText(/Next look \w{3} /)).toBeVisible();

  await page.goto(`${town.url}/desk`);
  const line = page.getByRole('button', { name: /Free the biting tie.*F-0113/s });
  await line.click();
  await page.locator('.bench').getByRole('button', { name: 'stake and ties are off, the tree stands firm' }).click();
  await expect(page.getByText('Free the biting tie: stored as done.')).toBeVisible();
  await expect(line).toHaveCount(0);
}

test('from a file to a verdict, at the desk', async ({ signedIn: page, town }) => {
  await walk(page, town);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.getByRole('button', { name: 'Export' }).click();
      await page.getByRole('link', { name: 'All trees with their records, CSV' }).click();
    })(),
  ]);
  await page.goto(`${town.url}/import`);
  await page.locator('input[type=file]').setInputFiles(
    await download.path().then(async (path) => ({
      name: 'trees.csv',
      mimeType: 'text/csv',
      buffer: await import('node:fs/promises').then((fs) => fs.readFile(path)),
    })),
  );
  // Every record of the town is read and compared: seconds, on two busy cores some more.
  await expect(page.getByRole('button', { name: 'Nothing to import' })).toBeVisible({ timeout: 60_000 });
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 800 }, hasTouch: true, isMobile: true });
  test('from a file to a verdict, with a thumb', async ({ signedIn: page, town }) => {
    await walk(page, town);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
  });
});

test('a correction keeps what it corrects', async ({ signedIn: page, town }) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0101');
  await fill(page, 'Caliper', '77');
  await page.getByRole('button', { name: 'Store stock measures' }).click();
  await expect(page.getByText('Stock measures stored.')).toBeVisible();
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByText('corrected later')).toBeVisible();
  await expect(page.getByText('a correction', { exact: true })).toBeVisible();
});

test('numbers follow the units of the reader', async ({ signedIn: page, town }) => {
  await importExample(page, town);
  await openSpot(page, town, 'stock', 'F-0113');
  for (const [label, value] of measures) await fill(page, label, value);
  await page.getByRole('button', { name: 'Inês Tavoro' }).click();
  await page.getByRole('button', { name: 'Use US customary units' }).click();
  await expect(page.getByRole('heading', { name: 'Dig 11 3/4 in deep, 47 1/4 in wide' })).toBeVisible();
  await expect(page.getByLabel('Ball diameter')).toHaveValue('15 3/4');
});

test('a hazard is told in two taps, stands at the top of the desk, and is closed with a reason', async ({
  signedIn: page,
  town,
}) => {
  const list = (await (await page.request.get(`${town.url}/api/spots?planted=yes&limit=1`)).json()) as {
    lines: { ref: string; treeId: string }[];
  };
  const [tree] = list.lines;
  await page.goto(`${town.url}/tree/${tree?.treeId}`);
  await page.getByRole('button', { name: 'Hazard now' }).click();
  await page.getByRole('button', { name: 'Branch broken or hanging' }).click();
  await expect(page.getByText('Hazard told: it stands at the top of every desk')).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: 'Branch broken or hanging' })).toBeVisible();
  await page.goto(`${town.url}/desk`);
  const first = page.getByRole('button', { name: /Hazard/ }).first();
  await expect(first).toContainText(tree?.ref ?? 'none');
  await page.goto(`${town.url}/tree/${tree?.treeId}`);
  await page.getByLabel('It is none any more, because').fill('branch taken down');
  await page.getByRole('button', { name: 'Close the hazard' }).click();
  await expect(page.getByText('Hazard closed.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Close the hazard' })).toHaveCount(0);
});
