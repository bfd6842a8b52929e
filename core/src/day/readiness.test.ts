import { readySpot } from '../../testing/day-cases';
import { judgeReadiness, type ReadinessFacts } from './readiness';

const ready: ReadinessFacts = {
  spots: [readySpot('A-1'), readySpot('A-2')],
  people: { capacity: 12, confirmed: 9, withoutWaiver: 0, leads: 3, needed: 6, leadsNeeded: 2 },
  teams: { teams: 3, spotsLeft: 0, peopleLeft: 0 },
  tools: [{ name: 'spade', needed: 6, there: 8 }],
  materials: [],
  arrangementsMissing: [],
  weather: 'go',
};
const judge = (change: Partial<ReadinessFacts>) => judgeReadiness({ ...ready, ...change });

describe('readiness of a day', () => {
  it('is good where nothing is missing', () => {
    const { level, lines } = judge({});
    expect([level, lines.length, lines.every((line) => line.level === 'good')]).toEqual(['good', 11, true]);
  });
  it.each([
    [
      'a spot without cover on the day',
      { spots: [readySpot('A-1', { cover: 'none' }), readySpot('A-2')] },
      'cover',
      ['A-1'],
    ],
    ['an owner who has not consented', { spots: [readySpot('A-1', { leaveMissing: true })] }, 'leave', ['A-1']],
    ['a tree that is not here', { spots: [readySpot('A-1', { stock: 'not_here' })] }, 'stock', ['A-1']],
    ['a tree that was refused', { spots: [readySpot('A-1', { stock: 'refused' })] }, 'stock', ['A-1']],
    ['nobody who leads', { people: { ...ready.people, leads: 0 } }, 'people', []],
    ['thunder', { weather: 'call_off' as const }, 'weather', []],
    ['no spot at all', { spots: [] }, 'cover', []],
  ])('is red for %s, first on the list', (_name, change, topic, refs) => {
    const { level, lines } = judge(change);
    expect([level, lines[0]?.topic, lines[0]?.level, lines[0]?.refs]).toEqual(['urgent', topic, 'urgent', refs]);
  });
  it.each([
    ['a tree nobody measured', { spots: [readySpot('A-1', { stock: 'unmeasured' })] }, 'stock'],
    ['a tool short', { tools: [{ name: 'pick', needed: 2, there: 1 }] }, 'tools'],
    ['a material short', { materials: [{ name: 'Mulch', missing: '200 L' }] }, 'materials'],
    ['a card whose plan has changed', { spots: [readySpot('A-1', { cardChanged: true })] }, 'cards'],
    ['an emergency department nobody wrote down', { arrangementsMissing: ['emergency department'] }, 'arrangements'],
    ['no teams', { teams: { teams: 0, spotsLeft: 0, peopleLeft: 0 } }, 'teams'],
    ['fewer people than the work asks for', { people: { ...ready.people, confirmed: 4 } }, 'people'],
  ])('asks for an act for %s', (_name, change, topic) => {
    expect(judge(change).lines.find((line) => line.topic === topic)?.level).toBe('act');
  });
  it.each([
    // Twice as long as it was used to, or twice three days where nobody knows.
    [{ heldDryDays: 4, wateredEveryDays: 2 }, 'good'],
    [{ heldDryDays: 5, wateredEveryDays: 2 }, 'act'],
    [{ heldDryDays: 6, wateredEveryDays: null }, 'good'],
    [{ heldDryDays: 7, wateredEveryDays: null }, 'act'],
    [{ heldDryDays: 90, wateredEveryDays: null, planted: true }, 'good'],
  ] as const)('looks whether a tree that waits lives: %j is %s', (held, level) => {
    const { lines } = judge({ spots: [readySpot('A-1', held), readySpot('A-2')] });
    expect(lines.find(({ topic }) => topic === 'stock')?.level).toBe(level);
  });
  it('asks nothing more of a spot that is planted', () => {
    expect(
      judge({ spots: [readySpot('A-1', { planted: true, cover: 'none', stock: 'not_here' }), readySpot('A-2')] }).level,
    ).toBe('good');
  });
});
