import { BenchRig, container, kept, loam, planted } from '../../../testing/bench-rig';
import { HazardNow } from './hazard-now';

let rig: BenchRig<HazardNow>;
const tree = () => [kept('ground', loam), kept('stock', container), kept('planting', planted)];
const told = () =>
  kept('hazard', {
    seenOn: '2026-06-14',
    hazard: 'tree_leaning',
    called: 'the duty officer',
    cordoned: true,
    note: '',
  });
beforeEach(() => {
  rig = new BenchRig();
});

describe('hazard now', () => {
  it('is told in two taps, with nothing typed', async () => {
    await rig.show(HazardNow, tree());
    await rig.press('Hazard now');
    await rig.press('Branch broken or hanging');
    expect(rig.outbox.sent[0]?.record).toMatchObject({
      kind: 'hazard',
      facts: { seenOn: '2026-06-15', hazard: 'branch_hanging', called: '', cordoned: false, note: '' },
    });
  });
  it('says who was called, where somebody was', async () => {
    await rig.show(HazardNow, tree());
    await rig.press('Hazard now');
    const [called] = [...rig.element.querySelectorAll('input')];
    if (!called) throw new Error('no field');
    called.value = ' the utility ';
    called.dispatchEvent(new Event('input'));
    rig.element.querySelector<HTMLInputElement>('input[type=checkbox]')?.click();
    await rig.press('Touching a wire');
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({
      hazard: 'wire_touched',
      called: 'the utility',
      cordoned: true,
    });
  });
  it('stands on the tree until it is closed with a reason', async () => {
    const hazard = told();
    await rig.show(HazardNow, [...tree(), hazard]);
    expect(rig.element.querySelector('[role="alert"]')?.textContent).toContain('Tree leaning or loose');
    expect(rig.text).toContain('Called: the duty officer. Cordoned off.');
    const close = [...rig.element.querySelectorAll('button')].find(
      (one) => one.textContent.trim() === 'Close the hazard',
    );
    expect(close?.disabled).toBe(true);
    const why = rig.element.querySelector<HTMLInputElement>('form input');
    if (!why) throw new Error('no field');
    why.value = 'staked anew';
    why.dispatchEvent(new Event('input'));
    await rig.submit();
    expect(rig.outbox.sent[0]?.record).toMatchObject({
      kind: 'hazard_closed',
      facts: { closedOn: '2026-06-15', hazardId: hazard.id, reason: 'staked anew' },
    });
  });
  it('of two that stand each has its own reason', async () => {
    await rig.show(HazardNow, [...tree(), told(), told()]);
    const fields = [...rig.element.querySelectorAll<HTMLInputElement>('form input')];
    expect(fields).toHaveLength(2);
    const [first] = fields;
    if (!first) throw new Error('no field');
    first.value = 'staked anew';
    first.dispatchEvent(new Event('input'));
    await rig.fixture.whenStable();
    const closes = [...rig.element.querySelectorAll<HTMLButtonElement>('form button')];
    expect(closes.map(({ disabled }) => disabled)).toEqual([false, true]);
    expect(fields[1]?.value).toBe('');
  });
  it('is not offered where no tree is planted, and not closed by who may not', async () => {
    await rig.show(HazardNow, [kept('ground', loam)]);
    expect(rig.text).not.toContain('Hazard now');
    rig.session.user.update((user) => user && { ...user, role: 'waterer' });
    await rig.show(HazardNow, [...tree(), told()]);
    expect(rig.text).toContain('Hazard now');
    expect(rig.text).not.toContain('Close the hazard');
  });
});
