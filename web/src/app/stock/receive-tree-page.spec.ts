import type { Delivery } from '@sombra/contract';
import { defaultReceivingRules, unseenTree } from '@sombra/core';
import { of } from 'rxjs';
import { PageRig } from '../../../testing/page-rig';
import { ParcelsService, type NewParcel } from '../offline/parcels.service';
import { DeliveriesPage } from './deliveries-page';
import { DeliveryPage } from './delivery-page';
import { ReceiveTreePage } from './receive-tree-page';
import { StockService } from './stock.service';

const ids = {
  delivery: '0190a5c2-0000-7000-8000-0000000000aa',
  lot: '0190a5c2-0000-7000-8000-000000000001',
  tree: '0190a5c2-0000-7000-8000-000000000002',
};
const delivery: Delivery = {
  id: ids.delivery,
  orderNumber: '2026-D1',
  nursery: 'Outra Margem',
  terms: 'Replacement of what does not leaf out',
  arrivedOn: '2026-06-13',
  madeBy: 'Bento',
  version: 4,
  covered: null,
  moist: true,
  wateredEveryDays: null,
  holding: '',
  note: '',
  wateredOn: ['2026-06-14'],
  practice: { id: 'field-default', version: 1, name: 'Field default' },
  rules: defaultReceivingRules,
  lots: [
    {
      id: ids.lot,
      species: 'Quercus ilex',
      sign: null,
      stockKind: 'container',
      caliperMm: 50,
      price: 90,
      spots: ['L-0101'],
      expected: 24,
      arrived: 20,
      trees: [
        {
          id: ids.tree,
          tree: { ...unseenTree, probes: [], caliperMm: 49, circlingPct: 75 },
          seenBy: 'Bento',
          seenAt: '2026-06-13T09:00:00Z',
          hasPhoto: false,
          photoAt: null,
        },
      ],
      verdict: 'return',
      reason: 'pot-bound',
      version: 2,
    },
  ],
};

let sent: NewParcel[];
let dropped: string[];
let answer: object;
let calls: unknown[][];
const parcels = {
  waiting: () => [],
  send: (parcel: NewParcel) => {
    sent.push(parcel);
    return Promise.resolve(answer);
  },
  drop: (id: string) => {
    dropped.push(id);
    return Promise.resolve();
  },
};
const doors = {
  changed$: of(),
  delivery: () => of(delivery),
  list: () =>
    of({
      deliveries: [
        {
          id: ids.delivery,
          orderNumber: '2026-D1',
          nursery: 'Outra Margem',
          arrivedOn: '2026-06-13',
          expected: 24,
          arrived: 20,
          undecided: 0,
          returned: 20,
        },
      ],
      awaited: [{ id: 'o2', number: '2026-D2', nursery: 'Viveiro Azul', trees: 9, plantOn: '2026-12-01' }],
      claims: [{ nursery: 'Outra & Margem', returned: 20, missing: 4, deliveries: 1 }],
    }),
  keepState: (...args: unknown[]) => {
    calls.push(args);
    return of({ ...delivery, version: 5, covered: true });
  },
  water: (...args: unknown[]) => {
    calls.push(args);
    return of({ ...delivery, wateredOn: [...delivery.wateredOn, '2026-06-15'] });
  },
};
const providers = [
  { provide: StockService, useValue: doors },
  { provide: ParcelsService, useValue: parcels },
];

beforeEach(() => {
  localStorage.clear();
  [sent, dropped, calls, answer] = [[], [], [], { kind: 'stored', answer: delivery }];
});

