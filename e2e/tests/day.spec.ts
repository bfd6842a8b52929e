import { addDaysTo } from '@sombra/core';
import type { DayDetail, PlantingDays, Session } from '@sombra/contract';
import type { Page } from '@playwright/test';
import { expect, knownAs, test, type Town } from '../rig/town';

const part = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Parts of the day' }).getByRole('link', { name, exact: true }).click();

async function nextDay(page: Page, town: Town): Promise<{ id: string; version: number; csrf: string }> {
  const { csrfToken } = (await (await page.request.get(`${town.url}/api/session`)).json()) as Session;
  const days = (await (await page.request.get(`${town.url}/api/planting-days`)).json()) as PlantingDays;
  const { id } = days.find(({ title }) => title === 'Tramway Avenue') ?? { id: '' };
  const { version } = (await (await page.request.get(`${town.url}/api/planting-days/${id}`)).json()) as DayDetail;
  return { id, version, csrf: csrfToken };
}

test('a day from invitation to report: link, letter, teams, check-in without a network, tools back, pace learnt', async ({
  signedIn: page,
  town,
  worker,
  browser,
}) => {
  test.slow();
  const { id } = await nextDay(page, town);
  await page.goto(`${town.url}/days/${id}`);
  // Red lines first: three spots that nothing covers on that day.
  const red = page.getByRole('row', { name: /Leave to dig/ });
  await expect(red).toContainText('3 of 34 spots may not be dug on that day');
  await expect(red.getByRole('link', { name: /A-02/ })).toHaveCount(3);

  await part(page, 'People');
  await page.getByRole('button', { name: 'Make a link to register' }).click();
  const link = await page.getByLabel('Link to register').inputValue();

  // Somebody who has no account, on a phone.
  const guest = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await guest.goto(link);
  await guest.getByRole('button', { name: 'Register' }).click();
  await expect(guest.getByRole('alert')).toHaveText('Write your name.');
  await guest.getByLabel('Your name').fill('Oriana Brumal');
  await guest.getByLabel('E-mail').fill('oriana@green.example');
  await guest.getByLabel('Allergies we should know').fill('wasps');
  await guest.getByRole('button', { name: 'Add a minor' }).click();
  await guest.getByLabel('Name of the minor').fill('Tico Brumal');
  await guest.getByLabel('Signature').fill('Oriana Brumal');
  await guest.getByRole('button', { name: 'Register' }).click();
  await expect(guest.getByText('We sent a letter to the address you gave')).toBeVisible();
  const letters = () => worker.mail.messages.filter(({ to }) => to === 'oriana@green.example');
  await expect.poll(() => letters().length).toBe(1);
  const path = /\/place\/[\w-]+/.exec(letters()[0]?.text ?? '')?.[0] ?? '';
  await guest.goto(town.url + path);
  await guest.getByRole('button', { name: 'I come' }).click();
  await expect(guest.getByText('Your place is confirmed.')).toBeVisible();
  await expect.poll(() => letters()[0]?.attachments.some(({ name }) => name.endsWith('.ics'))).toBe(true);
  await guest.close();

  await page.reload();
  await expect(page.getByRole('row', { name: /Oriana Brumal/ }).first()).toContainText('comes');
  await expect(page.getByRole('row', { name: /Tico Brumal minor/ })).toContainText('Oriana Brumal');
  await page.getByRole('button', { name: 'Show contacts and allergies' }).click();
  await expect(page.getByRole('row', { name: /Oriana Brumal/ }).first()).toContainText('allergic: wasps');

  await part(page, 'Teams');
  await page.getByRole('button', { name: 'Make teams' }).click();
  await expect(page.getByRole('button', { name: 'Store the teams' })).toBeVisible({ timeout: 60_000 });
  const teamOf = (name: string) => page.locator('section.team').filter({ hasText: name });
  await expect(teamOf('Oriana Brumal')).toContainText('Tico Brumal');
  // A swap by key, with what it costs at once, and the minor goes along.
  const target = await page
    .locator('section.team')
    .filter({ hasNotText: 'Oriana Brumal' })
    .first()
    .getByRole('heading')
    .innerText();
  const number = target.trim().split(/\s/)[0] ?? '';
  await page.getByLabel('Move Oriana Brumal').selectOption({ value: String(Number(number) - 1) });
  await expect(page.getByRole('status').filter({ hasText: 'Oriana Brumal moved' })).toBeVisible();
  await expect(teamOf('Oriana Brumal')).toContainText('Tico Brumal');
  await page.getByRole('button', { name: 'Store the teams' }).click();
  await expect(page.getByRole('button', { name: 'Store the teams' })).toHaveCount(0);

  // The lead, on a phone that loses its network in the middle.
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'block' });
  const lead = await phone.newPage();
  await knownAs(lead, town, 'bento');
  await lead.goto(`${town.url}/days/${id}?part=run`);
  await lead.getByLabel('Find somebody of the day').fill('oriana');
  await phone.setOffline(true);
  await lead.getByRole('button', { name: 'Oriana Brumal is here' }).click();
  await expect(lead.getByText(/kept on this device/).first()).toBeVisible();
  await lead.getByRole('button', { name: 'Thunder heard' }).click();
  await expect(lead.getByText(/Thunder: kept on this device/)).toBeVisible();
  await phone.setOffline(false);
  await lead.evaluate(() => window.dispatchEvent(new Event('online')));

  // The desk sees it as it comes.
  await part(page, 'Run of the day');
  await expect(page.getByText('Oriana Brumal is here.')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('alert').filter({ hasText: 'Thunder: everybody under a roof' })).toBeVisible();
  await expect(page.getByRole('img', { name: /teams; the last/ })).toBeVisible();
  await lead.getByRole('button', { name: /Team 1 .* was briefed/ }).click();
  await lead.getByRole('button', { name: /Count the tools out to 1/ }).click();
  await expect(lead.getByText(/Out: 2 digging spade/)).toBeVisible();
  await lead.getByRole('button', { name: /All tools back from 1/ }).click();
  await expect(page.getByText(/brought back 2 digging spade/)).toBeVisible();

  // Nothing was planted: closing it teaches nothing, and says so by the hours alone.
  await page.getByLabel('Person-hours').fill('90');
  await page.getByRole('button', { name: 'Close, and learn the pace' }).click();
  await expect(page.getByText('Closed after 90 person-hours.')).toBeVisible();
  await expect(page.getByText('closed', { exact: true })).toBeVisible();
  await part(page, 'Report');
  await expect(page.getByText('0 of 34', { exact: true })).toBeVisible();
  await expect(page.getByText(/34 not planted: .* fence every open hole/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Thanks to' }).locator('~ p').first()).toContainText('Oriana Brumal');
  await phone.close();
});

