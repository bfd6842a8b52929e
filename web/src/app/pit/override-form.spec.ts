import { fieldDefault, withChoice } from '@sombra/core';
import { BenchRig, container, kept, loam } from '../../../testing/bench-rig';
import { OverrideForm } from './override-form';

let rig: BenchRig<OverrideForm>;
const field = (id: string) => {
  const found = rig.element.querySelector<HTMLInputElement | HTMLSelectElement>(`#${id}`);
  if (!found) throw new Error(id);
  return found;
};
const fill = async (id: string, value: string) => {
  field(id).value = value;
  field(id).dispatchEvent(new Event('input'));
  field(id).dispatchEvent(new Event('change'));
  await rig.fixture.whenStable();
};
const store = async () => {
  rig.element.querySelector('form')?.dispatchEvent(new Event('submit'));
  await rig.fixture.whenStable();
};
const sent = () => rig.outbox.sent.map(({ record }) => record.facts);

beforeEach(async () => {
  rig = new BenchRig();
  await rig.show(OverrideForm, [kept('ground', loam), kept('stock', container)]);
});

describe('a choice made otherwise for one spot', () => {
  it('begins at what the practice chooses', async () => {
    expect(field('ov-value').value).toBe('ball_edge');
    await fill('ov-choice', 'flareAboveGrade.baseMm');
    expect(field('ov-value').value).toBe('40');
  });

  it('is sent with its reason', async () => {
    await fill('ov-value', 'none');
    await fill('ov-reason', 'water stands here');
    await store();
    expect(sent()).toEqual([
      { decidedOn: '2026-06-15', path: 'berm.where', value: 'none', reason: 'water stands here' },
    ]);
  });

  it('wants a reason', async () => {
    await fill('ov-value', 'none');
    await store();
    expect([sent(), rig.text.includes('Because must say why')]).toEqual([[], true]);
  });

  it.each([
    ['900', 'must be within 0–150 mm, got 900.'],
    ['', 'must be a number, got nothing.'],
    ['deep', 'must be a number, got deep.'],
  ])('refuses %s by name and limit, and keeps it as typed', async (value, words) => {
    await fill('ov-choice', 'flareAboveGrade.baseMm');
    await fill('ov-value', value);
    await fill('ov-reason', 'wet corner');
    await store();
    expect(rig.text).toContain(words);
    expect([sent(), field('ov-value').value, field('ov-reason').value]).toEqual([[], value, 'wet corner']);
  });

  it('takes yes or no as such', async () => {
    await fill('ov-choice', 'berm.notInSlowSoil');
    await fill('ov-value', 'false');
    await fill('ov-reason', 'tested again');
    await store();
    expect(sent()).toMatchObject([{ path: 'berm.notInSlowSoil', value: false }]);
  });
});

describe('choices made otherwise before', () => {
  it('are named with their reasons', async () => {
    rig = new BenchRig();
    await rig.show(OverrideForm, [
      kept('ground', loam),
      kept('override', { decidedOn: '2026-06-01', path: 'berm.where', value: 'none', reason: 'ponds in winter' }),
    ]);
    expect(rig.text).toContain('Otherwise here: Berm: none (ponds in winter)');
  });
});

describe('a choice made otherwise, in other units', () => {
  it('that nobody typed over is sent to the last digit', async () => {
    rig.session.units.set('us');
    await fill('ov-choice', 'flareAboveGrade.baseMm');
    expect(field('ov-value').value).toBe('1 5/8');
    await fill('ov-reason', 'as everywhere');
    await store();
    expect(sent()).toMatchObject([{ value: 40 }]);
  });

  it('is the same volume when the units change under it, typed or not', async () => {
    await fill('ov-choice', 'firstSoak.fixedL');
    rig.session.units.set('us');
    await rig.fixture.whenStable();
    expect(field('ov-value').value).toBe('10.57');
    await fill('ov-value', '20');
    rig.session.units.set('metric');
    await rig.fixture.whenStable();
    expect(field('ov-value').value).toBe('75.7');
    await fill('ov-reason', 'two cans more');
    await store();
    // 20 US gallons.
    expect((sent()[0] as { value: number }).value).toBeCloseTo(20 * 3.785411784, 9);
  });

  it('keeps what is no number through a change of units', async () => {
    await fill('ov-choice', 'firstSoak.fixedL');
    await fill('ov-value', 'a lot');
    rig.session.units.set('us');
    await rig.fixture.whenStable();
    expect(field('ov-value').value).toBe('a lot');
  });
});

describe('a choice that contradicts another', () => {
  it('is refused before it is sent', async () => {
    await fill('ov-choice', 'percolation.slowFromMmPerH');
    await fill('ov-value', '50');
    await fill('ov-reason', 'wet corner');
    await store();
    expect(rig.text).toContain('must be at most it drains slowly under (Drainage of the ground), 25, got 50.');
    expect(sent()).toEqual([]);
  });

  it('and was decided under another practice is said not to count any more', async () => {
    rig = new BenchRig();
    rig.detail = { practice: withChoice(fieldDefault, 'percolation.goodFromMmPerH', 15) };
    const slow = { decidedOn: '2026-06-01', path: 'percolation.slowFromMmPerH', value: 20, reason: 'old test' };
    await rig.show(OverrideForm, [kept('ground', loam), kept('override', slow)]);
    expect(rig.text).toContain('Does not count any more');
  });
});
