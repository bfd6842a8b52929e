import { recordId } from '@sombra/contract';
import { toldId } from './told-id';

it('is a record id of its day, the same each time, another for another name or day', () => {
  const id = toldId('valve a', '2026-07-01');
  expect(recordId.safeParse(id).success).toBe(true);
  expect(toldId('valve a', '2026-07-01')).toBe(id);
  expect(parseInt(id.replace('-', '').slice(0, 12), 16)).toBe(Date.parse('2026-07-01T12:00:00Z'));
  const others = [toldId('valve b', '2026-07-01'), toldId('valve a', '2026-07-02'), id];
  expect(new Set(others).size).toBe(3);
});
