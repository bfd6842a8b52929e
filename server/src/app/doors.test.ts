import { may, roles, type Role } from '@sombra/contract';
import type { Router } from 'express';
import { pino } from 'pino';
import { doors as lines } from '../../testing/doors';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { makeApp, loggedPath } from './app';
import { openSessionPool } from '../platform/sessions';

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route of the application, as it is mounted. */
function routesOf(layers: readonly Layer[]): string[] {
  return layers.flatMap(({ route, handle }) => {
    if (!route) return handle.stack ? routesOf(handle.stack) : [];
    return Object.keys(route.methods).map((method) => `${method.toUpperCase()} /api${route.path}`);
  });
}

let town: TestTown;
beforeAll(async () => {
  town = await openTestTown();
});
afterAll(() => town.stop());

/** One request to a door that leads nowhere: what it answers is not read to its end. */
async function knock(visitor: Visitor, line: string): Promise<number> {
  const [method = '', template = ''] = line.split(' ');
  const path = template
    .replace(':format', 'csv')
    .replace(':token', 'a-token-of-nobody')
    .replace(':layer', 'water')
    .replace(/:(z|x|y)/g, '0')
    .replace(/:\w+/g, '0190a5c2-0000-7000-8000-00000000dead');
  const { cookie, token } = visitor.credentials();
  const headers = { cookie, 'x-csrf-token': token, 'content-type': 'application/json' };
  const response = await fetch(town.url + path, {
    method,
    headers,
    body: method === 'GET' || method === 'HEAD' ? null : '{}',
  });
  await response.body?.cancel();
  return response.status;
}

it('every route has its line, and every line its route', () => {
  const pool = openSessionPool({ databaseUrl: town.appUrl } as never, () => undefined);
  const parts = { db: town.db, sessionPool: pool, logger: pino({ level: 'silent' }), live: null, centre: null };
  const config = { storageFolder: town.storageFolder, sessionSecret: 'x'.repeat(40) };
  const app = makeApp({ ...parts, config } as never);
  const stack = (app.router as Router).stack as unknown as Layer[];
  expect(routesOf(stack).sort()).toEqual(Object.keys(lines).sort());
  return pool.end();
});

const people: Readonly<Record<Role, string>> = {
  administrator: 'ada',
  coordinator: 'cora',
  crew_lead: 'leo',
  inspector: 'iva',
  waterer: 'wes',
  viewer: 'vic',
};
/** Signing out comes last: it shuts every door behind it. */
const walk = Object.entries(lines)
  .filter(([line]) => line !== 'POST /api/session')
  .sort(([a], [b]) => Number(a === 'DELETE /api/session') - Number(b === 'DELETE /api/session'));

it.each(roles)('opens to %s what the table says, and nothing else', async (role) => {
  const visitor = await Visitor.signedIn(town.url, people[role]);
  const wrong: string[] = [];
  for (const [line, act] of walk) {
    const status = await knock(visitor, line);
    const shut = status === 401 || status === 403;
    if (shut !== (act !== 'anyone' && !may(role, act)) || status >= 500) wrong.push(`${line}: ${status}`);
  }
  expect(wrong).toEqual([]);
});

it('opens to nobody signed in what anyone may do, and nothing else', async () => {
  const stranger = new Visitor(town.url);
  await stranger.arrive();
  const wrong: string[] = [];
  for (const [line, act] of walk) {
    const status = await knock(stranger, line);
    if ((status === 401) !== (act !== 'anyone') || status >= 500) wrong.push(`${line}: ${status}`);
  }
  expect(wrong).toEqual([]);
});

it('writes the token of no link into the log', () => {
  const paths = Object.keys(lines)
    .filter((line) => line.includes(':token'))
    .map((line) => (line.split(' ')[1] ?? '').replace(':token', 'told-to-one'));
  expect(paths.length).toBeGreaterThan(8);
  const pages = ['join', 'place', 'planted', 'care', 'told', 'consent', 'welcome'].map(
    (page) => `/${page}/told-to-one?stop`,
  );
  expect([...paths, ...pages].filter((path) => loggedPath(path).includes('told-to-one'))).toEqual([]);
});

it.each([
  ['/api/open/consents/abc.def', '/api/open/consents/…'],
  ['/api/open/invitations/abc?x=1', '/api/open/invitations/…'],
  ['/welcome/abc', '/welcome/…'],
  ['/consent/abc/', '/consent/…'],
  ['/api/find?words=typed', '/api/find'],
  ['/api/spots/1/consents', '/api/spots/1/consents'],
])('writes %s into the log as %s', (url, logged) => {
  expect(loggedPath(url)).toBe(logged);
});
