import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { ImportPreview, ImportProgress } from '@sombra/contract';
import { HttpErrorResponse } from '@angular/common/http';
import { Subject } from 'rxjs';
import { LiveService } from '../ui/live.service';
import { ImportPage } from './import-page';
import { ImportService } from './import.service';

const preview = (change: Partial<ImportPreview> = {}): ImportPreview => ({
  fileName: 'spots.csv',
  rows: [{ row: 2, ref: 'A-1', place: 'Mole Street', species: null, verdict: 'new', writes: ['spot', 'ground'] }],
  issues: [],
  counts: { new: 1, changed: 0, same: 0, bad: 0 },
  ignoredColumns: [],
  ...change,
});

let fixture: ComponentFixture<ImportPage>;
let previews: Subject<ImportPreview>;
let progress: Subject<ImportProgress>;
let ran: string[];
let refreshed: number;

const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const button = (name: string) => [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === name);

async function choose(): Promise<void> {
  const input = element().querySelector('input[type=file]') as HTMLInputElement;
  Object.defineProperty(input, 'files', { value: [new File(['x'], 'spots.csv')], configurable: true });
  input.dispatchEvent(new Event('change'));
  await fixture.whenStable();
}

async function show(read: ImportPreview): Promise<void> {
  await choose();
  previews.next(read);
  await fixture.whenStable();
}

beforeEach(async () => {
  previews = new Subject();
  progress = new Subject();
  ran = [];
  refreshed = 0;
  const imports = {
    preview: () => previews,
    run: (_file: File, id: string) => {
      ran.push(id);
      return progress;
    },
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: ImportService, useValue: imports },
      { provide: LiveService, useValue: { acted: () => (refreshed += 1) } },
    ],
  });
  fixture = TestBed.createComponent(ImportPage);
  await fixture.whenStable();
});

describe('import page', () => {
  it('says what the file would do before anything is stored', async () => {
    await choose();
    expect(text()).toContain('Reading spots.csv…');
    previews.next(preview({ counts: { new: 1, changed: 2, same: 3, bad: 4 } }));
    await fixture.whenStable();
    expect(text()).toContain('1 new');
    expect(text()).toContain('4 left out');
    expect(button('Import 3 spots')).toBeDefined();
    expect(ran).toEqual([]);
  });

  it('has nothing to press where nothing would change', async () => {
    await show(preview({ counts: { new: 0, changed: 0, same: 30, bad: 0 } }));
    expect(button('Nothing to import')?.disabled).toBe(true);
  });

  it('names columns it leaves out', async () => {
    await show(preview({ ignoredColumns: ['mood', 'moon'] }));
    expect(text()).toContain('left out: mood, moon.');
  });

  it('shows progress, then how it ended, and has the desk counted again', async () => {
    await show(preview());
    button('Import 1 spot')?.click();
    progress.next({ kind: 'progress', done: 250, of: 500 });
    await fixture.whenStable();
    expect(text()).toContain('250 of 500 spots');
    progress.next({ kind: 'done', written: 500, same: 2, bad: 1 });
    await fixture.whenStable();
    expect(text()).toContain('500 spots stored, 2 were already here, 1 left out.');
    expect(refreshed).toBe(1);
  });

  it('stops listening when it is cancelled, and says that nothing was stored', async () => {
    await show(preview());
    button('Import 1 spot')?.click();
    await fixture.whenStable();
    button('Cancel')?.click();
    await fixture.whenStable();
    expect(progress.observed).toBe(false);
    expect(text()).toContain('nothing of it was stored');
  });

  it('says why a file cannot be read, and reads it again when asked', async () => {
    await choose();
    const error = { type: 'x', title: 'The column lat is missing', status: 400, code: 'invalid_input' };
    const first = previews;
    previews = new Subject();
    first.error(new HttpErrorResponse({ status: 400, error }));
    await fixture.whenStable();
    expect(text()).toContain('The column lat is missing.');
    button('Read the file again')?.click();
    previews.next(preview());
    await fixture.whenStable();
    expect(text()).toContain('1 new');
  });

  it('gives every choice of a file an act of its own, and every try of one act the same', async () => {
    await show(preview());
    button('Import 1 spot')?.click();
    progress.next({ kind: 'failed', title: 'The database cannot be reached' });
    await fixture.whenStable();
    expect(text()).toContain('The database cannot be reached');
    button('Import 1 spot')?.click();
    await show(preview());
    button('Import 1 spot')?.click();
    expect(ran[0]).toBe(ran[1]);
    expect(ran[2]).not.toBe(ran[0]);
  });
});
