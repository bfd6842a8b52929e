import type { KeptRules, Ticket, TicketList } from '@sombra/contract';
import { defaultGroundRules } from '@sombra/core';
import { HttpErrorResponse } from '@angular/common/http';
import { NEVER, of, throwError } from 'rxjs';
import { PageRig } from '../../../testing/page-rig';
import { LiveService } from '../ui/live.service';
import { GroundService } from './ground.service';
import { TicketsPage } from './tickets-page';

const id = (n: number) => `0190a5c2-0000-7000-8000-00000000000${n}`;
const clear = (utility: string) => ({
  utility,
  state: 'clear' as const,
  toleranceMm: null,
  note: '',
  repliedOn: null,
});
const ticket = (change: Partial<Ticket> = {}): Ticket =>
  ({
    id: id(1),
    number: 'LC-2214',
    purpose: 'Planting, Mole Street',
    state: 'open',
    raisedBy: 'Inês',
    raisedAt: '2026-06-01T09:00:00.000Z',
    validFrom: '2026-06-04',
    validUntil: '2026-07-02',
    renews: null,
    tries: 0,
    problem: null,
    replies: [clear('Island Grid'), clear('Water Works')],
    area: [
      [
        [-25.4, 36.9],
        [-25.39, 36.9],
        [-25.39, 36.91],
        [-25.4, 36.9],
      ],
    ],
    areaM2: 812.4,
    spots: 6,
    booked: 6,
    firstDay: '2026-06-20',
    ...change,
  }) as Ticket;
const uncovered = {
  dayId: id(9),
  title: 'Saltmakers Street',
  onDay: '2026-06-20',
  spots: [
    { spotId: id(7), ref: 'S-1', place: 'Saltmakers Street', why: 'No locate ticket covers this spot.' },
    { spotId: id(8), ref: 'S-2', place: 'Saltmakers Street', why: 'No locate ticket covers this spot.' },
  ],
};

let rig: PageRig<TicketsPage>;
let asked: unknown[][];
const show = async (list: TicketList, { address = '/tickets', fails = false } = {}) => {
  const note =
    (name: string) =>
    (...args: unknown[]) => {
      asked.push([name, ...args]);
      return fails ? throwError(() => new HttpErrorResponse({ status: 0 })) : of(ticket());
    };
  const doors = {
    rules: () => of({ rules: { ground: defaultGroundRules } } as KeptRules),
    tickets: () => of(list),
    raise: note('raise'),
    remind: note('remind'),
    act: note('act'),
  };
  await rig.show(TicketsPage, {
    address,
    providers: [
      { provide: GroundService, useValue: doors },
      { provide: LiveService, useValue: { settled$: NEVER } },
    ],
  });
};

beforeEach(() => {
  rig = new PageRig();
  asked = [];
});
afterEach(() => rig.fixture.destroy());

describe('locate tickets', () => {
  it('say where each stands, and that no reply is not a yes', async () => {
    const waiting = { ...clear('Gas'), state: 'waiting' as const };
    await show({ tickets: [ticket(), ticket({ id: id(2), number: 'LC-2', replies: [waiting] })], uncovered: [] });
    const [, valid, open] = rig.rows();
    expect(valid).toMatch(/LC-2214 Planting, Mole Street Valid/i);
    expect(open).not.toMatch(/Valid/i);
    expect(rig.text).toContain('no reply is not a yes');
  });

  it('say there is none, and how to raise one', async () => {
    await show({ tickets: [], uncovered: [] });
    expect(rig.text).toContain('No ticket yet. Choose spots in the list or with the lasso');
  });

  it('are raised for a planting day that lacks cover, for all its spots at once', async () => {
    await show({ tickets: [], uncovered: [uncovered] });
    expect(rig.text).toContain('Saltmakers Street: nobody may dig at 2 spots on that day');
    await rig.press('Raise a ticket for 2');
    expect(asked).toEqual([
      ['raise', { purpose: 'Planting, Saltmakers Street', spotIds: [id(7), id(8)], renews: null }],
    ]);
    expect(rig.address).toContain(`ticket=${id(1)}`);
  });

  it('are renewed over the same ground, under the one they go on from', async () => {
    await show({ tickets: [ticket()], uncovered: [] }, { address: `/tickets?ticket=${id(1)}` });
    await rig.press('Renew');
    const ring = ticket().area[0]?.slice(0, -1);
    expect(asked).toEqual([['raise', { purpose: 'Planting, Mole Street', ring, renews: id(1) }]]);
  });

  it('remind a utility that has not answered, and ask again where a line was settled', async () => {
    const replies = [
      { ...clear('Gas'), state: 'waiting' as const },
      { ...clear('Island Grid'), state: 'conflict' as const },
      clear('Water Works'),
    ];
    await show({ tickets: [ticket({ replies })], uncovered: [] }, { address: `/tickets?ticket=${id(1)}` });
    await rig.press('Remind');
    await rig.press('Settled: ask again');
    expect(asked).toEqual([
      ['remind', id(1), 'Gas'],
      ['remind', id(1), 'Island Grid'],
    ]);
  });

  it('that the centre has not taken say so with their tries, and are sent again', async () => {
    const unsent = ticket({ number: null, state: 'unsent', tries: 3, problem: 'The centre does not answer' });
    await show({ tickets: [unsent], uncovered: [] }, { address: `/tickets?ticket=${id(1)}` });
    expect(rig.text).toContain('The centre does not answer; 3 tries. The ticket is kept');
    await rig.press('Send again now');
    expect(asked).toEqual([['act', id(1), 'retry']]);
  });

  it('are withdrawn only once somebody says so', async () => {
    jest.spyOn(window, 'confirm').mockReturnValueOnce(false).mockReturnValueOnce(true);
    await show({ tickets: [ticket()], uncovered: [] }, { address: `/tickets?ticket=${id(1)}` });
    await rig.press('Withdraw');
    expect(asked).toEqual([]);
    await rig.press('Withdraw');
    expect(asked).toEqual([['act', id(1), 'withdraw']]);
  });

  it('keep what failed on the page, and offer nothing to a viewer', async () => {
    await show({ tickets: [ticket()], uncovered: [] }, { address: `/tickets?ticket=${id(1)}`, fails: true });
    await rig.press('Renew');
    expect(rig.element.querySelector('[role=alert]')?.textContent).toContain('cannot be reached');
    rig.session.user.update((user) => user && { ...user, role: 'viewer' });
    await rig.settle();
    expect(rig.text).not.toContain('Renew');
    expect(rig.text).not.toContain('Withdraw');
  });
});
