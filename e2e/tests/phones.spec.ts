import type { Page } from '@playwright/test';
import { Desk, ready } from '../rig/desk';
import { Phone } from '../rig/phone';
import { soundTree } from '../rig/sound-tree';
import { expect, knownAs, test, type Town } from '../rig/town';
import { Wire } from '../rig/wire';

/** Who looked at which tree from a phone, and what they found of the mulch. */
const looks = async (town: Town, spotIds: readonly string[]): Promise<string[]> =>
  (
    await town.query<{ spot_id: string; by: string; contact: string }>(
      `select spot_id, recorded_by as by, facts->>'mulchContact' as contact from field_record
        where kind = 'inspection' and device = 'browser' and spot_id = any($1)`,
      [spotIds],
    )
  )
    .map(({ spot_id, by, contact }) => `${spotIds.indexOf(spot_id)} ${by.split(' ')[0]} ${contact}`)
    .sort();

const waits = (page: Page) => page.getByRole('link', { name: /Waiting/ });
/** The stop that is open, looked at from its first question to its storing. */
async function lookAt(page: Page, taps: readonly string[]): Promise<void> {
  for (const name of taps) await page.getByRole('button', { name, exact: true }).click();
  await page.getByRole('button', { name: 'Store', exact: true }).click();
}

test('one person with two phones, both without a network: all they saw is kept once, and what differs is asked about', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const trees = await desk.refs('planted=yes&place=Upper%20Terrace', 2);
  const spotIds = trees.map(({ id }) => id);
  const round = await desk.assign('inspector', { title: 'On two phones', spotIds });
  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const phones = [
    await Phone.made(info.project.use.launchOptions),
    await Phone.made(info.project.use.launchOptions),
  ] as const;
  try {
    const [one, other] = [await phones[0].open(), await phones[1].open()];
    for (const page of [one, other]) {
      await knownAs(page, { url: far } as Town, 'marta');
      await ready(page, { url: far });
    }
    line.cut();
    for (const page of [one, other]) await page.goto(`${far}/walk/${round}`);
    await lookAt(one, soundTree);
    await lookAt(one, soundTree);
    await expect(one.getByText('0 of 2 left')).toBeVisible();
    // The other phone knows nothing of it: its first tree is still to be looked at, and it sees it otherwise.
    await expect(other.getByText('2 of 2 left')).toBeVisible();
    await lookAt(
      other,
      soundTree.map((name) => (name === 'clear of the trunk' ? 'heaped on the trunk' : name)),
    );
    expect(await looks(town, spotIds)).toEqual([]);

    await line.mend();
    for (const page of [other, one]) {
      await page.reload();
      await waits(page).click();
      await expect(page.getByText('Nothing of yours waits here')).toBeVisible({ timeout: 60_000 });
    }
    const all = await looks(town, spotIds);
    expect(all.map((line) => line.slice(2)).sort()).toEqual(['Marta clear', 'Marta clear', 'Marta heaped']);
    const [both] = all.filter((line) => line.endsWith('heaped'));
    const twice = trees[Number(both?.[0])];
    await signedIn.goto(`${town.url}/inspect/${twice?.id}`);
    const pair = signedIn.getByRole('region', { name: 'Inspection, twice' });
    await expect(pair).toContainText('one finds the mulch clear of the trunk and the other heaped on it');
    // What was sent is done on the phone that did it, and what one phone did is done on the other.
    await one.goto(`${far}/walk/${round}`);
    await expect(one.getByText('0 of 2 left')).toBeVisible();
    await other.goto(`${far}/along`);
    await other.getByRole('button', { name: 'Take along now' }).click();
    await expect(other.getByText('Ready for')).toBeVisible();
    await other.goto(`${far}/walk/${round}`);
    await expect(other.getByText('0 of 2 left')).toBeVisible();
  } finally {
    for (const phone of phones) await phone.throwAway();
    line.cut();
  }
});

test('a phone left in a drawer for three weeks with a look on it: shut without the server, sent once whoever signs in', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const [tree] = await desk.refs('planted=yes&place=Upper%20Terrace', 1);
  const round = await desk.assign('inspector', { title: 'Three weeks ago', spotIds: [tree?.id ?? ''] });
  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    let page = await phone.open();
    await knownAs(page, { url: far } as Town, 'marta');
    await ready(page, { url: far });
    line.cut();
    await page.goto(`${far}/walk/${round}`);
    await lookAt(page, soundTree);
    await expect(page.getByText('0 of 1 left')).toBeVisible();
    // Three weeks go by: what the device kept of the session is as old, and the server has long forgotten it.
    await page.evaluate((ms) => {
      const key = 'sombra.session';
      const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as { keptAt: number };
      localStorage.setItem(key, JSON.stringify({ ...kept, keptAt: kept.keptAt - ms }));
    }, 21 * 86_400_000);
    await phone.close();
    await town.query(
      `delete from session where sess->>'userId' = (select id::text from app_user where name like 'Marta%')`,
    );

    page = await phone.open();
    await page.goto(`${far}/walk/${round}`);
    await expect(page.getByRole('heading', { name: 'Sombra cannot be reached' })).toBeVisible();
    await expect(page.getByText('Three weeks ago')).toHaveCount(0);

    await line.mend();
    await page.goto(`${far}/along`);
    await page.getByLabel('Name', { exact: true }).fill('bento');
    await page.getByLabel('Password').fill('shade-walks');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(waits(page)).toBeVisible({ timeout: 30_000 });
    await expect.poll(() => looks(town, [tree?.id ?? '']), { timeout: 60_000 }).toEqual(['0 Marta clear']);
    // Whoever opened it sees nothing of hers.
    await waits(page).click();
    await expect(page.getByText('Nothing of yours waits here')).toBeVisible();
  } finally {
    await phone.throwAway();
    line.cut();
  }
});
