import type { Page } from '@playwright/test';
import { pdfText } from '../../server/testing/pdf-text';
import { expect, openSpot, test, type Town } from '../rig/town';

/** A spot that is ready to plant, with its tree measured. */
async function readySpot(town: Town): Promise<{ id: string; ref: string }> {
  const [spot] = await town.query<{ id: string; ref: string }>(
    `select spot.id, spot.ref from spot_period period join spot on spot.id = period.spot_id
     where period.until_day is null and period.stage = 'day' order by spot.ref limit 1`,
  );
  if (!spot) throw new Error('nothing is ready to plant');
  return spot;
}

const choose = async (page: Page, choice: string, value: string, reason: string): Promise<void> => {
  const form = page.locator('s-override-form');
  await form.getByLabel('Choice').selectOption({ label: choice });
  await form.getByLabel('Here', { exact: true }).selectOption({ label: value });
  await form.getByLabel('Because').fill(reason);
  await form.getByRole('button', { name: 'Store for this spot' }).click();
  await expect(form.getByRole('status')).toContainText(reason);
};

test('one choice made otherwise reaches plan, steps, shopping list and card alike', async ({
  signedIn: page,
  town,
}) => {
  const { id, ref } = await readySpot(town);
  const card = async () => {
    const { csrfToken } = (await (await page.request.get(`${town.url}/api/session`)).json()) as { csrfToken: string };
    const headers = { 'x-csrf-token': csrfToken };
    const answer = await page.request.post(`${town.url}/api/cards`, { headers, data: { spots: [id] } });
    return pdfText(await answer.body()).join(' ');
  };
  const materials = async () => (await page.request.get(`${town.url}/api/materials.csv`)).text();
  expect(await materials()).not.toContain('bone meal');
  const before = await card();
  expect(before).toContain('Find the flare');
  expect(before).not.toContain('Feed at the base');

  await openSpot(page, town, 'pit', ref);
  await page.getByText('Make a choice otherwise for this spot').click();
  await choose(page, 'Fed at the base', 'phosphate or bone meal', 'poor in phosphate, tested');
  await choose(page, 'Soil beside the ball that stands proud', 'a mound, falling one in four', 'the lawn stands wet');

  // The plan's needs, and the steps with their amount, their place and their caution.
  await expect(page.getByRole('row', { name: /bone meal/ })).toContainText('0.15 kg');
  await page.getByText(/^\d+ steps/).click();
  await expect(page.getByText('Feed at the base.')).toBeVisible();
  await expect(page.getByText('Build the mound.')).toBeVisible();
  await expect(page.getByText(/drawn up to the ball/)).toBeVisible();

  expect(await materials()).toContain('bone meal');
  await page.goto(`${town.url}/materials`);
  await expect(page.getByRole('row', { name: /bone meal/ })).toBeVisible();
  const printed = await card();
  expect(printed).toContain('Feed at the base');
  expect(printed).toContain('Build the mound');
});
