import {
  choices,
  fieldDefault,
  presets,
  replaced,
  requirePractice,
  withChoice,
  type ChoiceValue,
  type Practice,
} from '@sombra/core';
import { practiceSchema, savePracticeSchema } from './practice';

const valuesOf = (choice: (typeof choices)[number]): readonly ChoiceValue[] => {
  if (choice.kind === 'yes_no') return [true, false];
  return choice.kind === 'number' ? [choice.min, choice.max] : Object.keys(choice.options);
};
const cases = choices.flatMap((choice) => valuesOf(choice).map((value): [string, ChoiceValue] => [choice.path, value]));

describe('a practice as it is stored and sent', () => {
  it.each(cases)('takes %s = %s, as the table of choices allows', (path, value) => {
    const practice = withChoice(fieldDefault, path, value);
    expect(practiceSchema.parse(JSON.parse(JSON.stringify(practice)))).toEqual(practice);
  });

  const bounds = choices.flatMap((choice) =>
    choice.kind === 'number'
      ? ([
          [choice.path, choice.min - 0.01],
          [choice.path, choice.max + 0.01],
        ] as const)
      : [],
  );
  it.each(bounds)('refuses %s = %d, as the table of choices does', (path, value) => {
    expect(() => withChoice(fieldDefault, path, value)).toThrow('must be within');
    const beyond = replaced(fieldDefault, path, value);
    const { error } = practiceSchema.safeParse(beyond);
    expect(error?.issues.map((issue) => issue.path.join('.'))).toEqual([path]);
  });

  it('takes every school that ships', () => {
    for (const practice of presets) expect(practiceSchema.parse(practice)).toEqual(practice);
  });

  it('reads one stored when it had one feed, and a yes or no for watering in winter', () => {
    const { feeds: _feeds, ...backfill } = fieldDefault.backfill;
    const kept = (fertiliser: string, dormant: boolean) =>
      practiceSchema.parse({
        ...fieldDefault,
        backfill: { ...backfill, fertiliser },
        routine: { ...fieldDefault.routine, dormant },
      });
    expect(kept('slow_pellets', true).backfill.feeds).toEqual({ ...fieldDefault.backfill.feeds, edge: 'slow_pellets' });
    expect(kept('none', false)).toEqual(fieldDefault);
    expect(kept('root_drench', true).routine.dormant).toBe('until_freeze');
    expect(() => kept('moonlight', true)).not.toThrow();
  });

  it('reads one stored before choices were added with what the Field default chooses', () => {
    const added: readonly (readonly [keyof Practice, string])[] = [
      ['flareAboveGrade', 'ballShareHeavy'],
      ['backfill', 'place'],
      ['roots', 'ties'],
      ['mulch', 'ring'],
      ['mulch', 'profile'],
      ['mulch', 'overBallMm'],
      ['routine', 'summerFactor'],
      ['routine', 'dormant'],
      ['routine', 'slowVisitsShare'],
      ['staking', 'order'],
      ['inspection', 'deepTree'],
    ];
    const older = structuredClone({ ...fieldDefault, id: 'ours', name: 'Ours' }) as unknown as Record<
      string,
      Record<string, unknown>
    >;
    for (const [group, key] of added) delete older[group]?.[key];
    const read = practiceSchema.parse(older);
    expect(read).toEqual({ ...fieldDefault, id: 'ours', name: 'Ours' });
    expect(() => requirePractice(read)).not.toThrow();
  });

  it.each([
    ['a choice nobody knows', { moat: 3 }, 'moat'],
    ['a word that is no option', { guard: 'fence' }, 'guard'],
    ['no kind of stock', { appliesTo: [] }, 'appliesTo'],
    ['a name too long to show', { name: 'x'.repeat(81) }, 'name'],
  ])('refuses %s and names it', (_name, change, where) => {
    const result = practiceSchema.safeParse({ ...fieldDefault, ...change });
    expect(result.success).toBe(false);
    expect(JSON.stringify(result.error?.issues)).toContain(where);
  });

  it('is saved under an id that can stand in an address', () => {
    const save = (id: string) =>
      savePracticeSchema.safeParse({ practice: { ...fieldDefault, id, version: 0 } }).success;
    expect([save('our-way-2'), save('Our way'), save('x'), save('../x')]).toEqual([true, false, false, false]);
  });
});
