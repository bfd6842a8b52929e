import type { Page } from '@playwright/test';
import type { PlantingDays, DayDetail, Session } from '@sombra/contract';
import { randomUUID } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { Desk, ready } from '../rig/desk';
import { Phone } from '../rig/phone';
import { expect, knownAs, test, type Town } from '../rig/town';
import { Wire } from '../rig/wire';

const trees = 20;
const aTreeMs = 9 * 60_000;
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
  // Three hours in which nothing is reached, nine minutes a tree: the phone's clock goes from then to now.
  let time = Date.now() - trees * aTreeMs;
  const opened = async (): Promise<Page> => {
    const page = await phone.open();
    await page.clock.install({ time });
    return page;
  };
  try {
    let page = await opened();
    await knownAs(page, { url: far } as Town, 'bento');
    await ready(page, { url: far });
    line.cut();
    // It was right when it was measured.
    await page.evaluate(
      (measuredAt) => localStorage.setItem('sombra.clock', JSON.stringify({ aheadMs: 0, measuredAt })),
      time,
    );
    await page.goto(`${far}/walk/${assignment}`);
    await page.getByRole('button', { name: 'I know the work' }).click();
    for (let i = 1; i <= trees; i++) {
      if (i > 1) await page.clock.fastForward(aTreeMs);
      time += aTreeMs;
      await expect(page.getByText(`${trees - i + 1} of ${trees} left`)).toBeVisible();
      await page.getByRole('button', { name: 'It is this tree' }).click();
      if (i === diesAt) {
        await page.getByRole('group', { name: 'Usual values' }).getByRole('button').nth(1).click();
        await page.getByRole('group', { name: 'Usual values' }).getByRole('button').nth(1).click();
        await expect(page.getByText('question 3 of 4')).toBeVisible();
        await phone.close();
        page = await opened();
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
    // Each at the time it was made.
    const [span] = await town.query<{ minutes: number; questioned: number }>(
      `select (extract(epoch from max(happened_at) - min(happened_at)) / 60)::int as minutes,
          count(*) filter (where clock <> 'kept')::int as questioned
        from field_record where kind = 'planting' and spot_id = any($1) and recorded_by like 'Bento%'`,
      [spotIds],
    );
    expect(span?.minutes).toBeGreaterThanOrEqual((trees - 1) * 9);
    expect(span?.questioned).toBe(0);

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

test('a phone that dies in the middle of a tree: another lead takes over what is left, and what the dead one still says is asked about', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  const desk = await Desk.of(signedIn, town);
  const [day] = await desk.get<PlantingDays>('/api/planting-days');
  const { trees: ofDay } = await desk.get<DayDetail>(`/api/planting-days/${day?.id}`);
  const spotIds = ofDay
    .filter((tree) => !tree.planted && tree.planned && tree.cover === 'ticket')
    .slice(0, 3)
    .map(({ spotId }) => spotId);
  await town.query(`update app_user set role = 'crew_lead' where name like 'Tia%'`);
  const first = await desk.assign('crew_lead', { kind: 'planting', title: 'Team of three', spotIds });
  const [owner] = await town.query<{ name: string }>(
    'select name from app_user join assignment on user_id = app_user.id where assignment.id = $1',
    [first],
  );
  const [dead, alive] = owner?.name.startsWith('Bento') ? ['bento', 'tia'] : ['tia', 'bento'];
  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const [one, other] = [
    await Phone.made(info.project.use.launchOptions),
    await Phone.made(info.project.use.launchOptions),
  ];
  const planted = async () =>
    (
      await town.query<{ spot_id: string; by: string }>(
        `select spot_id, recorded_by as by from field_record where kind = 'planting' and spot_id = any($1)`,
        [spotIds],
      )
    )
      .map(({ spot_id, by }) => `${spotIds.indexOf(spot_id)} ${by.split(' ')[0]?.toLowerCase()}`)
      .sort();
  const begin = async (page: Page) => {
    await page.getByRole('button', { name: 'I know the work' }).click();
    await page.getByRole('button', { name: 'As planned' }).click();
    await page.getByRole('button', { name: 'It is this tree' }).click();
  };
  const usual = (page: Page) => page.getByRole('group', { name: 'Usual values' }).getByRole('button').nth(1);
  try {
    let page = await one.open();
    await knownAs(page, { url: far } as Town, dead ?? '');
    await ready(page, { url: far });
    line.cut();
    await page.goto(`${far}/walk/${first}`);
    await begin(page);
    await asPlanned(page, 1);
    await page.getByRole('button', { name: 'It is this tree' }).click();
    await usual(page).click();
    await usual(page).click();
    await expect(page.getByText('question 3 of 4')).toBeVisible();
    // Dead, with one tree kept on it and one half recorded. The desk gives all that is left to the other lead.
    await one.close();
    const rest = await desk.assign('crew_lead', { kind: 'planting', title: 'What is left', spotIds });
    await town.query('update assignment set user_id = (select id from app_user where sign_in = $1) where id = $2', [
      alive,
      rest,
    ]);
    const next = await other.open();
    await knownAs(next, town, alive ?? '');
    await ready(next, town);
    await next.goto(`${town.url}/walk/${rest}`);
    await begin(next);
    // Nobody knows of the first: it stays for the dead phone, and the half recorded one is begun anew.
    await next.getByRole('button', { name: 'Back' }).click();
    await next.getByRole('listitem').nth(1).getByRole('button').click();
    await next.getByRole('button', { name: 'It is this tree' }).click();
    await asPlanned(next, 1);
    await expect.poll(planted).toEqual([`1 ${alive}`]);

    // Charged, it goes on where it was: two of four answers are there, and it knows nothing of the other.
    page = await one.open();
    await page.goto(`${far}/walk/${first}`);
    await asPlanned(page, 3);
    await expect(page.getByText('1 of 3 left')).toBeVisible();
    await line.mend();
    await page.reload();
    await expect.poll(planted, { timeout: 60_000 }).toEqual([`0 ${dead}`, `1 ${alive}`, `1 ${dead}`].sort());
    await signedIn.goto(`${town.url}/inspect/${spotIds[1]}`);
    await expect(signedIn.getByRole('region', { name: 'Planted, as built, twice' })).toBeVisible();
    // The lead who took over sees what the dead phone brought.
    await next.goto(`${town.url}/along`);
    await next.getByRole('button', { name: 'Take along now' }).click();
    await next.goto(`${town.url}/walk/${rest}`);
    await expect(next.getByText('1 of 3 left')).toBeVisible();
  } finally {
    for (const phone of [one, other]) await phone.throwAway();
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
