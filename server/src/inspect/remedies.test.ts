import type { Assignment, WorkList } from '@sombra/contract';
import { addDaysTo, type RemedySeen } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { pdfText } from '../../testing/pdf-text';
import { plantedTree } from '../../testing/planted-tree';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { fieldPeople } from '../assignments/service';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: string;
const spots = new Map<string, string>();
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
  await tree('Q-0600', { stake: 'biting' });
  await tree('Q-0601', { stake: 'tight', mulchDepthMm: 5 });
  await tree('Q-0602', { mulchDepthMm: 15 });
});
afterAll(() => town.stop());

async function tree(ref: string, seen: RemedySeen): Promise<void> {
  const look = { on: addDaysTo(today, -3), seen };
  spots.set(ref, (await plantedTree(town, cora, { ref, plantedOn: addDaysTo(today, -200), look })).spotId);
}
const list = async (query = '') => (await cora.send<WorkList>('GET', `/api/remedies${query}`)).body;
const place = async (): Promise<string> => (await list()).batches[0]?.place ?? '';
const sheet = async (batches: unknown) =>
  cora.bytes('GET', `/api/remedies/sheet.pdf?aheadDays=366&batches=${encodeURIComponent(JSON.stringify(batches))}`);

it('lists what is to be done in batches, the urgent first, with the mulch that rings lack', async () => {
  const { batches } = await list('?aheadDays=366');
  expect(batches.map(({ remedy, count, urgent }) => [remedy, count, urgent])).toEqual([
    ['free_tie_now', 1, 1],
    ['loosen_tie', 1, 0],
    ['top_up_mulch', 2, 0],
  ]);
  // A ring of 1.131 m² to 75 mm: 79 L over 5 mm, 68 L over 15 mm.
  expect(batches[2]?.mulchL).toBe(79 + 68);
  expect((await list('?aheadDays=0')).batches.map(({ remedy }) => remedy)).toEqual(['free_tie_now']);
});

it('prints a sheet for a crew: tools, cautions, each tree and what is to be done there', async () => {
  const at = await place();
  const { status, bytes } = await sheet([
    { place: at, remedy: 'free_tie_now' },
    { place: at, remedy: 'top_up_mulch' },
  ]);
  expect(status).toBe(200);
  const text = pdfText(bytes).join(' ');
  for (const words of ['Take along: knife, wire cutter, rake.', 'Q-0600', 'Q-0601', 'Q-0602', 'Free the biting tie']) {
    expect(text).toContain(words);
  }
  expect(text).toContain('Cuts that could loosen the tree');
  expect(text).not.toContain('Loosen the tie, by crew');
});

it('sends somebody out once, and to nothing that is not open any more', async () => {
  const [one] = (await fieldPeople(town.db)).filter(({ role }) => role !== 'waterer');
  const batches = [{ place: await place(), remedy: 'top_up_mulch' }];
  const give = {
    ...{ id: uuidv7(), title: 'Mulch', userId: one?.id, until: addDaysTo(today, 5) },
    ...{ aheadDays: 366, batches },
  };
  expect((await cora.send('POST', '/api/remedies/give', give)).status).toBe(204);
  expect((await cora.send('POST', '/api/remedies/give', give)).status).toBe(204);
  const given = (await cora.send<Assignment[]>('GET', '/api/assignments')).body.filter(({ id }) => id === give.id);
  expect(given).toMatchObject([{ kind: 'remedies', title: 'Mulch' }]);
  expect([...(given[0]?.spotIds ?? [])].sort()).toEqual([spots.get('Q-0601'), spots.get('Q-0602')].sort());
  const none = { ...give, id: uuidv7(), batches: [{ place: await place(), remedy: 'cut_root' }] };
  expect((await cora.send('POST', '/api/remedies/give', none)).status).toBe(400);
});

it.each(['', 'batches=', 'batches=[]', 'batches=[{"place":"A"}]', 'batches={"a":1}', 'batches=[[1,2]]'])(
  'prints no sheet for %s',
  async (query) => {
    expect((await cora.bytes('GET', `/api/remedies/sheet.pdf?${query}`)).status).toBe(400);
  },
);
