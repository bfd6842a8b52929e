import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildAll } from '../../scripts/build.mjs';
import { startCluster } from '../../scripts/cluster.mjs';
import { root } from '../../scripts/root.mjs';

/** Where the workers find the database that was made for all of them. */
export const sharedFolder = 'SOMBRA_E2E_CLUSTER';
/** The demo town, loaded once; every test copies it. */
export const templateName = 'template_demo';

export const entry = (name: string): string => path.join(root, 'dist/server', `${name}.js`);

export function runEntry(name: string, env: Record<string, string>): string {
  const run = spawnSync(process.execPath, [entry(name)], { env: { ...process.env, ...env }, encoding: 'utf8' });
  if (run.status !== 0) throw new Error(`${name} failed: ${run.stderr}`);
  return run.stdout;
}

/** One built application and one loaded database for all workers; ended by what it returns. */
export async function makeShared(): Promise<() => void> {
  await buildAll();
  const folder = mkdtempSync(path.join(tmpdir(), 'sombra-e2e-'));
  chmodSync(folder, 0o711);
  const cluster = await startCluster({ folder, database: templateName, durable: false });
  const env = { OWNER_DATABASE_URL: cluster.ownerUrl(templateName), DATABASE_URL: cluster.appUrl(templateName) };
  runEntry('migrate', env);
  runEntry('load-demo', env);
  process.env[sharedFolder] = folder;
  return () => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

export default makeShared;
