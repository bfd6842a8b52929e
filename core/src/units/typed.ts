import { displays, eighths, formatNumber, toDisplay, fromDisplay, type Quantity, type UnitSystem } from './units';

/** What a number in a field is: of which quantity, in whose units, and between which metric limits. */
export interface TypedAs {
  readonly quantity: Quantity;
  readonly units: UnitSystem;
  readonly range?: { readonly min: number; readonly max: number } | undefined;
  /** The exact metric value the field was filled with: while its text still stands there, nothing was typed. */
  readonly was?: number | null | undefined;
}

export type ReadQuantity =
  | { readonly kind: 'value'; readonly value: number }
  | { readonly kind: 'empty' }
  | { readonly kind: 'no_number' }
  /** The limits as they may be typed: each is taken. */
  | { readonly kind: 'outside'; readonly min: string; readonly max: string };

const fieldDecimals = (quantity: Quantity, units: UnitSystem): number => displays[quantity][units].decimals + 1;

/** A metric value as the text of a field, without its unit: to an eighth of an inch, or one digit more than it is said with. */
export function fieldText(value: number, quantity: Quantity, units: UnitSystem): string {
  const shown = toDisplay(value, quantity, units).value;
  if (displays[quantity][units].eighths) return eighths(shown).replace('−', '-');
  return String(Number(shown.toFixed(fieldDecimals(quantity, units))));
}

/** Half of what the last digit of a field tells apart, metric. */
function halfStep(quantity: Quantity, units: UnitSystem): number {
  const step = displays[quantity][units].eighths ? 1 / 8 : 10 ** -fieldDecimals(quantity, units);
  return (fromDisplay(step, quantity, units) - fromDisplay(0, quantity, units)) / 2;
}

/** `13`, `13.4`, `13,4`, `3/8`, `13 3/8`, `13-3/8`, with a sign before it; `undefined` for anything else. */
export function parseNumber(text: string): number | undefined {
  const clean = text.trim().replace('−', '-').replace(',', '.');
  if (/^-?(\d+(\.\d*)?|\.\d+)$/.test(clean)) return Number(clean);
  const [, sign, whole = '0', above, below] = /^(-?)(?:(\d+)[ -]+)?(\d+)\/([1-9]\d*)$/.exec(clean) ?? [];
  if (above === undefined || below === undefined) return undefined;
  const value = Number(whole) + Number(above) / Number(below);
  return sign === '-' ? -value : value;
}

/**
 * The metric value of what stands in a field. What nobody typed is the value the field was filled with, to its last
 * digit; a limit typed as it is named is that limit.
 */
export function readQuantity(text: string, { quantity, units, range, was }: TypedAs): ReadQuantity {
  if (text.trim() === '') return { kind: 'empty' };
  if (typeof was === 'number' && text.trim() === fieldText(was, quantity, units)) return { kind: 'value', value: was };
  const shown = parseNumber(text);
  if (shown === undefined) return { kind: 'no_number' };
  const value = fromDisplay(shown, quantity, units);
  if (!range) return { kind: 'value', value };
  const near = halfStep(quantity, units) * (1 + 1e-9);
  if (value < range.min - near || value > range.max + near) {
    return { kind: 'outside', min: fieldText(range.min, quantity, units), max: fieldText(range.max, quantity, units) };
  }
  return { kind: 'value', value: Math.min(range.max, Math.max(range.min, value)) };
}

/** What was typed, as a sentence repeats it. */
export const sayTyped = (text: string): string => {
  const number = parseNumber(text);
  const decimals = text.split(/[.,]/)[1]?.trim().length ?? 0;
  return number === undefined || text.includes('/') ? text.trim() : formatNumber(number, decimals);
};

/**
 * Why what stands in a field is no value, as a sentence without its end; `null` where it is one, or nothing stands there.
 */
export function typedFault(text: string, as: TypedAs): string | null {
  const read = readQuantity(text, as);
  const { unit } = displays[as.quantity][as.units];
  if (read.kind === 'no_number') return `Enter a number of ${unit}`;
  return read.kind === 'outside' ? `Must be within ${read.min}–${read.max} ${unit}, got ${sayTyped(text)}` : null;
}
