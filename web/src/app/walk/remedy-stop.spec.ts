import { fieldDefault, spotLife, type FieldRecord, type RecordFacts } from '@sombra/core';
import { container, kept, loam, planted } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import type { Stop } from '../along/stop';
import { RemedyStop } from './remedy-stop';

const look = {
  inspectedOn: '2026-06-10',
  flareDepthMm: null,
  mulchDepthMm: 140,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
};
const stopOf = (id: string): Stop => {
  const records = [
    kept('ground', loam),
    kept('stock', container),
    kept('planting', planted),
    kept('inspection', look),
  ] as unknown as FieldRecord[];
  const life = spotLife(records, { practice: fieldDefault });
  return {
    id,
    treeId: null,
    ref: 'A-1',
    place: '',
    position: [0, 0],
    species: '',
    records,
    detail: null,
    life,
    waits: '',
  };
};

let rig: PageRig<RemedyStop>;
let done: RecordFacts['remedy'][];
beforeEach(async () => {
  rig = new PageRig();
  done = [];
  await rig.show(RemedyStop, { inputs: { stop: stopOf('one') } });
  rig.fixture.componentInstance.done.subscribe((facts) => done.push(facts));
});
const today = () => rig.session.today();

it('stores what was measured before the work beside what was after', async () => {
  expect(rig.text).toContain('Thin the mulch');
  await rig.fill('Before you begin: mulch depth', '130');
  await rig.fill('Mulch depth now', '60');
  await rig.press('Done, as measured');
  expect(done).toEqual([
    { remedy: 'thin_mulch', doneOn: today(), seen: { mulchDepthMm: 60 }, before: { mulchDepthMm: 130 } },
  ]);
});

it('keeps no measure of one tree for the next', async () => {
  await rig.fill('Before you begin: mulch depth', '130');
  rig.fixture.componentRef.setInput('stop', stopOf('two'));
  await rig.settle();
  expect(rig.field('Before you begin: mulch depth').value).toBe('');
  await rig.fill('Mulch depth now', '60');
  await rig.press('Done, as measured');
  expect(done).toEqual([{ remedy: 'thin_mulch', doneOn: today(), seen: { mulchDepthMm: 60 } }]);
});
