import { test as base, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { startCluster, type Cluster } from '../../scripts/cluster.mjs';
import { root } from '../../scripts/root.mjs';
import { startLocateCentre } from '../../standins/locate-centre.mjs';
import { startPosition } from '../../standins/position.mjs';
import { startMail } from '../../standins/mail.mjs';
import { startWeather } from '../../standins/weather.mjs';
import { entry, runEntry, sharedFolder, templateName } from './shared';
import { takeSeen } from './phone';
import { Wire } from './wire';

/** What one worker works with: the shared cluster, and stand-ins of its own. */
export interface WorkerCluster {
  readonly cluster: Cluster;
  readonly positionUrl: string;
  readonly locateUrl: string;
  readonly weatherUrl: string;
  readonly smtpUrl: string;
  /** What was sent, by the stand-in that took it. */
  readonly mail: Awaited<ReturnType<typeof startMail>>;
}

/** The real server on a database of its own, filled with the demo town. */
export class Town {
  private server: ChildProcess | null = null;
  /** The wire to the database, where a test is to cut it. */
  wire: Wire | null = null;
  /** What this server is told otherwise. */
  environment: Readonly<Record<string, string>> = {};

  constructor(
    private readonly cluster: Cluster,
    readonly database: string,
    readonly port: number,
    private readonly standIns: Pick<WorkerCluster, 'positionUrl' | 'locateUrl' | 'weatherUrl' | 'smtpUrl'>,
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const appUrl = this.cluster.appUrl(this.database);
    const env = {
      ...process.env,
      PORT: String(this.port),
      DATABASE_URL: this.wire?.through(appUrl) ?? appUrl,
      SESSION_SECRET: this.cluster.sessionSecret,
      WEB_ROOT: path.join(root, 'dist/web/browser'),
      STORAGE_FOLDER: path.join(tmpdir(), this.database),
      POSITION_URL: this.standIns.positionUrl,
      LOCATE_URL: this.standIns.locateUrl,
      POSITION_SIMULATED: 'yes',
      WEATHER_URL: this.standIns.weatherUrl,
      WEATHER_SIMULATED: 'yes',
      SMTP_URL: this.standIns.smtpUrl,
      SEASON_KEYS: path.join(tmpdir(), `${this.database}-keys`),
      LOG_LEVEL: 'silent',
      ...this.environment,
    };
    const server = spawn(process.execPath, [entry('main')], { env, stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
    this.server = server;
    await new Promise<void>((resolve, reject) => {
      server.once('message', () => resolve());
      server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  }

  async kill(signal: NodeJS.Signals): Promise<void> {
    const server = this.server;
    if (!server || server.exitCode !== null || server.signalCode !== null) return;
    const ended = new Promise((resolve) => server.once('exit', resolve));
    server.kill(signal);
    await ended;
  }

  async owner(): Promise<pg.Client> {
    const client = new pg.Client({ connectionString: this.cluster.ownerUrl(this.database) });
    await client.connect();
    return client;
  }

  async query<R extends pg.QueryResultRow>(sql: string, values: unknown[] = []): Promise<R[]> {
    const client = await this.owner();
    try {
      return (await client.query<R>(sql, values)).rows;
    } finally {
      await client.end();
    }
  }
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

const newName = (): string => `town_${Date.now()}_${Math.floor(Math.random() * 1e6)}`;

async function makeDatabase(cluster: Cluster, database: string, template = ''): Promise<void> {
  const client = new pg.Client({ connectionString: cluster.ownerUrl('postgres') });
  await client.connect();
  await client.query(`create database ${database} ${template}`);
  await client.end();
}

/** A server on a database nobody has set up, and the code that opens its set-up. */
export async function emptyTown(worker: WorkerCluster): Promise<{ town: Town; code: string }> {
  const { cluster } = worker;
  const database = newName();
  await makeDatabase(cluster, database);
  const env = { OWNER_DATABASE_URL: cluster.ownerUrl(database), DATABASE_URL: cluster.appUrl(database) };
  runEntry('migrate', env);
  const code = /one-time code ([A-Z0-9-]+)/.exec(runEntry('set-up-code', env))?.[1] ?? '';
  const town = new Town(cluster, database, await freePort(), worker);
  await town.start();
  return { town, code };
}

interface Fixtures {
  /** Whether the server reaches its database over a wire that can be cut. */
  wired: boolean;
  town: Town;
  /** A page of Inês, the coordinator, who is signed in; it shows nothing yet. */
  signedIn: Page;
}

export const test = base.extend<Fixtures & { told: void }, { worker: WorkerCluster }>({
  told: [
    async ({}, use, info) => {
      takeSeen();
      await use();
      const words = takeSeen();
      if (info.status !== info.expectedStatus && words.length > 0) console.log(`${info.title}\n${words.join('\n')}`);
    },
    { auto: true },
  ],
  wired: [false, { option: true }],
  worker: [
    async ({}, use) => {
      // It runs already: this joins it.
      const cluster = await startCluster({ folder: process.env[sharedFolder] ?? '', database: templateName });
      const position = await startPosition();
      const locate = await startLocateCentre(0, { hurry: 0.2 });
      const weather = await startWeather();
      const mail = await startMail();
      await use({
        cluster,
        positionUrl: position.url,
        locateUrl: locate.url,
        weatherUrl: weather.url,
        smtpUrl: mail.smtpUrl,
        mail,
      });
      weather.stop();
      mail.stop();
      position.stop();
      locate.stop();
    },
    { scope: 'worker' },
  ],
  town: async ({ worker, wired }, use) => {
    const { cluster } = worker;
    const database = newName();
    await makeDatabase(cluster, database, `template ${templateName} strategy file_copy`);
    const town = new Town(cluster, database, await freePort(), worker);
    if (wired) town.wire = await Wire.to(Number(new URL(cluster.appUrl(database)).port));
    await town.start();
    await use(town);
    // It keeps nothing of its own; asked politely it would wait for the page's open stream.
    await town.kill('SIGKILL');
    town.wire?.cut();
  },
  signedIn: async ({ page, town }, use) => {
    await knownAs(page, town, 'ines');
    await use(page);
  },
});

const password = 'shade-walks';

/** Signs a page in without showing it anything. */
export async function knownAs(page: Page, town: Town, name: string): Promise<void> {
  const { csrfToken } = (await (await page.request.get(`${town.url}/api/session`)).json()) as { csrfToken: string };
  const headers = { 'x-csrf-token': csrfToken };
  const answer = await page.request.post(`${town.url}/api/session`, { headers, data: { signIn: name, password } });
  if (!answer.ok()) throw new Error(`${name} was not let in: ${answer.status()} ${await answer.text()}`);
}

/** Signs in and lands where that person's work is. */
export async function signIn(page: Page, town: Town, name: string): Promise<void> {
  await knownAs(page, town, name);
  await page.goto(town.url);
  await page.getByRole('navigation', { name: 'Work order' }).waitFor();
}

export const example = (name: string): string => path.join(root, 'examples', name);

/** Chooses a file on the import page and waits until it was read. */
export async function readFile(
  page: Page,
  town: Town,
  file: string | { name: string; mimeType: string; buffer: Buffer },
): Promise<void> {
  await page.goto(`${town.url}/import`);
  await page.locator('input[type=file]').setInputFiles(file);
}

export async function importExample(page: Page, town: Town): Promise<void> {
  await readFile(page, town, example('spots.csv'));
  await page.getByRole('button', { name: 'Import 30 spots' }).click();
  await page.getByText('30 spots stored').waitFor();
}

/** Opens a spot in a stage by finding its number. */
export async function openSpot(page: Page, town: Town, stage: string, ref: string): Promise<void> {
  await page.goto(`${town.url}/${stage}?find=${ref}`);
  await page.getByRole('link', { name: ref }).click();
  await page.getByRole('navigation', { name: 'Stages of this spot' }).waitFor();
}

export { expect } from '@playwright/test';
