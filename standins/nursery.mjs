// Simulated nurseries: they publish the availability lists of the examples folder.
//   GET /nurseries -> [{ nursery, path }]      GET PATH -> CSV
// Run it alone: node standins/nursery.mjs [PORT]
import { readFileSync, readdirSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const folder = path.join(path.dirname(fileURLToPath(import.meta.url)), '../examples');
const pattern = /^availability-([a-z-]+)\.csv$/;
const nameOf = (slug) =>
  slug
    .split('-')
    .map((word) => word[0].toUpperCase() + word.slice(1))
    .join(' ');

export function startNurseries(port = 0) {
  const lists = readdirSync(folder).flatMap((file) => {
    const [, slug] = pattern.exec(file) ?? [];
    return slug ? [{ nursery: nameOf(slug), path: `/lists/${slug}.csv`, file }] : [];
  });
  const server = createServer((request, response) => {
    const list = lists.find((one) => one.path === request.url);
    if (request.url === '/nurseries') {
      response.setHeader('content-type', 'application/json');
      response.end(JSON.stringify(lists.map(({ nursery, path: at }) => ({ nursery, path: at }))));
    } else if (list) {
      response.setHeader('content-type', 'text/csv; charset=utf-8');
      response.end(readFileSync(path.join(folder, list.file)));
    } else response.writeHead(404).end();
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () =>
      resolve({ url: `http://127.0.0.1:${server.address().port}`, stop: () => server.close() }),
    );
  });
}

if (process.argv[1]?.endsWith('nursery.mjs')) {
  const { url } = await startNurseries(Number(process.argv[2] ?? 0));
  console.log(`Simulated nurseries at ${url}/nurseries`);
}
