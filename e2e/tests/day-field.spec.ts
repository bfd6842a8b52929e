import type { Page } from '@playwright/test';
import type { PlantingDays, DayDetail, Session } from '@sombra/contract';
import { randomUUID } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { Desk, ready } from '../rig/desk';
import { Phone } from '../rig/phone';
import { expect, knownAs, test, type Town } from '../rig/town';
import { Wire } from '../rig/wire';

const trees = 20;
/** The tree at which the phone dies, after two of four answers. */
const diesAt = 11;

/** Answers from the question that is open to the last one, as planned. */
async function asPlanned(page: Page, from: number): Promise<void> {
  for (let i = from; i <= 4; i++) {
    await expect(page.getByText(`question ${i} of 4`)).toBeVisible();
    await page.getByRole('group', { name: 'Usual values' }).getByRole('button').nth(1).click();
  }
  await page.getByRole('button', { name: 'Store', exact: true }).click();
}

test('a lead without a network: twenty trees, six taps each, the phone dead among them; then all are there once, and a tree of two leads waits for a word', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const [day] = await desk.get<PlantingDays>('/api/planting-days');
  const { trees: ofDay } = await desk.get<DayDetail>(`/api/planting-days/${day?.id}`);
  const spotIds = ofDay
    .filter((tree) => !tree.planted && tree.planned && tree.cover === 'ticket')
    .slice(0, trees)
    .map(({ spotId }) => spotId);
  expect(spotIds).toHaveLength(trees);
  const assignment = await desk.assign('crew_lead', { kind: 'planting', title: 'Team of twenty', spotIds });
  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const phone = await Phone.made(info.project.use.launchOptions);
  const planted = async () =>
    (
      await town.query<{ spot_id: string; by: string }>(
        `select spot_id, recorded_by as by from field_record where kind = 'planting' and spot_id = any($1)`,
        [spotIds],
      )
    ).map(({ spot_id, by }) => `${spotIds.indexOf(spot_id)} ${by.split(' ')[0]}`);
  try {
    let page = await phone.open();
    await knownAs(page, { url: far } as Town, 'bento');
    await ready(page, { url: far });
    line.cut();
    await page.goto(`${far}/walk/${assignment}`);
    await page.getByRole('button', { name: 'I know the work' }).click();
    for (let i = 1; i <= trees; i++) {
      await expect(page.getByText(`${trees - i + 1} of ${trees} left`)).toBeVisible();
      await page.getByRole('button', { name: 'It is this tree' }).click();
      if (i === diesAt) {
        await page.getByRole('group', { name: 'Usual values' }).getByRole('button').nth(1).click();
        await page.getByRole('group', { name: 'Usual values' }).getByRole('button').nth(1).click();
        await expect(page.getByText('question 3 of 4')).toBeVisible();
        await phone.close();
        page = await phone.open();
        await page.goto(`${far}/walk/${assignment}`);
        await asPlanned(page, 3);
      } else await asPlanned(page, 1);
    }
    await expect(page.getByText('Nothing is left of it on this device.')).toBeVisible();
    expect(await planted()).toEqual([]);

    // The coordinator recorded the first one too, from another phone.
    const session = (await (await signedIn.request.get(`${town.url}/api/session`)).json()) as Session;
    const twice = await signedIn.request.post(`${town.url}/api/records`, {
      headers: { 'x-csrf-token': session.csrfToken },
      data: {
        spotId: spotIds[0],
        device: 'browser',
        spotVersion: null,
        aheadMs: null,
        record: {
          id: uuidv7(),
          kind: 'planting',
          recordedAt: new Date().toISOString(),
          supersedes: null,
          facts: {
            plantedOn: session.today,
            flareAboveGradeMm: [40],
            holeWidthMm: 1100,
            firstWaterL: 40,
            practiceId: 'field-default',
            practiceVersion: 1,
          },
        },
      },
    });
    expect(twice.ok()).toBe(true);

    await line.mend();
    await page.reload();
    await page.getByRole('link', { name: 'Waiting' }).click();
    await expect(page.getByText('Nothing of yours waits here')).toBeVisible({ timeout: 90_000 });
    const mine = spotIds.map((_, i) => `${i} Bento`);
    expect((await planted()).sort()).toEqual([...mine, '0 Inês'].sort());

    // Planted twice: both stand, and the desk is asked.
    await signedIn.goto(`${town.url}/inspect/${spotIds[0]}`);
    const pair = signedIn.getByRole('region', { name: 'Planted, as built, twice' });
    await expect(pair).toContainText('Bento Quarel');
    await expect(pair).toContainText('Inês');
  } finally {
    await phone.throwAway();
    line.cut();
  }
});

