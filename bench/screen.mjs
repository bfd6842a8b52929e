// npm run bench:screen [COUNT]: frames while a long list is scrolled and the map of 250,000 spots (or COUNT) is panned
// and zoomed, in headless Chromium without a graphics card, beside frames of a bare page scrolled in the same browser.
import { chromium } from '@playwright/test';
import { buildAll } from '../scripts/build.mjs';
import { chromiumPath } from '../scripts/packages.mjs';
import { whenStarted } from './rig.mjs';

await buildAll();

export async function screen({ url }, { moves = 120 } = {}) {
  const browser = await chromium.launch({
    executablePath: chromiumPath,
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

  const startFrames = () =>
    page.evaluate(() => {
      window.frames_ = [];
      let last = performance.now();
      const tick = (now) => {
        window.frames_.push(now - last);
        last = now;
        window.ticking = requestAnimationFrame(tick);
      };
      window.ticking = requestAnimationFrame(tick);
    });
  const stopFrames = () =>
    page.evaluate(() => {
      cancelAnimationFrame(window.ticking);
      return window.frames_.slice(1);
    });

  async function measure(name, act) {
    await startFrames();
    await act();
    const frames = (await stopFrames()).sort((a, b) => a - b);
    const at = (share) => frames[Math.min(frames.length - 1, Math.floor(frames.length * share))].toFixed(0);
    const slow = ((100 * frames.filter((ms) => ms > 50).length) / frames.length).toFixed(1);
    console.log(
      `${name}: ${frames.length} frames, median ${at(0.5)} ms, p95 ${at(0.95)} ms, longest ${at(1)} ms; ${slow} % over 50 ms`,
    );
  }

  async function wheel(times, step) {
    for (let i = 0; i < times; i++) {
      await page.mouse.wheel(0, step);
      await page.waitForTimeout(16);
    }
  }

  await page.setContent(
    `<div style="height:700px;overflow-y:scroll">${'<p>A plain line of a plain page</p>'.repeat(3000)}</div>`,
  );
  await page.mouse.move(300, 300);
  await measure('a bare page of 3 000 lines, scrolled', () => wheel(moves, 120));

  await page.goto(url);
  await page.getByLabel('Name').fill('ines');
  await page.getByLabel('Password').fill('shade-walks');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('navigation', { name: 'Work order' }).waitFor();
  await page.goto(`${url}/town?as=list&find=Z-0`);
  await page.getByRole('link', { name: 'Z-000000' }).waitFor();
  await page.mouse.move(400, 500);
  console.log(`list of ${await page.locator('.count').textContent()}`);
  await measure('the list, scrolled line by line', () => wheel(moves, 120));
  await measure('the list, scrolled in leaps', () => wheel(60, 40_000));

  for (const [name, zoom] of [
    ['far out, counts', 12.2],
    ['marks', 15.3],
    ['near, names', 17.6],
  ]) {
    await page.goto(`${url}/town?as=map&at=${zoom}/36.9/-25.41`);
    await page.locator('.maplibregl-canvas').waitFor();
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(2500);
    await measure(`the map (${name}), panned`, async () => {
      await page.mouse.move(450, 500);
      await page.mouse.down();
      for (let i = 0; i < moves; i++) {
        await page.mouse.move(450 + 130 * Math.sin(i / 12), 500 + 90 * Math.cos(i / 9));
        await page.waitForTimeout(16);
      }
      await page.mouse.up();
      await page.waitForTimeout(400);
    });
    await measure(`the map (${name}), zoomed`, async () => {
      await wheel(12, -90);
      await page.waitForTimeout(600);
      await wheel(12, 90);
      await page.waitForTimeout(600);
    });
  }
  await browser.close();
}

await whenStarted(import.meta.url, { spots: Number(process.argv[2] ?? 250_000) }, (rig) => screen(rig));
