import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { Router } from '@angular/router';
import { NgbDropdown, NgbDropdownItem, NgbDropdownMenu, NgbDropdownToggle } from '@ng-bootstrap/ng-bootstrap/dropdown';
import type { SavedView, SpotSort } from '@sombra/contract';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { columns } from './columns';
import { SavedViewsService } from './saved-views.service';
import { textOf } from '../fields/event-values';

/** Columns, views kept under names, and the list as file or on paper. */
@Component({
  selector: 's-view-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbDropdown, NgbDropdownItem, NgbDropdownMenu, NgbDropdownToggle],
  template: `
    <div ngbDropdown placement="bottom-end">
      <button type="button" class="btn btn-sm" ngbDropdownToggle>
        <i class="bi bi-bookmark" aria-hidden="true"></i> Views
      </button>
      <div ngbDropdownMenu>
        @for (view of saved.views(); track view.id) {
          <div class="kept">
            <button ngbDropdownItem type="button" (click)="open(view)">{{ view.name }}</button>
            <button type="button" class="btn btn-sm" [attr.aria-label]="'Forget ' + view.name" (click)="drop(view)">
              <i class="bi bi-trash" aria-hidden="true"></i>
            </button>
          </div>
        } @empty {
          <p class="quiet none">No view is kept yet.</p>
        }
        <form class="keep" (submit)="keep($event)">
          <label class="visually-hidden" for="view-name">Keep this view as</label>
          <input
            id="view-name"
            class="form-control form-control-sm"
            placeholder="Keep this view as"
            maxlength="60"
            [value]="name()"
            (input)="name.set(textOf($event))"
          />
          <button type="submit" class="btn btn-sm btn-primary">Keep</button>
        </form>
        @if (fault(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
      </div>
    </div>
    <div ngbDropdown autoClose="outside" placement="bottom-end" class="wide-only">
      <button type="button" class="btn btn-sm" ngbDropdownToggle>Columns</button>
      <div ngbDropdownMenu class="columns">
        @for (column of all; track column.key) {
          <label [title]="column.help">
            <input type="checkbox" [checked]="shown().includes(column.key)" (change)="toggle(column.key)" />
            {{ column.name }}
          </label>
        }
      </div>
    </div>
    <a class="btn btn-sm wide-only" [href]="csv()" download title="The list as seen, as CSV">CSV</a>
    <button type="button" class="btn btn-sm wide-only" (click)="print.emit()">Print</button>
  `,
  styles: `
    :host {
      display: flex;
      gap: 0.1rem;
      margin-left: auto;
    }
    .btn-sm {
      min-height: 36px;
      padding-inline: 0.45rem;
    }
    .kept {
      display: flex;
    }
    .keep {
      display: flex;
      gap: 0.4rem;
      padding: 0.4rem 0.8rem;
      width: 19rem;
    }
    .columns {
      padding: 0.5rem 0.8rem;
    }
    .columns label {
      display: flex;
      gap: 0.5rem;
      min-height: 32px;
      align-items: center;
      white-space: nowrap;
    }
    .none,
    .problem {
      margin: 0.3rem 0.8rem;
    }
    @media (max-width: 720px) {
      .wide-only {
        display: none;
      }
      .btn-sm {
        min-height: 48px;
      }
    }
  `,
})
export class ViewMenu {
  protected readonly textOf = textOf;
  readonly shown = input.required<readonly SpotSort[]>();
  readonly csv = input.required<string>();
  readonly columnsChosen = output<readonly SpotSort[]>();
  readonly print = output();
  protected readonly saved = inject(SavedViewsService);
  private readonly state = inject(ViewState);
  private readonly router = inject(Router);
  private readonly toasts = inject(ToastsService);
  protected readonly all = columns;
  protected readonly name = signal('');
  protected readonly fault = signal<string | null>(null);

  protected toggle(key: SpotSort): void {
    const shown = this.shown();
    const next = shown.includes(key) ? shown.filter((one) => one !== key) : [...shown, key];
    // A list without any column would say nothing.
    if (next.length > 0) this.columnsChosen.emit(columns.map((one) => one.key).filter((one) => next.includes(one)));
  }

  protected open(view: SavedView): void {
    void this.router.navigate([view.path], { queryParams: view.query });
  }

  protected keep(event: Event): void {
    event.preventDefault();
    const name = this.name().trim();
    if (!name) return this.fault.set('Name must not be empty.');
    const { chosen: _chosen, on: _on, ...params } = this.state.params();
    const query = Object.fromEntries(Object.entries(params).map(([key, value]) => [key, String(value)]));
    this.saved.save({ name, path: `/${this.router.url.split(/[/?]/)[1] ?? 'town'}`, query }).subscribe({
      next: () => {
        this.toasts.say(`View “${name}” kept.`);
        this.name.set('');
        this.fault.set(null);
      },
      error: (error: unknown) => this.fault.set(sayProblem(readProblem(error))),
    });
  }

  protected drop(view: SavedView): void {
    this.saved.drop(view.id).subscribe({
      next: () =>
        this.toasts.say(`View “${view.name}” forgotten.`, {
          name: 'Undo',
          run: () => this.saved.save({ name: view.name, path: view.path, query: view.query }).subscribe(),
        }),
      error: (error: unknown) => this.fault.set(sayProblem(readProblem(error))),
    });
  }
}
