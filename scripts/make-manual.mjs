// npm run manual: writes docs/manual.md from the texts that the application shows.
import { build } from 'esbuild';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './root.mjs';

const built = await build({
  entryPoints: [path.join(root, 'contract/src/manual.ts')],
  ...{ bundle: true, write: false, format: 'esm', platform: 'node', target: 'node20' },
});
const [file] = built.outputFiles;
const { manualText } = await import(`data:text/javascript;base64,${Buffer.from(file.contents).toString('base64')}`);
writeFileSync(path.join(root, 'docs/manual.md'), manualText());
