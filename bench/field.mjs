// npm run bench:field: a phone with 4 × slowed processor: cold open without the server, a tap, what 60 trees with their map
// weigh, and 1,000 records with 100 photos sent, beside the plain requests they come to.
import { chromium } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, connect } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { buildAll } from '../scripts/build.mjs';
import { chromiumPath } from '../scripts/packages.mjs';
import { at, ms, times, whenStarted } from './rig.mjs';

await buildAll();

/** A line to the server that can be cut: the phone keeps its address. */
async function lineTo(url) {
  const target = Number(new URL(url).port);
  const sockets = new Set();
  const server = createServer((near) => {
    const far = connect(target, '127.0.0.1');
    for (const [one, other] of [
      [near, far],
      [far, near],
    ]) {
      sockets.add(one);
      one.on('error', () => other.destroy());
      one.on('close', () => other.destroy());
      one.pipe(other);
    }
  });
  const listen = (port) => new Promise((resolve) => server.listen(port, '127.0.0.1', resolve));
  await listen(0);
  const { port } = server.address();
  return {
    url: `http://127.0.0.1:${port}`,
    mend: () => listen(port),
    async cut() {
      const closed = new Promise((resolve) => server.close(resolve));
      for (const socket of sockets) socket.destroy();
      await closed;
    },
  };
}

const photo = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

/** Lays records and photos into the outbox as the application does, and counts until the server has them. */
async function syncAll(page, client, { records, photos, spots, user }) {
  await page.evaluate(
    async ({ records, photos, spots, user, photo }) => {
      const open = indexedDB.open('sombra');
      const db = await new Promise((resolve) => (open.onsuccess = () => resolve(open.result)));
      const act = db.transaction(['entries', 'parcels'], 'readwrite');
      const bytes = Uint8Array.from(atob(photo), (c) => c.charCodeAt(0));
      const hex = (n) => n.toString(16).padStart(12, '0');
      const idOf = (n) => `0190b5c2-0000-7000-8000-${hex(n)}`;
      for (let n = 0; n < records; n++) {
        const facts = { task: 'looks', triedOn: new Date().toISOString().slice(0, 10), reason: `bench ${n}` };
        const made = { id: idOf(n), kind: 'not_done', recordedAt: new Date().toISOString(), supersedes: null, facts };
        const sent = { spotId: spots[n % spots.length], device: 'bench', spotVersion: null, format: 2, aheadMs: 0 };
        act
          .objectStore('entries')
          .put({ id: made.id, userId: user, sent: { ...sent, record: made }, madeAt: n, refused: null });
      }
      for (let n = 0; n < photos; n++) {
        const id = idOf(100_000 + n);
        const url = `/api/spots/${spots[n % spots.length]}/photos/${id}`;
        const body = new Blob([bytes], { type: 'image/png' });
        act
          .objectStore('parcels')
          .put({ id, userId: user, method: 'PUT', url, body, name: 'Photo', madeAt: n, refused: null });
      }
      await new Promise((resolve) => (act.oncomplete = resolve));
      db.close();
    },
    { records, photos, spots, user, photo },
  );
  const count = async () =>
    (
      await client.query(`select (select count(*)::int from field_record where device = 'bench') as records,
        (select count(*)::int from spot_photo where id::text like '0190b5c2%') as photos`)
    ).rows[0];
  const started = performance.now();
  await page.reload();
  for (;;) {
    const { records: kept, photos: seen } = await count();
    if (kept >= records && seen >= photos) return performance.now() - started;
    await page.waitForTimeout(50);
  }
}

/** Tells, from inside the page, when the link that begins the work and when the first question of the walk were painted. */
function tellWhenSeen() {
  const wanted = { link: ['a', /^(Begin|Go on)/], question: ['button', /^It is this tree/] };
  const watch = new MutationObserver(() => {
    for (const [what, [tag, words]] of Object.entries(wanted)) {
      const found = [...document.querySelectorAll(tag)].find((one) => words.test(one.textContent.trim()));
      if (!found) continue;
      delete wanted[what];
      requestAnimationFrame(() =>
        setTimeout(() => {
          const { x, y, width, height } = found.getBoundingClientRect();
          globalThis.tellSeen(what, Date.now(), [x + width / 2, y + height / 2]);
        }),
      );
    }
    if (Object.keys(wanted).length === 0) watch.disconnect();
  });
  watch.observe(document, { subtree: true, childList: true, characterData: true });
}

