// npm run examples: writes examples/spots.csv and examples/spots.geojson from the demo town's prepared streets.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { buildAll } from './build.mjs';
import { root } from './root.mjs';

await buildAll({ web: false });
const run = spawnSync(
  process.execPath,
  [path.join(root, 'dist/server/write-examples.js'), path.join(root, 'examples')],
  { stdio: 'inherit' },
);
process.exitCode = run.status ?? 1;
