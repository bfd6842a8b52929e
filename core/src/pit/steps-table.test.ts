import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { stepsTable } from '../../testing/steps-table';

const file = join(__dirname, '../../../docs/steps.md');

describe('the steps and the soil of the schools', () => {
  it('stand in the documents as the core has them', () => {
    if (process.env.WRITE_DOCS) writeFileSync(file, stepsTable());
    expect(readFileSync(file, 'utf8')).toBe(stepsTable());
  });
  it('balance in every row, as printed', () => {
    const rows = readFileSync(file, 'utf8')
      .split('\n')
      .filter((line) => /^\| .*(level|%) \|/.test(line));
    expect(rows.length).toBeGreaterThan(20);
    for (const row of rows) {
      const litres = row.split('|').slice(2, -1).map(Number);
      const sum = (some: readonly number[]) => some.reduce((total, one) => total + one, 0);
      const [from, to] = [sum(litres.slice(0, 3)), sum(litres.slice(3))];
      // Eight figures of one decimal each.
      expect([row, Math.abs(from - to) < 0.41]).toEqual([row, true]);
    }
  });
});
