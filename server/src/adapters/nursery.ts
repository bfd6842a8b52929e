import { z } from 'zod';

const indexSchema = z
  .array(z.object({ nursery: z.string().min(2).max(80), path: z.string().startsWith('/').max(200) }))
  .max(50);

/** Where nurseries publish what they have to sell. */
export interface NurseryService {
  /** Every list there is, as CSV bytes; `null` when the service does not answer sensibly. */
  lists(): Promise<{ nursery: string; csv: Uint8Array }[] | null>;
}

/** A service over HTTP: GET /nurseries names the lists, each at its path as CSV. `docs/adapters.md` tells more. */
export function httpNurseries(url: string): NurseryService {
  const get = (path: string) => fetch(`${url}${path}`, { signal: AbortSignal.timeout(4000) });
  return {
    async lists() {
      try {
        const index = indexSchema.parse(await (await get('/nurseries')).json());
        return await Promise.all(
          index.map(async ({ nursery, path }) => ({
            nursery,
            csv: new Uint8Array(await (await get(path)).arrayBuffer()),
          })),
        );
      } catch {
        return null;
      }
    },
  };
}
