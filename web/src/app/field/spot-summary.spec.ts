import { unknownAssessment } from '@sombra/core';
import { BenchRig, container, kept, loam, planted } from '../../../testing/bench-rig';
import { SpotSummary } from './spot-summary';

const seen = kept('assessment', unknownAssessment('2026-06-01'));
const verdict = (word: 'plant' | 'not_here') =>
  kept('verdict', { decidedOn: '2026-06-02', verdict: word, reason: 'looked at' });
const choice = { chosenOn: '2026-06-03', species: 'Celtis australis', stockKind: null, caliperMm: null, reason: '' };

describe('a spot on the chosen day', () => {
  it.each([
    ['ground', [], 'Enter ground facts'],
    ['ground', [kept('ground', loam), seen], 'Decide on the place'],
    ['match', [kept('ground', loam), seen, verdict('plant')], 'Choose the species'],
    ['stock', [kept('ground', loam), seen, verdict('plant'), kept('choice', choice)], 'Enter stock measures'],
    ['day', [kept('ground', loam), kept('stock', container)], 'Record as built'],
    ['inspect', [kept('ground', loam), kept('stock', container), kept('planting', planted)], 'Inspect now'],
    ['ground', [kept('ground', loam), seen, verdict('not_here')], 'Look at the place'],
  ] as const)('in %s offers what is done there', async (stage, records, act) => {
    const rig = new BenchRig<SpotSummary>();
    await rig.show(SpotSummary, records);
    const link = rig.element.querySelector<HTMLAnchorElement>('.acts a');
    expect([link?.textContent.trim(), link?.getAttribute('href')?.split('/')[1]]).toEqual([act, stage]);
  });

  it('offers nothing to whoever may only look', async () => {
    const rig = new BenchRig<SpotSummary>();
    rig.session.user.update((user) => user && { ...user, role: 'viewer' });
    await rig.show(SpotSummary, [kept('ground', loam), kept('stock', container)]);
    expect(rig.text).toContain('Plant and record as built');
    expect(rig.element.querySelector('.acts a')).toBeNull();
  });
});
