import type { Page } from '@playwright/test';
import type { SpotLine, SpotList, WorkList } from '@sombra/contract';
import { pdfText } from '../../server/testing/pdf-text';
import { Desk, ready } from '../rig/desk';
import { Phone } from '../rig/phone';
import { soundTree } from '../rig/sound-tree';
import { expect, knownAs, test, type Town } from '../rig/town';
import { Wire } from '../rig/wire';

async function treeWith(page: Page, town: Town, query: string): Promise<SpotLine> {
  const { lines } = await (await Desk.of(page, town)).get<SpotList>(`/api/spots?${query}&limit=1`);
  if (!lines[0]) throw new Error(`no tree for ${query}`);
  return lines[0];
}
const open = (page: Page, town: Town, { treeId }: SpotLine) => page.goto(`${town.url}/tree/${treeId}`);

test('the street of forgotten stakes is found as one batch, and cleared by one tap that says what was seen', async ({
  signedIn: page,
  town,
}) => {
  const staked = async () => {
    const { batches } = await (await Desk.of(page, town)).get<WorkList>('/api/remedies?place=Mole%20Street');
    return batches.find(({ remedy }) => remedy === 'remove_stake')?.count ?? 0;
  };
  const before = await staked();
  expect(before).toBeGreaterThan(30);
  await page.goto(`${town.url}/remedies?place=Mole%20Street`);
  await expect(page.getByRole('row', { name: /Remove stake and ties/ })).toContainText(String(before));
  await page.goto(`${town.url}/desk`);
  await page.getByRole('button', { name: /Remove stake and ties.*Mole Street/s }).click();
  const shown = page.getByRole('group', { name: /Done today on \d+, shown by/ });
  const [, listed = ''] = /on (\d+)/.exec((await shown.getAttribute('aria-label')) ?? '') ?? [];
  await shown.getByRole('button', { name: 'stake and ties are off, the tree stands firm' }).click();
  await expect(page.getByText(`stored as done on ${listed} trees.`)).toBeVisible({ timeout: 30_000 });
  await expect.poll(staked).toBe(before - Number(listed));
});

