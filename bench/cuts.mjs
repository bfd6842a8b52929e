// npm run bench:cuts: staged root cuts of so many roots in arrangements of five sorts, beside a bare loop over all sets of
// as many roots, which any exact plan has to weigh at least once where nothing is told of them beforehand.
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { loadCore } from './core.mjs';
import { at, dice, ms } from './rig.mjs';

/** Arcs long and short, roots alike and not, few and nearly all of them holding the tree. */
function arrangement(next, { sort, count }) {
  const mm = () => (sort === 2 ? 15 : sort === 3 ? 10 + Math.floor(next() * 4) : 6 + Math.floor(next() * 40));
  const roots = Array.from({ length: count }, () => {
    const fromDeg = Math.floor(next() * 360);
    const longDeg = Math.floor(5 + next() * (sort === 1 ? 200 : 90));
    const nature = next() < (sort === 4 ? 0.9 : 0.3) ? { nature: 'structural' } : {};
    return { arc: { fromDeg, toDeg: (fromDeg + longDeg) % 360 }, diameterMm: mm(), ...nature };
  });
  const anchors = Array.from({ length: Math.floor(next() * 7) }, () => ({
    bearingDeg: Math.floor(next() * 360),
    diameterMm: 10 + Math.floor(next() * 60),
  }));
  return { roots, anchors };
}

function bareLoop(count) {
  let sum = 0;
  for (let set = 0; set < 1 << count; set++) sum += set & -set;
  return sum;
}

const timed = (work) => {
  const began = performance.now();
  work();
  return performance.now() - began;
};

export async function cuts({ cases = 150, counts = [12, 16, 20] } = {}) {
  const { stagedCuts } = await loadCore(`export { stagedCuts } from './core/src/inspect';`);
  for (const count of counts) {
    const next = dice(7);
    const took = Array.from({ length: cases }, (_, i) => {
      const tree = arrangement(next, { sort: i % 5, count });
      const seasonCapPct = [15, 20, 25, 33, 10][Math.floor(i / 5) % 5];
      return timed(() => stagedCuts({ ...tree, seasonCapPct, referRootOverMm: 80 }));
    });
    const bare = Array.from({ length: 5 }, () => timed(() => bareLoop(count)));
    const [half, most, loop] = [at(took, 0.5), Math.max(...took), at(bare, 0.5)];
    console.log(
      `${count} roots: median ${ms(half)}, p90 ${ms(at(took, 0.9))}, at worst ${ms(most)}; all sets ${ms(loop)}; ratio ${(half / loop).toFixed(1)}`,
    );
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await cuts();
