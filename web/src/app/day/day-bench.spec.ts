import { fieldDefault, mildWinterWindows, unknownAssessment, withChoice } from '@sombra/core';
import { BenchRig, container, kept, loam, planted } from '../../../testing/bench-rig';
import { DayBench } from './day-bench';

let rig: BenchRig<DayBench>;
beforeEach(async () => {
  rig = new BenchRig();
  await rig.show(DayBench, [kept('ground', loam), kept('stock', container)]);
});

describe('planting bench', () => {
  it('names the planned numbers beside the fields', () => {
    expect(rig.text).toContain('Flare 40 mm above grade');
    expect(rig.text).toContain('Planned 1125 mm');
    expect(rig.text).toContain('Planned 51 L');
  });

  it('judges the difference while it is typed, by the lowest point', async () => {
    await rig.type('Flare, point 1', '44');
    await rig.type('Flare, point 2', '20');
    await rig.type('Hole width', '1125');
    await rig.type('First water', '30');
    expect(rig.text).toContain('Flare 20 mm lower than planned (20 mm for 40 mm)');
    expect(rig.text).toContain('First water 30 L, 21 L short of 51 L.');
  });

  it('takes a flare below grade as negative', async () => {
    await rig.type('Flare, point 1', '-15');
    await rig.type('Hole width', '1125');
    await rig.type('First water', '51');
    expect(rig.text).toContain('Flare 15 mm below grade, planned 40 mm above.');
  });

  it('sends the practice the tree was planted under', async () => {
    await rig.type('Flare, point 1', '40');
    await rig.type('Hole width', '1125');
    await rig.type('First water', '51');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toEqual({
      plantedOn: '2026-06-15',
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 51,
      practiceId: 'field-default',
      practiceVersion: 1,
    });
  });

  it('takes over what others planted with what is known of it, and says what is needed', async () => {
    const others = rig.element.querySelector<HTMLInputElement>('input[formcontrolname="others"]');
    others?.click();
    await rig.fixture.whenStable();
    await rig.type('Planted on', '2025-03-01');
    await rig.submit();
    expect(rig.text).toContain('since when it is yours, and from whom are needed');
    expect(rig.outbox.sent).toEqual([]);
    await rig.type('From whom', 'Dock Office');
    await rig.type('Taken over on', '2025-02-01');
    expect(rig.text).toContain('Must not be before the planting, 1 Mar 2025');
    await rig.type('Taken over on', '2026-06-01');
    expect(rig.text).toContain('how it was planted is not known');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toEqual({
      plantedOn: '2025-03-01',
      takenOver: { on: '2026-06-01', from: 'Dock Office' },
      flareAboveGradeMm: [],
      practiceId: 'field-default',
      practiceVersion: 1,
    });
  });

  it('does not take a planting from tomorrow', async () => {
    await rig.type('Planted on', '2026-06-16');
    await rig.type('Flare, point 1', '40');
    await rig.type('Hole width', '1125');
    await rig.type('First water', '51');
    await rig.submit();
    expect(rig.text).toContain('Must not be after today, 15 Jun 2026');
    expect(rig.outbox.sent).toEqual([]);
  });
});

describe('planting bench, soil put back', () => {
  it('says, draws and judges the same flare', async () => {
    await rig.type('Put back and firmed under the ball', '100');
    expect(rig.text).toContain('Flare 50 mm above grade');
    expect(rig.element.querySelector('svg')?.getAttribute('aria-label')).toContain('flare 50 mm above grade');
    await rig.type('Flare, point 1', '50');
    await rig.type('Hole width', '1125');
    await rig.type('First water', '51');
    expect(rig.text).toContain('Flare 50 mm above grade, planned 50 mm');
  });

  it('shows it of a planting that is stored', async () => {
    const built = { ...planted, putBackMm: 100, flareAboveGradeMm: [50] };
    rig = new BenchRig();
    await rig.show(DayBench, [kept('ground', loam), kept('stock', container), kept('planting', built)]);
    expect(rig.text).toContain('Flare 50 mm above grade');
    expect(rig.element.querySelector('svg')?.getAttribute('aria-label')).toContain('flare 50 mm above grade');
  });

  it('asks for the depth of the very pit it plans, soil to be put back included', async () => {
    rig = new BenchRig();
    rig.detail = { practice: withChoice(fieldDefault, 'pitWidth.base', 'dug_deeper') };
    await rig.show(DayBench, [kept('ground', loam), kept('stock', container)]);
    // He 340 less 40 and a tenth of 75: 292.5, and 75 below it.
    await rig.type('Hole depth before anything went back', '367');
    expect(rig.text).not.toContain('too deep');
    await rig.type('Hole depth before anything went back', '400');
    expect(rig.text).toContain('too deep');
  });
});

describe('planting bench, how the tree is turned and when', () => {
  it('names the planned side, and keeps the one it was given', async () => {
    rig = new BenchRig();
    const seen = kept('assessment', { ...unknownAssessment('2026-06-01'), pavementDeg: 90 });
    await rig.show(DayBench, [kept('ground', loam), kept('stock', container), seen]);
    expect(rig.text).toContain('Planned E, 90°');
    await rig.press('NE');
    await rig.type('Flare, point 1', '40');
    await rig.type('Hole width', '1125');
    await rig.type('First water', '51');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toMatchObject({ bestFaceDeg: 45 });
  });

  it('says out of season what the transport makes of it', async () => {
    rig = new BenchRig();
    rig.detail = { windows: [...mildWinterWindows] };
    const arrival = { covered: false, moist: true, wateredEveryDays: null };
    await rig.show(DayBench, [kept('ground', loam), kept('stock', { ...container, arrival })]);
    // 15 June: no time for a container in a mild winter's windows.
    expect(rig.text).toContain('The time for it');
    expect(rig.text).toContain('It came uncovered: out of season that costs trees.');
    await rig.type('Planted on', '2026-01-15');
    expect(rig.text).not.toContain('The time for it');
  });
});
