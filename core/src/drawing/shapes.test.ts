import { textWidthPx } from './shapes';

describe('the width of words', () => {
  // Measured in a browser in the shipped face at 700: em.
  it.each([
    ['360 mm deep', 6.593],
    ['mmm', 2.64],
    ['ill', 0.94],
    ['WNW', 2.5],
  ])('%s is no less than it is, and little more', (text, em) => {
    const width = textWidthPx(text, 1);
    expect(width).toBeGreaterThanOrEqual(em * 0.99);
    expect(width).toBeLessThan(em * 1.12);
  });
  it('grows with the size, and is nothing for nothing', () => {
    expect(textWidthPx('deep', 26)).toBeCloseTo(2 * textWidthPx('deep', 13), 9);
    expect(textWidthPx('', 13)).toBe(0);
  });
});
