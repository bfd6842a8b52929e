import { amountUnit, readAmount, sayAmount, sayPack } from './say-amount';

describe('amounts of material in words', () => {
  it.each([
    ['coarse_compost', 56.4, '56 L', '15 gal'],
    ['drench', 0.05, '0.05 L', '0.01 gal'],
    ['bone_meal', 0.15, '0.15 kg', '0.33 lb'],
    ['tie', 2.4, '2.4 m', '7.9 ft'],
    ['stake', 2, '2', '2'],
    ['gypsum', 0, '0 kg', '0 lb'],
  ] as const)('%s, %d', (code, amount, metric, us) => {
    expect([sayAmount(code, amount, 'metric'), sayAmount(code, amount, 'us')]).toEqual([metric, us]);
  });
  it.each([
    ['coarse_compost', 40, 'bag of 40 L', 'bag of 11 gal'],
    ['mulch', 1000, 'loose load of 1.0 m³', 'loose load of 35 ft³'],
    ['tie', 25, 'roll of 25 m', 'roll of 82 ft'],
    ['stake', 1, 'piece', 'piece'],
    ['stake', 10, 'bundle of 10', 'bundle of 10'],
  ] as const)('%s is sold by %d', (code, size, metric, us) => {
    expect([sayPack(code, size, 'metric'), sayPack(code, size, 'us')]).toEqual([metric, us]);
  });
  it('are typed in the units they are said in', () => {
    // A US gallon is 3.785 411 784 L.
    expect([amountUnit('mulch', 'us'), amountUnit('stake', 'us')]).toEqual(['gal', '']);
    expect(readAmount('mulch', '10', 'us', 0)).toBeCloseTo(37.85411784, 8);
    expect(readAmount('stake', '10', 'us', 0)).toBe(10);
    expect(readAmount('mulch', 'much', 'us', 0)).toBeUndefined();
  });
  it('are what they were where nothing was typed over them', () => {
    // 40 L are said as 11 gal, which typed anew would be 41.6 L.
    expect(readAmount('mulch', '11', 'us', 40)).toBe(40);
    expect(readAmount('mulch', '12\u202f345', 'metric', 12_345.4)).toBe(12_345.4);
  });
});
