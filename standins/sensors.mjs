// Simulated feed of moisture sensors: one that is sound, one that hangs at a value, one that drifts. Run it alone:
// node standins/sensors.mjs [PORT]. Values are made from the hour, so that asking twice gives the same.
//   GET /sensors -> [{id, ref}]     GET /sensors/ID/values?from=INSTANT&until=INSTANT -> [{at, share}]
import { createServer } from 'node:http';

const hourMs = 3_600_000;
const usual = [
  { id: 'S-1', ref: 'K-0117', of: 'sound' },
  { id: 'S-2', ref: 'K-0118', of: 'hangs' },
  { id: 'S-3', ref: 'K-0119', of: 'drifts' },
];

/** Of what a ball holds, in ground that stands in water. A ball breathes with the day; one that drifts sinks by a twentieth a day. */
function shareAt(of, at, until) {
  const day = Math.sin((at / hourMs / 24) * 2 * Math.PI);
  if (of === 'hangs') return 0.52;
  if (of === 'drifts') return 1.2 + 0.02 * day + (0.05 * (until - at)) / (24 * hourMs);
  return 2 + 0.03 * day;
}

export function startSensors(port = 0, sensors = usual) {
  const server = createServer((request, response) => {
    const url = new URL(request.url, 'http://sensors');
    const answer = (status, body) => {
      response.writeHead(status, { 'content-type': 'application/json' });
      response.end(JSON.stringify(body));
    };
    if (url.pathname === '/sensors')
      return answer(
        200,
        sensors.map(({ id, ref }) => ({ id, ref })),
      );
    const [, id] = /^\/sensors\/([^/]+)\/values$/.exec(url.pathname) ?? [];
    const sensor = sensors.find((one) => one.id === decodeURIComponent(id ?? ''));
    if (!sensor) return answer(404, {});
    const [from, until] = ['from', 'until'].map((name) => Date.parse(url.searchParams.get(name) ?? ''));
    if (!Number.isFinite(from) || !Number.isFinite(until)) return answer(400, {});
    const first = Math.ceil(from / hourMs) * hourMs;
    const now = Math.min(until, Date.now());
    const values = [];
    for (let at = first; at < now && values.length < 1000; at += hourMs) {
      values.push({ at: new Date(at).toISOString(), share: Number(shareAt(sensor.of, at, Date.now()).toFixed(4)) });
    }
    return answer(200, values);
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () =>
      resolve({ url: `http://127.0.0.1:${server.address().port}`, stop: () => server.close() }),
    );
  });
}

if (process.argv[1]?.endsWith('sensors.mjs')) {
  const { url } = await startSensors(Number(process.argv[2] ?? 0));
  console.log(`Simulated moisture sensors at ${url}/sensors`);
}
