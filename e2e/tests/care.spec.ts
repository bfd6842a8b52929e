import type { SpotList } from '@sombra/contract';
import { expect, test } from '../rig/town';

test('a keeper by their link on a phone: waters, calls for help, names a deputy; the desk answers', async ({
  signedIn: page,
  town,
  browser,
}) => {
  const list = (await (
    await page.request.get(`${town.url}/api/spots?planted=yes&place=Tramway%20Avenue&limit=200`)
  ).json()) as SpotList;
  const tree = list.lines.find(({ plantedOn }) => plantedOn !== null && plantedOn > '2025-01-01');
  await page.goto(`${town.url}/tree/${tree?.treeId}`);
  const panel = page.locator('s-keepers-panel');
  await panel.getByText('Give it to a keeper').click();
  await panel.getByRole('button', { name: 'Make a link' }).click();
  await expect(panel.getByRole('alert')).toContainText('The name of who keeps it');
  await panel.getByLabel('Name').fill('Nélia Portas-Rim');
  await panel.getByLabel('E-mail, for reminders').fill('nelia@green.example');
  await panel.getByRole('button', { name: 'Make a link' }).click();
  const address = await panel.locator('.link b').innerText();

  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const phone = await context.newPage();
  await phone.goto(`${town.url}${new URL(address).pathname}?stop`);
  await expect(phone.getByRole('heading', { name: `Your tree, ${tree?.ref}` })).toBeVisible();
  // Nothing of Sombra stays on a stranger's phone.
  expect(await phone.evaluate(async () => (await navigator.serviceWorker.getRegistrations()).length)).toBe(0);
  await phone.getByRole('button', { name: 'Stop the reminders' }).first().tap();
  await expect(phone.getByRole('status').first()).toHaveText('No more reminders are sent to you.');
  await phone.getByRole('button', { name: 'Dry' }).tap();
  const [less, more] = ['less', 'more'].map((way) => phone.getByRole('button', { name: `Half a bucket ${way}` }));
  const amount = phone.getByRole('button', { name: /^I watered/ });
  // Never under half a bucket, however often.
  for (let i = 0; i < 12; i++) await less?.tap();
  await expect(amount).toHaveText('I watered half a bucket');
  for (let i = 0; i < 3; i++) await more?.tap();
  await expect(amount).toHaveText('I watered 2 buckets');
  await amount.tap();
  await expect(phone.getByRole('status').first()).toContainText('Thank you: 20 L on');
  await phone.getByText('Something is wrong').tap();
  await phone.getByLabel('In your words').fill('Its tie cuts into the bark.');
  await phone.getByRole('button', { name: 'Tell the programme' }).tap();
  await expect(phone.getByText('It is with the programme')).toBeVisible();
  await phone.getByText('I am away').tap();
  await phone.getByLabel('Who waters').fill('Paio Serra-Vime');
  await phone.getByRole('button', { name: 'Name them' }).tap();
  await expect(phone.getByRole('alert')).toContainText('the first day and the last day are needed');
  const days = await phone.evaluate(() =>
    [1, 8].map((days) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)),
  );
  await phone.getByLabel('From').fill(days[0] ?? '');
  await phone.getByLabel('Until').fill(days[1] ?? '');
  await phone.getByRole('button', { name: 'Name them' }).tap();
  await expect(phone.getByText('Their link, shown once')).toBeVisible();
  await expect(phone.getByText('Paio Serra-Vime stands in')).toBeVisible();

  await page.goto(`${town.url}/desk`);
  await page.getByText(/calls? for help/).waitFor();
  await page.getByRole('link', { name: 'See who' }).click();
  const line = page.getByRole('row').filter({ hasText: 'Nélia Portas-Rim' }).filter({ hasText: 'Help' });
  await line.getByLabel('Answer to Its tie cuts into the bark.').fill('We free it tomorrow.');
  await line.getByRole('button', { name: 'Answered' }).click();
  await expect(line).toHaveCount(0);
  await page.goto(`${town.url}/tree/${tree?.treeId}`);
  await expect(page.getByRole('region', { name: 'History' })).toContainText('its keeper, by link; not confirmed');
  await phone.reload();
  await expect(phone.getByText('We free it tomorrow., Inês Tavoro')).toBeVisible();

  await panel.getByRole('button', { name: 'Take the link back' }).first().click();
  await expect(panel.getByText('(over)').first()).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole('alert')).toContainText('This link is not valid');
  await context.close();
});
