import { couldNot, isServed } from './assignment';
import type { AssignmentKind } from './assignment-kinds';
import type { FieldRecord } from './record';

const since = '2026-03-02T07:00:00Z';
const made = (id: string, kind: string, facts: object, recordedAt: string, supersedes: string | null = null) =>
  ({ id, kind, facts, recordedAt, supersedes }) as FieldRecord;
const watered = (remedy: string, at = '2026-03-02T09:00:00Z') =>
  made('w', 'remedy', { remedy, doneOn: '2026-03-02' }, at);
const looked = made('l', 'inspection', {}, '2026-03-02T09:00:00Z');

describe('whether an assignment was served at a spot', () => {
  it.each<[AssignmentKind, FieldRecord[], boolean]>([
    ['watering', [watered('water_now')], true],
    // A probe that says moist is an answer too.
    ['watering', [watered('skip_water')], true],
    ['watering', [watered('thin_mulch')], false],
    ['watering', [watered('water_now', '2026-03-02T06:59:59Z')], false],
    ['watering', [watered('water_now', '2026-03-02T08:00:00+01:00')], true],
    ['looks', [looked], true],
    ['looks', [watered('water_now')], false],
    ['planting', [looked], false],
    // Planted by whoever was sent before: nobody plants it again.
    ['planting', [made('p', 'planting', {}, '2026-03-02T06:30:00Z')], true],
    ['delivery', [looked], false],
  ])('%s by %j is %s', (kind, records, served) => {
    expect(isServed(kind, records, since)).toBe(served);
  });
  it('is not, once what was done is taken back', () => {
    const back = made('r', 'retraction', { reason: 'wrong tree' }, '2026-03-02T09:05:00Z', 'l');
    expect(isServed('looks', [looked, back], since)).toBe(false);
  });
  it('could not be done for the reason said last, until it was done', () => {
    const said = (id: string, reason: string, at: string) =>
      made(id, 'not_done', { task: 'looks', triedOn: '2026-03-02', reason }, at);
    const shut = said('n1', 'gate locked', '2026-03-02T08:00:00Z');
    const car = said('n2', 'car on the strip', '2026-03-02T08:30:00Z');
    expect(couldNot('looks', [shut, car], since)).toBe('car on the strip');
    expect(couldNot('watering', [shut, car], since)).toBeNull();
    expect(couldNot('looks', [shut, car, looked], since)).toBeNull();
    expect(couldNot('looks', [said('n3', 'gate locked', '2026-03-01T08:00:00Z')], since)).toBeNull();
  });
});
