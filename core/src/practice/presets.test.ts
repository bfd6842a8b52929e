import { fieldDefault, type Practice } from './practice';
import { nearestPreset, presets } from './presets';

const called = (id: string) => {
  const found = presets.find((one) => one.id === id);
  if (!found) throw new Error(id);
  return found;
};

describe('the shipped practice for stock that another does not plant', () => {
  const own = (change: {
    baseMm: number;
    staking: Practice['staking']['rule'];
    material?: 'bark_fines';
  }): Practice => ({
    ...fieldDefault,
    id: 'own',
    appliesTo: ['bare_root'],
    flareAboveGrade: { ...fieldDefault.flareAboveGrade, baseMm: change.baseMm },
    staking: { ...fieldDefault.staking, rule: change.staking },
    backfill: { ...fieldDefault.backfill, material: change.material ?? 'site_soil' },
  });

  it('is the practice itself where it plants it', () => {
    const mine = own({ baseMm: 40, staking: 'never' });
    expect(nearestPreset(mine, 'bare_root')).toBe(mine);
  });

  // Alike in what is mixed in, in staking and in the height of the flare.
  it.each([
    [{ baseMm: 40, staking: 'never' }, 'many-hands'],
    [{ baseMm: 25, staking: 'never' }, 'native-soil'],
    [{ baseMm: 40, staking: 'where_needed' }, 'field-default'],
    [{ baseMm: 75, staking: 'always', material: 'bark_fines' }, 'heavy-clay'],
    [{ baseMm: 35, staking: 'always', material: 'bark_fines' }, 'heavy-clay'],
    [{ baseMm: 0, staking: 'always' }, 'garden-enriched'],
  ] as const)('for %j is %s', (change, id) => {
    expect(nearestPreset(own(change), 'container').id).toBe(id);
  });

  it('made for bare roots alone comes before one for everything', () => {
    for (const id of ['native-soil', 'garden-enriched', 'heavy-clay', 'many-hands']) {
      expect(nearestPreset(called(id), 'bare_root').id).toBe('dormant-bare-root');
    }
    // Unless it is as high again and stakes otherwise.
    expect(
      nearestPreset({ ...own({ baseMm: 150, staking: 'where_needed' }), appliesTo: ['balled'] }, 'bare_root').id,
    ).toBe('field-default');
  });
});
