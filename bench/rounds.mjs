// npm run bench:rounds [REFERENCE_S]: rounds of watering trucks. Small ones beside the optimum HiGHS proves over every way
// to share the stops out, each in its best order; a large one (400 stops, 3 trucks) beside a reference run that searches
// REFERENCE_S seconds (600 where none is said) and beside the least that can be; large ones built around a known optimum.
import loadHighs from 'highs';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { loadCore } from './core.mjs';
import { dice, ms } from './rig.mjs';

const core = `export { seekRounds, simpleRounds, RoundBoard, leastMinutes } from './core/src/water';
  export { runModel } from './server/src/match/run-model';`;

const pct = (share) => `${(100 * share).toFixed(2)} %`;
const metresOf = (at) => at.map(([x, y]) => at.map(([u, v]) => 1.35 * Math.hypot(x - u, y - v)));

function taskOf(next, { stops: count, trucks, fills = 2, tankL, shiftMinutes, widthM = 3000 }) {
  const point = () => [next() * widthM, next() * widthM * 0.7];
  const stops = Array.from({ length: count }, (_, i) => ({
    id: `s${i}`,
    litres: 15 + Math.floor(next() * 60),
    weight: next() < 0.3 ? 3 : 1,
    minutes: 2,
  }));
  const depot = point();
  const truck = (i) => ({ id: `t${i}`, tankL, pourLPerMin: 40, kmPerH: 22, shiftMinutes });
  return {
    stops,
    fills: Array.from({ length: fills }, (_, i) => ({ id: `f${i}`, flowLPerMin: 120 - 40 * i, minutes: 4 })),
    trucks: Array.from({ length: trucks }, (_, i) => truck(i)),
    metres: metresOf([
      ...stops.map(point),
      ...Array.from({ length: fills }, point),
      ...Array.from({ length: trucks }, () => depot),
    ]),
  };
}

/** The least time in which a truck serves each set of stops, by trying every order; Infinity where it cannot. */
function bestOfSets(board, truck, count) {
  const best = Array(2 ** count).fill(Infinity);
  best[0] = 0;
  const extend = (route, set) => {
    if (set > 0) best[set] = Math.min(best[set], board.time(truck, route));
    for (let stop = 0; stop < count; stop++) {
      if (!(set & (1 << stop))) extend([...route, stop], set | (1 << stop));
    }
  };
  extend([], 0);
  return best;
}

/** The least cost of sharing the stops out: minutes of all trucks, and what the stops left out cost. */
function optimum({ RoundBoard, runModel }, highs, task) {
  const board = new RoundBoard(task);
  const n = task.stops.length;
  const cols = [];
  for (let t = 0; t < task.trucks.length; t++) {
    bestOfSets(board, t, n).forEach((minutes, set) => {
      if (minutes <= task.trucks[t].shiftMinutes) cols.push({ t, set, cost: minutes });
    });
  }
  for (let stop = 0; stop < n; stop++) cols.push({ t: -1, set: 1 << stop, cost: board.leftCost(stop) });
  const rows = [
    ...task.trucks.map((_truck, t) => (col) => col.t === t),
    ...task.stops.map((_stop, stop) => (col) => (col.set & (1 << stop)) !== 0),
  ];
  const starts = [0];
  const indices = [];
  const values = [];
  for (const holds of rows) {
    cols.forEach((col, i) => {
      if (!holds(col)) return;
      indices.push(i);
      values.push(1);
    });
    starts.push(indices.length);
  }
  const model = {
    cost: cols.map(({ cost }) => cost),
    colUpper: cols.map(() => 1),
    integer: cols.map(() => true),
    rowLower: rows.map(() => 1),
    rowUpper: rows.map(() => 1),
    starts,
    indices,
    values,
    maximise: false,
  };
  const solved = runModel(highs, model, { limitS: 60 });
  if (solved.kind !== 'solved') throw new Error('HiGHS proved no optimum');
  return model.cost.reduce((sum, cost, i) => sum + cost * solved.values[i], 0);
}

