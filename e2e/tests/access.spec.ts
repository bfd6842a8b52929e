import axe from 'axe-core';
import type { Page } from '@playwright/test';
import { expect, importExample, openSpot, test } from '../rig/town';

async function serious(page: Page): Promise<string[]> {
  // By evaluation rather than a script element: the page's own policy allows no foreign script.
  await page.evaluate(axe.source);
  const { violations } = await page.evaluate(async () => (window as unknown as { axe: typeof axe }).axe.run());
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`);
}

test('no view has a serious fault for people with disabilities', async ({ page, signedIn, town }) => {
  await expect(signedIn.getByRole('heading', { name: /decisions today/ })).toBeVisible();
  expect(await serious(page)).toEqual([]);
  await importExample(page, town);
  expect(await serious(page)).toEqual([]);
  for (const stage of ['ground', 'stock', 'day']) {
    await openSpot(page, town, stage, 'L-0101');
    await expect(page.locator('.bench form').first()).toBeVisible();
    expect(await serious(page)).toEqual([]);
  }
  await openSpot(page, town, 'inspect', 'W-0101');
  expect(await serious(page)).toEqual([]);
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByRole('heading', { name: 'Now' })).toBeVisible();
  expect(await serious(page)).toEqual([]);
});

const walks = {
  'the town, its map and its lists': [
    '/desk',
    '/town?as=both',
    '/inspect?chosen=W-0136,W-0148',
    '/ground?find=nothing-at-all',
    '/desk?on=2025-06-01',
    '/base-map',
  ],
  'rules, tickets, species and lists': [
    '/match',
    '/tickets',
    '/rules',
    '/lists',
    '/species?name=Acer%20campestre',
    '/nurseries',
    '/practices?b=garden-enriched',
    '/materials',
    '/deliveries',
    '/consent/nothing~nothing',
  ],
} as const;

for (const [name, paths] of Object.entries(walks)) {
  for (const theme of ['light', 'dark']) {
    test(`${name} have no serious fault on a ${theme} sheet`, async ({ signedIn: page, town }) => {
      await page.evaluate((one) => localStorage.setItem('sombra.theme', one), theme);
      for (const path of paths) {
        await page.goto(town.url + path);
        await page.waitForLoadState('networkidle');
        await page.waitForTimeout(500);
        expect({ path, faults: await serious(page) }).toEqual({ path, faults: [] });
      }
    });
  }
}

test('nothing is asked of any other host', async ({ page, town }) => {
  const foreign: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(town.url) && !/^(data|blob):/.test(request.url())) foreign.push(request.url());
  });
  await page.goto(town.url);
  await page.getByLabel('Name').fill('ines');
  await page.getByLabel('Password').fill('shade-walks');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: /decisions today/ })).toBeVisible();
  await page.goto(`${town.url}/town?as=map`);
  await page.locator('.maplibregl-canvas').waitFor();
  await page.waitForLoadState('networkidle');
  expect(foreign).toEqual([]);
});

test('the words looked for stay in the list and in the address when a spot is chosen', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/inspect`);
  await page.getByRole('searchbox').fill('weavers');
  await expect(page.getByRole('link', { name: /Mole Street/ })).toHaveCount(0);
  await page.getByRole('link', { name: /W-0103/ }).click();
  await expect(page).toHaveURL(/\/inspect\/[0-9a-f-]+\?find=weavers$/);
  await expect(page.getByRole('searchbox')).toHaveValue('weavers');
  await page.reload();
  await expect(page.getByRole('link', { name: /W-0103/ })).toHaveAttribute('aria-current', 'true');
});
