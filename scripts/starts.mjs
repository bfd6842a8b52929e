// Who runs Sombra from this home just now: so that a second start joins the first one's database, and the last to go
// stops it.
import { mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { homeFolder } from './home.mjs';

const folder = () => homeFolder('starts');

/** Whether a process is there and is one of Sombra's: ids are given out again. */
function lives(pid) {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (error.code !== 'EPERM') return false;
  }
  try {
    return /node/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'));
  } catch {
    return true;
  }
}

/** Starts that are alive, this one left out; notes of those that were killed are dropped. */
export function otherStarts() {
  mkdirSync(folder(), { recursive: true });
  return readdirSync(folder())
    .filter((name) => /^\d+\.json$/.test(name))
    .flatMap((name) => {
      const pid = Number.parseInt(name, 10);
      if (pid === process.pid) return [];
      const file = path.join(folder(), name);
      if (!lives(pid)) {
        rmSync(file, { force: true });
        return [];
      }
      try {
        return [{ pid, ...JSON.parse(readFileSync(file, 'utf8')) }];
      } catch {
        return [{ pid }];
      }
    });
}

/** Says that this process runs Sombra; returns what takes it back. */
export function noteStart(what) {
  mkdirSync(folder(), { recursive: true });
  const file = path.join(folder(), `${process.pid}.json`);
  writeFileSync(file, JSON.stringify(what));
  return () => rmSync(file, { force: true });
}

const patienceMs = 120_000;

/** Runs an act that only one process of this home may be at, such as making or stopping the database. */
export async function alone(act) {
  const lock = homeFolder('lock');
  mkdirSync(path.dirname(lock), { recursive: true });
  for (const until = Date.now() + patienceMs; ;) {
    try {
      mkdirSync(lock);
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    }
    const holder = holderOf(lock);
    if (holder !== undefined && !lives(holder)) rmSync(lock, { recursive: true, force: true });
    else if (Date.now() > until) throw new Error(`Another process holds ${lock}; remove it if none runs.`);
    else await setTimeout(100);
  }
  writeFileSync(path.join(lock, 'pid'), String(process.pid));
  try {
    return await act();
  } finally {
    rmSync(lock, { recursive: true, force: true });
  }
}

function holderOf(lock) {
  try {
    return Number(readFileSync(path.join(lock, 'pid'), 'utf8')) || undefined;
  } catch {
    return undefined;
  }
}
