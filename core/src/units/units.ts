/** Everything is computed in metric; these are for display and entry only. */
export const unitSystems = ['metric', 'us'] as const;
export type UnitSystem = (typeof unitSystems)[number];

export type Quantity =
  | 'lengthMm'
  | 'heightM'
  | 'distanceM'
  | 'waterMm'
  | 'volumeL'
  | 'massKg'
  | 'rateMmPerH'
  | 'slopePct'
  | 'sharePct'
  | 'bearingDeg'
  | 'minute'
  | 'clearanceM'
  | 'areaM2'
  | 'volumeM3'
  | 'hours'
  | 'ph'
  | 'saltDsM'
  | 'sodiumSar'
  | 'roots'
  | 'days'
  | 'temperatureC'
  | 'speedMs'
  | 'rainMm'
  | 'flowLPerMin'
  | 'flowLPerH'
  | 'speedKmPerH';

interface Display {
  readonly unit: string;
  /** Displayed = metric × factor + offset. */
  readonly factor: number;
  /** And so much more, of scales that begin elsewhere. */
  readonly offset?: number;
  readonly decimals: number;
  /** Said in fractions, to an eighth: as tapes and rulers are read. */
  readonly eighths?: true;
  /** Less than one is said with two digits. */
  readonly fine?: true;
}

const mmPerInch = 25.4;
const mPerFoot = 0.3048;
/** US liquid gallon, exactly 231 cubic inches. */
const lPerGallon = 3.785411784;
/** Avoirdupois pound, exact. */
const kgPerPound = 0.45359237;

const same = (unit: string, decimals: number): Record<UnitSystem, Display> => ({
  metric: { unit, factor: 1, decimals },
  us: { unit, factor: 1, decimals },
});

export const displays: Readonly<Record<Quantity, Readonly<Record<UnitSystem, Display>>>> = {
  lengthMm: {
    metric: { unit: 'mm', factor: 1, decimals: 0 },
    us: { unit: 'in', factor: 1 / mmPerInch, decimals: 1, eighths: true },
  },
  heightM: { metric: { unit: 'm', factor: 1, decimals: 1 }, us: { unit: 'ft', factor: 1 / mPerFoot, decimals: 1 } },
  distanceM: { metric: { unit: 'm', factor: 1, decimals: 0 }, us: { unit: 'ft', factor: 1 / mPerFoot, decimals: 0 } },
  waterMm: { metric: { unit: 'mm', factor: 1, decimals: 0 }, us: { unit: 'in', factor: 1 / mmPerInch, decimals: 2 } },
  volumeL: {
    metric: { unit: 'L', factor: 1, decimals: 0, fine: true },
    us: { unit: 'gal', factor: 1 / lPerGallon, decimals: 1, fine: true },
  },
  massKg: {
    metric: { unit: 'kg', factor: 1, decimals: 0, fine: true },
    us: { unit: 'lb', factor: 1 / kgPerPound, decimals: 0, fine: true },
  },
  rateMmPerH: {
    metric: { unit: 'mm/h', factor: 1, decimals: 0 },
    us: { unit: 'in/h', factor: 1 / mmPerInch, decimals: 2 },
  },
  slopePct: same('%', 0),
  sharePct: same('%', 0),
  bearingDeg: same('°', 0),
  minute: same('min', 0),
  clearanceM: { metric: { unit: 'm', factor: 1, decimals: 2 }, us: { unit: 'ft', factor: 1 / mPerFoot, decimals: 1 } },
  areaM2: { metric: { unit: 'm²', factor: 1, decimals: 1 }, us: { unit: 'ft²', factor: mPerFoot ** -2, decimals: 0 } },
  volumeM3: {
    metric: { unit: 'm³', factor: 1, decimals: 1 },
    us: { unit: 'ft³', factor: mPerFoot ** -3, decimals: 0 },
  },
  hours: same('h', 1),
  ph: same('pH', 1),
  saltDsM: same('dS/m', 1),
  sodiumSar: same('SAR', 1),
  roots: same('roots', 0),
  days: same('days', 1),
  temperatureC: {
    metric: { unit: '°C', factor: 1, decimals: 0 },
    us: { unit: '°F', factor: 9 / 5, offset: 32, decimals: 0 },
  },
  speedMs: {
    metric: { unit: 'm/s', factor: 1, decimals: 0 },
    us: { unit: 'mph', factor: 3600 / (5280 * mPerFoot), decimals: 0 },
  },
  rainMm: { metric: { unit: 'mm', factor: 1, decimals: 1 }, us: { unit: 'in', factor: 1 / mmPerInch, decimals: 2 } },
  flowLPerMin: {
    metric: { unit: 'L/min', factor: 1, decimals: 0, fine: true },
    us: { unit: 'gal/min', factor: 1 / lPerGallon, decimals: 1, fine: true },
  },
  flowLPerH: {
    metric: { unit: 'L/h', factor: 1, decimals: 1, fine: true },
    us: { unit: 'gal/h', factor: 1 / lPerGallon, decimals: 1, fine: true },
  },
  speedKmPerH: {
    metric: { unit: 'km/h', factor: 1, decimals: 0 },
    us: { unit: 'mph', factor: 1000 / (5280 * mPerFoot), decimals: 0 },
  },
};

