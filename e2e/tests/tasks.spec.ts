import type { Page } from '@playwright/test';
import { Hands } from '../rig/hands';
import { expect, knownAs, test, type Town } from '../rig/town';

/** What is done over and over takes few keys and taps: more than these is a step back. */
const told = (hands: Hands, task: string, most: number): void => {
  console.log(`   ${hands.says(task)}`);
  expect(hands.count, task).toBeLessThanOrEqual(most);
};
const lines = (page: Page) => page.getByRole('grid').getByRole('checkbox');

async function refs(page: Page, town: Town, query: string, count: number): Promise<string[]> {
  const answer = await page.request.get(`${town.url}/api/spots?${query}&limit=${count}`);
  return ((await answer.json()) as { lines: { ref: string }[] }).lines.map(({ ref }) => ref);
}

test('by keyboard: a tree is found and opened in eight keys, its form entered in one, an act undone in one', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/desk`);
  await expect(page.getByRole('heading', { name: /decisions today/ })).toBeVisible();
  const find = new Hands(page);
  await find.keys('/');
  await find.type('w0163');
  await page.getByRole('option', { name: /W-0163/ }).waitFor();
  await find.keys('Enter');
  await expect(page.getByRole('heading', { name: 'W-0163' })).toBeVisible();
  told(find, 'find and open by keys', 8);

  // From a line of a list to the first field of what is open.
  await page.goto(`${town.url}/inspect?find=W-0163`);
  await lines(page).first().waitFor();
  await page.getByRole('grid').focus();
  const form = new Hands(page);
  await form.keys('Enter');
  await page.getByRole('heading', { name: 'Whole tree' }).waitFor();
  await form.keys('e');
  await expect(page.locator('.bench form :focus')).toHaveCount(1);
  told(form, 'from a line to its form', 2);

  await page.goto(`${town.url}/desk`);
  const one = page.getByRole('button', { name: 'Done today' }).first();
  await one.click();
  await expect(page.getByText(/stored as done on 1 tree/)).toBeVisible();
  const undo = new Hands(page);
  await undo.keys('u');
  await expect(page.getByText('Taken back on 1 tree.')).toBeVisible();
  told(undo, 'an act undone', 1);
});

test('by mouse: a card, a ticket for three, one remedy on ten trees, each in four at most', async ({
  signedIn: page,
  town,
}) => {
  const [ready = ''] = await refs(page, town, 'stage=day', 1);
  await page.goto(`${town.url}/day?find=${ready}`);
  await page.getByRole('link', { name: ready }).waitFor();
  const card = new Hands(page);
  await card.tap(page.getByRole('link', { name: ready }));
  await card.tap(page.getByRole('navigation', { name: 'Stages of this spot' }).getByRole('link', { name: /^Pit/ }));
  const printed = page.waitForEvent('download');
  await card.tap(page.getByRole('button', { name: 'Spot cards' }));
  expect((await printed).suggestedFilename()).toMatch(/\.pdf$/);
  told(card, 'one card', 4);

  await page.goto(`${town.url}/ground`);
  await lines(page).nth(3).waitFor();
  const ticket = new Hands(page);
  await ticket.tap(lines(page).nth(0));
  await ticket.tap(lines(page).nth(2), ['Shift']);
  await ticket.tap(page.getByRole('button', { name: /^Raise a locate ticket for 3/ }));
  await expect(
    page
      .getByText(/ticket/i)
      .filter({ hasText: /3 spots|raised/ })
      .first(),
  ).toBeVisible();
  told(ticket, 'a ticket for three', 4);

  await page.goto(`${town.url}/inspect?remedy=remove_stake&place=Mole%20Street`);
  await lines(page).nth(10).waitFor();
  const remedy = new Hands(page);
  await remedy.tap(lines(page).nth(0));
  await remedy.tap(lines(page).nth(9), ['Shift']);
  await expect(page.getByRole('heading', { name: '10 chosen' })).toBeVisible();
  await remedy.tap(page.getByRole('button', { name: 'stake and ties are off, the tree stands firm' }));
  await expect(page.getByText('stored as done on 10 trees.')).toBeVisible();
  told(remedy, 'one remedy on ten trees', 4);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('by thumb: a tree is found and opened, and a hazard told, in few taps', async ({ page, town }) => {
    await knownAs(page, town, 'marta');
    await page.goto(town.url);
    await page.getByRole('navigation').getByRole('link').first().waitFor();
    const find = new Hands(page, 'thumb');
    await find.tap(page.getByRole('combobox', { name: /^Find trees/ }));
    await find.type('w0163');
    await find.tap(page.getByRole('option', { name: /W-0163/ }));
    await expect(page.getByRole('heading', { name: 'W-0163' })).toBeVisible();
    told(find, 'find and open by thumb', 8);
    const hazard = new Hands(page, 'thumb');
    await hazard.tap(page.getByRole('button', { name: 'Hazard now' }));
    await hazard.tap(page.getByRole('region', { name: 'Hazard now' }).getByRole('button').first());
    await expect(page.getByRole('alert').filter({ hasText: 'seen' })).toBeVisible();
    told(hazard, 'a hazard told', 2);
  });
});
