// npm run bench:first: how long somebody waits for the first view on a phone-slow computer (processor 4 times slower,
// 1.6 Mbit/s), beside a bare page of one script in the same browser. Prints medians; judges nothing.
import { chromium } from '@playwright/test';
import { createServer } from 'node:http';
import { buildAll } from '../scripts/build.mjs';
import { chromiumPath } from '../scripts/packages.mjs';
import { at, ms, whenStarted } from './rig.mjs';

await buildAll();

const bytesPerS = (1.6 * 1000 * 1000) / 8;

export async function firstView({ url }, { runs = 5, slower = 4 } = {}) {
  const browser = await chromium.launch({
    executablePath: chromiumPath,
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--enable-unsafe-swiftshader'],
  });

  /** A browser that was never here, slowed; what it waits and what holds it is noted in the page. */
  async function newcomer() {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
    const page = await context.newPage();
    const devtools = await context.newCDPSession(page);
    await devtools.send('Network.enable');
    await devtools.send('Network.emulateNetworkConditions', {
      ...{ offline: false, latency: 20, downloadThroughput: bytesPerS, uploadThroughput: bytesPerS },
    });
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: slower });
    let bytes = 0;
    devtools.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
    // Noted in the page itself: asking from outside would be timed with it.
    await page.addInitScript(() => {
      const tasks = [];
      new PerformanceObserver((list) => {
        for (const { startTime, duration } of list.getEntries()) tasks.push({ startTime, held: duration - 50 });
      }).observe({ type: 'longtask', buffered: true });
      const seen = { field: undefined, list: undefined };
      const note = (what, selector) => {
        if (seen[what] !== undefined || !document.querySelector(selector)) return;
        seen[what] = null;
        // Once it is painted.
        requestAnimationFrame(() => setTimeout(() => (seen[what] = performance.now())));
      };
      new MutationObserver(() => {
        note('field', '#sign-in-name');
        note('list', 'section.field li.one');
      }).observe(document, { childList: true, subtree: true });
      window.noted_ = (what) => {
        const before = tasks.filter(({ startTime }) => startTime < seen[what]);
        return { at: seen[what], held: before.reduce((sum, { held }) => sum + held, 0) };
      };
      addEventListener('click', () => (window.clicked_ = performance.now()), { capture: true });
    });
    const noted = async (what) => {
      await page.waitForFunction((name) => window.noted_?.(name).at, what, { polling: 250 });
      return page.evaluate((name) => ({ ...window.noted_(name), clicked: window.clicked_ }), what);
    };
    return { context, page, kilobytes: () => bytes / 1000, noted };
  }

  async function visit() {
    const { context, page, kilobytes, noted } = await newcomer();
    await page.goto(url, { waitUntil: 'commit' });
    const signIn = (await noted('field')).at;
    const kB = kilobytes();
    // As somebody types who knows it by heart: six keys a second, the rest is fetched meanwhile.
    await page.getByLabel('Name').pressSequentially('ines', { delay: 160 });
    await page.getByLabel('Password').pressSequentially('shade-walks', { delay: 160 });
    await page.getByRole('button', { name: 'Sign in' }).click();
    const first = await noted('list');
    const listKB = kilobytes();
    await page.waitForTimeout(3000);
    await page.reload({ waitUntil: 'commit' });
    const again = await noted('list');
    await context.close();
    return {
      signIn,
      kB,
      list: first.at - first.clicked,
      listKB,
      held: first.held,
      again: again.at,
      heldAgain: again.held,
    };
  }

  const bare = createServer((_request, response) => {
    response.setHeader('content-type', 'text/html');
    response.end('<label>Name <input id="sign-in-name"></label><script>document.title = "A bare page";</script>');
  });
  await new Promise((resolve) => bare.listen(0, '127.0.0.1', resolve));
  const plain = [];
  for (let i = 0; i < runs; i++) {
    const { context, page, noted } = await newcomer();
    await page.goto(`http://127.0.0.1:${bare.address().port}`, { waitUntil: 'commit' });
    plain.push((await noted('field')).at);
    await context.close();
  }
  bare.close();

  const visits = [];
  for (let i = 0; i < runs; i++) visits.push(await visit());
  const median = (of) => at(visits.map(of), 0.5);
  console.log(
    `Sign-in usable: ${ms(median((one) => one.signIn))} after ${median((one) => one.kB).toFixed(0)} kB; a bare page ${ms(at(plain, 0.5))}`,
  );
  console.log(
    `List shown ${ms(median((one) => one.list))} later, ${median((one) => one.listKB).toFixed(0)} kB in all; held ${ms(median((one) => one.held))} beyond 50 ms a task`,
  );
  console.log(`Opened again: list after ${ms(median((one) => one.again))}, held ${ms(median((one) => one.heldAgain))}`);
  await browser.close();
}

await whenStarted(import.meta.url, {}, (rig) => firstView(rig));
