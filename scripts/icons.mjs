// The icons that screens use, and no other, as a style sheet: each a mask in the colour of the text it stands in.
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './root.mjs';

const screens = path.join(root, 'web/src');
const shapes = path.join(root, 'node_modules/bootstrap-icons/icons');
const sheet = path.join(root, 'web/made/icons.scss');

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(at);
    else if (/(?<!\.spec)\.(ts|html)$/.test(entry.name)) yield at;
  }
}

/** Names of the icons that templates and code ask for, in order. */
function usedIcons() {
  const names = new Set();
  for (const file of sources(screens))
    for (const [, name] of readFileSync(file, 'utf8').matchAll(/\bbi-([a-z][a-z0-9-]*)/g)) names.add(name);
  return [...names].sort();
}

function rule(name) {
  const file = path.join(shapes, `${name}.svg`);
  if (!existsSync(file)) throw new Error(`There is no icon bi-${name}`);
  const [, shape] = /<svg[^>]*>([\s\S]*)<\/svg>/.exec(readFileSync(file, 'utf8')) ?? [];
  const svg = `<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 16 16'>${shape.replace(/\s+/g, ' ').replaceAll('"', "'").trim()}</svg>`;
  const data = svg.replaceAll('%', '%25').replaceAll('#', '%23').replaceAll('<', '%3C').replaceAll('>', '%3E');
  return `.bi-${name}::before {\n  --shape: url("data:image/svg+xml,${data}");\n}\n`;
}

/** Writes the sheet where it differs, so that what was built of it stands. */
export function writeIcons() {
  const text = `// Made by scripts/icons.mjs.\n${usedIcons().map(rule).join('')}`;
  if (existsSync(sheet) && readFileSync(sheet, 'utf8') === text) return;
  mkdirSync(path.dirname(sheet), { recursive: true });
  writeFileSync(sheet, text);
}