describe('a tree gone over by hand', () => {
  let rig: PageRig<ReceiveTreePage>;
  const show = async (again?: string) => {
    rig = new PageRig();
    await rig.show(ReceiveTreePage, { inputs: { deliveryId: ids.delivery, lotId: ids.lot, again }, providers });
  };
  /** A new tree, its kind answered. */
  const begin = async () => {
    await show();
    await rig.press('container');
  };
  const type = async (digits: string) => {
    for (const digit of digits) await rig.press(digit);
    await rig.press('Next');
  };

  it('asks one thing at a time, the next after each answer, and judges as it goes', async () => {
    await show();
    expect(rig.text).toContain('tree 2');
    expect(rig.text).toContain('Question 1 of');
    // Before anything was looked at there is nothing to judge.
    expect(rig.text).toContain('Nothing looked at yet');
    expect(rig.text).not.toContain('Accept');
    await rig.press('balled');
    expect(rig.text).toContain('It came balled, container was ordered.');
    await rig.press('Back');
    await rig.press('container');
    await type('48');
    expect(rig.element.querySelector('s-tree-question h2')?.textContent).toBe('Height');
    for (let i = 0; i < 4; i++) await rig.press('Skip');
    await rig.press('75 %');
    expect(rig.text).toContain('Pot-bound: circling roots cover 75 % of the ball');
    expect(rig.rows()).toEqual(expect.arrayContaining(['Caliper 48 mm', 'Circling roots 75 %']));
  });

  it('keeps each answer on the device: a reload goes on where it was', async () => {
    await begin();
    await type('48');
    await show();
    expect(rig.rows()).toContain('Caliper 48 mm');
  });

  it('sends the tree under an id made here, once, and forgets the draft', async () => {
    await begin();
    await type('48');
    await rig.press('Store what was seen');
    expect(sent).toMatchObject([
      { method: 'POST', url: `/api/lots/${ids.lot}/trees`, body: { supersedes: null, tree: { caliperMm: 48 } } },
    ]);
    expect(rig.address).toBe(`/deliveries/${ids.delivery}`);
    await show();
    expect(rig.rows()).not.toContain('Caliper 48 mm');
  });

  it('corrects a tree by a new look at it', async () => {
    await show(ids.tree);
    expect(rig.text).toContain('tree 1');
    expect(rig.rows()).toContain('Caliper 49 mm');
    await rig.press('Circling roots');
    await rig.press('10 %');
    await rig.press('Store what was seen');
    expect(sent).toMatchObject([{ body: { supersedes: ids.tree, tree: { caliperMm: 49, circlingPct: 10 } } }]);
  });

  it('stays with its answers where the server refuses it, and says why', async () => {
    answer = { kind: 'refused', problem: { title: 'All 20 trees of this lot are opened', code: 'x', status: 400 } };
    await begin();
    await type('48');
    await rig.press('Store what was seen');
    expect(rig.text).toContain('All 20 trees of this lot are opened.');
    expect([dropped, rig.rows()]).toEqual([[sent[0]?.id], ['Kind of stock container', 'Caliper 48 mm']]);
  });

  it('leads back to the answer that cannot be, before anything is sent', async () => {
    await begin();
    await type('48');
    await rig.press('Skip');
    await rig.press('Skip');
    await type('300');
    for (const digit of '350') await rig.press(digit);
    await rig.press('structural');
    await rig.press('Store what was seen');
    expect(rig.text).toContain('Topmost roots must be less than the ball height, 300 mm, got 350.');
    expect(sent).toEqual([]);
  });
});

describe('a delivery', () => {
  let rig: PageRig<DeliveryPage>;
  beforeEach(async () => {
    rig = new PageRig();
    await rig.show(DeliveryPage, { inputs: { deliveryId: ids.delivery }, providers });
  });

  it('says how long it has been held, by which practice it is judged, and what is claimed of it', () => {
    expect(rig.text).toContain('held 2 days');
    expect(rig.text).toContain('Judged by Field default, version 1');
    expect(rig.text).toContain('20 returned, 4 did not come.');
    expect(rig.button('Claim sheet, PDF').getAttribute('href')).toBe(`/api/deliveries/${ids.delivery}/claim`);
  });

  it('stores how it came at the version it was read', async () => {
    await rig.press('Yes');
    expect(calls).toEqual([
      [ids.delivery, { version: 4, covered: true, moist: true, wateredEveryDays: null, holding: '', note: '' }],
    ]);
  });

  it('asks how often the nursery watered, and refuses what cannot be', async () => {
    const field = rig.field('The nursery watered every, days') as HTMLInputElement;
    const give = async (text: string) => {
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await rig.fixture.whenStable();
    };
    await give('90');
    expect(rig.text).toContain('must be within 0.25–60 days, got 90');
    expect(calls).toEqual([]);
    await give('1,5');
    expect(calls).toMatchObject([[ids.delivery, { wateredEveryDays: 1.5 }]]);
  });

  it('notes a watering of the day once', async () => {
    await rig.press('Watered today');
    expect(calls).toEqual([[ids.delivery, '2026-06-15']]);
    expect(rig.text).not.toContain('Watered today');
  });
});

describe('deliveries', () => {
  it('show what is awaited, what came, and the claim of each nursery', async () => {
    const rig = new PageRig<DeliveriesPage>();
    await rig.show(DeliveriesPage, { providers });
    expect(rig.rows()).toEqual([
      '2026-D2 Viveiro Azul 9 trees for 1 Dec 2026 It has arrived',
      'Outra & Margem 20 returned, 4 did not come 1 delivery Claim sheet, PDF',
      '2026-D1 Outra Margem 13 Jun 2026 20 of 24 trees decided, 20 returned',
    ]);
    expect(rig.button('Claim sheet, PDF').getAttribute('href')).toBe('/api/claims?nursery=Outra%20%26%20Margem');
  });

  it('let a viewer look and not act', async () => {
    const rig = new PageRig<DeliveriesPage>();
    rig.session.user.update((user) => user && { ...user, role: 'viewer' });
    await rig.show(DeliveriesPage, { providers });
    expect(rig.text).not.toContain('It has arrived');
  });
});
