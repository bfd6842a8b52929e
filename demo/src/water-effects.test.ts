import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { waterEffects, waterEffectsTable } from '../testing/water-effects';

const file = join(__dirname, '../../docs/water.md');
const [begins, ends] = ['<!-- effects -->', '<!-- effects end -->'] as const;
const squeezed = (text: string): string => text.replace(/ +/g, ' ').replace(/-{3,}/g, '---');
const litres = (effect: string): { with: number; without: number } => {
  const found = waterEffects().find((one) => one.effect === effect);
  if (!found) throw new Error(`no ${effect}`);
  return { with: found.base.litres, without: found.other.litres };
};

it('the effects on a tree of the demo town stand in the documents as the core has them', () => {
  const text = readFileSync(file, 'utf8');
  const [before = '', rest = ''] = text.split(begins);
  const [table = '', after = ''] = rest.split(ends);
  if (process.env['WRITE_DOCS']) {
    writeFileSync(file, `${before}${begins}\n\n${waterEffectsTable()}\n\n${ends}${after}`);
    return;
  }
  expect(squeezed(table.trim())).toBe(squeezed(waterEffectsTable()));
});

it.each(['Rain that enters', 'Mulch', 'Rest', 'Use by species', 'Wind'])('%s works in its direction', (effect) => {
  const { with: usual, without } = litres(effect);
  expect(usual).toBeLessThan(without);
});
it('roots that stay in the ball have to be watered in smaller doses, and the tree is stressed no less', () => {
  const found = waterEffects().find(({ effect }) => effect === 'Roots that grow with warmth');
  expect(found?.other.visits).toBeGreaterThan(found?.base.visits ?? Infinity);
});
it('an overwatered zone drowns its trees for weeks, at many times the litres', () => {
  const found = waterEffects().find(({ effect }) => effect === 'An overwatered zone');
  expect(found?.other.litres).toBeGreaterThan(5 * (found?.base.litres ?? Infinity));
  expect(found?.other.waterloggedDays).toBeGreaterThan(28);
});
it('standing clay takes less water than loam, and drowns', () => {
  const found = waterEffects().find(({ effect }) => effect === 'Slow soil');
  expect(found?.other.waterloggedDays).toBeGreaterThan(found?.base.waterloggedDays ?? Infinity);
});
