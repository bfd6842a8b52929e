// npm run bench:cards [COUNT]: spot cards for 500 spots (or as many as named) in one PDF, A5 and four a sheet, asked
// for as the screen asks. Prints the time to the first page and to the last, the server's memory before and at its
// most, and beside it the same for a tenth of the cards: memory that grows with the count would show in the ratio.
// Beside it too: how long a tap elsewhere waits while cards are drawn. The aim: 500 within 60 s.
import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { ms, whenStarted } from './rig.mjs';

export async function cards({ call, read, serverPid }, { count = 500 } = {}) {
  // Planted trees have a plan as well: enough of them stand in the town.
  const spots = [];
  for (let offset = 0; spots.length < count; offset += 200) {
    const { lines } = await read(`/api/spots?planted=yes&limit=200&offset=${offset}`);
    if (lines.length === 0) break;
    spots.push(...lines.map(({ spotId }) => spotId));
  }

  const memoryMb = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${serverPid}/status`, 'utf8'))[1]) / 1024;

  async function print(howMany, layout) {
    const before = memoryMb();
    let most = before;
    const watch = setInterval(() => (most = Math.max(most, memoryMb())), 20);
    const taps = [];
    let drawing = true;
    const tapping = (async () => {
      while (drawing) {
        const started = performance.now();
        await (await call('GET', '/api/session')).arrayBuffer();
        taps.push(performance.now() - started);
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    })();
    const started = performance.now();
    const answer = await call('POST', '/api/cards', JSON.stringify({ spots: spots.slice(0, howMany), layout }));
    let [first, bytes] = [0, 0];
    for await (const piece of answer.body) {
      if (first === 0) first = performance.now() - started;
      bytes += piece.length;
    }
    const whole = performance.now() - started;
    drawing = false;
    await tapping;
    clearInterval(watch);
    taps.sort((a, b) => a - b);
    console.log(
      `${howMany} cards, ${layout}: first bytes ${ms(first)}, whole ${ms(whole)} (${ms(whole / howMany)} a card), ` +
        `${(bytes / 1e6).toFixed(1)} MB; memory ${before.toFixed(0)} MB, most ${most.toFixed(0)} MB; ` +
        `a tap meanwhile: median ${ms(taps[Math.floor(taps.length / 2)])}, slowest ${ms(taps.at(-1))}`,
    );
    return { whole, grown: most - before };
  }

  await print(Math.min(25, spots.length), 'a5');
  for (const layout of ['a5', 'four']) {
    const tenth = await print(Math.round(spots.slice(0, count).length / 10), layout);
    const all = await print(Math.min(count, spots.length), layout);
    console.log(`  ratio to a tenth: time ${(all.whole / tenth.whole).toFixed(1)} ×`);
  }
}

const [count] = process.argv.slice(2).map(Number);
await whenStarted(import.meta.url, {}, (rig) => cards(rig, { count }));
