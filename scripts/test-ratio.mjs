// Reports which share of the code lines are tests; comments and blank lines do not count.
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './root.mjs';

const listed = spawnSync('git', ['ls-files', '-co', '--exclude-standard', '*.ts', '*.mjs', '*.html', '*.scss'], {
  cwd: root,
  encoding: 'utf8',
});
const isTest = (file) => /\.(test|spec)\.ts$/.test(file) || /^e2e\/|\/testing\//.test(file);
const linesOf = (file) =>
  readFileSync(path.join(root, file), 'utf8')
    .split('\n')
    .filter((line) => !/^\s*($|\/\/|\*|\/\*)/.test(line)).length;

let tests = 0;
let all = 0;
for (const file of listed.stdout.split('\n').filter(Boolean)) {
  const lines = linesOf(file);
  all += lines;
  if (isTest(file)) tests += lines;
}
console.log(`   Tests are ${Math.round((100 * tests) / all)} % of ${all} code lines; a quarter to a third is wanted.`);
