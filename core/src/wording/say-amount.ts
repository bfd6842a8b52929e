import { materials, type MaterialCode, type MaterialUnit } from '../pit';
import {
  displays,
  formatNumber,
  formatQuantity,
  fromDisplay,
  parseNumber,
  toDisplay,
  type Quantity,
  type UnitSystem,
} from '../units';

const quantities: Partial<Readonly<Record<MaterialUnit, Quantity>>> = { L: 'volumeL', kg: 'massKg', m: 'heightM' };

/** The unit amounts of a material are said and typed in; empty for pieces. */
export function amountUnit(code: MaterialCode, units: UnitSystem): string {
  const quantity = quantities[materials[code].unit];
  return quantity ? displays[quantity][units].unit : '';
}

/** An amount as a number in the reader's units, to the digits that matter: `0.15`, `2.4`, `170`. */
export function amountNumber(code: MaterialCode, amount: number, units: UnitSystem): string {
  const quantity = quantities[materials[code].unit];
  const value = quantity ? toDisplay(amount, quantity, units).value : amount;
  return formatNumber(value, !quantity || value === 0 || value >= 10 ? 0 : value >= 1 ? 1 : 2);
}

/** An amount of a material in words: `0.15 kg`, `170 L`, `2`. */
export function sayAmount(code: MaterialCode, amount: number, units: UnitSystem): string {
  return `${amountNumber(code, amount, units)} ${amountUnit(code, units)}`.trim();
}

/** How a material is sold, at the size the programme buys: `bag of 40 L`, `loose load of 1.0 m³`, `piece`. */
export function sayPack(code: MaterialCode, size: number, units: UnitSystem): string {
  const { unit, pack } = materials[code];
  if (unit === 'piece' && size === 1) return 'piece';
  const large = unit === 'L' && size >= 1000;
  return `${pack.word} of ${large ? formatQuantity(size / 1000, 'volumeM3', units) : sayAmount(code, size, units)}`;
}

/**
 * What somebody typed, in their own units, as the amount that is kept; `undefined` for no number. While the text of the
 * amount that is kept stands there, nothing was typed over it.
 */
export function readAmount(code: MaterialCode, text: string, units: UnitSystem, kept: number): number | undefined {
  const said = text.replace(/\s/g, '');
  if (said === amountNumber(code, kept, units).replace(/\s/g, '')) return kept;
  const typed = parseNumber(said);
  const quantity = quantities[materials[code].unit];
  return typed === undefined || !quantity ? typed : fromDisplay(typed, quantity, units);
}
