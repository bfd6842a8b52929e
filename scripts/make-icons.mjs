// Draws the icons of the installed application from the mark; run by hand when the mark changes.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { root } from './root.mjs';

const mark = readFileSync(path.join(root, 'web/public/mark.svg'), 'utf8');
/** A launcher may cut a fifth off each side: the mark stands within, on its own ground. */
const maskable = mark
  .replace('viewBox="0 0 48 48"', 'viewBox="-9 -9 66 66"')
  .replace('<rect width="48" height="48"', '<rect x="-9" y="-9" width="66" height="66"');
const draw = (svg, size, name) =>
  sharp(Buffer.from(svg), { density: (72 * size) / 48 })
    .resize(size, size)
    .png({ compressionLevel: 9, palette: true })
    .toFile(path.join(root, 'web/public/icons', name));

await Promise.all([
  ...[48, 96, 144, 192, 512].map((size) => draw(mark, size, `sombra-${size}.png`)),
  draw(maskable, 512, 'sombra-maskable-512.png'),
]);
