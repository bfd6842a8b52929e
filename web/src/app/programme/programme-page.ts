import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { Problem, Programme } from '@sombra/contract';
import { debounceTime, firstValueFrom, timer } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { DraftsService } from '../offline/drafts.service';
import { SessionService } from '../session/session.service';
import { ProgrammeFields } from './programme-fields';
import { ProgrammeForm, type Settings } from './programme-form';
import { ProgrammeService } from './programme.service';

const draftName = 'programme';

/** What the whole programme goes by: where it is, its days, its money. */
@Component({
  selector: 's-programme-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ProgrammeFields, RouterLink, StateNote],
  template: `
    <h1>Programme</h1>
    @if (problem(); as trouble) {
      @if (kept()) {
        <p class="problem" role="alert">{{ say(trouble) }}</p>
      } @else {
        <s-state-note [problem]="trouble" (again)="read()" />
      }
    }
    @if (kept(); as now) {
      <p class="quiet">
        @if (now.demo) {
          This is the demo town, invented from the first street to the last record.
        }
        It plants by <a routerLink="/practices" [queryParams]="{ a: now.practice.id }">{{ now.practice.name }}</a>, to
        be compared and changed there; distances, tickets and weights stand in the <a routerLink="/rules">rules</a>.
      </p>
      @if (now.working; as working) {
        <p class="caution" role="status">
          <progress [value]="working.done" [max]="working.of"></progress>
          {{ working.done }} of {{ working.of }} spots are worked out again by what holds now, after an update or other
          windows; the others stand as they stood. Dates on the desk move until then.
        </p>
      }
      <form (submit)="save($event)">
        <s-programme-fields [form]="form" [issues]="problem()?.issues ?? []" [readonly]="!mayChange()" />
        @if (mayChange()) {
          <p class="foot">
            <button type="submit" class="btn btn-primary" [disabled]="busy() || !changed()">Store</button>
            <button type="button" class="btn btn-link" [disabled]="!changed()" (click)="drop()">Drop my changes</button>
          </p>
        }
      </form>
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading…" />
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.25rem;
      max-width: 70rem;
    }
    .foot {
      position: sticky;
      bottom: 0;
      margin: 1rem 0 0;
      padding: 0.75rem 0;
      background: var(--paper);
    }
  `,
})
export class ProgrammePage {
  private readonly doors = inject(ProgrammeService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  private readonly drafts = inject(DraftsService);
  private readonly gone = inject(DestroyRef);
  protected readonly form = new ProgrammeForm();
  protected readonly kept = signal<Programme | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly busy = signal(false);
  protected readonly changed = signal(false);
  protected readonly say = sayProblem;
  protected readonly mayChange = computed(() => this.session.may('change_programme'));

  constructor() {
    this.form.group.valueChanges.pipe(debounceTime(150), takeUntilDestroyed()).subscribe(() => {
      this.changed.set(this.form.group.dirty);
      if (this.form.group.dirty) this.drafts.keep(draftName, this.form.settings());
    });
    void this.read(true);
  }

  protected async read(withDraft = false): Promise<void> {
    try {
      const programme = await firstValueFrom(this.doors.read());
      this.show(programme);
      const draft = withDraft && this.mayChange() ? this.drafts.read(draftName) : null;
      if (draft) {
        this.form.fill(draft.value as Settings);
        this.form.group.markAsDirty();
        this.changed.set(true);
      }
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  private show(programme: Programme): void {
    this.kept.set(programme);
    const { demo: _demo, working: _working, practice: _practice, version: _version, ...settings } = programme;
    this.form.fill(settings);
    if (this.mayChange()) this.form.group.enable();
    else this.form.group.disable();
    this.changed.set(false);
    if (programme.working) {
      timer(2000)
        .pipe(takeUntilDestroyed(this.gone))
        .subscribe(() => void this.lookAgain());
    }
  }

  /** Whether the spots are worked out by now; what is being typed stays. */
  private async lookAgain(): Promise<void> {
    if (this.changed()) return;
    await this.read();
  }

  protected drop(): void {
    this.drafts.drop(draftName);
    this.problem.set(null);
    void this.read();
  }

  protected async save(event: Event): Promise<void> {
    event.preventDefault();
    const kept = this.kept();
    if (!kept) return;
    this.busy.set(true);
    try {
      const stored = await firstValueFrom(this.doors.save({ ...this.form.settings(), version: kept.version }));
      this.drafts.drop(draftName);
      this.problem.set(null);
      this.show(stored);
      this.session.refresh();
      this.toasts.say('Stored.');
    } catch (error) {
      this.problem.set(readProblem(error));
    } finally {
      this.busy.set(false);
    }
  }
}
