import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { ListSolver } from './list-service';
import type { Solved } from './run-model';

/** Solves in worker threads beside the server; stopping a solve ends its thread. */
export function pooledSolver(): ListSolver & { close(): Promise<void> } {
  const filename = path.join(path.dirname(fileURLToPath(import.meta.url)), 'match/solve-worker.js');
  const pool = new Piscina({ filename, maxThreads: 2, minThreads: 0, idleTimeout: 30_000 });
  return {
    async solve(model, { limitS, signal, onGap }) {
      const hear = (message: { gap: number | null }) => onGap(message.gap);
      pool.on('message', hear);
      try {
        return (await pool.run({ model, limitS }, { signal })) as Solved;
      } finally {
        pool.off('message', hear);
      }
    },
    close: () => pool.destroy(),
  };
}
