// npm run bench:teams: teams for a planting day. Small days beside the optimum HiGHS proves, of every way to share the
// trees out among teams that stand; a large one (60 people, 60 spots) beside the plan without a search and beside a
// reference run of ten times as many tries. Prints costs as ratios and the time of a search.
import loadHighs from 'highs';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { loadCore } from './core.mjs';
import { dice, ms } from './rig.mjs';

const core = `export { seekTeams, simplePlan, scoreTeams, defaultTeamRules } from './core/src/day';
  export { runModel } from './server/src/match/run-model';`;

const helper = (id, skill) => ({
  id,
  skill,
  minor: false,
  guardianId: null,
  together: null,
  noLifting: false,
  waiver: true,
});

function dayOf(next, { people, spots, minutes }, rules) {
  const helpers = Array.from({ length: people }, (_, i) =>
    helper(`p${i}`, i % 3 === 0 ? 'leads' : next() < 0.5 ? 'has_planted' : 'first_time'),
  );
  const at = Array.from({ length: spots + 1 }, () => [next() * 700, next() * 250]);
  const jobs = Array.from({ length: spots }, (_, i) => ({ spotId: `s${i}`, hours: 1.2 + next() * 2.4, lifters: 1 }));
  const walkMin = at.map(([x, y]) => at.map(([u, v]) => (Math.hypot(x - u, y - v) * 1.35) / 70));
  return { helpers, jobs, walkMin, minutes, rules };
}

/** Shortest way from the gathering place through each set of trees, by dynamic programming over sets. */
function shortestWays({ jobs, walkMin }) {
  const n = jobs.length;
  const best = Array.from({ length: 2 ** n }, () => Array(n).fill(Infinity));
  for (let j = 0; j < n; j++) best[1 << j][j] = walkMin[n][j];
  for (let set = 1; set < 2 ** n; set++) {
    for (let j = 0; j < n; j++) {
      if (best[set][j] === Infinity) continue;
      for (let k = 0; k < n; k++) {
        if (set & (1 << k)) continue;
        const into = set | (1 << k);
        best[into][k] = Math.min(best[into][k], best[set][j] + walkMin[j][k]);
      }
    }
  }
  return best.map((row, set) => (set === 0 ? 0 : Math.min(...row)));
}

/** The least cost of sharing all trees out among teams of these strengths: last + 2·mean walk + mean unevenness. */
function optimum(highs, runModel, task, strengths) {
  const n = task.jobs.length;
  const ways = shortestWays(task);
  const teams = strengths.length;
  const cols = [];
  for (let t = 0; t < teams; t++) {
    for (let set = 0; set < 2 ** n; set++) {
      const hours = task.jobs.reduce((sum, { hours: h }, j) => sum + (set & (1 << j) ? h : 0), 0);
      const minutes = ways[set] + (hours * 60) / strengths[t];
      if (minutes <= task.minutes) cols.push({ t, set, minutes, walk: ways[set] });
    }
  }
  const [last, dev] = [cols.length, cols.length + 1];
  const count = cols.length + 1 + teams;
  const rows = [];
  const row = (lower, upper, entries) => rows.push({ lower, upper, entries });
  for (let t = 0; t < teams; t++)
    row(
      1,
      1,
      cols.flatMap((col, i) => (col.t === t ? [[i, 1]] : [])),
    );
  for (let j = 0; j < n; j++)
    row(
      1,
      1,
      cols.flatMap((col, i) => (col.set & (1 << j) ? [[i, 1]] : [])),
    );
  for (let t = 0; t < teams; t++) {
    row(0, Infinity, [...cols.flatMap((col, i) => (col.t === t ? [[i, -col.minutes]] : [])), [last, 1]]);
    for (const sign of [1, -1]) {
      // dev ≥ ±(finish of the team − mean of all finishes)
      const off = cols.map((col, i) => [i, -sign * ((col.t === t ? col.minutes : 0) - col.minutes / teams)]);
      row(0, Infinity, [...off, [dev + t, 1]]);
    }
  }
  const starts = [0];
  const indices = [];
  const values = [];
  for (const { entries } of rows) {
    for (const [i, v] of entries) {
      indices.push(i);
      values.push(v);
    }
    starts.push(indices.length);
  }
  const model = {
    cost: Array.from({ length: count }, (_, i) =>
      i < cols.length ? (2 * cols[i].walk) / teams : i === last ? 1 : 1 / teams,
    ),
    colUpper: Array.from({ length: count }, (_, i) => (i < cols.length ? 1 : Infinity)),
    integer: Array.from({ length: count }, (_, i) => i < cols.length),
    rowLower: rows.map(({ lower }) => lower),
    rowUpper: rows.map(({ upper }) => upper),
    starts,
    indices,
    values,
    maximise: false,
  };
  const solved = runModel(highs, model, { limitS: 60 });
  if (solved.kind !== 'solved') return null;
  return model.cost.reduce((sum, cost, i) => sum + cost * solved.values[i], 0);
}

export async function teams({
  cases = 12,
  smallSpots = 8,
  tries = 20_000,
  people = 60,
  spots = 60,
  large = 160_000,
} = {}) {
  const { seekTeams, simplePlan, scoreTeams, defaultTeamRules, runModel } = await loadCore(core);
  const highs = await loadHighs();
  const next = dice();
  const gaps = [];
  for (let i = 0; i < cases; i++) {
    const task = dayOf(next, { people: 9, spots: smallSpots, minutes: 420 }, defaultTeamRules);
    const standing = [0, 1, 2].map((t) => ({
      leadId: `p${3 * t}`,
      helperIds: [0, 1, 2].map((k) => `p${3 * t + k}`),
      spotIds: [],
    }));
    const locks = { teams: standing, helperIds: new Set(task.helpers.map(({ id }) => id)), spotIds: new Set() };
    const plan = seekTeams(task, { seed: i + 1, tries, locks });
    const strengths = scoreTeams(task, standing).scores.map(({ strength }) => strength);
    const least = optimum(highs, runModel, task, strengths);
    if (least === null) throw new Error('HiGHS proved no optimum');
    if (plan.left.spots.length > 0) throw new Error('a tree was left where all of them fit');
    gaps.push(plan.cost / least - 1);
  }
  const pct = (share) => `${(100 * share).toFixed(2)} %`;
  console.log(
    `${cases} days of 3 teams and ${smallSpots} trees: over the proven optimum ${pct(Math.max(...gaps))} at most, ${pct(gaps.reduce((a, b) => a + b, 0) / cases)} in the mean`,
  );

  const task = dayOf(next, { people, spots, minutes: 300 }, defaultTeamRules);
  const started = performance.now();
  const plan = seekTeams(task, { seed: 1, tries: large });
  const took = performance.now() - started;
  const [simple, reference] = [simplePlan(task), seekTeams(task, { seed: 2, tries: 10 * large })];
  console.log(
    `${people} people, ${spots} trees, ${plan.teams.length} teams in ${ms(took)}; cost beside a reference of ten times the tries ${(plan.cost / reference.cost).toFixed(3)}, beside the plan without a search ${(plan.cost / simple.cost).toFixed(3)}; left ${plan.left.spots.length} trees (reference ${reference.left.spots.length}, without a search ${simple.left.spots.length})`,
  );
}

if (pathToFileURL(process.argv[1] ?? '').href === import.meta.url) await teams();
