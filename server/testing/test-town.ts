import type { Problem, RecordReceipt, SendRecord, Session, SpotDetail } from '@sombra/contract';
import { fieldDefault, type FieldRecord, type GroundFacts, type Stock } from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { insertSpots, placeIds } from '../src/spots/repository';
import { hashPassword } from '../src/people/service';
import { insertUser } from '../src/people/repository';
import { openDatabase } from '../src/platform/db';
import { insertProgramme } from '../src/programme/repository';
import { serve, type RunningServer } from '../src/app/serve';
import { deriveAndKeep } from '../src/record/derive';

const password = 'a-long-password';

/** A server on a database of its own, with a person of each role. */
export interface TestTown {
  readonly url: string;
  readonly db: Knex;
  readonly ownerUrl: string;
  readonly appUrl: string;
  readonly storageFolder: string;
  addSpot(ref: string, withTree?: boolean): Promise<{ spotId: string; treeId: string }>;
  stop(): Promise<void>;
}

const urlFor = (name: 'TEST_OWNER_URL' | 'TEST_APP_URL', database: string): string => {
  const url = process.env[name];
  if (!url) throw new Error(`${name} is missing: run the tests by npm`);
  return url.replace('DATABASE', database);
};

/** @param options `empty` for a database nobody has set up */
export async function openTestTown(
  options: { locateUrl?: string; empty?: boolean; smtpUrl?: string } = {},
): Promise<TestTown> {
  const database = `town_${randomUUID().replaceAll('-', '')}`;
  const owner = new pg.Client({ connectionString: urlFor('TEST_OWNER_URL', 'postgres') });
  await owner.connect();
  await owner.query(`create database ${database} template template_town`);
  await owner.end();
  const appUrl = urlFor('TEST_APP_URL', database);
  const db = openDatabase(appUrl, { applicationName: 'sombra-test', maxConnections: 4 });
  if (!options.empty) await fill(db);
  const storageFolder = mkdtempSync(path.join(tmpdir(), 'sombra-storage-'));
  const server: RunningServer = await serve(
    {
      port: 0,
      host: '127.0.0.1',
      databaseUrl: appUrl,
      sessionSecret: 'x'.repeat(40),
      webRoot: undefined,
      position: null,
      controller: null,
      sensors: null,
      locate: options.locateUrl ? { url: options.locateUrl, simulated: true } : null,
      storageFolder,
      nurseries: null,
      weather: null,
      mail: options.smtpUrl ? { url: options.smtpUrl, from: 'trees@sombra.invalid', page: null } : null,
      publicUrl: 'http://127.0.0.1:4310',
      seasonKeys: path.join(storageFolder, '../', `${path.basename(storageFolder)}-keys`),
      secureCookies: false,
      trustedProxy: null,
      logLevel: 'silent',
    },
    pino({ level: 'silent' }),
  );
  return {
    url: `http://127.0.0.1:${server.port}`,
    db,
    ownerUrl: urlFor('TEST_OWNER_URL', database),
    appUrl,
    storageFolder,
    addSpot: (ref, withTree = true) => addSpot(db, ref, withTree),
    async stop() {
      await server.stop();
      await db.destroy();
    },
  };
}

async function fill(db: Knex): Promise<void> {
  await db('practice').insert({
    id: fieldDefault.id,
    version: fieldDefault.version,
    body: JSON.stringify(fieldDefault),
  });
  await insertProgramme(
    db,
    {
      name: 'Test',
      timeZone: 'Atlantic/Azores',
      latDeg: 36.9,
      lngDeg: -25.4,
      elevationM: 40,
      units: 'metric',
      windows: [],
      demo: false,
    },
    fieldDefault,
  );
  const passwordHash = await hashPassword(password);
  for (const [signIn, role] of [
    ['cora', 'coordinator'],
    ['otto', 'coordinator'],
    ['iva', 'inspector'],
    ['leo', 'crew_lead'],
    ['wes', 'waterer'],
    ['vic', 'viewer'],
    ['ada', 'administrator'],
  ] as const) {
    await insertUser(db, { id: randomUUID(), signIn, name: signIn, role, units: 'metric', passwordHash });
  }
}

