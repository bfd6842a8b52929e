import { provideHttpClient } from '@angular/common/http';
import { provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { SpotLine } from '@sombra/contract';
import { of } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { ChosenService } from '../spot/chosen.service';
import { SpotSource } from './spot-source';
import { SpotTable } from './spot-table';

const line = (i: number): SpotLine => ({
  spotId: `id-${i}`,
  treeId: null,
  ref: `C-${100 + i}`,
  place: 'Mole Street',
  species: null,
  stage: 'inspect',
  level: 'act',
  plantedOn: '2025-11-08',
  probe: 'moist',
  nextLookOn: null,
  decisions: 2,
  dueOn: '2026-06-12',
  position: [-25.4, 36.9],
});

let fixture: ComponentFixture<SpotTable>;
let opened: string[];
let sorted: object[];
const grid = () => (fixture.nativeElement as HTMLElement).querySelector<HTMLElement>('[role=grid]');
const press = (key: string) =>
  grid()?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));

beforeEach(async () => {
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideFakeSession(new FakeSession()),
    ],
  });
  fixture = TestBed.createComponent(SpotTable);
  const lines = Array.from({ length: 40 }, (_, i) => line(i));
  const source = new SpotSource((offset, limit) => of({ lines: lines.slice(offset, offset + limit), total: 40 }));
  opened = [];
  sorted = [];
  const inputs = { source, path: '/inspect', rank: () => of(7), shown: ['ref', 'dueOn'], sort: 'ref', down: false };
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  fixture.componentInstance.opened.subscribe(({ ref }) => opened.push(ref));
  fixture.componentInstance.sorted.subscribe((order) => sorted.push(order));
  await fixture.whenStable();
});

describe('a list', () => {
  it('tells how long it is and in which order', () => {
    expect(grid()?.getAttribute('aria-rowcount')).toBe('41');
    const heads = [...(grid()?.querySelectorAll('[role=columnheader]') ?? [])];
    expect(heads.map((head) => head.getAttribute('aria-sort'))).toEqual([null, 'ascending', 'none']);
  });

  it('is walked, opened and chosen from by keys', () => {
    press('ArrowDown');
    press('ArrowDown');
    press('Enter');
    expect(opened).toEqual(['C-102']);
    press('ArrowUp');
    press(' ');
    expect(
      TestBed.inject(ChosenService)
        .chosen()
        .map(({ ref }) => ref),
    ).toEqual(['C-101']);
    press('End');
    press('Enter');
    expect(opened).toEqual(['C-102', 'C-139']);
  });

  it('shows the first of trees that were chosen elsewhere, and stays where it is for those chosen here', async () => {
    TestBed.inject(ChosenService).only([line(30), line(31)]);
    await fixture.whenStable();
    press('Enter');
    expect(opened).toEqual(['C-130']);
    press('ArrowDown');
    press('ArrowDown');
    press(' ');
    await fixture.whenStable();
    press('Enter');
    expect(opened).toEqual(['C-130', 'C-132']);
  });

  it('is chosen from in a row with Shift, and as a whole', () => {
    const chosen = () => TestBed.inject(ChosenService).count();
    press('ArrowDown');
    for (const key of ['ArrowDown', 'ArrowDown']) {
      grid()?.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey: true, bubbles: true }));
    }
    expect(chosen()).toBe(3);
    grid()?.dispatchEvent(new KeyboardEvent('keydown', { key: 'a', ctrlKey: true, bubbles: true }));
    expect(chosen()).toBe(40);
  });

  it('has columns as wide as what stands in them, until somebody draws them otherwise', async () => {
    const tracks = () => grid()?.querySelector<HTMLElement>('.head')?.style.gridTemplateColumns.split(' ') ?? [];
    const [, ref] = tracks();
    expect(tracks().at(-1)).toBe('1fr');
    const head = grid()?.querySelector('[role=columnheader] button');
    head?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', shiftKey: true, bubbles: true }));
    await fixture.whenStable();
    expect(parseInt(tracks()[1] ?? '')).toBe(parseInt(ref ?? '') + 16);
    expect(localStorage.getItem('sombra.columnWidths')).toContain('"ref"');
    grid()?.querySelector('.edge')?.dispatchEvent(new MouseEvent('dblclick'));
    await fixture.whenStable();
    expect(tracks()[1]).toBe(ref);
  });

  it('sorts by a head, and the other way when asked again', () => {
    const [number, due] = [...(grid()?.querySelectorAll<HTMLButtonElement>('.head button') ?? [])];
    due?.click();
    number?.click();
    expect(sorted).toEqual([
      { sort: 'dueOn', down: false },
      { sort: 'ref', down: true },
    ]);
  });

  it('leaves the keys of a head to the head', () => {
    const head = grid()?.querySelector('.head button');
    head?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(opened).toEqual([]);
  });

  it('goes to a spot that was opened elsewhere', async () => {
    fixture.componentRef.setInput('openId', 'id-7');
    await fixture.whenStable();
    press('Enter');
    expect(opened).toEqual(['C-107']);
  });
});
