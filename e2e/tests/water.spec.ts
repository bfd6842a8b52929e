import type { KeptZones, SpotList, WaterList } from '@sombra/contract';
import { Desk, ready } from '../rig/desk';
import { Phone } from '../rig/phone';
import { startController } from '../../standins/controller.mjs';
import { expect, knownAs, test, type Town } from '../rig/town';
import { Wire } from '../rig/wire';

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
  await water.getByText(/^ ?Day by day/).click();
  await expect(water.getByRole('row').nth(1)).toContainText('180 L');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(water.getByRole('img')).toHaveAccessibleName(before ?? '');
});

test('a heat wave from its first sign to a finished round, the phone without a network in the middle', async ({
  signedIn: page,
  town,
}, info) => {
  test.slow();
  await town.query(
    `update weather_day set rain_mm = 0, t_min_c = 19, t_max_c = 35, humidity_min_pct = 30, humidity_max_pct = 60
     where day > current_date - 25`,
  );
  const desk = await Desk.of(page, town);
  const read = () => desk.get<WaterList>('/api/water/trees?group=now&limit=500');
  // Trees are followed some at a time: until all of them were, there are more at each look.
  let before = -1;
  const settled = async () => {
    const { total } = await read();
    const same = total > 60 && total === before;
    before = total;
    return same;
  };
  await expect.poll(settled, { timeout: 60_000, intervals: [2500] }).toBe(true);
  const { places } = await read();
  const [place] = places.filter(({ count }) => count >= 3).sort((a, b) => a.count - b.count);
  const stops = place?.count ?? 0;

  await page.goto(`${town.url}/water`);
  await page.getByRole('button', { name: /Water now/ }).click();
  await expect(page.getByRole('heading', { name: /^Water now: \d+ trees, [\d,.]+ L$/ })).toBeVisible();
  await page.getByRole('combobox', { name: /^Place/ }).selectOption(place?.name ?? '');
  await expect(page.getByRole('heading', { name: new RegExp(`^Water now: ${stops} trees`) })).toBeVisible();

  await page.getByRole('link', { name: 'Rounds', exact: true }).click();
  await page.getByLabel('Called').fill('Heat wave');
  await page.getByLabel('Trees that ask').selectOption('today');
  await page.getByRole('combobox', { name: /^Place/ }).selectOption(place?.name ?? '');
  await page.getByLabel('Hand cart').uncheck();
  await page.getByLabel('Shift, hours').fill('99');
  await page.getByRole('button', { name: 'Find rounds' }).click();
  await expect(page.getByRole('alert')).toHaveText('Shift must be within 0.5 to 24 h, got 99.');
  await page.getByLabel('Shift, hours').fill('8');
  await page.getByRole('button', { name: 'Find rounds' }).click();
  await expect(page.getByRole('heading', { name: /^Heat wave, / })).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Give it out' }).click();
  await expect(page.getByRole('alert')).toHaveText('Name somebody who goes with Tank truck Gull.');
  await page.getByLabel('Goes with Tank truck Gull').selectOption({ label: 'Tia Rebelo-Sol' });
  await page.getByRole('button', { name: 'Give it out' }).click();
  await expect(page.getByText('0 watered so far.')).toBeVisible();

  const line = await Wire.to(town.port);
  const far = line.through(town.url).replace(/\/$/, '');
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    const out = await phone.open();
    await knownAs(out, { url: far } as Town, 'tia');
    await ready(out, { url: far });
    line.cut();
    await out.locator('s-assignment-card').filter({ hasText: 'Heat wave' }).getByRole('link').first().click();
    for (let i = 1; i <= stops; i++) {
      await expect(out.getByText(`${stops - i + 1} of ${stops} left`)).toBeVisible();
      if (i === 1) {
        await out.getByRole('button', { name: 'Cannot be done' }).click();
        await out.getByRole('button', { name: 'gate locked' }).click();
        continue;
      }
      if (i === 2) {
        await out.getByLabel('Another amount, L').fill('9000');
        await out.getByRole('button', { name: 'Watered this much' }).click();
        await expect(out.locator('s-water-stop').getByRole('alert')).toHaveText(
          'Another amount must be within 1 L to 2000 L, got 9000.',
        );
        await out.getByLabel('Another amount, L').fill('33');
        await out.getByRole('button', { name: 'Watered this much' }).click();
        continue;
      }
      // What was found before is kept with it; the dose is one tap.
      await expect(out.getByLabel('Another amount, L')).toHaveValue('');
      if (i === 3) await out.getByRole('button', { name: 'dry', exact: true }).click();
      await out.getByRole('button', { name: /^Watered \d+ L$/ }).click();
    }
    await expect(out.getByText('Nothing is left of it on this device.')).toBeVisible();
    expect((await read()).places.find(({ name }) => name === place?.name)?.count).toBe(stops);
    await line.mend();
    await out.goto(`${far}/waiting`);
    await expect
      .poll(async () => (await read()).places.find(({ name }) => name === place?.name)?.count ?? 0, { timeout: 90_000 })
      .toBe(1);
    await page.reload();
    await expect(page.getByText(`${stops - 1} watered so far.`)).toBeVisible();
    await expect(page.getByText('could not: gate locked')).toBeVisible();
    await expect(page.getByText('watered, 33 L')).toBeVisible();
    const [{ probe } = { probe: null }] = await town.query<{ probe: string | null }>(
      `select facts->>'probeBefore' as probe from field_record where facts ? 'probeBefore'`,
    );
    expect(probe).toBe('dry');
  } finally {
    await phone.throwAway();
    line.cut();
  }
});

