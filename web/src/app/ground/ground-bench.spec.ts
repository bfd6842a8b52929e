import { BenchRig, kept, loam } from '../../../testing/bench-rig';
import { GroundBench } from './ground-bench';

let rig: BenchRig<GroundBench>;
beforeEach(() => {
  rig = new BenchRig();
});

describe('ground bench', () => {
  it('says what is still missing', async () => {
    await rig.show(GroundBench, []);
    for (const gap of ['Soil class not recorded.', 'No percolation test.', 'Slope not measured.'])
      expect(rig.text).toContain(gap);
    await rig.choose('Soil, by feel', 'clay');
    await rig.type('Slope', '4');
    expect(rig.text).not.toContain('Soil class not recorded.');
    expect(rig.text).toContain('No percolation test.');
  });

  it('shows what was measured, with the rate of the test', async () => {
    await rig.show(GroundBench, [kept('ground', { ...loam, fallsTowardsDeg: 112, slopePct: 3 })]);
    expect(rig.text).toContain('40 mm/h');
    expect(rig.text).toContain('ESE');
  });

  it('shows what is stored to whoever may only look, in fields that take nothing', async () => {
    rig.session.user.update((user) => user && { ...user, role: 'viewer' });
    await rig.show(GroundBench, [kept('ground', { ...loam, slopePct: 3 })]);
    expect(rig.text).toContain('40 mm/h');
    expect(rig.text).toContain('You look on');
    expect(rig.text).not.toContain('Store ground facts');
    const fields = [
      ...rig.element.querySelectorAll<HTMLInputElement>(
        's-measure-field input, s-choice-field input, s-choice-field button',
      ),
    ];
    expect(fields.length).toBeGreaterThan(4);
    const takes = fields.filter((field) => !field.disabled && !field.closest('fieldset')?.disabled);
    expect(takes.map(({ id, value }) => id || value)).toEqual([]);
  });

  it('warns where wires hang, and wants their height', async () => {
    await rig.show(GroundBench, []);
    await rig.choose('Wires overhead', 'Wires');
    expect(rig.text).toContain('Stay clear of conductors');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    await rig.type('Lowest wire above ground', '7.5');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({ wireHeightM: 7.5, soil: null });
  });

  it('keeps partial facts: what is not measured yet stays unknown', async () => {
    await rig.show(GroundBench, []);
    await rig.choose('Soil, by feel', 'sandy loam');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toEqual({
      soil: 'sandy_loam',
      stony: null,
      compacted: null,
      percolation: [],
      slopePct: null,
      fallsTowardsDeg: null,
      stripWidthMm: null,
      wireHeightM: null,
    });
  });

  it('takes layers from the top down, one more asked for as one is described', async () => {
    await rig.show(GroundBench, [kept('ground', loam)]);
    await rig.choose('Layers, one soil over another', 'Yes');
    expect(rig.text).not.toContain('Layer 2');
    await rig.choose('Soil of layer 1', 'sandy loam');
    await rig.type('Layer 1 down to', '300');
    await rig.choose('Layer 1 filled by builders', 'Yes');
    await rig.choose('Soil of layer 2', 'clay');
    await rig.type('Layer 2 down to', '200');
    await rig.submit();
    // The second ends above the first.
    expect(rig.text).toContain('goes deeper than the one above it');
    expect(rig.outbox.sent).toEqual([]);
    await rig.type('Layer 2 down to', '900');
    await rig.type('Layer 2 drains, by a hole in it', '4');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({
      horizons: [
        { soil: 'sandy_loam', toMm: 300, fill: true, rateMmPerH: null },
        { soil: 'clay', toMm: 900, fill: false, rateMmPerH: 4 },
      ],
    });
  });

  it('keeps layers that were stored when something else is changed', async () => {
    const horizons = [{ soil: 'loam' as const, toMm: 400, fill: false, rateMmPerH: 40 }];
    await rig.show(GroundBench, [kept('ground', { ...loam, horizons })]);
    await rig.type('Slope', '7');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({ slopePct: 7, horizons });
  });
});
