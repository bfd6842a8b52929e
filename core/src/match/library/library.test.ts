import { genusOf, requireSpecies } from '../species';
import { shippedSpecies } from './shipped-species';
import { readRow } from './read-row';

/** Families as today's classification (APG IV, and later splits) has them, for genera people often misplace. */
const familyOfGenus: Record<string, string> = {
  Acer: 'Sapindaceae',
  Aesculus: 'Sapindaceae',
  Celtis: 'Cannabaceae',
  Tilia: 'Malvaceae',
  Brachychiton: 'Malvaceae',
  Koelreuteria: 'Sapindaceae',
  Liquidambar: 'Altingiaceae',
  Corylus: 'Betulaceae',
  Carpinus: 'Betulaceae',
  Taxodium: 'Cupressaceae',
  Viburnum: 'Viburnaceae',
  Punica: 'Lythraceae',
  Dracaena: 'Asparagaceae',
  Nyssa: 'Nyssaceae',
  Quillaja: 'Quillajaceae',
};

describe('the shipped species', () => {
  it('are ninety or more, each once', () => {
    expect(shippedSpecies.length).toBeGreaterThanOrEqual(90);
    expect(new Set(shippedSpecies.map(({ botanical }) => botanical)).size).toBe(shippedSpecies.length);
  });

  it.each(shippedSpecies.map((species) => [species.botanical, species] as const))(
    'hold sound facts of %s',
    (_n, species) => {
      expect(() => requireSpecies(species)).not.toThrow();
      expect(species.common.length).toBeGreaterThan(2);
      expect(species.notes).toMatch(/[.]$/);
      // A crown wider than twice the tree's height, or a tree that bears no kind of stock, is a slip.
      expect(species.spreadM.max).toBeLessThan(2 * species.heightM.max);
      expect(Object.values(species.transplant).some((grade) => grade === 'easy' || grade === 'fair')).toBe(true);
    },
  );

  it('put every genus in one family, and known ones in the right one', () => {
    const families = new Map<string, string>();
    for (const { botanical, family } of shippedSpecies) {
      const genus = genusOf(botanical);
      expect([genus, families.get(genus) ?? family]).toEqual([genus, family]);
      families.set(genus, family);
      expect(family).toMatch(/^[A-Z][a-z]+aceae$/);
    }
    for (const [genus, family] of Object.entries(familyOfGenus))
      expect([genus, families.get(genus)]).toEqual([genus, family]);
  });

  it('cover what a programme meets: dry, wet, salt, shade, frost, small and narrow', () => {
    const some = (test: (species: (typeof shippedSpecies)[number]) => boolean) => shippedSpecies.filter(test).length;
    expect(some(({ drought }) => drought === 'high')).toBeGreaterThan(20);
    expect(some(({ wet }) => wet === 'yes')).toBeGreaterThan(6);
    expect(some(({ salt }) => salt === 'high')).toBeGreaterThan(5);
    expect(some(({ sun }) => sun === 'shade')).toBeGreaterThan(5);
    expect(some(({ frostC }) => frostC <= -30)).toBeGreaterThan(15);
    expect(some(({ heightM }) => heightM.max <= 8)).toBeGreaterThan(12);
    expect(some(({ foliage }) => foliage === 'evergreen')).toBeGreaterThan(15);
  });

  it('refuse a row with a slip', () => {
    expect(() => readRow('Acer rubrum|red maple')).toThrow('row of Acer rubrum must have 22 columns, got 2');
  });
});
