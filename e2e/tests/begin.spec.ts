import type { Page } from '@playwright/test';
import { emptyTown, expect, test } from '../rig/town';

const fill = (page: Page, label: string, value: string) => page.getByLabel(label, { exact: true }).fill(value);
const choose = (page: Page, group: string, choice: string) =>
  page.getByRole('group', { name: group }).getByText(choice, { exact: true }).click();

test('a programme begins: set up, a first spot planned, and a second person let in', async ({
  page,
  worker,
  browser,
}) => {
  const { town, code } = await emptyTown(worker);
  try {
    await page.goto(`${town.url}/people`);
    await expect(page.getByRole('heading', { name: 'Begin a programme' })).toBeVisible();
    await expect(page.getByRole('navigation')).toHaveCount(0);

    // Bad input is named at its field, and what was typed stays.
    await page.getByLabel('The code that').fill('AAAA-BBBB-CCCC');
    await page.getByLabel('Your name').fill('Rosa Quintal');
    await page.getByLabel('You sign in as').fill('rosa');
    await page.locator('#new-password').fill('password123');
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByText('The password is one of the first that are guessed.')).toBeVisible();
    await expect(page.getByText('must be a number of degrees').first()).toBeVisible();
    await page.locator('#new-password').fill('slow walks at dusk');
    await page.getByLabel('Name of the programme').fill('Leafy Harbour');
    await page.getByLabel('Latitude').fill('-34.6');
    await page.getByLabel('Longitude').fill('-58.4');
    // South of the equator the proposed windows turn with the year.
    await expect(page.getByLabel('Window 1, from')).toHaveValue('04-15');
    await page.getByLabel('Time zone').fill('Europe/Nowhere');
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByText('must be a time zone such as')).toBeVisible();
    await page.getByLabel('Time zone').fill('America/Argentina/Buenos_Aires');
    await page.getByLabel('Units new people begin with').selectOption('metric');
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByText('This is not the code')).toBeVisible();
    await expect(page.getByLabel('Name of the programme')).toHaveValue('Leafy Harbour');
    await page.getByLabel('The code that').fill(code.toLowerCase());
    await page.getByRole('button', { name: 'Begin' }).click();

    // In: the frame says where, the desk what to do first.
    await page.getByRole('navigation', { name: 'Work order' }).waitFor();
    await expect(page.getByTitle('The programme you work in')).toHaveText('Leafy Harbour');
    await page.goto(`${town.url}/desk`);
    await page.getByRole('link', { name: 'add a spot on the map' }).click();
    await page.locator('.map-box[aria-busy=false]').waitFor();
    const box = await page.locator('.map-box').boundingBox();
    if (!box) throw new Error('no map');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    const form = page.locator('s-add-spot-form');
    await form.getByLabel('Number').fill('Q-0001');
    await form.getByLabel('Place').fill('Quay Row');
    await page.getByRole('button', { name: 'Add Q-0001' }).click();
    await expect(page.getByText('Q-0001 added on Quay Row.')).toBeVisible();
    const [spot] = await town.query<{ id: string; lng: number; lat: number }>(
      'select id, st_x(position) as lng, st_y(position) as lat from spot',
    );
    expect([spot?.lng.toFixed(2), spot?.lat.toFixed(2)]).toEqual(['-58.40', '-34.60']);

    await page.goto(`${town.url}/ground/${spot?.id}`);
    await choose(page, 'Soil, by feel', 'loam');
    await fill(page, 'Slope', '0');
    await page.getByRole('button', { name: 'Store ground facts' }).click();
    await expect(page.getByText(/Ground facts.*stored|stored/i).first()).toBeVisible();
    await page.goto(`${town.url}/stock/${spot?.id}`);
    for (const [label, value] of [
      ['Ball diameter', '400'],
      ['Ball height as received', '400'],
      ['Topmost roots below the surface', '60'],
      ['Caliper', '45'],
      ['Height', '3'],
    ] as const)
      await fill(page, label, value);
    await page.getByRole('button', { name: 'Store stock measures' }).click();
    await page.goto(`${town.url}/pit/${spot?.id}`);
    await expect(page.getByRole('heading', { name: /^Dig \d+ mm deep, \d+ mm wide$/ })).toBeVisible();

    // A second person, by a link that opens once.
    await page.goto(`${town.url}/people`);
    await page.getByLabel('Name', { exact: true }).fill('Hugo Marés');
    await page.getByLabel('Signs in as').fill('hugo');
    await page.getByRole('button', { name: 'Add and make a link' }).click();
    const link = (await page.locator('.link code').textContent()) ?? '';
    const hugo = await (await browser.newContext()).newPage();
    await hugo.goto(link);
    await expect(hugo.getByRole('heading', { name: 'Welcome, Hugo Marés' })).toBeVisible();
    await hugo.locator('#new-password').fill('bark under rain');
    await hugo.getByRole('button', { name: 'Set it and sign in' }).click();
    await hugo.getByRole('navigation', { name: 'Work order' }).waitFor();
    await expect(hugo).toHaveURL(/\/inspect/);
    const again = await (await browser.newContext()).newPage();
    await again.goto(link);
    await expect(again.getByRole('alert')).toContainText('This link was used');

    // Kept out at once: the next thing asked sends them to the sign-in.
    page.once('dialog', (dialog) => void dialog.accept());
    await page
      .getByRole('row', { name: /Hugo Marés/ })
      .getByRole('button', { name: 'Keep out' })
      .click();
    await expect(page.getByText('kept out since')).toBeVisible();
    await hugo.goto(`${town.url}/desk`);
    await expect(hugo.getByRole('button', { name: 'Sign in' })).toBeVisible();
  } finally {
    await town.kill('SIGKILL');
  }
});
