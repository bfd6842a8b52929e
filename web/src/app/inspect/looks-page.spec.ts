import type { LookLine } from '@sombra/contract';
import { PageRig } from '../../../testing/page-rig';
import { LooksPage } from './looks-page';

const id = (i: number) => `0190a5c2-0000-7000-8000-${String(i).padStart(12, '0')}`;
const line = (i: number, value: number): LookLine => ({
  spotId: id(i),
  treeId: id(100 + i),
  ref: `C-010${i}`,
  place: 'Mole Street',
  species: 'Celtis australis',
  position: [-25.4, 36.9],
  found: 'act',
  dueOn: i === 2 ? null : '2026-06-01',
  value,
  because: [{ code: 'look_found', facts: { found: 'act', pct: 12 } }],
});
const people = [
  { id: id(201), name: 'Marta', role: 'inspector' },
  { id: id(202), name: 'Tia', role: 'waterer' },
];

let rig: PageRig<LooksPage>;
const listed = () => rig.http.match(({ url }) => url === '/api/looks').filter(({ cancelled }) => !cancelled);
async function show(address = '/looks'): Promise<void> {
  await rig.show(LooksPage, { address });
  for (const call of rig.http.match('/api/spots/facets')) {
    call.flush({ places: [{ name: 'Mole Street', count: 2 }], species: [], stages: [], levels: [], waits: [] });
  }
  for (const call of rig.http.match('/api/assignments/people')) call.flush(people);
  for (const call of listed()) {
    call.flush({ lines: [line(1, 24.4), line(2, 8)], total: 2, more: false, value: 32.4, currency: 'EUR' });
  }
  await rig.settle();
}

beforeEach(() => {
  rig = new PageRig();
});

describe('rounds of looks', () => {
  it('lists what each look is worth and why, and offers whoever inspects', async () => {
    await show();
    expect(rig.text).toContain('2 looks, worth 32 EUR together.');
    expect(rig.rows().slice(1)).toEqual([
      'C-0101Mole Street 1 Jun 2026 24.4 Last found to ask for something: 12 %.',
      'C-0102Mole Street in doubt 8.0 Last found to ask for something: 12 %.',
    ]);
    expect(rig.text).toContain('Marta');
    expect(rig.text).not.toContain('Tia');
    expect(rig.button('Plan the rounds')).toHaveProperty('disabled', true);
  });

  it('asks anew for a place and days, keeps them in the address, and refuses days that are none', async () => {
    await show();
    await rig.fill('Due within, days', '14');
    const [asked] = listed();
    expect(asked?.request.params.get('aheadDays')).toBe('14');
    expect(rig.address).toBe('/looks?ahead=14');
    await rig.fill('Due within, days', '900');
    expect(rig.text).toContain('Due within must be within 0 to 120 days, got 900.');
  });

  it('only shows what they are worth to somebody who may send nobody out', async () => {
    rig.session.user.update((user) => user && { ...user, role: 'viewer' });
    await show();
    expect(rig.text).not.toContain('Who goes');
    expect(rig.rows()).toHaveLength(3);
  });
});