/** The number a person sees for a metric value, and its unit. Not rounded. */
export function toDisplay(value: number, quantity: Quantity, system: UnitSystem): { value: number; unit: string } {
  const { factor, offset = 0, unit } = displays[quantity][system];
  return { value: value * factor + offset, unit };
}

/** The metric value of a number a person typed in their own units. */
export const fromDisplay = (shown: number, quantity: Quantity, system: UnitSystem): number =>
  (shown - (displays[quantity][system].offset ?? 0)) / displays[quantity][system].factor;

const narrowSpace = '\u202f';

/** Digits grouped by narrow spaces from 10 000 up, decimal point, true minus: the same in every language. */
export function formatNumber(value: number, decimals: number): string {
  const fixed = Math.abs(value).toFixed(decimals);
  const [whole = '0', fraction] = fixed.split('.');
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, narrowSpace) : whole;
  const sign = value < 0 && Number(fixed) !== 0 ? '−' : '';
  return sign + grouped + (fraction ? `.${fraction}` : '');
}

/** Inches to the nearest eighth, in lowest terms: `13 3/8`, `1/8`, `−2`; what is less than a sixteenth in hundredths. */
export function eighths(inches: number): string {
  const parts = Math.round(Math.abs(inches) * 8);
  if (parts === 0) return Math.abs(inches) < 0.005 ? '0' : formatNumber(inches, 2);
  const [whole, rest] = [Math.floor(parts / 8), parts % 8];
  const below = rest % 4 === 0 ? 2 : rest % 2 === 0 ? 4 : 8;
  const fraction = rest === 0 ? '' : `${(rest * below) / 8}/${below}`;
  const said = [whole > 0 || rest === 0 ? formatNumber(whole, 0) : '', fraction]
    .filter((part) => part !== '')
    .join(' ');
  return inches < 0 ? `−${said}` : said;
}

/** `340 mm`, `13 3/8 in`; a percent or degree sign follows its number as the trade writes it. */
export function formatQuantity(value: number, quantity: Quantity, system: UnitSystem): string {
  const { unit, factor, offset = 0, decimals, fine, eighths: inEighths } = displays[quantity][system];
  const shown = value * factor + offset;
  const small = fine && shown !== 0 && Math.abs(shown) < 1;
  const number = inEighths ? eighths(shown) : formatNumber(shown, small ? 2 : decimals);
  return unit === '°' ? number + unit : `${number} ${unit}`;
}

const points = [
  'N',
  'NNE',
  'NE',
  'ENE',
  'E',
  'ESE',
  'SE',
  'SSE',
  'S',
  'SSW',
  'SW',
  'WSW',
  'W',
  'WNW',
  'NW',
  'NNW',
] as const;

/** Nearest of the sixteen compass points for a bearing in degrees clockwise from north. */
export function compassPoint(bearingDeg: number): string {
  const index = Math.round((((bearingDeg % 360) + 360) % 360) / 22.5) % 16;
  return points[index] ?? 'N';
}