test('a tree goes home with its keeper: handed out where the ground is cleared, told by a link, verified at the desk', async ({
  signedIn,
  town,
}) => {
  const desk = await Desk.of(signedIn, town);
  const session = (await (await signedIn.request.get(`${town.url}/api/session`)).json()) as Session;
  const headers = { 'x-csrf-token': session.csrfToken };
  const days = await desk.get<PlantingDays>('/api/planting-days');
  const next = days.find(({ kind, spots }) => kind === 'volunteers' && spots > 20);
  const { trees: ofDay, version, ...plan } = await desk.get<DayDetail>(`/api/planting-days/${next?.id}`);
  // One tree with its ticket leaves the planting day for a hand-out.
  const gone = ofDay.find((tree) => tree.cover === 'ticket' && tree.stock === 'accepted' && !tree.planted);
  const left = await signedIn.request.put(`${town.url}/api/planting-days/${next?.id}`, {
    headers,
    data: {
      title: plan.title,
      onDay: plan.onDay,
      kind: plan.kind,
      capacity: plan.capacity,
      hours: plan.hours,
      arrangements: plan.arrangements,
      gathering: plan.gathering,
      spotIds: ofDay.map(({ spotId }) => spotId).filter((id) => id !== gone?.spotId),
      version,
    },
  });
  expect(left.ok()).toBe(true);
  const id = randomUUID();
  const made = await signedIn.request.post(`${town.url}/api/planting-days`, {
    headers,
    data: {
      id,
      title: 'Trees to take home',
      onDay: plan.onDay,
      kind: 'hand_out',
      capacity: 0,
      spotIds: [gone?.spotId],
      copyOf: null,
    },
  });
  expect(made.ok()).toBe(true);
  await signedIn.goto(`${town.url}/days/${id}`);
  await expect(signedIn.getByRole('link', { name: 'Teams' })).toHaveCount(0);
  await signedIn.getByRole('link', { name: 'Run of the day' }).click();
  await expect(signedIn.getByRole('heading', { name: '0 of 1 handed out' })).toBeVisible();
  await signedIn.getByRole('button', { name: `Hand out ${gone?.ref}` }).click();
  await expect(signedIn.getByText('Whom the tree is handed to must not be empty.')).toBeVisible();
  await signedIn.getByLabel(`${gone?.ref} is handed to`).fill('Rosa Vale');
  await signedIn.getByRole('button', { name: `Hand out ${gone?.ref}` }).click();
  await expect(signedIn.getByRole('heading', { name: '1 of 1 handed out' })).toBeVisible();
  const link = (await signedIn.locator('s-hand-outs .link b').textContent()) ?? '';

  // At home, on a phone of nobody we know.
  const context = await signedIn
    .context()
    .browser()
    ?.newContext({ viewport: { width: 390, height: 844 } });
  const keeper = await context?.newPage();
  if (!keeper) throw new Error('no page for the keeper');
  await keeper.goto(link);
  await expect(keeper.getByText('The ground is cleared.')).toBeVisible();
  await keeper.getByRole('button', { name: 'Tell the programme' }).click();
  await expect(keeper.getByRole('alert')).toContainText('are needed');
  await keeper.getByLabel('Where the trunk widens into roots').fill('45');
  await keeper.getByLabel('Hole width').fill('1100');
  await keeper.getByLabel('First water').fill('50');
  await keeper.getByLabel('Your name').fill('Rosa Vale');
  await keeper.getByRole('button', { name: 'Tell the programme' }).click();
  await expect(keeper.getByText('Your report is stored.')).toBeVisible();
  await context?.close();

  // At the desk it is looked at, taken into the form and stored: only now it is planted.
  await signedIn.goto(`${town.url}/day/${gone?.spotId}`);
  await expect(signedIn.getByText('told how it was planted')).toBeVisible();
  await signedIn.getByRole('button', { name: 'Take into the form' }).click();
  await expect(signedIn.getByLabel('Hole width')).toHaveValue('1100');
  await signedIn.getByRole('button', { name: 'Store as built' }).click();
  await expect(signedIn.getByText('Planting stored.')).toBeVisible();
});
