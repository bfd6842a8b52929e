import { shippedSpecies } from './library';
import { nameSign } from './true-to-name';

describe('what tells a species from those sold under its name', () => {
  it('names others of its trade name first, and among them those that leaves tell apart', () => {
    const sign = nameSign('Quercus ilex', shippedSpecies);
    expect(sign?.foliage).toBe('evergreen');
    expect(sign?.others.length).toBeGreaterThan(0);
    expect(sign?.others.map(({ botanical }) => botanical)).not.toContain('Quercus ilex');
    expect(sign?.others[0]?.foliage).toBe('deciduous');
  });
  it('knows nothing of what the library does not hold', () => {
    expect(nameSign('Arbor ignota', shippedSpecies)).toBeNull();
    const alone = shippedSpecies.filter(({ botanical }) => botanical === 'Quercus ilex');
    expect(nameSign('Quercus ilex', alone)).toBeNull();
  });
});