test('two who arrange the same day: the second is told, and keeps what they arranged', async ({
  signedIn: page,
  town,
}) => {
  const { id, version, csrf } = await nextDay(page, town);
  await page.goto(`${town.url}/days/${id}?part=plan`);
  await page.getByRole('spinbutton', { name: 'Places' }).fill('33');
  const day = (await (await page.request.get(`${town.url}/api/planting-days/${id}`)).json()) as DayDetail;
  const { title, onDay, kind, hours, arrangements, gathering, trees } = day;
  const other = await page.request.put(`${town.url}/api/planting-days/${id}`, {
    headers: { 'x-csrf-token': csrf },
    data: {
      title,
      onDay,
      kind,
      capacity: 40,
      hours,
      arrangements,
      gathering,
      spotIds: trees.map(({ spotId }) => spotId),
      version,
    },
  });
  expect(other.status()).toBe(200);
  await page.getByRole('button', { name: 'Store the plan' }).click();
  await expect(page.getByRole('alert')).toContainText('Somebody changed this day since you read it');
  const places = page.getByRole('spinbutton', { name: 'Places' });
  await expect(places).toHaveValue('33');
  // Looked up elsewhere and come back to: what was typed is there, and may be left.
  await page.goto(`${town.url}/days/${id}?part=teams`);
  await expect(page.getByRole('button', { name: /Make/ }).first()).toBeVisible();
  await page.goto(`${town.url}/days/${id}?part=plan`);
  await expect(places).toHaveValue('33');
  await page.getByRole('button', { name: 'Leave it as it was' }).click();
  await expect(places).toHaveValue('40');
});

test('a day moved past its tickets turns red, and one of three acts makes a new day', async ({
  signedIn: page,
  town,
}) => {
  const { id } = await nextDay(page, town);
  await page.goto(`${town.url}/days/${id}?part=plan`);
  const day = (await (await page.request.get(`${town.url}/api/planting-days/${id}`)).json()) as DayDetail;
  await page.getByLabel('Day', { exact: true }).fill(addDaysTo(day.onDay, 60));
  await page.getByRole('button', { name: 'Store the plan' }).click();
  await expect(page.getByText('The plan is stored.')).toBeVisible();
  await part(page, 'Readiness');
  await expect(page.getByRole('row', { name: /Leave to dig/ })).toContainText(
    '34 of 34 spots may not be dug on that day',
  );

  await page.keyboard.press('g');
  await page.keyboard.press('y');
  await expect(page.getByRole('heading', { name: 'Planting days' })).toBeVisible();
  await page.getByRole('button', { name: /^Plan \d+ trees?$/ }).click();
  await expect(page).toHaveURL(/\/days\/[0-9a-f-]+$/);
  await expect(page.getByText('No teams are made.')).toBeVisible();
});
