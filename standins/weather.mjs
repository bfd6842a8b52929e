// Simulated weather service: two stations of the demo town, what they measured and what is forecast, hour by hour.
//   GET /stations -> [{ id, name, position: [lng, lat] }]
//   GET /stations/ID/hours?from=ISO&hours=N -> [{ at, source, rainMm, temperatureC, humidityPct, gustMs, thunderKm, soilC }]
// Hours that are over are `recorded`, others `forecast`, ten days ahead. `STORM=YYYY-MM-DDTHH` brings thunder then.
// Run it alone: node standins/weather.mjs [PORT]
import { createServer } from 'node:http';

const stations = [
  { id: 'harbour', name: 'Harbour mole', position: [-25.4085, 36.8962], heightM: 6 },
  { id: 'terrace', name: 'Upper Terrace school', position: [-25.4012, 36.9078], heightM: 74 },
];
const forecastHours = 240;
const hourMs = 3_600_000;

/** The same hour is the same weather whoever asks, and however often. */
function noise(seed) {
  let x = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b);
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35);
  return ((x ^ (x >>> 16)) >>> 0) / 4294967296;
}

/** Between the values of whole steps, smoothly. */
function smooth(seed, at) {
  const from = Math.floor(at);
  const t = at - from;
  const ease = t * t * (3 - 2 * t);
  return noise(seed + from * 7919) * (1 - ease) + noise(seed + (from + 1) * 7919) * ease;
}

const round = (value, digits = 1) => Number(value.toFixed(digits));

export function weatherAt(station, ms, storms = []) {
  const hour = Math.floor(ms / hourMs);
  const at = new Date(ms);
  const day =
    (Date.UTC(at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate()) - Date.UTC(at.getUTCFullYear(), 0, 1)) /
    86_400_000;
  const warmth = Math.cos((2 * Math.PI * (day - 227)) / 365);
  const swing = Math.cos((2 * Math.PI * (at.getUTCHours() - 14)) / 24);
  const front = smooth(11, hour / 31);
  const wet = Math.max(0, front - 0.68) / 0.32;
  const thunder = storms.includes(at.toISOString().slice(0, 13));
  const temperatureC = 18.2 + 4.4 * warmth + 2.6 * swing + 2 * (smooth(5, hour / 40) - 0.5) - station.heightM * 0.0065;
  return {
    at: new Date(hour * hourMs).toISOString(),
    rainMm: thunder ? 11 : round(wet * 4.5 * noise(hour + 3)),
    temperatureC: round(temperatureC),
    humidityPct: Math.round(Math.min(98, 68 + 22 * wet - 6 * swing)),
    gustMs: thunder ? 19 : round(4 + 9 * smooth(23, hour / 17) * (0.6 + 0.4 * front)),
    thunderKm: thunder ? 3 : null,
    soilC: round(17.5 + 3.8 * warmth + 0.6 * swing),
  };
}

export function startWeather(port = 0, storms = (process.env.STORM ?? '').split(',').filter(Boolean)) {
  const server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url, 'http://stand-in');
    const answer = (body) => {
      response.setHeader('content-type', 'application/json');
      response.end(JSON.stringify(body));
    };
    if (pathname === '/stations') return answer(stations.map(({ id, name, position }) => ({ id, name, position })));
    const [, id] = /^\/stations\/([a-z]+)\/hours$/.exec(pathname) ?? [];
    const station = stations.find((one) => one.id === id);
    const from = Date.parse(searchParams.get('from') ?? '');
    const hours = Number(searchParams.get('hours') ?? 48);
    if (!station || Number.isNaN(from) || !(hours > 0 && hours <= 2400)) return response.writeHead(404).end();
    const now = Date.now();
    const first = Math.floor(from / hourMs) * hourMs;
    const list = Array.from({ length: hours }, (_, i) => first + i * hourMs)
      .filter((ms) => ms < now + forecastHours * hourMs)
      .map((ms) => ({ ...weatherAt(station, ms, storms), source: ms + hourMs <= now ? 'recorded' : 'forecast' }));
    return answer(list);
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () =>
      resolve({ url: `http://127.0.0.1:${server.address().port}`, stop: () => server.close() }),
    );
  });
}

if (process.argv[1]?.endsWith('weather.mjs')) {
  const { url } = await startWeather(Number(process.argv[2] ?? 0));
  console.log(`Simulated weather at ${url}/stations`);
}
