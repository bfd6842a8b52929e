import fc from 'fast-check';
import { limits } from '../limits';
import { fieldText, parseNumber, readQuantity, sayTyped, typedFault, type TypedAs } from './typed';
import { displays, formatQuantity, unitSystems, type Quantity } from './units';

const quantities = Object.keys(displays) as Quantity[];
const inches = { quantity: 'lengthMm', units: 'us' } as const;
const value = (text: string, as: TypedAs = inches) => {
  const read = readQuantity(text, as);
  return read.kind === 'value' ? read.value : read.kind;
};

describe('a number in a field', () => {
  it.each([
    ['13 3/8', 13.375],
    ['13-3/8', 13.375],
    ['3/8', 0.375],
    ['-1 1/2', -1.5],
    ['−2', -2],
    ['13,4', 13.4],
    ['.5', 0.5],
    ['7.', 7],
  ])('%s is %d', (text, number) => {
    expect(parseNumber(text)).toBe(number);
  });
  it.each(['', 'a', '1/0', '1 2', '3//8', '1e3', '--2', '1/2/3', '12 mm'])('%s is no number', (text) => {
    expect(parseNumber(text)).toBeUndefined();
  });

  it('says and reads inches in eighths', () => {
    expect([3.175, 25.4, 40, 339.725, 0, -38.1].map((mm) => formatQuantity(mm, 'lengthMm', 'us'))).toEqual([
      '1/8 in',
      '1 in',
      '1 5/8 in',
      '13 3/8 in',
      '0 in',
      '−1 1/2 in',
    ]);
    expect(value('1/8')).toBeCloseTo(3.175, 9);
    expect(fieldText(-38.1, 'lengthMm', 'us')).toBe('-1 1/2');
  });

  it('says a little of something as more than nothing', () => {
    expect(formatQuantity(0.15, 'massKg', 'us')).toBe('0.33 lb');
    expect(formatQuantity(0.15, 'massKg', 'metric')).toBe('0.15 kg');
    expect(formatQuantity(0.05, 'volumeL', 'metric')).toBe('0.05 L');
    expect(formatQuantity(1, 'lengthMm', 'us')).toBe('0.04 in');
  });

  it('is, untouched, the exact value it was filled with', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...quantities),
        fc.constantFrom(...unitSystems),
        fc.double({ min: -60_000, max: 60_000, noNaN: true, noDefaultInfinity: true }),
        (quantity, units, was) => {
          const text = fieldText(was, quantity, units);
          expect(value(text, { quantity, units, was })).toBe(was);
          // Whoever types that text gets a value that reads the same.
          const typed = value(text, { quantity, units });
          expect(typeof typed === 'number' && fieldText(typed, quantity, units)).toBe(text);
        },
      ),
    );
  });

  const measures = Object.entries(limits).map(([name, range]) => ({ name, range }));
  it.each(measures)('takes each limit it names, of $name', ({ range }) => {
    for (const quantity of quantities) {
      for (const units of unitSystems) {
        const as = { quantity, units, range };
        const high = readQuantity('99999999', as);
        if (high.kind !== 'outside') throw new Error('99999999 must be outside');
        expect(value(high.min, as)).toBeCloseTo(Math.max(range.min, Number(value(high.min, { quantity, units }))), 9);
        expect(value(high.max, as)).toBeCloseTo(Math.min(range.max, Number(value(high.max, { quantity, units }))), 9);
        expect([typedFault(high.min, as), typedFault(high.max, as)]).toEqual([null, null]);
      }
    }
  });

  it('refuses what is beyond a limit, in the words it was typed', () => {
    const as = { ...inches, range: limits.caliperMm };
    expect(typedFault('1/4', as)).toBe('Must be within 3/8–15 3/4 in, got 1/4');
    expect(typedFault('12.50', { quantity: 'slopePct', units: 'metric', range: { min: 0, max: 10 } })).toBe(
      'Must be within 0–10 %, got 12.50',
    );
    expect(typedFault('deep', as)).toBe('Enter a number of in');
    expect(typedFault('', as)).toBeNull();
    expect(sayTyped(' -3 ')).toBe('−3');
  });
});
