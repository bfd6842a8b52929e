import { may, roles, type Act, type Role } from '@sombra/contract';
import type { Router } from 'express';
import { pino } from 'pino';
import { openTestTown, Visitor, type TestTown } from '../testing/test-town';
import { makeApp, loggedPath } from './app';
import { openSessionPool } from './sessions';

/** What each door asks for: `anyone` where nobody need be signed in. A route without its line fails. */
const lines: Readonly<Record<string, Act | 'anyone'>> = {
  'GET /api/session': 'anyone',
  'POST /api/session': 'anyone',
  'DELETE /api/session': 'keep_own',
  'PUT /api/session/preferences': 'keep_own',
  'PUT /api/session/password': 'keep_own',
  'GET /api/open/consents/:token': 'anyone',
  'POST /api/open/consents/:token': 'anyone',
  'GET /api/open/invitations/:token': 'anyone',
  'POST /api/open/invitations/:token': 'anyone',
  'POST /api/open/set-up': 'anyone',
  'GET /api/people': 'manage_people',
  'POST /api/people': 'manage_people',
  'PUT /api/people/:id': 'manage_people',
  'POST /api/people/:id/link': 'manage_people',
  'DELETE /api/people/:id/sessions': 'manage_people',
  'GET /api/programme': 'see',
  'PUT /api/programme': 'change_programme',
  'GET /api/desk': 'see',
  'GET /api/desk/members': 'see',
  'POST /api/desk/remedies': 'see',
  'GET /api/spots': 'see',
  'GET /api/spots.csv': 'see',
  'GET /api/spots/facets': 'see',
  'GET /api/spots/rank': 'see',
  'GET /api/spots/near': 'see',
  'POST /api/spots': 'add_spot',
  'POST /api/spots/withdraw': 'withdraw_spots',
  'GET /api/spots/:id': 'see',
  'GET /api/trees/:id': 'see',
  'GET /api/spots/:id/surroundings': 'see',
  'PUT /api/spots/:id/photos/:photoId': 'add_photo',
  'GET /api/photos/:id': 'see',
  'PUT /api/spots/:id/clearances': 'attach_clearance',
  'GET /api/clearances/:id': 'see',
  'POST /api/permits': 'record_permit',
  'POST /api/spots/:id/consents': 'ask_owner',
  'POST /api/consents/:id/revoke': 'ask_owner',
  'POST /api/records': 'record',
  'POST /api/records/batch': 'record',
  'GET /api/clock-questions': 'answer_clock',
  'POST /api/clock-questions/:id': 'answer_clock',
  'POST /api/imports/preview': 'import_file',
  'POST /api/imports': 'import_file',
  'GET /api/exports/trees.:format': 'see',
  'GET /api/season': 'see',
  'GET /api/season/outlook': 'see',
  'GET /api/find': 'see',
  'GET /api/views': 'see',
  'POST /api/views': 'keep_own',
  'PUT /api/views/:id': 'keep_own',
  'DELETE /api/views/:id': 'keep_own',
  'GET /api/position': 'see',
  'GET /api/map': 'see',
  'GET /api/map/booked': 'see',
  'GET /api/map/spots/:z/:x/:y': 'see',
  'GET /api/map/base/:z/:x/:y': 'see',
  'PUT /api/map/layers/:layer': 'change_base_map',
  'GET /api/map/base.pmtiles': 'see',
  'PUT /api/map/base.pmtiles': 'change_base_map',
  'DELETE /api/map/base.pmtiles': 'change_base_map',
  'GET /api/live': 'see',
  'GET /api/rules': 'see',
  'PUT /api/rules': 'change_rules',
  'GET /api/practices': 'see',
  'GET /api/practices/settlement': 'see',
  'PUT /api/practices': 'change_practice',
  'POST /api/practices/adopt': 'adopt_practice',
  'GET /api/deliveries': 'see',
  'POST /api/deliveries': 'receive_stock',
  'GET /api/deliveries/:id': 'see',
  'PUT /api/deliveries/:id': 'receive_stock',
  'POST /api/deliveries/:id/water': 'water_held',
  'GET /api/deliveries/:id/claim': 'see',
  'GET /api/claims': 'see',
  'PUT /api/lots/:id': 'receive_stock',
  'POST /api/lots/:id/trees': 'receive_stock',
  'PUT /api/lot-trees/:id/photo': 'receive_stock',
  'GET /api/lot-trees/:id/photo': 'see',
  'GET /api/materials': 'see',
  'GET /api/materials.csv': 'see',
  'GET /api/materials.pdf': 'see',
  'PUT /api/store': 'count_store',
  'POST /api/cards': 'see',
  'GET /api/planting-days': 'see',
  'GET /api/tickets': 'see',
  'GET /api/tickets/:id': 'see',
  'POST /api/tickets': 'raise_ticket',
  'POST /api/tickets/:id/remind': 'raise_ticket',
  'POST /api/tickets/:id/retry': 'raise_ticket',
  'POST /api/tickets/:id/withdraw': 'withdraw_ticket',
  'GET /api/species': 'see',
  'PUT /api/species': 'change_species',
  'GET /api/species.csv': 'see',
  'POST /api/species/import': 'change_species',
  'GET /api/offers': 'see',
  'POST /api/offers/import': 'read_offers',
  'POST /api/offers/read': 'read_offers',
  'GET /api/lists': 'see',
  'POST /api/lists': 'make_list',
  'GET /api/lists/:id.csv': 'see',
  'GET /api/lists/:id': 'see',
  'POST /api/lists/:id/cancel': 'make_list',
  'POST /api/lists/:id/accept': 'make_list',
  'GET /api/orders/:id.csv': 'see',
  'GET /api/orders/:id.pdf': 'see',
};

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
  const response = await fetch(town.url + path, { method, headers, body: method === 'GET' ? null : '{}' });
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