async function addSpot(db: Knex, ref: string, withTree: boolean): Promise<{ spotId: string; treeId: string }> {
  const places = await placeIds(db, ['Mole Street'], uuidv7);
  const [spotId, treeId] = [uuidv7(), uuidv7()];
  const placeId = places.get('Mole Street') ?? '';
  await insertSpots(
    db,
    [{ id: spotId, addedOn: '2023-01-01', ref, placeId, lng: -25.4, lat: 36.9, treeId, species: 'Celtis australis' }],
    'test',
  );
  if (!withTree) await db('tree').where({ id: treeId }).update({ standing: false });
  await deriveAndKeep(db, [spotId]);
  return { spotId, treeId };
}

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** A browser as the server sees one: keeps its cookie and its CSRF token. */
export class Visitor {
  private cookie = '';
  token = '';

  constructor(private readonly url: string) {}

  static async signedIn(url: string, signIn: string, by = password): Promise<Visitor> {
    const visitor = new Visitor(url);
    await visitor.arrive();
    const answer = await visitor.send<Session>('POST', '/api/session', { signIn, password: by });
    if (answer.status !== 200) throw new Error(`sign-in answered ${answer.status}`);
    visitor.token = answer.body.csrfToken;
    return visitor;
  }

  credentials(): { cookie: string; token: string } {
    return { cookie: this.cookie, token: this.token };
  }

  async arrive(): Promise<Session> {
    const { body } = await this.send<Session>('GET', '/api/session');
    this.token = body.csrfToken;
    return body;
  }

  async send<T = Problem>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const raw = body instanceof Uint8Array || typeof body === 'string';
    const response = await fetch(this.url + path, {
      method,
      headers: {
        cookie: this.cookie,
        'x-csrf-token': this.token,
        ...(body === undefined || raw ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      body: body === undefined ? undefined : raw ? (body as BodyInit) : JSON.stringify(body),
    });
    const set = response.headers.getSetCookie()[0];
    if (set) this.cookie = set.split(';')[0] ?? '';
    const text = await response.text();
    const type = response.headers.get('content-type') ?? '';
    const json = /json/.test(type) && !type.includes('ndjson') && text !== '';
    return { status: response.status, body: (json ? JSON.parse(text) : text) as T, headers: response.headers };
  }

  /** A body as it is, for answers that are no text. */
  async bytes(
    method: string,
    path: string,
    body?: object,
  ): Promise<{ status: number; headers: Headers; bytes: Uint8Array }> {
    const headers = { cookie: this.cookie, 'x-csrf-token': this.token, 'content-type': 'application/json' };
    const response = await fetch(this.url + path, { method, headers, body: body && JSON.stringify(body) });
    const bytes = new Uint8Array(await response.arrayBuffer());
    return { status: response.status, headers: response.headers, bytes };
  }

  record(sent: SendRecord): Promise<Answer<RecordReceipt>> {
    return this.send<RecordReceipt>('POST', '/api/records', sent);
  }

  async spot(spotId: string): Promise<SpotDetail> {
    return (await this.send<SpotDetail>('GET', `/api/spots/${spotId}`)).body;
  }
}

export const loam: GroundFacts = {
  soil: 'loam',
  stony: false,
  compacted: false,
  percolation: [
    { minute: 0, levelMm: 300 },
    { minute: 30, levelMm: 280 },
    { minute: 60, levelMm: 260 },
    { minute: 90, levelMm: 240 },
  ],
  slopePct: 0,
  fallsTowardsDeg: null,
  stripWidthMm: 'open',
  wireHeightM: 'none',
};

export const container: Stock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3.2,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};

/** A record as a device would send it now. */
export function sending(
  spotId: string,
  record: Pick<FieldRecord, 'kind' | 'facts'> & { supersedes?: string },
  spotVersion: number | null = null,
): SendRecord {
  const made = { id: uuidv7(), recordedAt: new Date().toISOString(), supersedes: record.supersedes ?? null };
  return {
    spotId,
    device: 'test',
    spotVersion,
    record: { ...made, kind: record.kind, facts: record.facts } as FieldRecord,
  };
}

export const planting = (plantedOn: string) =>
  ({
    kind: 'planting',
    facts: {
      plantedOn,
      flareAboveGradeMm: [42],
      holeWidthMm: 1125,
      firstWaterL: 52,
      practiceId: 'field-default',
      practiceVersion: 1,
    },
  }) as const;

export const look = (inspectedOn: string) =>
  ({
    kind: 'inspection',
    facts: {
      inspectedOn,
      flareDepthMm: 0,
      mulchDepthMm: 60,
      mulchContact: 'clear',
      stake: 'none',
      probe: 'moist',
      circlingRoots: null,
    },
  }) as const;
