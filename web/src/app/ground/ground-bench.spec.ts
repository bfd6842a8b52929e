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
      stony: false,
      compacted: false,
      percolation: [],
      slopePct: null,
      fallsTowardsDeg: null,
      stripWidthMm: null,
      wireHeightM: null,
    });
  });
});
