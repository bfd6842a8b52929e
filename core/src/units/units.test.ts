import fc from 'fast-check';
import { compassPoint, formatNumber, formatQuantity, fromDisplay, toDisplay, type Quantity } from './units';

describe('units', () => {
  it.each([
    [25.4, 'lengthMm', '1 in'],
    [0.3048, 'heightM', '1.0 ft'],
    [3.785411784, 'volumeL', '1.0 gal'],
    [45.359237, 'massKg', '100 lb'],
    [90, 'bearingDeg', '90°'],
    // The boiling and freezing of water; a mile is 1,609.344 m.
    [100, 'temperatureC', '212 °F'],
    [0, 'temperatureC', '32 °F'],
    [44.704, 'speedMs', '100 mph'],
    [12.7, 'rainMm', '0.50 in'],
  ] as const)('%d as %s reads %s in US customary', (value, quantity, text) => {
    expect(formatQuantity(value, quantity, 'us')).toBe(text);
  });

  it('takes a temperature typed in degrees Fahrenheit back to what it was', () => {
    expect(fromDisplay(toDisplay(37.2, 'temperatureC', 'us').value, 'temperatureC', 'us')).toBeCloseTo(37.2, 9);
  });

  it('is of exact feet where an area or a volume is', () => {
    // 1 m² is 10.7639 ft², 1 m³ is 35.3147 ft³: powers of 0.3048 m.
    expect(toDisplay(1, 'areaM2', 'us').value).toBeCloseTo(10.7639, 4);
    expect(toDisplay(1, 'volumeM3', 'us').value).toBeCloseTo(35.3147, 4);
  });

  it('comes back from display to the same metric value', () => {
    const quantities: Quantity[] = [
      'lengthMm',
      'heightM',
      'volumeL',
      'massKg',
      'rateMmPerH',
      'slopePct',
      'bearingDeg',
      'minute',
    ];
    fc.assert(
      fc.property(
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.constantFrom(...quantities),
        fc.constantFrom('metric' as const, 'us' as const),
        (value, quantity, system) => {
          const shown = toDisplay(value, quantity, system).value;
          expect(fromDisplay(shown, quantity, system)).toBeCloseTo(value, 9);
        },
      ),
    );
  });

  it('writes numbers the same in every language', () => {
    expect(formatNumber(1234.5, 1)).toBe('1234.5');
    expect(formatNumber(1234567, 0)).toBe('1\u202f234\u202f567');
    expect(formatNumber(-12, 0)).toBe('−12');
    expect(formatNumber(-0.2, 0)).toBe('0');
  });

  it.each([
    [0, 'N'],
    [359, 'N'],
    [112, 'ESE'],
    [360, 'N'],
    [225, 'SW'],
  ])('%d° is %s', (deg, point) => {
    expect(compassPoint(deg)).toBe(point);
  });
});
