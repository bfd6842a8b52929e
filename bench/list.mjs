// npm run bench:list [SPOTS] [SPECIES]: a season's list for 300 spots and 90 species (or as many as named), asked for
// through the server as the desk asks for it. Prints the time from asking to the answer beside the time of the solving
// alone, and the gap to the proven optimum. The aim it is held against: 20 s for 300 by 90.
import { performance } from 'node:perf_hooks';
import { v7 as uuidv7 } from 'uuid';
import { dice, whenStarted } from './rig.mjs';

const random = dice();
const pick = (list) => list[Math.floor(random() * list.length)];

export async function list({ call, read }, { spots = 300, kinds = 90 } = {}) {
  // Places as different as a town's: soils, strips, wires, light.
  const head = (await read('/api/spots?limit=1')).lines[0].place;
  const rows = Array.from({ length: spots }, (_, i) => `BENCH-${i},${head},-25.4,36.9`);
  await call(
    'POST',
    `/api/imports?fileName=n.csv&id=${uuidv7()}`,
    `ref,place,lng,lat\n${rows.join('\n')}\n`,
    'text/csv',
  );
  const made = [];
  for (let offset = 0; made.length < spots; offset += 200) {
    const { lines } = await read(`/api/spots?find=BENCH-&limit=200&offset=${offset}`);
    made.push(...lines.filter(({ ref }) => ref.startsWith('BENCH-')));
    if (lines.length === 0) break;
  }
  const example = (await read(`/api/spots/${(await read('/api/spots?stage=match&limit=1')).lines[0].spotId}`)).records;
  const factsOf = (kind) => example.find((record) => record.kind === kind).facts;
  const records = made.flatMap(({ spotId }) => {
    const ground = {
      ...factsOf('ground'),
      soil: pick(['sand', 'sandy_loam', 'loam', 'clay_loam', 'clay']),
      wireHeightM: pick(['none', 'none', 8, 10, 13]),
    };
    const assessment = {
      ...factsOf('assessment'),
      openSoilM2: 6 + Math.round(random() * 60),
      soilDepthMm: 600 + Math.round(random() * 600),
      sunHours: 3 + Math.round(random() * 9),
      soilPh: 5.5 + Math.round(random() * 25) / 10,
      soilTestedOn: '2026-11-02',
    };
    return [
      { kind: 'ground', facts: ground },
      { kind: 'assessment', facts: assessment },
    ].map((record, i) => ({
      spotId,
      device: 'bench',
      spotVersion: i + 1,
      record: { id: uuidv7(), recordedAt: new Date().toISOString(), supersedes: null, ...record },
    }));
  });
  for (let at = 0; at < records.length; at += 100) {
    await call('POST', '/api/records/batch', JSON.stringify({ records: records.slice(at, at + 100) }));
  }
  const library = (await read('/api/species')).slice(0, kinds);
  const offers = library.flatMap(({ species }) =>
    ['container', 'balled']
      .filter((kind) => species.transplant[kind] !== 'no')
      .map(
        (kind) =>
          `${species.botanical},${kind},${kind === 'balled' ? 60 : 40},,${60 + Math.round(random() * 140)},${2 + Math.floor(random() * 12)}`,
      ),
  );
  await call(
    'POST',
    '/api/offers/import?nursery=Bench',
    `species,stock_kind,caliper_mm,height_m,price,available\n${offers.join('\n')}\n`,
    'text/csv',
  );

  async function solve(title, budget) {
    const id = uuidv7();
    const ask = {
      id,
      title,
      spotIds: made.map(({ spotId }) => spotId),
      budget,
      plantOn: '2026-12-10',
      stockKinds: ['container', 'balled'],
      locks: [],
    };
    const began = performance.now();
    await call('POST', '/api/lists', JSON.stringify(ask));
    let now = await read(`/api/lists/${id}`);
    while (['queued', 'solving'].includes(now.state)) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      now = await read(`/api/lists/${id}`);
    }
    const s = ((performance.now() - began) / 1000).toFixed(1);
    const { result } = now;
    const gap = result.gap === null ? '–' : `${(result.gap * 100).toFixed(3)} %`;
    console.log(
      `${title}: ${now.state} in ${s} s, the solver ${result.seconds} s; ${result.picks.length} picks of ${offers.length} offers, ` +
        `${result.without.length} places without, gap ${gap}, fit ${result.worth.toFixed(1)}, cost ${result.cost}, ` +
        `${result.binding.length} limits bind, ${result.relax.length} to relax`,
    );
    return result;
  }
  console.log(`${made.length} spots, ${library.length} species`);
  const free = await solve('Without a budget', null);
  const tight = Math.round(free.cost * 0.85);
  await solve(`Budget ${tight}`, tight);
  await solve('Budget far too small', Math.round(free.cost * 0.2));
}

const [spots, kinds] = process.argv.slice(2).map(Number);
await whenStarted(import.meta.url, {}, (rig) => list(rig, { spots, kinds }));
