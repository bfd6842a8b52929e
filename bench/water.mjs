// npm run bench:water: the water of trees followed day by day, beside a bare loop of the same arithmetic without a tree,
// a store or a date: 250,000 trees through one day, and a season of 200 days for 1,500.
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { loadCore } from './core.mjs';
import { dice, ms } from './rig.mjs';

const core = `export { followWater, waterClimate, waterStart } from './core/src/water';
  export { middlingCrown } from './core/src/match';
  export { addDaysTo } from './core/src/calendar';`;

function subjects(next, count) {
  const kinds = ['container', 'balled', 'bare_root'];
  const soils = ['sand', 'sandy_loam', 'loam', 'clay_loam', 'clay', null];
  const drains = ['stands', 'slow', 'good', 'fast', null];
  const one = (all) => all[Math.floor(next() * all.length)];
  return (plantedOn, middlingCrown) =>
    Array.from({ length: count }, () => {
      const diameterMm = 400 + next() * 500;
      const heightMm = 300 + next() * 250;
      return {
        block: { diameterMm, heightMm, volumeL: (Math.PI / 4) * (diameterMm / 1000) ** 2 * heightMm },
        kind: one(kinds),
        soil: one(soils),
        percolation: one(drains),
        plantedOn,
        heightAtPlantingM: 2 + next() * 3,
        crown: middlingCrown,
        use: 0.3 + next() * 0.5,
        surface: 0.12,
        came: { share: 0.9, errorShare: 0.25 },
      };
    });
}

function weather(next, first, count, addDaysTo) {
  return Array.from({ length: count }, (_, i) => ({
    day: addDaysTo(first, i),
    rainMm: next() < 0.2 ? next() * 20 : 0,
    tMinC: 12 + next() * 5,
    tMaxC: 20 + next() * 12,
    humidityMinPct: 50,
    humidityMaxPct: 90,
    windMs: 3,
    radiationMj: 18,
  }));
}

/** The same sums for as many tree-days, of plain numbers that stand still: what the arithmetic alone costs. */
function bareLoop(trees, days) {
  let sum = 0;
  for (let t = 0; t < trees; t++) {
    let [ball, soil, variance, reach] = [20 + (t % 13), 40, 9, 0.03];
    for (let d = 0; d < days; d++) {
      const [et, rain] = [3 + (d % 5), d % 6 === 0 ? 8 : 0];
      reach += 0.0025;
      const area = (Math.PI / 4) * ((0.5 + 2 * reach) ** 2 - 0.25);
      const crown = 8 - 7 * Math.exp(-0.07 * (d / 365));
      const demand = et * 0.5 * 0.785 * crown * crown;
      const share = reach / (reach + 0.36);
      const take = (held, asked, most) =>
        held - asked > most / 2
          ? asked
          : held - (most / 2) * Math.exp(-(asked - Math.max(0, held - most / 2)) / (most / 2));
      ball = Math.min(55, ball + rain * 0.2);
      soil = Math.min(area * 200, soil + rain * area);
      ball -= Math.min(ball, take(ball, demand * (1 - share), 25));
      soil -= Math.min(soil, take(soil, demand * share, area * 60));
      const off = Math.min(8, Math.max(0, ball - 25));
      ball -= off;
      soil += off;
      variance = Math.min(80, variance + 0.25 + 0.04 * demand);
      sum += Math.sqrt(variance) + (ball > 40 ? 1 : 0);
    }
  }
  return sum;
}

export async function water({ trees = 250_000, season = 1500, days = 200 } = {}) {
  const { followWater, waterClimate, waterStart, middlingCrown, addDaysTo } = await loadCore(core);
  const next = dice();
  const plantedOn = '2026-03-01';
  const recorded = weather(next, plantedOn, days, addDaysTo);
  const station = { latDeg: 36.9, elevationM: 40 };
  const climate = waterClimate({ station, recorded, forecast: [] }, { windows: [], today: recorded.at(-1).day });
  const measure = (name, count, span) => {
    const all = subjects(next, count)(plantedOn, middlingCrown);
    const starts = all.map((subject) => waterStart(subject, plantedOn));
    const before = process.memoryUsage().heapUsed;
    const started = performance.now();
    let most = 0;
    let stressed = 0;
    for (const [i, subject] of all.entries()) {
      stressed += followWater(subject, starts[i], climate.past.slice(0, span)).to.stressDays;
      if (i % 1000 === 0) most = Math.max(most, process.memoryUsage().heapUsed);
    }
    const took = performance.now() - started;
    const bareStarted = performance.now();
    const kept = bareLoop(count, span);
    const bare = performance.now() - bareStarted;
    if (!Number.isFinite(kept + stressed)) throw new Error('no number came out');
    console.log(
      `${name}: ${ms(took)}; a bare loop ${ms(bare)}; ratio ${(took / bare).toFixed(1)}; memory up by at most ${Math.max(0, (most - before) / 1e6).toFixed(0)} MB`,
    );
  };
  measure(`${trees} trees × 1 day`, trees, 1);
  measure(`${season} trees × ${days} days`, season, days);
}

if (pathToFileURL(process.argv[1] ?? '').href === import.meta.url) await water();
