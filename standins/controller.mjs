// Simulated controller of valves. It opens each valve at 05:00 UTC on its days, by the programme it was told last, and
// says when. Run it alone: node standins/controller.mjs [PORT]. It forgets everything when it stops.
//   PUT /zones/ID {minutes, everyDays, timesADay}     GET /zones/ID/runs?since=INSTANT -> [{at, minutes}]
//   POST /clock {now: INSTANT}: goes on from there, so that days can be told without waiting for them
import { createServer } from 'node:http';

const dayMs = 86_400_000;
const hourMs = 3_600_000;
const opensAtHour = 5;

/** When a valve opened under one programme, from one instant to another. */
function runsOf({ minutes, everyDays, timesADay }, from, until) {
  const runs = [];
  if (minutes <= 0) return runs;
  const first = Math.floor(from / dayMs) * dayMs;
  for (let day = first, i = 0; day <= until; day += dayMs, i += 1) {
    if (i % everyDays !== 0) continue;
    for (let turn = 0; turn < timesADay; turn += 1) {
      const at = day + (opensAtHour + 2 * turn) * hourMs;
      if (at >= from && at + minutes * 60_000 <= until) runs.push({ at, minutes });
    }
  }
  return runs;
}

const body = async (request) => {
  const parts = [];
  for await (const part of request) parts.push(part);
  return JSON.parse(Buffer.concat(parts).toString() || 'null');
};

export function startController(port = 0) {
  const zones = new Map();
  let aheadMs = 0;
  const now = () => Date.now() + aheadMs;

  const answer = async (request) => {
    const url = new URL(request.url, 'http://controller');
    if (request.method === 'POST' && url.pathname === '/clock') {
      const { now: wanted } = await body(request);
      aheadMs = Date.parse(wanted) - Date.now();
      return [200, {}];
    }
    const [, id, runs] = /^\/zones\/([^/]+)(\/runs)?$/.exec(url.pathname) ?? [];
    if (!id) return [404, {}];
    const told = zones.get(id) ?? [];
    if (request.method === 'PUT' && !runs) {
      const programme = await body(request);
      if (![programme?.minutes, programme?.everyDays, programme?.timesADay].every(Number.isFinite)) return [400, {}];
      zones.set(id, [...told, { at: now(), programme }]);
      return [200, {}];
    }
    if (request.method !== 'GET' || !runs) return [405, {}];
    const since = Date.parse(url.searchParams.get('since') ?? '') || 0;
    const all = told.flatMap(({ at, programme }, i) => runsOf(programme, at, told[i + 1]?.at ?? now()));
    return [
      200,
      all.filter(({ at }) => at > since).map(({ at, minutes }) => ({ at: new Date(at).toISOString(), minutes })),
    ];
  };

  const server = createServer((request, response) => {
    answer(request)
      .catch(() => [400, {}])
      .then(([status, said]) => {
        response.writeHead(status, { 'content-type': 'application/json' });
        response.end(JSON.stringify(said));
      });
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () => {
      resolve({ url: `http://127.0.0.1:${server.address().port}`, stop: () => server.close() });
    });
  });
}

if (process.argv[1]?.endsWith('controller.mjs')) {
  const { url } = await startController(Number(process.argv[2] ?? 0));
  console.log(`Simulated controller of valves at ${url}`);
}
