import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Offers, Problem, RowReport } from '@sombra/contract';
import { formatQuantity, stockNames } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { GroundService } from '../ground/ground.service';
import { SessionService } from '../session/session.service';
import { MatchService } from './match.service';
import { RowReportNote } from '../ui/row-report-note';
import { sayMoney } from './say-limit';
import { clearOf, filesOf, textOf } from '../fields/event-values';

/** What nurseries have: their lists, read from their service or from a file, and what stands in them. */
@Component({
  selector: 's-nurseries-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, RowReportNote],
  template: `
    <h1>Nurseries and what they have</h1>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (mayRead()) {
      <form class="ways" (submit)="$event.preventDefault()">
        <button type="button" class="btn btn-primary" [disabled]="busy()" (click)="ask()">
          Ask the nurseries for their lists
        </button>
        <span class="quiet">or read a file of</span>
        <label class="visually-hidden" for="nursery">Nursery the file is from</label>
        <input
          id="nursery"
          class="form-control"
          list="nursery-names"
          placeholder="Nursery"
          maxlength="80"
          [value]="nursery()"
          (input)="nursery.set(textOf($event))"
        />
        <datalist id="nursery-names">
          @for (one of offers()?.nurseries ?? []; track one.name) {
            <option [value]="one.name"></option>
          }
        </datalist>
        <label class="btn btn-outline-primary file" [class.disabled]="nursery().trim().length < 2">
          Choose the CSV
          <input
            type="file"
            class="visually-hidden"
            accept=".csv,text/csv"
            [disabled]="busy() || nursery().trim().length < 2"
            (change)="importFile(filesOf($event)); clearOf($event)"
          />
        </label>
      </form>
      <p class="quiet">
        Columns <code>species, stock_kind, caliper_mm, height_m, price, available</code>. A list takes the place of the
        nursery's last one; one with a bad or double row is refused whole.
      </p>
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (report(); as done) {
      <s-row-report [report]="done" [whole]="true" />
    }
    @if (offers(); as all) {
      <table class="plain heads">
        <thead>
          <tr>
            <th scope="col">Nursery</th>
            <th scope="col">List of</th>
            <th scope="col" class="num">Lines</th>
            <th scope="col">Terms</th>
          </tr>
        </thead>
        <tbody>
          @for (one of all.nurseries; track one.name) {
            <tr [class.here]="one.name === only()">
              <td>
                <button type="button" class="btn btn-link" (click)="narrow(one.name)">{{ one.name }}</button>
              </td>
              <td>{{ one.listDay ? say(one.listDay) : '–' }}</td>
              <td class="num">{{ one.offers }}</td>
              <td>{{ one.terms || 'none written down' }}</td>
            </tr>
          } @empty {
            <tr>
              <td colspan="4">No nursery yet: ask for their lists, or read a file.</td>
            </tr>
          }
        </tbody>
      </table>
      <div class="find">
        <input
          type="search"
          class="form-control"
          placeholder="Species"
          aria-label="Find a species in the lists"
          [value]="view.text('find') ?? ''"
          (input)="view.set({ find: textOf($event) || null })"
        />
        <span class="quiet" role="status"
          >{{ lines().length }} lines{{ only() ? ' of ' + only() : '' }}
          @if (lines().length > shown().length) {
            , {{ shown().length }} shown
          }
        </span>
        @if (only()) {
          <button type="button" class="btn btn-link" (click)="view.set({ nursery: null })">All nurseries</button>
        }
      </div>
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">Species</th>
            <th scope="col">Kind</th>
            <th scope="col" class="num">Caliper</th>
            <th scope="col" class="num">Height</th>
            <th scope="col" class="num">Price</th>
            <th scope="col" class="num">There</th>
            <th scope="col">Nursery</th>
          </tr>
        </thead>
        <tbody>
          @for (line of shown(); track line.id) {
            <tr>
              <td>
                <a routerLink="/species" [queryParams]="{ name: line.species }"
                  ><i>{{ line.species }}</i></a
                >
              </td>
              <td>{{ stockNames[line.stockKind] }}</td>
              <td class="num">{{ millimetres(line.caliperMm) }}</td>
              <td class="num">{{ line.heightM === null ? '–' : metres(line.heightM) }}</td>
              <td class="num">{{ money(line.price) }}</td>
              <td class="num">{{ line.available }}</td>
              <td>{{ line.nursery }}</td>
            </tr>
          }
        </tbody>
      </table>
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading lists…" />
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
    }
    .ways,
    .find {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem 0.8rem;
      align-items: center;
      margin: 0.75rem 0 0.4rem;
      input.form-control {
        width: 15rem;
      }
    }
    .file {
      display: inline-flex;
      align-items: center;
    }
    .file:focus-within {
      outline: 3px solid var(--chosen);
    }
    .heads {
      max-width: 60rem;
    }
    tr.here td {
      background: var(--chosen-pale);
    }
    td .btn-link {
      padding: 0;
      min-height: 32px;
      text-align: left;
    }
  `,
})
export class NurseriesPage {
  protected readonly clearOf = clearOf;
  protected readonly filesOf = filesOf;
  protected readonly textOf = textOf;
  private readonly doors = inject(MatchService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly view = inject(ViewState);
  protected readonly say = sayDay;
  protected readonly stockNames = stockNames;
  protected readonly offers = signal<Offers | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly report = signal<RowReport | null>(null);
  protected readonly busy = signal(false);
  protected readonly nursery = signal('');
  private readonly currency = signal('');

  protected readonly mayRead = computed(() => this.session.may('read_offers'));
  protected readonly only = computed(() => this.view.text('nursery'));
  protected readonly lines = computed(() => {
    const [words, only] = [(this.view.text('find') ?? '').toLowerCase(), this.only()];
    return (this.offers()?.offers ?? []).filter(
      ({ species, nursery }) => species.toLowerCase().includes(words) && (only === null || nursery === only),
    );
  });
  protected readonly shown = computed(() => this.lines().slice(0, 300));

  constructor() {
    void this.read();
    void firstValueFrom(inject(GroundService).rules())
      .then(({ rules }) => this.currency.set(rules.match.currency))
      .catch(() => undefined);
  }

  protected async read(): Promise<void> {
    try {
      this.offers.set(await firstValueFrom(this.doors.offers()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected narrow(nursery: string): void {
    this.nursery.set(nursery);
    this.view.set({ nursery });
  }

  protected money(amount: number): string {
    return sayMoney(amount, this.currency());
  }
  protected millimetres(mm: number): string {
    return formatQuantity(mm, 'lengthMm', this.session.units());
  }
  protected metres(m: number): string {
    return formatQuantity(m, 'heightM', this.session.units());
  }

  protected ask(): Promise<void> {
    return this.run(async () => {
      this.offers.set(await firstValueFrom(this.doors.readNurseries()));
      this.toasts.say('The lists are read.');
    });
  }

  protected async importFile(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (!file) return;
    await this.run(async () => {
      this.report.set(await firstValueFrom(this.doors.importOffers(this.nursery().trim(), file)));
      await this.read();
    });
  }

  private async run(act: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    this.report.set(null);
    try {
      await act();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
