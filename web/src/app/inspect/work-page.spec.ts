import type { GiveWork, WorkBatch } from '@sombra/contract';
import { PageRig } from '../../../testing/page-rig';
import { WorkPage } from './work-page';

const batch = (change: Partial<WorkBatch>): WorkBatch => ({
  ...{ place: 'Mole Street', remedy: 'remove_stake', count: 12, urgent: 0, dueOn: '2026-06-01', mulchL: null },
  ...change,
});
const batches = [
  batch({}),
  batch({ remedy: 'top_up_mulch', count: 3, mulchL: 190 }),
  batch({ remedy: 'cut_root', count: 2, place: 'Kelp Road' }),
  batch({ remedy: 'lift_and_replant', count: 1, urgent: 1 }),
  batch({ remedy: 'collar_excavation', count: 4, urgent: 4 }),
];
const person = '0190a5c2-0000-7000-8000-000000000201';

let rig: PageRig<WorkPage>;
async function show(address = '/remedies'): Promise<void> {
  await rig.show(WorkPage, { address });
  for (const call of rig.http.match('/api/assignments/people')) {
    call.flush([{ id: person, name: 'Bento', role: 'crew_lead' }]);
  }
  rig.http
    .expectOne(({ url }) => url === '/api/remedies')
    .flush({ batches, coolDays: ['2026-06-17', '2026-06-20'], coolSeason: false });
  await rig.settle();
}
async function tick(name: string): Promise<void> {
  const box = rig.field(name) as HTMLInputElement;
  box.checked = true;
  box.dispatchEvent(new Event('change'));
  await rig.settle();
}

beforeEach(() => {
  rig = new PageRig();
});

describe('remedies to carry out', () => {
  it('are listed with their time, and the days and the season for them; those of an arborist apart', async () => {
    await show();
    expect(rig.rows().slice(1)).toEqual([
      'Remove stake and tiesMole Street 12 1 Jun 2026 1.6 h any day mallet and bar, wire cutter',
      'Top up mulchMole Street 3 1 Jun 2026 0.5 h any day rake',
      'Cut the circling rootKelp Road 2 1 Jun 2026 0.7 h cool and cloudy: 17 Jun 2026, 20 Jun 2026 trowel and brush, hand pruner, lopper, root saw',
      'Lift and replantMole Street 1 1 urgent 1 Jun 2026 2.0 h wait for the cool season spade, straight edge and rule, water',
    ]);
    await rig.fill('By', 'arborist');
    expect(rig.rows()).toHaveLength(2);
    expect(rig.address).toBe('/remedies?by=arborist');
  });

  it('that go together say what to take along, what is used up, and with what care', async () => {
    await show();
    await tick('Choose Top up mulch, Mole Street');
    await tick('Choose Lift and replant, Mole Street');
    expect(rig.text).toContain('4 trees, 2.5 h of work');
    expect(rig.text).toContain('Used up, about: 190 L of mulch.');
    expect(rig.text).toContain('A valid utility ticket is needed before digging.');
  });

  it('are given to somebody as the same act until it is kept, and not to nobody', async () => {
    await show();
    await tick('Choose Remove stake and ties, Mole Street');
    await rig.press('Send out');
    expect(rig.text).toContain('Say who goes.');
    await rig.fill('Who', person);
    await rig.press('Send out');
    const first = rig.http.expectOne('/api/remedies/give');
    expect(first.request.body).toMatchObject({
      userId: person,
      batches: [{ place: 'Mole Street', remedy: 'remove_stake' }],
    });
    first.error(new ProgressEvent('error'), { status: 0 });
    await rig.settle();
    await rig.press('Send out');
    const again = rig.http.expectOne('/api/remedies/give');
    expect((again.request.body as GiveWork).id).toBe((first.request.body as GiveWork).id);
    again.flush(null, { status: 204, statusText: 'No Content' });
    await rig.settle();
    expect(rig.text).toContain('Sent out: Bento takes it along');
  });
});