test('the drowned zone: found by the list and the probe, its valve set back, its recovery on the ribbon', async ({
  signedIn: page,
  town,
}) => {
  test.slow();
  const valves = await startController();
  town.environment = { CONTROLLER_URL: valves.url, CONTROLLER_SIMULATED: 'yes' };
  await town.kill('SIGKILL');
  await town.start();
  try {
    await page.goto(`${town.url}/water?group=drowned`);
    const drowned = page.getByRole('region', { name: 'Trees by when they ask for water' }).getByRole('row');
    await expect(drowned.nth(1)).toContainText('Clinic Garden');
    const { zones } = await (await Desk.of(page, town)).get<KeptZones>('/api/water/zones');
    const ref = zones[0]?.trees.find((tree) => tree.drowned)?.ref ?? '';
    await drowned.filter({ hasText: ref }).getByRole('link').click();
    const water = page.locator('s-water-panel');
    await expect(water.getByText('Stop watering: the ball drowns')).toBeVisible();
    const before = (await water.getByRole('img').first().getAttribute('aria-label')) ?? '';

    await page.getByRole('link', { name: 'Inspect now' }).click();
    await page.getByRole('group', { name: 'Probe at ball depth' }).locator('label', { hasText: 'waterlogged' }).click();
    await page.getByRole('button', { name: 'Store the look' }).click();
    await expect(page.getByText('Inspection stored.')).toBeVisible();

    await page.goto(`${town.url}/zones`);
    await expect(page.getByText(`${ref} drowns now`)).toBeVisible();
    await expect(page.getByText(/would stand in water from/)).toBeVisible();
    await page.getByLabel('Every so many days').fill('0');
    await expect(page.locator('s-zone-form').getByRole('alert')).toContainText('programme.everyDays must be within 1');
    await page.getByRole('button', { name: 'Find the programme that harms least' }).click();
    await expect(page.getByRole('button', { name: 'Keep the zone' })).toBeEnabled();
    await expect(page.getByText(/No programme does for all of them/)).toBeVisible();
    await page.getByLabel('Minutes', { exact: true }).fill('1');
    await page.getByLabel('Every so many days').fill('30');
    await page.getByRole('button', { name: 'Keep the zone' }).click();
    await expect(page.getByText('Zone kept; the controller is told within a minute.')).toBeVisible();
    await expect(page.getByText(/would stand in water from/)).toHaveCount(0);
    // The controller runs what it was told, and no more the hour each night.
    await expect(page.getByText(/Runs \d+ min, every (?!day)/)).toBeVisible({ timeout: 90_000 });

    // A month passes: what the valve gave, and what the probe found, lie so far back.
    await town.query(
      `update field_record set facts = facts || jsonb_build_object('wateredOn', ((facts->>'wateredOn')::date - 35)::text)
       where kind = 'watering' and device = 'valve'`,
    );
    await town.query(
      `update field_record set facts = facts || jsonb_build_object('inspectedOn', ((facts->>'inspectedOn')::date - 35)::text)
       where kind = 'inspection' and facts->>'probe' = 'saturated'`,
    );
    await town.query('insert into water_due select spot_id from tree_water on conflict do nothing');
    await page.goto(`${town.url}/water`);
    await expect
      .poll(
        async () => {
          const desk = await Desk.of(page, town);
          const { lines } = await desk.get<WaterList>('/api/water/trees?group=drowned&limit=500');
          return lines.some((line) => line.ref === ref);
        },
        { timeout: 60_000 },
      )
      .toBe(false);
    const { lines } = await (
      await Desk.of(page, town)
    ).get<WaterList>('/api/water/trees?place=Clinic%20Garden&limit=500');
    await page.goto(`${town.url}/tree/${lines.find((line) => line.ref === ref)?.treeId}`);
    await expect(water.getByText('Stop watering')).toHaveCount(0);
    await expect(water.getByRole('img').first()).not.toHaveAccessibleName(before);
  } finally {
    valves.stop();
  }
});

test('rules and first soaks are compared for a month of a typical year, and for the trees of a place', async ({
  signedIn: page,
  town,
}) => {
  await page.goto(`${town.url}/water-rules?month=06`);
  const soaks = page.getByRole('region', { name: 'First soaks compared' });
  const asks = async (rule: RegExp): Promise<number> => {
    const cell = soaks.getByRole('row', { name: rule }).getByRole('cell').nth(1);
    return Number(/after (\d+) d/.exec((await cell.textContent()) ?? '')?.[1] ?? NaN);
  };
  await expect(page.getByText(/A typical year of 4 here, from .*Jun/)).toBeVisible();
  expect(await asks(/one dose by caliper/)).toBeGreaterThan(await asks(/^none/));
  await page.getByLabel('Weather').selectOption('was');
  await expect(page.getByText(/^ ?The weather of/)).toBeVisible();

  await page.getByLabel('Compare for').selectOption('trees');
  await page.getByLabel('Place', { exact: true }).selectOption('Upper Terrace');
  await page.getByRole('button', { name: 'Try every rule on them' }).click();
  await expect(page.getByText(/^Each of these trees asked for water [\d.]+ times/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/Tried on all \d+ trees/)).toBeVisible();
  // Asked otherwise, what was tried is no answer any more.
  await page.getByLabel('Planted in').selectOption({ index: 5 });
  await expect(page.getByText(/^Each of these trees/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Try every rule on them' }).click();
  await expect(page.getByRole('alert').or(page.getByText(/^Each of these trees/))).toBeVisible({ timeout: 60_000 });
});
