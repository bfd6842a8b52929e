import type { CirclingRoot, RemedyCode, RemedySeen } from '@sombra/core';
import { PageRig } from '../../../testing/page-rig';
import { DoneToday } from './done-today';

let rig: PageRig<DoneToday>;
let said: (RemedySeen | undefined)[];
async function show(remedy: RemedyCode, inputs: Record<string, unknown> = {}): Promise<void> {
  said = [];
  await rig.show(DoneToday, { inputs: { remedy, ...inputs } });
  rig.fixture.componentInstance.did.subscribe((seen) => said.push(seen));
}
const root = (fromDeg: number, toDeg: number, touch: CirclingRoot['touch'] = 'pressing'): CirclingRoot => ({
  arc: { fromDeg, toDeg },
  diameterMm: 20,
  touch,
});

beforeEach(() => {
  rig = new PageRig();
});

describe('done today', () => {
  it('is one press where nothing can show it', async () => {
    await show('prune_broken');
    await rig.press('Done today');
    expect(said).toEqual([undefined]);
  });
  it('is a tap that says what was seen', async () => {
    await show('pull_back_mulch');
    await rig.press('mulch is clear of the trunk');
    expect(said).toEqual([{ mulchContact: 'clear' }]);
  });
  it('takes a measure in the units of whoever measures, and not without one', async () => {
    rig.session.units.set('us');
    await show('thin_mulch');
    expect(rig.button('Done, as measured')).toHaveProperty('disabled', true);
    await rig.fill('Mulch depth now', '3');
    await rig.press('Done, as measured');
    expect(said).toEqual([{ mulchDepthMm: 76.2 }]);
  });
  it('asks for the measure before the work where it is told to, and only where a measure shows it', async () => {
    await show('thin_mulch');
    expect(rig.text).not.toContain('Before you begin');
    await show('thin_mulch', { asksBefore: true });
    const found: (number | null)[] = [];
    rig.fixture.componentInstance.found.subscribe((value) => found.push(value));
    await rig.fill('Before you begin: mulch depth', '140');
    await rig.fill('Mulch depth now', '70');
    await rig.press('Done, as measured');
    expect([found.at(-1), said]).toEqual([140, [{ mulchDepthMm: 70 }]]);
    await show('pull_back_mulch', { asksBefore: true });
    expect(rig.text).not.toContain('Before you begin');
  });
  it('says of roots which are left: those of this season’s plan gone, or none that presses', async () => {
    const roots = [root(0, 60), root(100, 150), root(200, 230, 'clear')];
    await show('stage_root_cuts', { roots, cuts: [1] });
    await rig.press('as planned for this season: root 2 cut');
    await rig.press('nothing presses any more');
    expect(said).toEqual([{ circlingRoots: [roots[0], roots[2]] }, { circlingRoots: [roots[2]] }]);
  });
  it('says nothing of roots for several trees at once', async () => {
    await show('cut_root', { count: 4 });
    expect(rig.text).toContain('tree by tree');
    expect(rig.element.querySelectorAll('button')).toHaveLength(0);
  });
  it('does not carry a measure over to another remedy', async () => {
    await show('thin_mulch');
    await rig.fill('Mulch depth now', '70');
    rig.fixture.componentRef.setInput('remedy', 'clear_to_flare');
    await rig.settle();
    expect(rig.button('Done, as measured')).toHaveProperty('disabled', true);
  });
});
