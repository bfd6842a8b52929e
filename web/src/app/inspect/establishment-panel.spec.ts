import { BenchRig, container, kept, loam, planted } from '../../../testing/bench-rig';
import { EstablishmentPanel } from './establishment-panel';

it('says what shows that a tree stands on its own, and is not signed off in silence where something is missing', async () => {
  const rig = new BenchRig<EstablishmentPanel>();
  await rig.show(EstablishmentPanel, [kept('ground', loam), kept('stock', container), kept('planting', planted)]);
  expect(rig.text).toContain('Growth: not known.');
  expect(rig.text).toContain('Last look: not known.');
  await rig.press('Sign it off as established');
  expect(rig.text).toContain('say why it counts as established, in 3 letters or more');
  expect(rig.outbox.sent).toEqual([]);
  const why = (rig.fixture.nativeElement as HTMLElement).querySelector('input');
  if (!why) throw new Error('no field');
  why.value = 'two summers without a truck';
  why.dispatchEvent(new Event('input'));
  await rig.press('Sign it off as established');
  expect(rig.outbox.sent[0]?.record).toMatchObject({
    kind: 'signed_off',
    facts: { signedOn: '2026-06-15', reason: 'two summers without a truck' },
  });
});
