import fc from 'fast-check';
import { firstConflicts, growthRatePerYear, treeSizeAt } from './growth';
import { shippedSpecies } from './library';
import { matureHeightM } from './species';

const anySpecies = fc.constantFrom(...shippedSpecies);

describe('growth of a tree', () => {
  it('closes half of the gap to its mature height in ln 2 over the rate', () => {
    for (const species of shippedSpecies) {
      const years = 1 + Math.LN2 / growthRatePerYear[species.growth];
      const start = Math.min(2, matureHeightM(species));
      const { heightM } = treeSizeAt(species, { heightAtPlantingM: 2, years });
      expect(heightM).toBeCloseTo((start + matureHeightM(species)) / 2, 9);
    }
  });

  it('never shrinks and never passes the mature height', () => {
    fc.assert(
      fc.property(
        anySpecies,
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 90, noNaN: true }),
        (species, years, more) => {
          const now = treeSizeAt(species, { heightAtPlantingM: 2.5, years });
          const later = treeSizeAt(species, { heightAtPlantingM: 2.5, years: years + more });
          return later.heightM >= now.heightM - 1e-9 && later.heightM <= Math.max(2.5, matureHeightM(species)) + 1e-9;
        },
      ),
    );
  });

  it('meets a wire in the first year it is taller than the wire allows', () => {
    fc.assert(
      fc.property(anySpecies, fc.double({ min: 3, max: 20, noNaN: true }), (species, tallestM) => {
        const [met] = firstConflicts(species, { tallestM, wireM: null, wallM: null, nextTreeM: null }, 2);
        const heightIn = (years: number) => treeSizeAt(species, { heightAtPlantingM: 2, years }).heightM;
        if (!met) return heightIn(60) <= tallestM;
        return heightIn(met.year) > tallestM && (met.year === 0 || heightIn(met.year - 1) <= tallestM);
      }),
    );
  });

  it('meets a neighbour that grows alike half way: at 5 m in year 8', () => {
    const lime = shippedSpecies.find(({ botanical }) => botanical === 'Tilia × europaea');
    if (!lime) throw new Error('no lime');
    const room = { tallestM: null, wireM: null, wallM: null, nextTreeM: 5 };
    expect(firstConflicts(lime, room, 3)).toEqual([{ with: 'tree', year: 8 }]);
    const crownIn = (years: number) => treeSizeAt(lime, { heightAtPlantingM: 3, years }).crownM;
    expect([crownIn(7) <= 5, crownIn(8) > 5]).toEqual([true, true]);
  });

  it('passes beside a wire its crown does not reach', () => {
    const cypress = shippedSpecies.find(({ botanical }) => botanical === 'Cupressus sempervirens');
    if (!cypress) throw new Error('no cypress');
    const room = { tallestM: 5, wireM: 3, wallM: null, nextTreeM: null };
    expect(firstConflicts(cypress, room, 2)).toEqual([]);
    expect(firstConflicts(cypress, { ...room, wireM: 0.5 }, 2)[0]?.with).toBe('wire');
  });
});
