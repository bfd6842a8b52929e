// Every bench, small, on one server: so that none rots. Part of npm test; what it prints says nothing of speed.
import { cards } from './cards.mjs';
import { cuts } from './cuts.mjs';
import { field } from './field.mjs';
import { firstView } from './first-view.mjs';
import { list } from './list.mjs';
import { looks } from './looks.mjs';
import { map } from './map.mjs';
import { openRig, whenStarted } from './rig.mjs';
import { doors } from './run.mjs';
import { screen } from './screen.mjs';
import { rounds } from './rounds.mjs';
import { teams } from './teams.mjs';
import { town } from './town.mjs';
import { water } from './water.mjs';

async function all(rig) {
  await teams({ cases: 1, smallSpots: 5, tries: 2000, people: 9, spots: 6, large: 2000 });
  await water({ trees: 200, season: 5, days: 20 });
  await rounds({ cases: 1, smallStops: 4, tries: 500, stops: 12, large: 500, referenceS: 0.05, ringStops: 6 });
  await cuts({ cases: 5, counts: [8] });
  await doors(rig, { runs: 2, rows: 50 });
  await town(rig, { runs: 2, rows: 50, people: 3, seconds: 1, adopting: 1 });
  await map(rig, { perZoom: 2, pages: 2 });
  await looks(rig, { runs: 2 });
  await list(rig, { spots: 6, kinds: 8 });
  await cards(rig, { count: 10 });
  await screen(rig, { moves: 5 });
  await firstView(rig, { runs: 1, slower: 1 });
  await field(rig, { trees: 3, records: 6, photos: 2, taps: 4 });
}

export async function small() {
  const rig = await openRig({ spots: 2500 });
  try {
    await all(rig);
  } finally {
    await rig.close();
  }
}

await whenStarted(import.meta.url, { spots: 2500 }, all);
