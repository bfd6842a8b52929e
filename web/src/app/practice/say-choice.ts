import { formatNumber, formatQuantity, type Choice, type ChoiceValue, type UnitSystem } from '@sombra/core';

/** The value of a choice in words and the reader's units. */
export function sayChoice(choice: Choice, value: ChoiceValue, units: UnitSystem): string {
  if (choice.kind === 'yes_no') return value === true ? 'yes' : 'no';
  if (choice.kind === 'option') return choice.options[String(value)]?.name ?? String(value);
  const number = Number(value);
  switch (choice.unit) {
    case 'mm':
      return formatQuantity(number, 'lengthMm', units);
    case 'm':
      return formatQuantity(number, 'heightM', units);
    case 'L':
      return formatQuantity(number, 'volumeL', units);
    case 'share':
      return `${formatNumber(number * 100, 0)} %`;
    case '×':
      return `${formatNumber(number, 1)} ×`;
    default:
      return `${formatNumber(number, Number.isInteger(number) ? 0 : 1)} ${choice.unit}`;
  }
}
