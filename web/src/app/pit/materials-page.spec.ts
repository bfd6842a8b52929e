import { HttpErrorResponse } from '@angular/common/http';
import type { SeasonMaterials } from '@sombra/contract';
import { presets } from '@sombra/core';
import { of, throwError } from 'rxjs';
import { PageRig } from '../../../testing/page-rig';
import { MaterialsPage } from './materials-page';
import { PracticeService } from '../practice/practice.service';

const sum = (name: string, change: Partial<SeasonMaterials> = {}): SeasonMaterials => ({
  title: 'Everything ready to plant',
  expected: 0,
  remedies: 0,
  practice: { id: 'x', version: 1, name },
  spots: [
    { spotId: 's1', ref: 'A-1', place: 'Mole Street', species: null, hours: 2, weeklyL: null, amounts: { mulch: 90 } },
  ],
  without: [],
  hours: 2,
  weeklyL: null,
  lines: [{ code: 'mulch', needed: 90, inStore: 10, packs: 1, packSize: 1000, bought: 1000, version: 3 }],
  ...change,
});
const compost = {
  code: 'coarse_compost' as const,
  needed: 80,
  inStore: 0,
  packs: 2,
  packSize: 40,
  bought: 80,
  version: 0,
};

let rig: PageRig<MaterialsPage>;
let asked: Record<string, string>[];
const doors = (fails = false) => ({
  practices: () =>
    of({
      current: { id: 'field-default', version: 1 },
      adoption: null,
      practices: presets.map((practice) => ({ practice, madeBy: 'Sombra', shipped: true, planted: 0 })),
    }),
  plantingDays: () => of([{ id: 'day-1', title: 'Tramway Avenue', onDay: '2026-06-20', spots: 12 }]),
  lists: () => of([{ id: 'list-1', title: 'Winter list', state: 'accepted', madeBy: 'Inês', madeAt: '', spots: 3 }]),
  materials: (params: Record<string, string>) => {
    asked.push(params);
    if (fails) return throwError(() => new HttpErrorResponse({ status: 0 }));
    if (params['practice'] === 'garden-enriched') {
      return of(sum('Garden enriched', { lines: [compost, ...sum('').lines], weeklyL: 80 }));
    }
    return of(sum('Field default'));
  },
});
const show = (address = '/materials', fails = false) =>
  rig.show(MaterialsPage, { address, providers: [{ provide: PracticeService, useValue: doors(fails) }] });

beforeEach(() => {
  rig = new PageRig();
  asked = [];
});

describe('materials and hours', () => {
  it('says what to buy, against what lies in store', async () => {
    await show();
    expect(rig.text).toContain('1 trees by Field default, 2 person-hours');
    expect(rig.rows()).toContain('mulch 90 L L 1 × loose load of 1.0 m³');
    expect(rig.field('mulch in store').value).toBe('10');
    expect(asked).toEqual([{}]);
  });

  it('puts another practice beside the programme’s own, with what only one of them asks for', async () => {
    await show('/materials?practice=garden-enriched');
    expect(rig.text).toContain('Beside it Field default');
    expect(rig.rows()).toEqual(
      expect.arrayContaining([
        'coarse compost 80 L none L 2 × bag of 40 L',
        'mulch 90 L 90 L L 1 × loose load of 1.0 m³',
      ]),
    );
  });

  it('puts any two beside each other on a season’s list', async () => {
    await show('/materials?list=list-1&beside=garden-enriched');
    const version = presets.find(({ id }) => id === 'garden-enriched')?.version;
    expect(asked).toEqual(
      expect.arrayContaining([
        { list: 'list-1' },
        { list: 'list-1', practice: 'garden-enriched', version: String(version) },
      ]),
    );
    // Compost is the other's alone: nothing of it to buy by the one that is looked at.
    expect(rig.rows()).toContain('coarse compost 0 L 80 L L nothing');
  });

  it('keeps a planting day or a list in the address', async () => {
    await show();
    await rig.fill('For', 'day:day-1');
    expect(rig.address).toBe('/materials?day=day-1');
    await rig.fill('For', 'list:list-1');
    expect(rig.address).toBe('/materials?list=list-1');
    expect(asked.at(-1)).toEqual({ list: 'list-1' });
  });

  it('says when balls are taken from what was ordered, and which places have no plan', async () => {
    const value = {
      ...doors(),
      materials: () =>
        of(sum('Field default', { expected: 3, without: [{ spotId: 's2', ref: 'A-2', why: 'Too steep.' }] })),
    };
    await rig.show(MaterialsPage, { providers: [{ provide: PracticeService, useValue: value }] });
    expect(rig.text).toContain('3 of them are not here yet');
    expect(rig.element.querySelector('li')?.textContent.trim()).toBe('A-2: Too steep.');
  });

  it('tells hours and water tree by tree', async () => {
    await show();
    expect(rig.rows()).toContain('A-1 Mole Street 2.0 as it dries');
  });

  it('counts the store in gallons for who reads gallons, and keeps litres', async () => {
    rig.session.units.set('us');
    await show();
    // 10 L are 2.6 gallons.
    expect(rig.field('mulch in store').value).toBe('2.6');
    await rig.fill('mulch in store', '100');
    const call = rig.http.expectOne('/api/store');
    expect((call.request.body as { amount: number }).amount).toBeCloseTo(378.5411784, 6);
    call.flush(null);
    await rig.settle();
  });

  it('stores a count at the version it was read, and refuses what cannot lie in a store', async () => {
    await show();
    await rig.fill('mulch in store', '-4');
    expect(rig.text).toContain('mulch in store must be within 0–1 000 000, got -4.');
    await rig.fill('mulch in store', '250');
    const call = rig.http.expectOne('/api/store');
    expect(call.request.body).toEqual({ material: 'mulch', amount: 250, version: 3 });
    call.flush(null);
    await rig.settle();
    expect(asked).toHaveLength(2);
  });

  it('says when it cannot be added up', async () => {
    await show('/materials', true);
    expect(rig.element.querySelector('s-state-note')?.textContent).toContain('cannot be reached');
  });
});
