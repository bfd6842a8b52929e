import { choices, choiceValue, InvalidInputError, presets, unitSystems, type Choice } from '@sombra/core';
import { choiceText, readChoice } from './say-choice';

const numbers = choices.filter((choice): choice is Extract<Choice, { kind: 'number' }> => choice.kind === 'number');
const every = choices.map((choice): [string, Choice] => [choice.path, choice]);

describe('a choice in a field', () => {
  it.each(every)('%s keeps its value to the last digit where nothing was typed, in either units', (path, choice) => {
    for (const practice of presets) {
      const value = choiceValue(practice, path);
      for (const units of unitSystems) {
        expect(readChoice(choice, choiceText(choice, value, units), units, value)).toBe(value);
      }
    }
  });

  it.each(numbers.map((choice): [string, typeof choice] => [choice.path, choice]))(
    '%s takes the limits its refusal names, and is the same after a change of units',
    (_path, choice) => {
      for (const units of unitSystems) {
        const refused = (() => {
          try {
            return readChoice(choice, '99999999', units);
          } catch (error) {
            if (error instanceof InvalidInputError) return error.message;
            throw error;
          }
        })();
        const [, low = '', high = ''] = /within (\S+(?: \d+\/\d+)?)–(\S+(?: \d+\/\d+)?) /.exec(String(refused)) ?? [];
        for (const limit of [low, high]) {
          const value = Number(readChoice(choice, limit, units));
          expect([limit, value >= choice.min, value <= choice.max]).toEqual([limit, true, true]);
          // Shown in the other units and back, untouched: the same value.
          const other = units === 'metric' ? 'us' : 'metric';
          expect(readChoice(choice, choiceText(choice, value, other), other, value)).toBe(value);
        }
      }
    },
  );
});
