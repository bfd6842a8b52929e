import { fieldDefault, withChoice } from '@sombra/core';
import { BenchRig, container, kept, loam, planted } from '../../../testing/bench-rig';
import { InspectBench } from './inspect-bench';

let rig: BenchRig<InspectBench>;
const tree = () => [kept('ground', loam), kept('stock', container), kept('planting', planted)];
beforeEach(() => {
  rig = new BenchRig();
});

describe('inspection bench', () => {
  it('asks for the planting first', async () => {
    await rig.show(InspectBench, [kept('ground', loam), kept('stock', container)]);
    expect(rig.text).toContain('This tree is not recorded as planted.');
  });

  it('lets the verdict grow as things are entered, worst first', async () => {
    await rig.show(InspectBench, tree());
    expect(rig.text).toContain('The verdict grows as you enter what you find.');
    await rig.choose('Mulch at the trunk', 'touching the trunk');
    expect(rig.text).toContain('Mulch touches the trunk: bark stays wet.');
    await rig.choose('Probe at ball depth', 'dry');
    const levels = [...rig.element.querySelectorAll('s-findings s-level-mark')].map((mark) => mark.textContent.trim());
    expect(levels).toEqual(['Urgent', 'Act']);
    // Looked at on 15 June: dry asks for another look in three days.
    expect(rig.text).toContain('Next look Thu 18 Jun 2026');
  });

  it('takes a finger where there is no probe, and leaves it out once there is one', async () => {
    await rig.show(InspectBench, tree());
    await rig.choose('No probe: finger in the top of the ball', 'Dry');
    expect(rig.text).toContain('A finger finds the top of the ball dry');
    await rig.choose('Probe at ball depth', 'moist');
    expect(rig.text).not.toContain('A finger finds');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({ probe: 'moist' });
    expect(rig.outbox.sent[0]?.record.facts).not.toHaveProperty('finger');
  });

  it('needs where and how thick a circling root is before it judges', async () => {
    await rig.show(InspectBench, tree());
    await rig.choose('Circling roots at the collar', 'Yes');
    await rig.type('Presses from', '350');
    await rig.type('Presses to', '95');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    await rig.type('Thickness', '18');
    expect(rig.text).toContain('Roots press on 29.2 % of the trunk');
  });

  it('stores nothing when nothing was looked at', async () => {
    await rig.show(InspectBench, tree());
    await rig.submit();
    expect(rig.text).toContain('Record at least one thing you looked at.');
    expect(rig.outbox.sent).toEqual([]);
  });

  it.each([
    ['2026-06-16', 'Must not be after today, 2026-06-15'],
    ['2026-01-09', 'Must not be before the planting, 2026-01-10'],
  ])('refuses a look on %s', async (day, fault) => {
    await rig.show(InspectBench, tree());
    await rig.choose('Stake and tie', 'no stake');
    await rig.type('Looked on', day);
    await rig.submit();
    expect(rig.text).toContain(fault);
    expect(rig.outbox.sent).toEqual([]);
  });

  it('corrects one’s own look of the same day, and adds one of another day or beside another person’s', async () => {
    const me = '0190a5c2-0000-4000-8000-0000000000e1';
    rig.session.user.update((user) => user && { ...user, id: me });
    const seen = {
      inspectedOn: '2026-06-15',
      flareDepthMm: 0,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe: null,
      circlingRoots: null,
    };
    const look = { ...kept('inspection', seen), recordedById: me };
    await rig.show(InspectBench, [...tree(), look]);
    await rig.choose('Stake and tie', 'tie tight');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record).toMatchObject({
      supersedes: look.id,
      facts: { stake: 'tight', circlingRoots: null },
    });
    await rig.type('Looked on', '2026-06-14');
    await rig.choose('Stake and tie', 'no stake');
    await rig.submit();
    expect(rig.outbox.sent[1]?.record.supersedes).toBeNull();
    const theirs = { ...look, recordedById: '0190a5c2-0000-4000-8000-0000000000e2' };
    await rig.show(InspectBench, [...tree(), theirs]);
    await rig.choose('Stake and tie', 'tie tight');
    await rig.submit();
    expect(rig.outbox.sent.at(-1)?.record.supersedes).toBeNull();
  });
});

describe('inspection bench under what was decided otherwise here', () => {
  const cleared = { decidedOn: '2026-06-01', path: 'inspection.flare.clearFromMm', value: 60, reason: 'washed in' };

  it('judges the flare as the server will', async () => {
    await rig.show(InspectBench, [...tree(), kept('override', cleared)]);
    await rig.type('Flare below the surface', '40');
    const [level] = [...rig.element.querySelectorAll('s-findings s-level-mark')].map((one) => one.textContent.trim());
    expect(level).toBe('Watch');
  });

  it('judges by another practice of the programme', async () => {
    rig.detail = { practice: withChoice(fieldDefault, 'inspection.flare.clearFromMm', 50) };
    await rig.show(InspectBench, tree());
    await rig.type('Flare below the surface', '40');
    expect(rig.element.querySelector('s-findings s-level-mark')?.textContent.trim()).toBe('Watch');
  });

  it('takes no root that begins where it ends', async () => {
    await rig.show(InspectBench, tree());
    await rig.choose('Circling roots at the collar', 'Yes');
    await rig.type('Presses from', '90');
    await rig.type('Presses to', '90');
    await rig.type('Thickness', '18');
    await rig.submit();
    expect(rig.text).toContain('Must not be where it begins, 90°; all the way round is 0° to 360°');
    expect(rig.outbox.sent).toEqual([]);
  });
});
