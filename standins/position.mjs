// Simulated position service: somebody walks up and down Tramway Avenue at 1.2 m/s. Answers GET /position with
// { position: [lng, lat], accuracyM }. Run it alone: node standins/position.mjs [PORT]
import { createServer } from 'node:http';

const walk = { from: [-25.41152, 36.90085], to: [-25.40028, 36.9011], metresPerDegreeLng: 89_020 };
const speedMs = 1.2;

/** Where the walker is after so many seconds: there and back again. */
export function walkerAt(seconds) {
  const [x1, y1] = walk.from;
  const [x2, y2] = walk.to;
  const length = Math.abs(x2 - x1) * walk.metresPerDegreeLng;
  const gone = ((seconds * speedMs) / length) % 2;
  const share = gone > 1 ? 2 - gone : gone;
  const sway = 0.00002 * Math.sin(seconds / 7);
  return [x1 + share * (x2 - x1), y1 + share * (y2 - y1) + sway].map((degrees) => Number(degrees.toFixed(6)));
}

export function startPosition(port = 0) {
  const server = createServer((request, response) => {
    if (request.url !== '/position') {
      response.writeHead(404).end();
      return;
    }
    const seconds = Date.now() / 1000;
    const accuracyM = 4 + 3 * Math.abs(Math.sin(seconds / 11));
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify({ position: walkerAt(seconds), accuracyM: Math.round(accuracyM * 10) / 10 }));
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () =>
      resolve({ url: `http://127.0.0.1:${server.address().port}`, stop: () => server.close() }),
    );
  });
}

if (process.argv[1]?.endsWith('position.mjs')) {
  const { url } = await startPosition(Number(process.argv[2] ?? 0));
  console.log(`Simulated position at ${url}/position`);
}
