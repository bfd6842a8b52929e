// The computation core as a bench wants it: bundled from its sources, so that nothing else is timed.
import { build } from 'esbuild';
import { mkdtempSync, rmSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from '../scripts/root.mjs';

/** `contents`: what is exported, by paths from the root. */
export async function loadCore(contents) {
  const folder = mkdtempSync(path.join(root, 'node_modules/.sombra-bench-'));
  try {
    const outfile = path.join(folder, 'core.mjs');
    await build({
      stdin: { contents, resolveDir: root, loader: 'ts' },
      bundle: true,
      format: 'esm',
      platform: 'node',
      target: 'node20',
      external: ['highs', 'date-fns', 'suncalc', 'd3-scale'],
      alias: { '@sombra/core': path.join(root, 'core/src/index.ts') },
      outfile,
      logLevel: 'error',
    });
    return await import(pathToFileURL(outfile));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