export async function field(
  { url, client, call, read },
  { trees = 60, records = 1000, photos = 100, taps = 20, opens = 5 } = {},
) {
  const people = await read('/api/assignments/people');
  const { id: userId } = people.find(({ role }) => role === 'inspector');
  const { lines } = await read(`/api/spots?planted=yes&limit=${trees}`);
  const spots = lines.map(({ spotId }) => spotId);
  const { today } = await read('/api/session');
  const assign = {
    id: randomUUID(),
    kind: 'looks',
    title: 'Bench',
    userId,
    until: today,
    spotIds: spots,
    deliveryId: null,
  };
  await call('POST', '/api/assignments', JSON.stringify(assign));

  const line = await lineTo(url);
  const folder = mkdtempSync(path.join(tmpdir(), 'sombra-bench-phone-'));
  const open = () =>
    chromium.launchPersistentContext(folder, {
      executablePath: chromiumPath,
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
      viewport: { width: 390, height: 844 },
      serviceWorkers: 'allow',
    });
  let context = await open();
  try {
    let page = context.pages()[0];
    const { csrfToken } = await (await page.request.get(`${line.url}/api/session`)).json();
    const headers = { 'x-csrf-token': csrfToken };
    const data = { signIn: 'marta', password: 'shade-walks' };
    const session = await (await page.request.post(`${line.url}/api/session`, { headers, data })).json();
    await page.goto(`${line.url}/along`);
    const said = page.getByText(/^Ready for \d+ trees/);
    await said.waitFor({ timeout: 120_000 });
    console.log(`taken along, ${spots.length} trees assigned and the role's own: ${await said.textContent()}`);
    const weigh = await page.evaluate(async (assigned) => {
      const open = indexedDB.open('sombra-along');
      const db = await new Promise((resolve) => (open.onsuccess = () => resolve(open.result)));
      const all = (name) =>
        new Promise((resolve) => {
          const asked = db.transaction(name).objectStore(name).getAll();
          asked.onsuccess = () => resolve(asked.result);
        });
      const sum = (list) => list.reduce((bytes, one) => bytes + one.bytes, 0);
      const tiles = await all('tiles');
      const kept = (await all('spots')).filter(({ id }) => assigned.includes(id));
      db.close();
      return { spots: sum(kept), tiles: sum(tiles), squares: tiles.filter(({ at }) => at.startsWith('17/')).length };
    }, spots);
    // A square of zoom 17 is 40,075 km × cos 36.9° / 2^17 wide.
    const km2 = weigh.squares * ((40_075 * Math.cos((36.9 * Math.PI) / 180)) / 2 ** 17) ** 2;
    const mb = (bytes) => `${(bytes / 1e6).toFixed(2)} MB`;
    console.log(
      `the ${spots.length} trees alone ${mb(weigh.spots)}; the map ${mb(weigh.tiles)} for ${km2.toFixed(1)} km²`,
    );
    await context.close();
    await line.cut();

    // A browser started anew each time: from asking for the page to the frame that shows the link that begins the work, then
    // a press on it in that moment to the first question. The page itself tells, by the same clock: whoever asks it while it
    // is slowed is slowed as well, and takes from it what it measures.
    const coldOpen = async (rate) => {
      context = await open();
      page = context.pages()[0];
      const told = { link: undefined, question: undefined };
      const seen = new Promise((resolve) => {
        void page.exposeFunction('tellSeen', (what, at, place) => {
          told[what] = at;
          if (what === 'link') resolve(place);
        });
      });
      await page.addInitScript(tellWhenSeen);
      const slowed = await context.newCDPSession(page);
      await slowed.send('Emulation.setCPUThrottlingRate', { rate });
      const started = Date.now();
      await page.goto(line.url, { waitUntil: 'commit' });
      const [x, y] = await seen;
      const pressed = Date.now();
      for (const type of ['mousePressed', 'mouseReleased']) {
        await slowed.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', clickCount: 1 });
      }
      while (told.question === undefined) {
        if (Date.now() - pressed > 30_000) throw new Error('the press was lost: what was pressed had moved');
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
      return { shown: told.link - started, begun: told.question - pressed, slowed };
    };
    const all = { 1: [], 4: [] };
    for (let i = 0; i < opens; i++) {
      for (const rate of [1, 4]) {
        all[rate].push(await coldOpen(rate));
        await context.close();
      }
    }
    const median = (rate, what) =>
      at(
        all[rate].map((one) => one[what]),
        0.5,
      );
    const [plain1, slowed4] = [median(1, 'shown'), median(4, 'shown')];
    const worst = Math.max(...all[4].map(({ shown }) => shown));
    console.log(
      `cold open offline to the link that begins, median of ${opens}: ${ms(plain1)}, at 4 × slowed (workers are not slowed) ${ms(slowed4)}, ${ms(worst)} at worst, ${(slowed4 / plain1).toFixed(1)} times`,
    );
    console.log(
      `pressed at once, to the first question: ${ms(median(1, 'begun'))}, at 4 × slowed ${ms(median(4, 'begun'))}`,
    );
    const { slowed: slow } = await coldOpen(4);
    await page.getByRole('button', { name: 'It is this tree' }).click();
    // From the press to the frame that shows the next question, on the page's own clock.
    const pressed = await page.evaluate(async (taps) => {
      const all = [];
      for (let i = 0; i < taps; i++) {
        const name = i % 2 === 0 ? 'Skip' : 'Back';
        const button = [...document.querySelectorAll('button')].find((one) => one.textContent.trim() === name);
        const from = performance.now();
        button.click();
        await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
        all.push(performance.now() - from);
      }
      return all;
    }, taps);
    console.log(
      `a tap to the next question at 4 × slowed: median ${ms(at(pressed, 0.5))}, p95 ${ms(at(pressed, 0.95))}`,
    );
    await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });

    await line.mend();
    await page.goto(`${line.url}/waiting`);
    const took = await syncAll(page, client, { records, photos, spots, user: session.user.id });
    const plain = await times(Math.min(20, records), () => read(`/api/spots/${spots[0]}`));
    const raw = at(plain, 0.5) * (records + 3 * photos);
    console.log(
      `${records} records and ${photos} photos sent: ${ms(took)}, ${ms(took / (records + photos))} each; as many plain reads of a spot ${ms(raw)}, ratio ${(took / raw).toFixed(1)}`,
    );
  } finally {
    await context.close();
    rmSync(folder, { recursive: true, force: true });
    await line.cut().catch(() => undefined);
  }
}

await whenStarted(import.meta.url, {}, (rig) => field(rig));
