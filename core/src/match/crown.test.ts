import fc from 'fast-check';
import { crownSpreadM, middlingCrown } from './crown';

describe('crown spread', () => {
  it('starts from the stock and stands still while the tree settles', () => {
    expect(crownSpreadM({ heightAtPlantingM: 3, years: 0 })).toBeCloseTo(1.05, 9);
    expect(crownSpreadM({ heightAtPlantingM: 3, years: 1 })).toBeCloseTo(1.05, 9);
  });

  it('closes half of the gap in ln 2 over the rate', () => {
    const years = middlingCrown.settlingYears + Math.LN2 / middlingCrown.ratePerYear;
    expect(crownSpreadM({ heightAtPlantingM: 3, years })).toBeCloseTo((1.05 + 8) / 2, 9);
  });

  it('never shrinks and never passes its mature spread', () => {
    const arbitrary = fc.tuple(
      fc.double({ min: 0.2, max: 25, noNaN: true }),
      fc.double({ min: 0, max: 200, noNaN: true }),
      fc.double({ min: 0, max: 90, noNaN: true }),
    );
    fc.assert(
      fc.property(arbitrary, ([heightAtPlantingM, years, more]) => {
        const now = crownSpreadM({ heightAtPlantingM, years });
        const later = crownSpreadM({ heightAtPlantingM, years: years + more });
        return later >= now - 1e-9 && later <= middlingCrown.matureSpreadM + 1e-9;
      }),
    );
  });

  it('refuses what is no tree', () => {
    expect(() => crownSpreadM({ heightAtPlantingM: 40, years: 0 })).toThrow('heightAtPlantingM must be within');
    expect(() => crownSpreadM({ heightAtPlantingM: 3, years: NaN })).toThrow('years');
  });
});
