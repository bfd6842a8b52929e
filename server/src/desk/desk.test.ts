import type { Desk, DeskMember, OpenRemedy } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import {
  container,
  loam,
  look,
  openTestTown,
  planting,
  sending,
  Visitor,
  type TestTown,
} from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: string;
const ids: string[] = [];

/** A tree planted eighteen months ago whose stake nobody took off, looked at so many days ago. */
async function staked(ref: string, lookedAgo: number): Promise<string> {
  const { spotId } = await town.addSpot(ref);
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, 2));
  await cora.record(sending(spotId, planting(addDaysTo(today, -548))));
  const facts = { ...look(addDaysTo(today, -lookedAgo)).facts, stake: 'in_place' as const };
  await cora.record(sending(spotId, { kind: 'inspection', facts }));
  return spotId;
}

const deskOn = async (on = ''): Promise<Desk> => (await cora.send<Desk>('GET', `/api/desk${on && `?on=${on}`}`)).body;
const members = async (query: string): Promise<DeskMember[]> =>
  (await cora.send<DeskMember[]>('GET', `/api/desk/members?${query}`)).body;
const stakes = 'place=Mole%20Street&kind=do_remedy&level=act&remedy=remove_stake';

beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
  for (const [i, ago] of [20, 60, 40].entries()) ids.push(await staked(`D-${i + 1}`, ago));
  await town.addSpot('D-9');
});
afterAll(() => town.stop());

describe('the desk', () => {
  it('makes one line of alike decisions at one place, named by the one that is latest', async () => {
    const desk = await deskOn();
    const line = desk.lines.find(({ remedy }) => remedy === 'remove_stake');
    expect(line).toMatchObject({ count: 3, place: 'Mole Street', ref: 'D-2', level: 'act', stage: 'inspect' });
    // Looked at 60 days ago, 14 days to act: 46 days late at a point a day, most 30; twice log2 of three trees.
    expect(line?.daysLate).toBe(46);
    expect(line?.points).toBeCloseTo(45 + 30 + 2 * Math.log2(3), 9);
    expect(line?.because[0]?.code).toBe('stake_overdue');
    // A stake asks for another look after 30 days: two of the three looks are older than that.
    expect(desk.waiting).toEqual({ inspect: 3 + 2, ground: 1 });
    expect([desk.total, desk.groups, desk.lines.length]).toEqual([6, 3, 3]);
  });

  it('names every tree of a line, the latest first, with its own reason', async () => {
    const list = await members(stakes);
    expect(list.map(({ ref }) => ref)).toEqual(['D-2', 'D-3', 'D-1']);
    expect(list.every(({ because }) => because[0]?.code === 'stake_overdue')).toBe(true);
    expect(await members(stakes.replace('Mole', 'Other'))).toEqual([]);
  });

  it('shows a past day by what waited then, and a day ahead by what falls due', async () => {
    const past = await deskOn(addDaysTo(today, -50));
    expect(past.lines.find(({ remedy }) => remedy === 'remove_stake')).toMatchObject({ count: 1, ref: 'D-2' });
    const before = await deskOn(addDaysTo(today, -600));
    expect(before.waiting).toEqual({ ground: 4 });
    const ahead = await deskOn(addDaysTo(today, 500));
    expect(ahead.lines.find(({ kind }) => kind === 'look')).toMatchObject({ count: 3 });
  });

  it('tells which remedies are open on chosen trees', async () => {
    const { body } = await cora.send<OpenRemedy[]>('POST', '/api/desk/remedies', { spotIds: ids });
    const found = body.map(({ remedy, spotIds }) => [remedy, [...spotIds].sort()] as const);
    // Light pruning is booked for each of them.
    expect(found.sort(([a], [b]) => a.localeCompare(b))).toEqual([
      ['prune_structure', [...ids].sort()],
      ['remove_stake', [...ids].sort()],
    ]);
  });

  it('forgets a line whose last tree is done', async () => {
    const done = { remedy: 'remove_stake', doneOn: today, seen: { stake: 'none' } } as const;
    const records = ids.map((id) => sending(id, { kind: 'remedy', facts: done }));
    await cora.send('POST', '/api/records/batch', { records });
    expect((await deskOn()).lines.some(({ remedy }) => remedy === 'remove_stake')).toBe(false);
  });

  it.each(['on=soon', 'when=2026-01-01'])('refuses %s', async (query) => {
    expect((await cora.send('GET', `/api/desk?${query}`)).status).toBe(400);
  });
});
