import { BenchRig, container, kept, loam } from '../../testing/bench-rig';
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
