import type { Page } from '@playwright/test';
import { Phone } from '../rig/phone';
import { expect, knownAs, test, type Town } from '../rig/town';

const choosing = (page: Page) => page.getByRole('link', { name: /\b[A-Z]-\d{4}\b/ });
const plantings = async (town: Town): Promise<number> => {
  const [row] = await town.query<{ n: number }>(`select count(*)::int as n from field_record where kind = 'planting'`);
  return row?.n ?? 0;
};

test('a phone opens from a cold start with no network, takes a planting, and sends it once', async ({ town }, info) => {
  test.slow();
  const launch = info.project.use.launchOptions;
  const phone = await Phone.made(launch);
  try {
    let page = await phone.open();
    await knownAs(page, town, 'bento');
    await page.goto(`${town.url}/along`);
    await expect(page.getByText(/^Ready for \d+ trees, [\d.]+ MB, \d\d:\d\d$/)).toBeVisible({ timeout: 60_000 });
    const before = await plantings(town);
    await phone.close();
    await town.kill('SIGKILL');

    page = await phone.open();
    await page.goto(town.url);
    await expect(page.getByRole('heading', { name: 'Taken along' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'No network' })).toBeVisible();
    // Of 844 px the frame leaves at least 680 to the work.
    expect(await page.locator('main').evaluate(({ clientHeight }) => clientHeight)).toBeGreaterThanOrEqual(680);
    await page.getByLabel('Find among what is here').fill('A-0105');
    await choosing(page).first().click();
    await expect(page.getByText(/As this device kept it/)).toBeVisible();
    await expect(page.getByRole('img', { name: /Section of the pit/ })).toBeVisible();
    const fill = (label: string, value: string) => page.getByLabel(label, { exact: true }).fill(value);
    await fill('Flare, point 1', '40');
    await fill('Hole width', '1100');
    await fill('First water', '45');
    await page.getByRole('button', { name: 'Store as built' }).click();
    await expect(page.getByText(/1 kept on this device, to be sent/)).toBeVisible();
    // Gone and back once more, before any network.
    await phone.close();
    page = await phone.open();
    await page.goto(town.url);
    await expect(page.getByText(/1 kept on this device, to be sent/)).toBeVisible();

    await town.start();
    await page.reload();
    await expect(page.getByText(/kept on this device, to be sent/)).toHaveCount(0);
    await expect.poll(() => plantings(town)).toBe(before + 1);
  } finally {
    await phone.throwAway();
  }
});

test('what was kept on a device is gone from it once its person signs out', async ({ town }, info) => {
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    let page = await phone.open();
    await knownAs(page, town, 'bento');
    await page.goto(`${town.url}/along`);
    await expect(page.getByText(/^Ready for \d+ trees/)).toBeVisible({ timeout: 60_000 });
    await page.getByRole('button', { name: 'Bento Quarel' }).click();
    await page.getByRole('button', { name: 'Sign out' }).click();
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    expect(await page.evaluate(() => localStorage.getItem('sombra.session'))).toBeNull();
    await phone.close();
    await town.kill('SIGKILL');
    page = await phone.open();
    await page.goto(town.url).catch(() => undefined);
    await expect(page.getByText('Ready for')).toHaveCount(0);
    await expect(page.getByRole('heading', { name: 'Taken along' })).toHaveCount(0);
  } finally {
    await phone.throwAway();
  }
});
