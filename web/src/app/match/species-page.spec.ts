import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { RowReport, SaveSpecies } from '@sombra/contract';
import { shippedSpecies } from '@sombra/core';
import { of } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { MatchService } from './match.service';
import { SpeciesPage } from './species-page';

const library = shippedSpecies.map((species) => ({ species, version: 3, standing: 2, chosen: 1 }));
const report: RowReport = {
  written: 1,
  same: 2,
  issues: [{ row: 4, column: 'height_min_m', message: 'must be given where spread is' }],
};

let fixture: ComponentFixture<SpeciesPage>;
let saved: SaveSpecies[];
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const field = (column: string) => {
  const found = element().querySelector<HTMLInputElement>(`#sp-${column}`);
  if (!found) throw new Error(column);
  return found;
};
const type = (column: string, value: string) => {
  field(column).value = value;
  field(column).dispatchEvent(new Event('input'));
};
const store = async () => {
  element().querySelector<HTMLButtonElement>('.one button[type=submit]')?.click();
  await fixture.whenStable();
};

async function render(query: string, role: 'coordinator' | 'viewer' = 'coordinator'): Promise<void> {
  saved = [];
  const session = new FakeSession();
  session.user.update((user) => user && { ...user, role });
  const doors = {
    species: () => of(library),
    importSpecies: () => of(report),
    saveSpecies: (save: SaveSpecies) => {
      saved.push(save);
      return of(library);
    },
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', children: [] }]),
      provideFakeSession(session),
      { provide: MatchService, useValue: doors },
    ],
  });
  await TestBed.inject(Router).navigateByUrl(`/species${query}`);
  fixture = TestBed.createComponent(SpeciesPage);
  await fixture.whenStable();
}
beforeEach(() => localStorage.clear());

describe('the species library', () => {
  it('is found by common name and by family', async () => {
    await render('?find=cork');
    expect(element().querySelectorAll('.list tbody tr')).toHaveLength(1);
    expect(text()).toContain('Quercus suber');
  });

  it('stores what was changed, at the version that was read', async () => {
    await render('?name=Quercus%20suber');
    type('notes', 'Seen on the hill.');
    await fixture.whenStable();
    await store();
    expect(saved).toHaveLength(1);
    expect(saved[0]).toMatchObject({ version: 3, species: { botanical: 'Quercus suber', notes: 'Seen on the hill.' } });
  });

  it('names each entry that is not right and keeps what was typed, also for later', async () => {
    await render('?name=Quercus%20suber');
    type('height_min_m', '90');
    await fixture.whenStable();
    await store();
    expect(saved).toEqual([]);
    expect(field('height_min_m').getAttribute('aria-invalid')).toBe('true');
    expect(field('height_min_m').value).toBe('90');
    TestBed.resetTestingModule();
    await render('?name=Quercus%20suber');
    expect(field('height_min_m').value).toBe('90');
  });

  it('begins a new species at version 0 and misses what it lacks', async () => {
    await render('?name=new');
    type('botanical', 'Acer novum');
    await fixture.whenStable();
    await store();
    expect(saved).toEqual([]);
    expect(element().querySelectorAll('.fault').length).toBeGreaterThan(10);
  });

  it('shows what a file did row by row', async () => {
    await render('');
    const input = element().querySelector<HTMLInputElement>('input[type=file]');
    Object.defineProperty(input, 'files', { value: [new File(['x'], 'species.csv')], configurable: true });
    input?.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(text()).toMatch(/1 row stored, 2 were already here/);
    expect(text()).toContain('height_min_m');
  });

  it('is only read by a viewer', async () => {
    await render('?name=Quercus%20suber', 'viewer');
    expect(field('notes').readOnly).toBe(true);
    expect(element().querySelector('input[type=file]')).toBeNull();
  });
});
