import { TestBed } from '@angular/core/testing';
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

  it('says that somebody looked that day already, and keeps both', async () => {
    const look = {
      inspectedOn: '2026-06-15',
      flareDepthMm: null,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe: 'moist' as const,
      circlingRoots: null,
    };
    await rig.show(InspectBench, [...tree(), kept('inspection', { ...look, inspectedOn: '2026-06-14' })]);
    expect(rig.text).not.toContain('already; yours will stand');
    TestBed.resetTestingModule();
    rig = new BenchRig();
    await rig.show(InspectBench, [...tree(), kept('inspection', look)]);
    expect(rig.text).toContain('Marta looked at this tree on 15 Jun 2026 already; yours will stand beside that look.');
    await rig.choose('Probe at ball depth', 'dry');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record).toMatchObject({ supersedes: null, facts: { probe: 'dry' } });
  });

  it('takes the flare at several points round the trunk, and judges the deepest', async () => {
    await rig.show(InspectBench, tree());
    await rig.type('Flare below the surface', '10');
    await rig.type('Point 2', '60');
    expect(rig.text).toContain('Flare 60 mm deep');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({ flareDepthMm: 60, flareRoundMm: [10, 60] });
    TestBed.resetTestingModule();
    rig = new BenchRig();
    await rig.show(InspectBench, tree());
    await rig.type('Flare below the surface', '10');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).not.toHaveProperty('flareRoundMm');
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

  it('needs to know where a circling root is before it judges', async () => {
    await rig.show(InspectBench, tree());
    await rig.choose('Circling roots at the collar', 'Yes');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    await rig.press('Add a root by numbers');
    await rig.type('Presses from', '350');
    await rig.type('Presses to', '95');
    await rig.type('Thickness', '18');
    expect(rig.text).toContain('Roots press on 29.2 % of the trunk');
    await rig.press('clear of the trunk');
    expect(rig.text).toContain('1 root cross or circle, clear of the trunk.');
    await rig.press('Take this root out');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
  });

  it('plans cuts over the seasons once it is known what holds the tree', async () => {
    await rig.show(InspectBench, tree());
    await rig.choose('Circling roots at the collar', 'Yes');
    for (const [from, to] of [
      [0, 60],
      [90, 150],
    ]) {
      await rig.press('Add a root by numbers');
      await rig.type('Presses from', String(from));
      await rig.type('Presses to', String(to));
      await rig.type('Thickness', '20');
    }
    // Each is half of all that is exposed: over the share of one season.
    expect(rig.text).toContain('No root is for the crew to cut.');
    for (const deg of [180, 240, 300]) {
      await rig.press('Add one that holds it');
      await rig.type('Stands towards', String(deg));
      await rig.type('Thickness', '25');
    }
    // 400 and 400 of 2675 mm²: 15 % each, 25 % a season, so one in each.
    expect(rig.text).toContain('Season 1: 60° of the trunk freed by then, 15 % of the roots');
    expect(rig.text).toContain('Season 2: 120° of the trunk freed by then, 15 % of the roots');
    expect(rig.text).toMatch(/Root 1, 20.mm: hand pruner, at 0° and 60°/);
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({
      circlingRoots: [
        { arc: { fromDeg: 0, toDeg: 60 }, diameterMm: 20, touch: 'pressing' },
        { arc: { fromDeg: 90, toDeg: 150 }, diameterMm: 20 },
      ],
      anchors: [180, 240, 300].map((bearingDeg) => ({ bearingDeg, diameterMm: 25 })),
    });
  });

  it('stores what is seen of the whole tree, and leaves out what nobody looked at', async () => {
    await rig.show(InspectBench, tree());
    await rig.press('Nothing wrong');
    await rig.choose('Trunk rocked by hand', 'the ball moves in the soil');
    await rig.choose('Stake and tie', 'no stake');
    expect(rig.text).toContain('Rocked by hand the ball moves in the soil');
    expect(rig.text).not.toContain('No stake, the tree stands.');
    await rig.press('trunk wrap');
    await rig.submit();
    const facts = rig.outbox.sent[0]?.record.facts as object;
    expect(facts).toMatchObject({ signs: [], rocks: 'ball_moves', leftOn: ['wrap'] });
    for (const key of ['alive', 'bark', 'turf', 'guard', 'anchors']) expect(facts).not.toHaveProperty(key);
  });

  it('tells wood apart by height, and stores the worst of them beside', async () => {
    await rig.show(InspectBench, tree());
    await rig.choose('Twig bent, bark scratched at the tip', 'green under the bark');
    await rig.choose('Twig bent, bark scratched at the foot', 'dry, no green');
    expect(rig.text).toContain('Dead bark below green wood: something cuts it off from its roots.');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({
      alive: 'dry',
      aliveAt: { top: 'green', base: 'dry' },
    });
  });

  it('keeps an instrument value with its device, and neither without the other', async () => {
    await rig.show(InspectBench, tree());
    await rig.press('Nothing wrong');
    await rig.choose('Instrument, where one was used', 'electrical resistance');
    await rig.type('Value, kΩ', '12.5');
    await rig.submit();
    expect(rig.text).toContain('An instrument value is kept with its device: both are needed');
    expect(rig.outbox.sent).toEqual([]);
    await rig.choose('Instrument, where one was used', 'none');
    expect(rig.text).not.toContain('both are needed');
    await rig.choose('Instrument, where one was used', 'electrical resistance');
    await rig.type('Device', 'Meter 1');
    await rig.type('Value, kΩ', '-3');
    expect(rig.text).toContain('Instrument value must be within 0–100000, got -3');
    await rig.type('Value, kΩ', '12.5');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({
      instruments: [{ kind: 'electrical', device: 'Meter 1', value: 12.5 }],
    });
  });

  it('stores nothing when nothing was looked at', async () => {
    await rig.show(InspectBench, tree());
    await rig.submit();
    expect(rig.text).toContain('Record at least one thing you looked at.');
    expect(rig.outbox.sent).toEqual([]);
  });

  it.each([
    ['2026-06-16', 'Must not be after today, 15 Jun 2026'],
    ['2026-01-09', 'Must not be before the planting, 10 Jan 2026'],
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
    await rig.press('Add a root by numbers');
    await rig.type('Presses from', '90');
    await rig.type('Presses to', '90');
    await rig.type('Thickness', '18');
    await rig.submit();
    expect(rig.text).toContain('Root 1 must not end where it begins, 90°; all the way round is 0° to 360°');
    expect(rig.outbox.sent).toEqual([]);
  });
});
