import type { SpotList } from '@sombra/contract';
import { expect, test } from '../rig/town';

test('the water of a tree: its ribbon, a watering stored and taken back, what cannot be refused at its field', async ({
  signedIn: page,
  town,
}) => {
  const list = (await (
    await page.request.get(`${town.url}/api/spots?planted=yes&place=Tramway%20Avenue&limit=200`)
  ).json()) as SpotList;
  const tree = list.lines.find(({ plantedOn }) => plantedOn !== null && plantedOn > '2025-01-01');
  await page.goto(`${town.url}/tree/${tree?.treeId}`);
  const water = page.locator('s-water-panel');
  await expect(water.getByRole('img')).toHaveAccessibleName(/The ball holds \d+ %, give or take \d+ of \d+ L/);
  await water.getByLabel('Watered today').fill('5000');
  await water.getByRole('button', { name: 'Store the watering' }).click();
  await expect(water.getByRole('alert')).toHaveText('Watered today must be within 1 L to 2000 L, got 5000.');
  await expect(water.getByLabel('Watered today')).toHaveValue('5000');
  const before = await water.getByRole('img').getAttribute('aria-label');
  await water.getByLabel('Watered today').fill('200');
  await water.getByRole('button', { name: 'Store the watering' }).click();
  await expect(page.getByText('Watering stored.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'History' })).toContainText('Watered');
  await expect(water.getByRole('img')).not.toHaveAccessibleName(before ?? '');
  await expect(water.getByText('No water needed')).toBeVisible();
  await water.locator('summary').click();
  await expect(water.getByRole('row').nth(1)).toContainText('180 L');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(water.getByRole('img')).toHaveAccessibleName(before ?? '');
});
