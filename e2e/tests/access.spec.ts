import type { Delivery, DeliveryList } from '@sombra/contract';
import axe from 'axe-core';
import type { Page } from '@playwright/test';
import { expect, importExample, openSpot, test, type Town } from '../rig/town';

async function serious(page: Page, only?: string): Promise<string[]> {
  // By evaluation rather than a script element: the page's own policy allows no foreign script.
  await page.evaluate(axe.source);
  const { violations } = await page.evaluate(
    async (rule) =>
      (window as unknown as { axe: typeof axe }).axe.run({
        // Nobody reads what is in order.
        resultTypes: ['violations'],
        ...(rule ? { runOnly: [rule] } : {}),
      }),
    only,
  );
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`);
}

test('no view has a serious fault for people with disabilities', async ({ signedIn: page, town }) => {
  await page.goto(town.url);
  await expect(page.getByRole('heading', { name: /decisions today/ })).toBeVisible();
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
    '/consent/nothing~nothing',
  ],
  'practices, materials and deliveries': [
    '/practices?b=garden-enriched',
    '/practices?copy=field-default',
    '/materials',
    '/deliveries',
  ],
} as const;

/** A delivery and a tree of it, whose addresses hold ids, walked with the deliveries. */
async function receiving(page: Page, town: Town, paths: readonly string[]): Promise<string[]> {
  if (!paths.includes('/deliveries')) return [];
  const list = (await (await page.request.get(`${town.url}/api/deliveries`)).json()) as DeliveryList;
  const id = list.deliveries[0]?.id ?? '';
  const one = (await (await page.request.get(`${town.url}/api/deliveries/${id}`)).json()) as Delivery;
  return [`/deliveries/${id}`, `/deliveries/${id}/lots/${one.lots[0]?.id}/tree`];
}

for (const [name, paths] of Object.entries(walks)) {
  for (const theme of ['light', 'dark']) {
    test(`${name} have no serious fault on a ${theme} sheet`, async ({ signedIn: page, town }) => {
      // A walk over many pages, each looked through part by part.
      test.slow();
      await page.addInitScript((one) => localStorage.setItem('sombra.theme', one), theme);
      // A dark sheet has the same parts in other colours: only those can differ.
      const only = theme === 'dark' ? 'color-contrast' : undefined;
      for (const path of [...paths, ...(await receiving(page, town, paths))]) {
        await page.goto(town.url + path);
        await page.waitForLoadState('networkidle');
        await expect(page.locator('s-state-note.loading, [aria-busy=true]')).toHaveCount(0);
        expect({ path, faults: await serious(page, only) }).toEqual({ path, faults: [] });
      }
    });
  }
}

test('nothing is asked of any other host', async ({ page, town }) => {
  const foreign: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(town.url) && !/^(data|blob):/.test(request.url())) foreign.push(request.url());
  });
  const document = await page.goto(town.url);
  expect(document?.headers()['content-security-policy']).toContain("script-src 'self'");
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