/** Each truck with a ring of stops around its own depot, far from the others: once round each ring is best. */
function ringsTask(next, { rings, each }) {
  const depots = Array.from({ length: rings }, (_, r) => [r * 40_000 + 800, 0]);
  const stops = [];
  for (let r = 0; r < rings; r++) {
    for (let i = 1; i <= each; i++) {
      const angle = (2 * Math.PI * i) / (each + 1);
      stops.push([r * 40_000 + 800 * Math.cos(angle), 800 * Math.sin(angle)]);
    }
  }
  const order = stops.map((at) => ({ at, by: next() })).sort((a, b) => a.by - b.by);
  const side = 1.35 * 2 * 800 * Math.sin(Math.PI / (each + 1));
  const atStops = stops.length * (2 + 10 / 40);
  const task = {
    stops: order.map((_one, i) => ({ id: `s${i}`, litres: 10, weight: 1, minutes: 2 })),
    fills: [],
    trucks: depots.map((_at, i) => ({ id: `t${i}`, tankL: 40_000, pourLPerMin: 40, kmPerH: 30, shiftMinutes: 1440 })),
    metres: metresOf([...order.map(({ at }) => at), ...depots]),
  };
  return { task, optimum: atStops + (rings * (each + 1) * side) / 500 };
}

export async function rounds({
  cases = 12,
  smallStops = 7,
  tries = 20_000,
  stops = 400,
  large = 300_000,
  referenceS = 600,
  ringStops = 60,
} = {}) {
  const parts = await loadCore(core);
  const { seekRounds, simpleRounds, leastMinutes } = parts;
  const highs = await loadHighs();
  const next = dice();
  const gaps = [];
  for (let i = 0; i < cases; i++) {
    const asked = { stops: smallStops, trucks: 2, tankL: 150, shiftMinutes: i % 3 === 0 ? 40 : 240 };
    const task = taskOf(next, asked);
    gaps.push(seekRounds(task, { seed: i + 1, tries }).cost / optimum(parts, highs, task) - 1);
  }
  console.log(
    `${cases} rounds of 2 trucks and ${smallStops} stops: over the proven optimum ${pct(Math.max(...gaps))} at most, ${pct(gaps.reduce((a, b) => a + b, 0) / cases)} in the mean`,
  );

  const task = taskOf(next, { stops, trucks: 3, tankL: 1000, shiftMinutes: Math.min(1440, stops * 3) });
  const started = performance.now();
  const plan = seekRounds(task, { seed: 1, tries: large });
  const took = performance.now() - started;
  const until = performance.now() + referenceS * 1000;
  // A reference is cooled over its time: as many tries as fit, by how fast the search above went.
  const fit = Math.max(large, Math.round((referenceS * 1000 * large) / took));
  const reference = seekRounds(task, { seed: 2, tries: fit, goOn: () => performance.now() < until });
  const simple = simpleRounds(task);
  console.log(
    `${stops} stops, 3 trucks in ${ms(took)}; cost beside a reference of ${referenceS} s ${(plan.cost / reference.cost).toFixed(4)}, beside rounds without a search ${(plan.cost / simple.cost).toFixed(3)}; over the least that can be ${pct(plan.cost / leastMinutes(task) - 1)}; left ${plan.left.length} (reference ${reference.left.length})`,
  );

  for (const rings of [1, 3]) {
    const { task: ring, optimum: known } = ringsTask(next, { rings, each: ringStops });
    const found = seekRounds(ring, { seed: 1, tries: large });
    console.log(`${rings * ringStops} stops on ${rings} rings: over the known optimum ${pct(found.cost / known - 1)}`);
  }
}

if (pathToFileURL(process.argv[1] ?? '').href === import.meta.url) {
  await rounds({ referenceS: Number(process.argv[2] ?? 600) });
}
