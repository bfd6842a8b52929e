import type { Delivery, DeliveryList, PlantingDays, Session, SpotList } from '@sombra/contract';
import { randomUUID } from 'node:crypto';
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
  // How a page is parted and headed is called moderate, and leads whoever hears it.
  const leading = ['region', 'landmark-one-main', 'heading-order', 'empty-table-header', 'page-has-heading-one'];
  return violations
    .filter(({ id, impact }) => impact === 'serious' || impact === 'critical' || leading.includes(id))
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
  'planting days, from the plan to the run': ['/days'],
  'water, rounds and rules': [
    '/water',
    '/water?group=drowned',
    '/rounds',
    '/water-rules?soil=clay',
    '/judgement',
    '/weather',
    '/keepers',
    '/told',
    '/devices',
    '/zones',
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

/** The parts of the next planting day. */
async function dayParts(page: Page, town: Town, paths: readonly string[]): Promise<string[]> {
  if (!paths.includes('/days')) return [];
  const [day] = (await (await page.request.get(`${town.url}/api/planting-days`)).json()) as PlantingDays;
  return ['ready', 'plan', 'people', 'teams', 'tools', 'run', 'report'].map((part) => `/days/${day?.id}?part=${part}`);
}

/** Goes to a page within the application, and waits until all it asked the server for has come. */
async function walkTo(page: Page, path: string): Promise<void> {
  const open = new Set<unknown>();
  const asked = (request: { url: () => string }) => !request.url().includes('/api/live') && open.add(request);
  const came = (request: unknown) => open.delete(request);
  page.on('request', asked).on('requestfinished', came).on('requestfailed', came);
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);
  // A page that asks again for what it was answered shows nothing new between two paints.
  const painted = () =>
    page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  do await painted();
  while (open.size > 0);
  // Between two pages there is neither: what is looked at is the one that came.
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveCount(0);
  await expect(page.locator('s-state-note.loading, [aria-busy=true]')).toHaveCount(0);
  await painted();
  page.off('request', asked).off('requestfinished', came).off('requestfailed', came);
}

for (const [name, paths] of Object.entries(walks)) {
  test(`${name} have no serious fault on a light sheet or a dark one`, async ({ signedIn: page, town }) => {
    // A walk over many pages, each looked through part by part.
    test.slow();
    // A colour on its way from light to dark is neither.
    await page.emulateMedia({ reducedMotion: 'reduce' });
    await page.goto(town.url);
    // The first page is whole before another is gone to: what was on its way would come into the next one.
    await page.getByRole('heading', { name: /decisions today/ }).waitFor();
    for (const path of [...paths, ...(await receiving(page, town, paths)), ...(await dayParts(page, town, paths))]) {
      await walkTo(page, path);
      expect({ path, faults: await serious(page) }).toEqual({ path, faults: [] });
      // A dark sheet has the same parts in other colours: only those can differ.
      await page.evaluate(() => document.documentElement.setAttribute('data-bs-theme', 'dark'));
      expect({ path, faults: await serious(page, 'color-contrast') }).toEqual({ path, faults: [] });
      await page.evaluate(() => document.documentElement.setAttribute('data-bs-theme', 'light'));
    }
  });
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

/** A phone laid on its side, and the tablet of a truck both ways. */
const others = {
  'phone on its side': { width: 844, height: 390 },
  tablet: { width: 820, height: 1180 },
  'tablet on its side': { width: 1180, height: 820 },
};

test('the field, at 320 px, on its side and on a tablet, has no serious fault and pushes nothing out of sight', async ({
  signedIn: page,
  town,
}) => {
  test.slow();
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const session = (await (await page.request.get(`${town.url}/api/session`)).json()) as Session;
  const list = (await (await page.request.get(`${town.url}/api/spots?planted=yes&limit=3`)).json()) as SpotList;
  const id = randomUUID();
  const data = {
    id,
    kind: 'looks',
    title: 'A round with a name that is long enough for a narrow phone',
    userId: session.user?.id,
    until: session.today,
    spotIds: list.lines.map(({ spotId }) => spotId),
    deliveryId: null,
  };
  const headers = { 'x-csrf-token': session.csrfToken };
  await page.request.post(`${town.url}/api/assignments`, { headers, data });
  const narrow = { width: 320, height: 640 };
  await page.setViewportSize(narrow);
  await page.goto(`${town.url}/along`);
  await expect(page.getByRole('link', { name: 'Begin' })).toBeVisible({ timeout: 60_000 });
  const wide = () =>
    page.evaluate(() => {
      const main = document.querySelector('main');
      return [document.documentElement.scrollWidth - innerWidth, main ? main.scrollWidth - main.clientWidth : 0];
    });
  const whole = async (what: string) => {
    expect({ what, faults: await serious(page), wide: await wide() }).toEqual({ what, faults: [], wide: [0, 0] });
    for (const [of, size] of Object.entries(others)) {
      await page.setViewportSize(size);
      // Nothing beside the page, and what is pressed next is on it at once.
      expect({ what, of, wide: await wide() }).toEqual({ what, of, wide: [0, 0] });
      const next = page.locator('.foot .btn-primary').last();
      if ((await next.count()) > 0) await expect(next).toBeInViewport();
    }
    await page.setViewportSize(narrow);
  };
  await whole('home');
  await page.getByRole('link', { name: 'Begin' }).click();
  await expect(page.getByRole('button', { name: 'It is this tree' })).toBeVisible();
  await whole('stop');
  // By keyboard alone: to the press that counts, and through two questions.
  await page.getByRole('button', { name: 'It is this tree' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '1 Whole tree' })).toBeVisible();
  await whole('signs');
  await page.getByRole('button', { name: 'Green, nothing wrong' }).press('Enter');
  await expect(page.getByRole('heading', { name: '2 Stake and tie' })).toBeVisible();
  await whole('pictures');
  for (const name of ['no stake', 'nothing moves', 'Nothing wrong', 'clear of the trunk']) {
    await page.getByRole('button', { name, exact: true }).press('Enter');
  }
  await expect(page.getByRole('heading', { name: '4 Mulch depth' })).toBeFocused();
  await whole('number');
  for (const name of ['50 mm', 'free of grass', '0 mm', 'some: draw them']) {
    await page.getByRole('button', { name, exact: true }).press('Enter');
  }
  await page.getByRole('button', { name: 'Add a root by numbers' }).press('Enter');
  await expect(page.getByLabel('Presses from', { exact: true })).toBeVisible();
  await whole('dial');
  await page.goto(`${town.url}/waiting`);
  await expect(page.getByRole('heading', { name: 'Waiting on this device' })).toBeVisible();
  await whole('waiting');
  await page.evaluate(() => localStorage.clear());
});
