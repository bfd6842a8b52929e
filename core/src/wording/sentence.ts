import { formatNumber, formatQuantity, type UnitSystem } from '../units';

/** Formats a fact in the reader's units. */
export interface Say {
  readonly mm: (v: number) => string;
  readonly m: (v: number) => string;
  readonly L: (v: number) => string;
  readonly kg: (v: number) => string;
  readonly pct: (v: number) => string;
  readonly n: (v: number, decimals?: number) => string;
  readonly rate: (v: number) => string;
  readonly near: (v: number) => string;
  readonly m3: (v: number) => string;
  readonly degC: (v: number) => string;
  readonly speed: (v: number) => string;
  readonly rain: (v: number) => string;
}

export const sayers: Readonly<Record<UnitSystem, Say>> = { metric: sayIn('metric'), us: sayIn('us') };

function sayIn(units: UnitSystem): Say {
  return {
    mm: (v) => formatQuantity(v, 'lengthMm', units),
    m: (v) => formatQuantity(v, 'heightM', units),
    L: (v) => formatQuantity(v, 'volumeL', units),
    kg: (v) => formatQuantity(v, 'massKg', units),
    pct: (v) => `${formatNumber(v, 0)} %`,
    n: (v, decimals = 0) => formatNumber(v, decimals),
    rate: (v) => formatQuantity(v, 'rateMmPerH', units),
    near: (v) => formatQuantity(v, 'clearanceM', units),
    m3: (v) => formatQuantity(v, 'volumeM3', units),
    degC: (v) => formatQuantity(v, 'temperatureC', units),
    speed: (v) => formatQuantity(v, 'speedMs', units),
    rain: (v) => formatQuantity(v, 'rainMm', units),
  };
}

/** One sentence for each reason of a stage. */
export type Sentences<Facts> = { readonly [C in keyof Facts]: (facts: Facts[C], say: Say) => string };

export const monthNames = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;
/** `27 Nov 2026` */
export const sayIsoDay = (day: string): string =>
  `${Number(day.slice(8, 10))} ${monthNames[Number(day.slice(5, 7)) - 1] ?? ''} ${day.slice(0, 4)}`;
export const months = (n: number): string => (n === 1 ? '1 month' : `${n} months`);
export const days = (n: number): string => (n === 1 ? '1 day' : `${n} days`);
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
export const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
/** Words somebody typed, as a sentence of their own. */
export const sentence = (text: string): string => (/[.?…]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`);
