import {
  displays,
  fieldText,
  formatNumber,
  formatQuantity,
  InvalidInputError,
  parseNumber,
  readQuantity,
  requireChoiceValue,
  type Choice,
  type ChoiceUnit,
  type ChoiceValue,
  type Quantity,
  type UnitSystem,
} from '@sombra/core';

/** Units that are shown otherwise to who reads US customary ones. */
const quantities: Partial<Readonly<Record<ChoiceUnit, Quantity>>> = {
  mm: 'lengthMm',
  m: 'heightM',
  L: 'volumeL',
  kg: 'massKg',
  'mm/h': 'rateMmPerH',
};

/** The value of a choice in words and the reader's units. */
export function sayChoice(choice: Choice, value: ChoiceValue, units: UnitSystem): string {
  if (choice.kind === 'yes_no') return value === true ? 'yes' : 'no';
  if (choice.kind === 'option') return choice.options[String(value)]?.name ?? String(value);
  const number = Number(value);
  const quantity = quantities[choice.unit];
  if (quantity) return formatQuantity(number, quantity, units);
  if (choice.unit === 'share') return `${formatNumber(number * 100, 0)} %`;
  if (choice.unit === '×') return `${formatNumber(number, 1)} ×`;
  return `${formatNumber(number, Number.isInteger(number) ? 0 : 1)} ${choice.unit}`;
}

/** The unit a number of this choice is typed in; empty for what is no number. */
export function choiceUnit(choice: Choice, units: UnitSystem): string {
  if (choice.kind !== 'number') return '';
  const quantity = quantities[choice.unit];
  if (quantity) return displays[quantity][units].unit;
  return choice.unit === 'share' ? '%' : choice.unit;
}

const factorOf = (unit: ChoiceUnit): number => (unit === 'share' ? 100 : 1);

/** A value as it stands in the field it is typed in, in the reader's units. */
export function choiceText(choice: Choice, value: ChoiceValue, units: UnitSystem): string {
  if (choice.kind !== 'number') return String(value);
  const quantity = quantities[choice.unit];
  if (quantity) return fieldText(Number(value), quantity, units);
  return String(Math.round(Number(value) * factorOf(choice.unit) * 100) / 100);
}

/**
 * The value somebody typed or picked, in the units the core counts in; where nothing was typed over `was`, that value to
 * its last digit.
 * @throws InvalidInputError that names the choice, the limits and what was typed, in the reader's units
 */
export function readChoice(choice: Choice, text: string, units: UnitSystem, was?: ChoiceValue): ChoiceValue {
  if (was !== undefined && text.trim() === choiceText(choice, was, units)) return was;
  const value = choice.kind === 'number' ? readNumber(choice, text, units) : text;
  const read = choice.kind === 'yes_no' ? value === 'true' : value;
  requireChoiceValue(choice, read);
  return read;
}

function readNumber(choice: Choice & { kind: 'number' }, text: string, units: UnitSystem): number {
  const { name, path, min, max, unit } = choice;
  const quantity = quantities[unit];
  const outside = (low: string, high: string) =>
    new InvalidInputError(
      `${name} must be within ${low}–${high} ${choiceUnit(choice, units)}, got ${text.trim()}`,
      path,
    );
  if (quantity) {
    const read = readQuantity(text, { quantity, units, range: choice });
    if (read.kind === 'value') return read.value;
    if (read.kind === 'outside') throw outside(read.min, read.max);
  }
  const shown = parseNumber(text);
  if (shown === undefined) {
    throw new InvalidInputError(`${name} must be a number, got ${text.trim() || 'nothing'}`, path);
  }
  const value = shown / factorOf(unit);
  if (value < min || value > max) throw outside(choiceText(choice, min, units), choiceText(choice, max, units));
  return value;
}
