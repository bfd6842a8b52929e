import { HttpErrorResponse } from '@angular/common/http';
import type { KeptRules, Offer, Offers, RowReport } from '@sombra/contract';
import { defaultMatchRules } from '@sombra/core';
import { of, throwError } from 'rxjs';
import { PageRig } from '../../../testing/page-rig';
import { GroundService } from '../ground/ground.service';
import { MatchService } from './match.service';
import { NurseriesPage } from './nurseries-page';

const offer = (n: number, change: Partial<Offer> = {}): Offer => ({
  id: `0190a5c2-0000-7000-8000-00000000000${n}`,
  nursery: 'Viveiro Azul',
  species: 'Quercus ilex',
  stockKind: 'container',
  caliperMm: 40,
  heightM: 3,
  price: 84,
  available: 20,
  listDay: '2026-05-01',
  ...change,
});
const offers: Offers = {
  nurseries: [
    { name: 'Viveiro Azul', offers: 2, listDay: '2026-05-01', terms: '' },
    { name: 'Outra Margem', offers: 1, listDay: null, terms: 'two seasons' },
  ],
  offers: [
    offer(1),
    offer(2, { species: 'Celtis australis', heightM: null }),
    offer(3, { nursery: 'Outra Margem', stockKind: 'bare_root', available: 3 }),
  ],
};

let rig: PageRig<NurseriesPage>;
let sent: [string, string][];
let report: RowReport;
const show = async (address = '/nurseries', fails = false) => {
  const doors = {
    offers: () => of(offers),
    readNurseries: () => (fails ? throwError(() => new HttpErrorResponse({ status: 0 })) : of(offers)),
    importOffers: (nursery: string, file: File) => {
      sent.push([nursery, file.name]);
      return of(report);
    },
  };
  const rules = { rules: { match: { ...defaultMatchRules, currency: 'EUR' } } } as KeptRules;
  await rig.show(NurseriesPage, {
    address,
    providers: [
      { provide: MatchService, useValue: doors },
      { provide: GroundService, useValue: { rules: () => of(rules) } },
    ],
  });
};
const lines = () => rig.rows().filter((row) => row.includes('Quercus') || row.includes('Celtis'));
async function choose(file: File): Promise<void> {
  const input = rig.element.querySelector<HTMLInputElement>('input[type=file]');
  if (!input) throw new Error('no field for a file');
  Object.defineProperty(input, 'files', { value: [file], configurable: true });
  input.dispatchEvent(new Event('change'));
  await rig.settle();
}

beforeEach(() => {
  rig = new PageRig();
  sent = [];
  report = { written: 3, same: 0, issues: [] };
});

describe('what nurseries have', () => {
  it('is listed with measures, price and how many are there', async () => {
    await show();
    expect(lines()).toHaveLength(3);
    expect(lines()[0]).toMatch(/^Quercus ilex container 40 mm 3\.0 m .*84.* 20 Viveiro Azul$/);
    // What nobody measured is no zero.
    expect(lines()[1]).toContain('40 mm –');
  });

  it('reads in inches and feet to who reads those', async () => {
    rig.session.units.set('us');
    await show();
    expect(lines()[0]).toContain('1 5/8 in 9.8 ft');
  });

  it('narrows to a nursery and to a species, and keeps both in the address', async () => {
    await show('/nurseries?find=quercus');
    expect(lines()).toHaveLength(2);
    await rig.press('Outra Margem');
    expect(lines()).toHaveLength(1);
    expect(rig.address).toContain('nursery=Outra%20Margem');
    await rig.press('All nurseries');
    expect(lines()).toHaveLength(2);
  });

  it('comes from a file only once its nursery is named, and says what was stored', async () => {
    await show();
    expect(rig.element.querySelector<HTMLInputElement>('input[type=file]')?.disabled).toBe(true);
    await rig.fill('Nursery the file is from', 'Viveiro Azul');
    await choose(new File(['x'], 'list.csv', { type: 'text/csv' }));
    expect(sent).toEqual([['Viveiro Azul', 'list.csv']]);
    expect(rig.text).toContain('3 rows stored');
  });

  it('is refused whole where a row is bad, by row and column', async () => {
    report = { written: 0, same: 0, issues: [{ row: 3, column: 'price', message: 'must be a number' }] };
    await show();
    await rig.fill('Nursery the file is from', 'Viveiro Azul');
    await choose(new File(['x'], 'list.csv', { type: 'text/csv' }));
    expect(rig.text).toMatch(/3.*price.*must be a number/);
  });

  it('stays as it was where the nurseries cannot be asked', async () => {
    await show('/nurseries', true);
    await rig.press('Ask the nurseries for their lists');
    expect(rig.element.querySelector('[role=alert]')?.textContent).toContain('cannot be reached');
    expect(lines()).toHaveLength(3);
  });
});