test('a referral is printed, read back from its text, and what the arborist answers closes it', async ({
  signedIn: page,
  town,
}) => {
  const tree = await treeWith(page, town, 'remedy=collar_excavation');
  await open(page, town, tree);
  const href = await page.getByRole('link', { name: 'Sheet for the arborist, PDF' }).first().getAttribute('href');
  const text = pdfText(await (await page.request.get(town.url + (href ?? ''))).body()).join(' ');
  expect(text).toContain(`${tree.ref}: for an arborist`);
  expect(text).toContain('Refer for collar excavation.');
  expect(text).toContain('Answer of the arborist');
  await page.getByRole('button', { name: 'An arborist answered' }).click();
  await page.getByLabel('Arborist, with licence or register').fill('Ada Quill, register 118');
  await page.getByLabel('Says').selectOption({ label: 'to be taken out' });
  await page.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(page.getByText('Ada Quill, register 118 said on')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Sheet for the arborist, PDF' })).toHaveCount(0);

  // It is taken out: its place waits for the next.
  await page.getByRole('button', { name: 'Tree taken out' }).click();
  await page.getByLabel('Why', { exact: true }).selectOption({ label: 'past correction' });
  await page.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(page.getByText(/^Taken out on .*: past correction\./)).toBeVisible();
  expect((await treeWith(page, town, `ref=${tree.ref}`)).plantedOn).toBeNull();
});

test('a season of a staged plan is accepted as it was drawn, and the rest waits for the next', async ({
  signedIn: page,
  town,
}) => {
  const tree = await treeWith(page, town, 'remedy=stage_root_cuts');
  await open(page, town, tree);
  await expect(page.getByRole('heading', { name: 'Cuts over the seasons' })).toBeVisible();
  const planned = page.getByRole('button', { name: /^as planned for this season: root/ });
  const said = (await planned.count()) > 0 ? planned : page.getByRole('button', { name: 'nothing presses any more' });
  await said.first().click();
  await expect(page.getByText('Plan staged root cuts: stored as done.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^as planned for this season/ })).toHaveCount(0);
  const [{ seen = null } = {}] = await town.query<{ seen: object | null }>(
    `select facts->'seen' as seen from field_record where kind = 'remedy' and facts->>'remedy' = 'stage_root_cuts'
     and spot_id = $1`,
    [tree.spotId],
  );
  expect(seen).toHaveProperty('circlingRoots');
});

test('a tree that shows it is signed off as established: it leaves the looks, and the goal counts it', async ({
  signedIn: page,
  town,
}) => {
  const tree = await treeWith(page, town, 'comes=ready');
  await open(page, town, tree);
  await expect(page.getByRole('heading', { name: 'Established?' })).toBeVisible();
  await page.getByRole('button', { name: 'Sign it off as established' }).click();
  await expect(page.getByText(/^Signed off on /)).toBeVisible();
  await expect(page.getByText(/^Next look/)).toHaveCount(0);
  expect((await treeWith(page, town, `comes=established&ref=${tree.ref}`)).nextLookOn).toBeNull();
  await page.goto(`${town.url}/desk`);
  await page.getByRole('button', { name: 'All seasons' }).click();
  await expect(page.getByRole('columnheader', { name: 'established' })).toBeVisible();
});

test('looks are planned by what they are worth, given out, and twelve trees are looked at without a network', async ({
  signedIn,
  town,
}, info) => {
  test.slow();
  await signedIn.goto(`${town.url}/looks?ahead=120`);
  await expect(signedIn.getByText(/looks, worth .* together/)).toBeVisible();
  await signedIn.getByLabel(/Bento/).check();
  await signedIn.getByLabel('Hours each').fill('4');
  await signedIn.getByRole('button', { name: 'Plan the rounds' }).click();
  await expect(signedIn.getByRole('heading', { name: /\d+ looks, worth/ })).toBeVisible({ timeout: 60_000 });
  await signedIn.getByLabel('Called').fill('Afternoon');
  await signedIn.getByRole('button', { name: 'Send them out' }).click();
  await expect(signedIn.getByText(/Sent out: Bento/)).toBeVisible();
  const looks = async () =>
    Number((await town.query<{ n: string }>(`select count(*) as n from field_record where kind = 'inspection'`))[0]?.n);
  const before = await looks();

  const line = await Wire.to(town.port);
  const far = { url: line.through(town.url).replace(/\/$/, '') };
  const phone = await Phone.made(info.project.use.launchOptions);
  try {
    const page = await phone.open();
    await knownAs(page, { url: far.url } as Town, 'bento');
    await ready(page, far);
    line.cut();
    await page
      .locator('s-assignment-card')
      .filter({ hasText: 'Afternoon' })
      .getByRole('link', { name: /^(Begin|Go on)$/ })
      .click();
    for (let i = 0; i < 12; i++) {
      for (const name of [...soundTree, 'Store']) await page.getByRole('button', { name, exact: true }).click();
    }
    await expect(
      page
        .getByText(/12 wait/)
        .or(page.getByText(/Waiting.*12/))
        .first(),
    ).toBeVisible();
    expect(await looks()).toBe(before);
    await line.mend();
    await expect.poll(looks, { timeout: 90_000 }).toBe(before + 12);
  } finally {
    await phone.throwAway();
    line.cut();
  }
});

test('a resident tells of a tree by the link of their place, with a photo: it becomes a look with their words', async ({
  signedIn: page,
  town,
  browser,
}) => {
  await page.goto(`${town.url}/told`);
  await page.getByLabel('Place of the link').selectOption('Tramway Avenue');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByText('/told/').textContent()) ?? '';
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await context.newPage();
  await phone.goto(link);
  await phone.getByRole('button', { name: 'Tell the programme' }).click();
  await expect(phone.getByRole('alert')).toHaveText('Say in a few words what you see.');
  await phone.getByLabel('Which tree').selectOption({ index: 1 });
  const ref = await phone.getByLabel('Which tree').inputValue();
  await phone.getByLabel('What you see').fill('<b>The stake</b> is broken.');
  await phone
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'tree.png',
      mimeType: 'image/png',
      buffer: Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      ),
    });
  await phone.getByRole('button', { name: 'Tell the programme' }).click();
  await expect(phone.getByText('Thank you.')).toBeVisible();
  await context.close();

  await page.goto(`${town.url}/desk`);
  await page.getByRole('link', { name: 'Read what was told' }).click();
  const report = page.getByRole('article', { name: `Told of ${ref}` });
  await expect(report).toContainText('<b>The stake</b> is broken.');
  await expect(report.getByRole('img')).toBeVisible();
  await report.getByRole('button', { name: 'Have it looked at' }).click();
  await expect(report).toHaveCount(0);
  await page.goto(`${town.url}/inspect?waits=look_told`);
  await page.getByRole('link', { name: ref }).click();
  await expect(page.getByText(/A resident told on .*“<b>The stake<\/b> is broken\.”/).first()).toBeVisible();
});
