import type { DayPerson } from '@sombra/contract';
import { moved, withoutEmpty } from './team-moves';

const person = (id: string, change: Partial<DayPerson> = {}): DayPerson => ({
  id,
  name: id,
  state: 'confirmed',
  heldUntil: null,
  skill: 'has_planted',
  minor: false,
  guardianId: null,
  together: null,
  noLifting: false,
  photos: true,
  waiver: true,
  waiverSignedBy: id,
  userId: null,
  source: 'desk',
  cameAt: null,
  leftAt: null,
  ...change,
});
const people = [
  person('ann', { skill: 'leads' }),
  person('kid', { minor: true, guardianId: 'mum' }),
  person('mum'),
  person('leo', { skill: 'leads' }),
];
const teams = [
  { leadId: 'ann', helperIds: ['ann', 'mum', 'kid'], spotIds: ['s1', 's2'] },
  { leadId: 'leo', helperIds: ['leo'], spotIds: ['s3'] },
];

describe('moves between teams', () => {
  it('take a minor along with their guardian, whichever of them is moved', () => {
    for (const id of ['kid', 'mum']) {
      const after = moved(teams, people, { kind: 'person', id }, 1);
      expect(after.map(({ helperIds }) => helperIds)).toEqual([['ann'], ['leo', 'mum', 'kid']]);
    }
  });
  it('give a team that loses its lead the next who leads, or a grown-up', () => {
    const [first] = moved(teams, people, { kind: 'person', id: 'ann' }, 1);
    expect(first?.leadId).toBe('mum');
    const [, second] = moved(teams, people, { kind: 'person', id: 'ann' }, 1);
    expect(second?.leadId).toBe('leo');
  });
  it('put a tree where it was dropped, or out of all', () => {
    expect(moved(teams, people, { kind: 'tree', id: 's3' }, 0, 1)[0]?.spotIds).toEqual(['s1', 's3', 's2']);
    expect(moved(teams, people, { kind: 'tree', id: 's1' }, -1).map(({ spotIds }) => spotIds)).toEqual([
      ['s2'],
      ['s3'],
    ]);
  });
  it('store no team that nobody is in', () => {
    const empty = moved(teams, people, { kind: 'person', id: 'leo' }, -1);
    expect(withoutEmpty(empty)).toHaveLength(1);
  });
});
