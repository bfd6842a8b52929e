import { InvalidInputError } from '../errors';
import { careChoices } from './care-choices';
import type { Choice, ChoiceGroup } from './choice';
import { foundChoices } from './found-choices';
import { fallingPairs, replaced, valueAt, type ChoiceValue } from './override';
import { pitChoices } from './pit-choices';
import type { Practice } from './practice';
import { stockChoices } from './stock-choices';

/** Everything practitioners disagree about, in the order of the work. */
export const choiceTable: readonly ChoiceGroup[] = [...pitChoices, ...stockChoices, ...careChoices, ...foundChoices];

export const choices: readonly Choice[] = choiceTable.flatMap(({ choices: some }) => some);

/** The value of a choice in a practice. @throws InvalidInputError for a path that is no choice */
export function choiceValue(practice: Practice, path: string): ChoiceValue {
  requireChoice(path);
  return valueAt(practice, path) as ChoiceValue;
}

/**
 * The practice with one choice made otherwise.
 * @throws InvalidInputError for a path that is no choice, or a value it cannot have
 */
export function withChoice(practice: Practice, path: string, value: ChoiceValue): Practice {
  const choice = requireChoice(path);
  requireChoiceValue(choice, value);
  return replaced(practice, path, value);
}

function requireChoice(path: string): Choice {
  const choice = choices.find((one) => one.path === path);
  if (!choice) throw new InvalidInputError(`${path} is no choice of a practice`, 'path');
  return choice;
}

/** @throws InvalidInputError */
export function requireChoiceValue(choice: Choice, value: ChoiceValue): void {
  const fault = (limit: string) =>
    new InvalidInputError(`${choice.name} must be ${limit}, got ${String(value)}`, choice.path);
  if (choice.kind === 'yes_no' && typeof value !== 'boolean') throw fault('yes or no');
  if (choice.kind === 'option' && (typeof value !== 'string' || !(value in choice.options)))
    throw fault(Object.keys(choice.options).join(', '));
  if (choice.kind === 'number') {
    const inside = typeof value === 'number' && value >= choice.min && value <= choice.max;
    if (!inside) throw fault(`within ${choice.min}–${choice.max} ${choice.unit}`);
  }
}

/**
 * Checks every choice of a practice, and that no two contradict each other.
 * @throws InvalidInputError for the first value outside its limits, or above the one it leads up to
 */
export function requirePractice(practice: Practice): void {
  for (const choice of choices) requireChoiceValue(choice, choiceValue(practice, choice.path));
  for (const [lower, upper] of fallingPairs(practice)) {
    const [low, high] = [Number(choiceValue(practice, lower)), Number(choiceValue(practice, upper))];
    const names = [lower, upper].map((path) => `${requireChoice(path).name} (${groupOf(path)})`);
    throw new InvalidInputError(`${names[0]} must be at most ${names[1]}, ${high}, got ${low}`, lower);
  }
}

const groupOf = (path: string): string =>
  choiceTable.find((group) => group.choices.some((choice) => choice.path === path))?.name ?? '';

export interface Difference {
  readonly choice: Choice;
  readonly a: ChoiceValue;
  readonly b: ChoiceValue;
}

/** Where two practices choose otherwise. */
export function practiceDifferences(a: Practice, b: Practice): Difference[] {
  return choices
    .map((choice) => ({ choice, a: choiceValue(a, choice.path), b: choiceValue(b, choice.path) }))
    .filter((one) => one.a !== one.b);
}
