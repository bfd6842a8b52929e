import { seenAsLook, type RemedySeen } from '@sombra/core';
import { BenchRig, container, kept, loam, planted } from '../../../testing/bench-rig';
import { DecidePanel } from './decide-panel';

const rig = new BenchRig<DecidePanel>();
const show = (seen: RemedySeen) =>
  rig.show(DecidePanel, [
    kept('ground', loam),
    kept('stock', container),
    kept('planting', planted),
    kept('inspection', seenAsLook(seen, '2026-06-10')),
  ]);
const element = () => rig.fixture.nativeElement as HTMLElement;
const names = () => [...element().querySelectorAll('.acts button')].map((one) => one.textContent.trim());
async function type(id: string, text: string): Promise<void> {
  const field = element().querySelector<HTMLInputElement>(`#decide-${id}`);
  if (!field) throw new Error(`no field ${id}`);
  field.value = text;
  field.dispatchEvent(new Event(field.tagName === 'SELECT' ? 'change' : 'input'));
  await rig.fixture.whenStable();
}

describe('what people decide about a tree', () => {
  it('is offered as far as there is something to decide', async () => {
    await show({ mulchContact: 'clear' });
    expect(names()).toEqual(['Claim another tree', 'Tree taken out']);
    await show({ bark: 'decayed', signs: ['pests'] });
    expect(names()).toEqual([
      'An arborist answered',
      'Decided against advice',
      'Claim another tree',
      'Told of a notifiable pest',
      'Tree taken out',
    ]);
  });

  it('an arborist’s answer is stored with a name, and not without', async () => {
    await show({ bark: 'decayed' });
    await rig.press('An arborist answered');
    await rig.press('Store');
    expect(rig.text).toContain('Arborist must be named, in 3 letters or more.');
    await type('who', 'Ada Quill, register 118');
    await type('advice', 'take_out');
    await rig.press('Store');
    expect(rig.outbox.sent.at(-1)?.record).toMatchObject({
      kind: 'arborist_answer',
      facts: { answeredOn: '2026-06-15', arborist: 'Ada Quill, register 118', advice: 'take_out', note: '' },
    });
  });

  it('an owner’s choice against advice says which, and why', async () => {
    await show({ flareDepthMm: 200 });
    await rig.press('Decided against advice');
    await rig.press('Store');
    expect(rig.text).toContain('Say why, in 3 letters or more.');
    await type('words', 'wants it left');
    await rig.press('Store');
    expect(rig.outbox.sent.at(-1)?.record.facts).toEqual({
      decidedOn: '2026-06-15',
      remedy: 'lift_and_replant',
      by: 'owner',
      reason: 'wants it left',
    });
  });

  it('a tree taken out says why, and what is left in the ground', async () => {
    await show({ alive: 'brittle' });
    await rig.press('Tree taken out');
    expect(rig.text).toContain('felling is for qualified people');
    await type('stump', 'left');
    await rig.press('Store');
    expect(rig.outbox.sent.at(-1)?.record.facts).toEqual({
      ...{ removedOn: '2026-06-15', why: 'dead', stump: 'left', pitReusable: false, note: '' },
    });
  });
});
