import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import {
  readSpeciesCells,
  speciesCells,
  type KeptSpecies,
  type Problem,
  type RowReport,
  type SpeciesCells,
} from '@sombra/contract';
import { catchError, firstValueFrom, of, startWith, Subject, switchMap } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { DraftsService } from '../offline/drafts.service';
import { SessionService } from '../session/session.service';
import { MatchService } from './match.service';
import { RowReportNote } from '../ui/row-report-note';
import { speciesSheet, type SpeciesColumn } from './species-fields';
import { clearOf, filesOf, textOf } from '../fields/event-values';

const newName = 'new';
type Cells = Readonly<Partial<Record<SpeciesColumn, string>>>;

/** The species library: found by name, read and edited one at a time, in and out as CSV. */
@Component({
  selector: 's-species-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StateNote, RowReportNote],
  templateUrl: './species-page.html',
  styleUrl: './species-page.scss',
})
export class SpeciesPage {
  protected readonly clearOf = clearOf;
  protected readonly filesOf = filesOf;
  protected readonly textOf = textOf;
  private readonly doors = inject(MatchService);
  private readonly session = inject(SessionService);
  private readonly drafts = inject(DraftsService);
  private readonly toasts = inject(ToastsService);
  protected readonly view = inject(ViewState);
  protected readonly sheet = speciesSheet;
  protected readonly library = signal<readonly KeptSpecies[] | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  protected readonly report = signal<RowReport | null>(null);
  protected readonly busy = signal(false);
  /** What is typed; the kept cell shows where nothing is. */
  protected readonly typed = signal<Cells>({});
  private readonly again = new Subject<void>();

  protected readonly mayEdit = computed(() => this.session.may('change_species'));
  protected readonly words = computed(() => this.view.text('find') ?? '');
  protected readonly lines = computed(() => {
    const words = this.words().toLowerCase();
    return (this.library() ?? []).filter(({ species }) =>
      [species.botanical, species.common, species.family].some((name) => name.toLowerCase().includes(words)),
    );
  });
  protected readonly name = computed(() => this.view.text('name'));
  protected readonly isNew = computed(() => this.name() === newName);
  protected readonly open = computed(
    () => this.library()?.find(({ species }) => species.botanical === this.name()) ?? null,
  );
  private readonly keptCells = computed((): SpeciesCells | null => {
    const open = this.open();
    return open ? speciesCells(open.species) : null;
  });
  protected readonly changes = computed(() => Object.keys(this.typed()).length);

  constructor() {
    this.again
      .pipe(
        startWith(undefined),
        switchMap(() =>
          this.doors.species().pipe(
            catchError((error: unknown) => {
              this.problem.set(readProblem(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((library) => {
        if (!library) return;
        this.library.set(library);
        this.problem.set(null);
      });
    effect(() => {
      const name = this.name();
      untracked(() => {
        this.faults.set({});
        this.fault.set(null);
        this.typed.set(name ? ((this.drafts.read(`species-${name}`)?.value as Cells | undefined) ?? {}) : {});
      });
    });
  }

  protected read(): void {
    this.again.next();
  }

  protected shown(column: SpeciesColumn): string {
    return this.typed()[column] ?? this.keptCells()?.[column] ?? '';
  }

  protected type(column: SpeciesColumn, text: string): void {
    const kept = this.keptCells()?.[column] ?? '';
    this.typed.update(({ [column]: _old, ...rest }) => (text === kept ? rest : { ...rest, [column]: text }));
    this.faults.update(({ [column]: _gone, ...rest }) => rest);
    if (this.changes() > 0) this.drafts.keep(`species-${this.name()}`, this.typed());
    else this.drop();
  }

  protected drop(): void {
    this.drafts.drop(`species-${this.name()}`);
    this.typed.set({});
    this.faults.set({});
    this.fault.set(null);
  }

  protected async save(): Promise<void> {
    const cells: Record<string, string> = { ...this.keptCells(), ...this.typed() };
    const read = readSpeciesCells(cells);
    if (!read.ok) {
      this.faults.set(Object.fromEntries(read.faults.map(({ column, message }) => [column, message])));
      this.fault.set(
        `${read.faults.length === 1 ? 'One entry is' : `${read.faults.length} entries are`} not right yet.`,
      );
      return;
    }
    this.busy.set(true);
    try {
      const version = this.open()?.species.botanical === read.value.botanical ? (this.open()?.version ?? 0) : 0;
      this.library.set(await firstValueFrom(this.doors.saveSpecies({ species: read.value, version })));
      this.drop();
      this.toasts.say(`${read.value.botanical} stored.`);
      this.view.set({ name: read.value.botanical });
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }

  protected async importFile(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (!file) return;
    this.busy.set(true);
    this.fault.set(null);
    this.report.set(null);
    try {
      this.report.set(await firstValueFrom(this.doors.importSpecies(file)));
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
