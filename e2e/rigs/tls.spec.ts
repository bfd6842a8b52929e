import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { startTls } from '../../scripts/tls.mjs';
import { makeShared } from '../rig/shared';
import { Phone } from '../rig/phone';
import { expect, knownAs, test, type Town } from '../rig/town';

let endShared: () => void;
test.beforeAll(async () => {
  endShared = await makeShared();
});
test.afterAll(() => endShared());

test('one record made offline goes through nginx over TLS, from a phone that opens without the server', async ({
  town,
}, info) => {
  test.slow();
  const folder = mkdtempSync(path.join(tmpdir(), 'sombra-tls-'));
  await town.kill('SIGKILL');
  town.environment = { TLS: 'on', TRUSTED_PROXY: 'loopback' };
  await town.start();
  const proxy = await startTls({ target: town.port, folder });
  const { launchOptions } = info.project.use;
  // The certificate is nobody's: this browser alone takes it.
  const args = [...(launchOptions?.args ?? []), '--ignore-certificate-errors'];
  const phone = await Phone.made({ ...launchOptions, args, ignoreHTTPSErrors: true });
  try {
    let page = await phone.open();
    await knownAs(page, { url: proxy.url } as Town, 'bento');
    await page.goto(`${proxy.url}/along`);
    await expect(page.getByText(/^Ready for \d+ trees/)).toBeVisible({ timeout: 90_000 });
    const [cookie] = (await page.context().cookies()).filter(({ name }) => name === 'sombra.sid');
    expect(cookie).toMatchObject({ secure: true, httpOnly: true, sameSite: 'Strict' });
    await phone.close();
    await town.kill('SIGKILL');

    page = await phone.open();
    await page.goto(proxy.url);
    await page.getByLabel('Find among what is here').fill('A-0105');
    await page
      .getByRole('link', { name: /\b[A-Z]-\d{4}\b/ })
      .first()
      .click();
    const fill = (label: string, value: string) => page.getByLabel(label, { exact: true }).fill(value);
    await fill('Flare, point 1', '40');
    await fill('Hole width', '1100');
    await fill('First water', '45');
    await page.getByRole('button', { name: 'Store as built' }).click();
    await expect(page.getByText(/1 kept on this device, to be sent/)).toBeVisible();
    await town.start();
    await page.reload();
    await expect(page.getByText(/kept on this device, to be sent/)).toHaveCount(0);
    await expect
      .poll(
        async () =>
          (await town.query(`select 1 from field_record where kind = 'planting' and device = 'browser'`)).length,
      )
      .toBe(1);
    // The address of the phone is what the proxy says, and only it is believed.
    const limited = await town.query<{ key: string }>(`select key from sign_in_limit where key like 'address%'`);
    expect(limited.every(({ key }) => key.includes('127.0.0.1'))).toBe(true);
  } finally {
    await phone.throwAway();
    await proxy.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
