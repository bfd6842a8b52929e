import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { unknownAssessment, type Assessment } from '@sombra/core';
import { BenchRig, kept, loam, spotId } from '../../../testing/bench-rig';
import { SiteVerdictPanel } from './site-verdict-panel';

let rig: BenchRig<SiteVerdictPanel>;
const tape = (thing: 'building' | 'kerb', distanceM: number) => ({ thing, distanceM, by: 'tape' as const });
const seen = (change: Partial<Assessment> = {}) =>
  kept('assessment', {
    ...unknownAssessment('2026-06-01'),
    clearances: [tape('building', 12), tape('kerb', 3)],
    openSoilM2: 60,
    soilDepthMm: 900,
    sunHours: 8,
    ...change,
  });
const reason = async (text: string) => {
  const field = rig.element.querySelector('textarea');
  if (!field) throw new Error('no reason');
  field.value = text;
  field.dispatchEvent(new Event('input'));
  await rig.fixture.whenStable();
};

beforeEach(() => {
  rig = new BenchRig();
});

describe('the verdict on a place', () => {
  it('is proposed with what the place has room for, and why', async () => {
    await rig.show(SiteVerdictPanel, [kept('ground', loam), seen({ clearances: [tape('building', 1)] })]);
    expect(rig.text).toContain('Sombra proposes: Move the spot');
    expect(rig.text).toMatch(/No room for even a small tree/);
    expect(rig.text).toMatch(/1\.00 m.*2\.00 m/);
    expect(rig.text).toContain('Local codes, permits and the utilities');
  });

  it('is the coordinator’s, with a reason of three letters or more', async () => {
    await rig.show(SiteVerdictPanel, [kept('ground', loam), seen()]);
    await rig.choose('This place is to', 'Plant if');
    expect(rig.text).toContain('What must change first');
    await reason('no');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    expect(rig.text).toContain('say why, in 3 letters or more');
    await reason(' take the kerb back ');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record).toMatchObject({
      kind: 'verdict',
      facts: { decidedOn: '2026-06-15', verdict: 'plant_if', reason: 'take the kerb back' },
      // A verdict is decided anew, not corrected.
      supersedes: null,
    });
  });

  it('to plant leads on to the choice of a species', async () => {
    await rig.show(SiteVerdictPanel, [kept('ground', loam), seen()]);
    await rig.choose('This place is to', 'Plant');
    await reason('wide verge');
    await rig.submit();
    expect(TestBed.inject(Router).url).toBe(`/match/${spotId}`);
  });

  it('that stands is shown with its day and reason', async () => {
    const verdict = kept('verdict', { decidedOn: '2026-06-02', verdict: 'move', reason: 'two metres east' });
    await rig.show(SiteVerdictPanel, [kept('ground', loam), seen(), verdict]);
    expect(rig.text).toMatch(/Move the spot, 2 Jun 2026: two metres east/);
    expect(rig.text).toContain('Where to, and why');
  });

  it('is not anybody’s who does not decide', async () => {
    rig.session.user.update((user) => user && { ...user, role: 'inspector' });
    await rig.show(SiteVerdictPanel, [kept('ground', loam), seen()]);
    expect(rig.text).toContain('The coordinator decides.');
    expect(rig.element.querySelector('form')).toBeNull();
  });
});
