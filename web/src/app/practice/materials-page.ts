import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { HttpClient } from '@angular/common/http';
import { RouterLink } from '@angular/router';
import type { Practices, Problem, SeasonMaterials } from '@sombra/contract';
import { formatNumber, formatQuantity, materials, type MaterialCode } from '@sombra/core';
import { catchError, combineLatest, firstValueFrom, of, startWith, Subject, switchMap } from 'rxjs';
import { readProblem, sayProblem } from '../frame/problem';
import { StateNote } from '../frame/state-note';
import { ViewState } from '../frame/view-state.service';
import { SessionService } from '../people/session.service';
import { CardsButton } from '../pit/cards-button';
import { PracticeService } from './practice.service';

type Line = SeasonMaterials['lines'][number];

/** What everything that is ready to plant takes: bought against in store, hours, by this practice or another. */
@Component({
  selector: 's-materials-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, CardsButton],
  template: `
    <div class="title">
      <h1>Materials and hours</h1>
      <label
        >by
        <select class="form-select" (change)="choose($any($event.target).value)">
          <option value="">the programme's practice</option>
          @for (one of practices()?.practices ?? []; track one.practice.id) {
            <option [value]="one.practice.id" [selected]="one.practice.id === view.text('practice')">
              {{ one.practice.name }}
            </option>
          }
        </select></label
      >
      <a class="btn btn-outline-primary" [href]="'/api/materials.csv' + query()" download>CSV</a>
      <a class="btn btn-outline-primary" [href]="'/api/materials.pdf' + query()" target="_blank">PDF</a>
      <s-cards-button [ask]="cards()" />
    </div>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="again.next()" />
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (sum(); as all) {
      <p>
        <b>{{ all.title }}</b>: {{ all.spots.length }} trees by {{ all.practice.name }},
        {{ number(all.hours, 0) }} person-hours, first season
        {{ all.weeklyL === null ? 'watered by balance or probe' : litres(all.weeklyL) + ' a week' }}.
      </p>
      @if (beside(); as other) {
        <p class="because">
          The programme's own, {{ other.practice.name }}: {{ other.spots.length }} trees,
          {{ number(other.hours, 0) }} person-hours.
        </p>
      }
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">Material</th>
            <th scope="col" class="num">Needed</th>
            @if (beside()) {
              <th scope="col" class="num">By the programme's</th>
            }
            <th scope="col" class="num">In store</th>
            <th scope="col">To buy</th>
          </tr>
        </thead>
        <tbody>
          @for (line of all.lines; track line.code) {
            <tr>
              <td>{{ nameOf(line) }}</td>
              <td class="num">{{ amount(line, line.needed) }}</td>
              @if (beside()) {
                <td class="num">{{ besideOf(line) }}</td>
              }
              <td class="num">
                @if (line.code === 'water') {
                  –
                } @else {
                  <input
                    class="form-control"
                    inputmode="decimal"
                    [attr.aria-label]="nameOf(line) + ' in store'"
                    [readOnly]="!mayCount()"
                    [value]="line.inStore"
                    (change)="count(line, $any($event.target).value)"
                  />
                }
              </td>
              <td>{{ toBuy(line) }}</td>
            </tr>
          } @empty {
            <tr>
              <td colspan="5">Nothing is ready to plant.</td>
            </tr>
          }
        </tbody>
      </table>
      @if (all.without.length > 0) {
        <h2>{{ all.without.length }} without a plan</h2>
        <ul>
          @for (one of all.without; track one.spotId) {
            <li>
              <a [routerLink]="['/pit', one.spotId]">{{ one.ref }}</a>: {{ one.why }}
            </li>
          }
        </ul>
      }
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Adding up…" />
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
    }
    .title {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem 1rem;
      align-items: center;
      margin-bottom: 0.6rem;
    }
    .title label {
      display: flex;
      gap: 0.5rem;
      align-items: center;
    }
    td input {
      width: 7rem;
      display: inline-block;
      text-align: right;
    }
    table {
      max-width: 60rem;
    }
    td {
      vertical-align: middle;
    }
  `,
})
export class MaterialsPage {
  private readonly doors = inject(PracticeService);
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  protected readonly view = inject(ViewState);
  protected readonly number = formatNumber;
  protected readonly practices = signal<Practices | null>(null);
  protected readonly sum = signal<SeasonMaterials | null>(null);
  /** The programme's own, where another practice is looked at. */
  protected readonly beside = signal<SeasonMaterials | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly again = new Subject<void>();
  protected readonly mayCount = this.session.mayLead;
  private readonly asked = computed(() => {
    const [practice, day] = [this.view.text('practice'), this.view.text('day')];
    const version = this.practices()?.practices.find((one) => one.practice.id === practice)?.practice.version;
    return {
      ...(day ? { day } : {}),
      ...(practice && version ? { practice, version: String(version) } : {}),
    };
  });
  protected readonly query = computed(() => {
    const params = new URLSearchParams(this.asked()).toString();
    return params ? `?${params}` : '';
  });
  protected readonly cards = computed(() => {
    const day = this.view.text('day');
    return day ? { day } : {};
  });

  constructor() {
    void firstValueFrom(this.doors.practices())
      .then((practices) => this.practices.set(practices))
      .catch(() => undefined);
    combineLatest([toObservable(this.asked), this.again.pipe(startWith(undefined))])
      .pipe(
        switchMap(async ([asked]) => {
          try {
            const { day } = asked as { day?: string };
            const own = 'practice' in asked ? this.doors.materials(day ? { day } : {}) : of(null);
            const [sum, beside] = await Promise.all([firstValueFrom(this.doors.materials(asked)), firstValueFrom(own)]);
            return { sum, beside };
          } catch (error) {
            this.problem.set(readProblem(error));
            return null;
          }
        }),
        catchError(() => of(null)),
        takeUntilDestroyed(),
      )
      .subscribe((read) => {
        if (!read) return;
        this.sum.set(read.sum);
        this.beside.set(read.beside);
        this.problem.set(null);
      });
  }

  protected choose(id: string): void {
    this.view.set({ practice: id || null });
  }

  protected nameOf({ code }: Line): string {
    return materials[code as MaterialCode].name;
  }
  protected toBuy({ code, packs }: Line): string {
    const { name } = materials[code as MaterialCode].pack;
    if (packs === 0) return code === 'water' ? 'from the truck' : 'nothing';
    return name === 'piece' ? String(packs) : `${packs} × ${name}`;
  }
  protected amount({ code }: Line, value: number): string {
    const { unit } = materials[code as MaterialCode];
    if (unit === 'L') return this.litres(value);
    if (unit === 'piece') return formatNumber(value, 0);
    return `${formatNumber(value, 1)} ${unit}`;
  }
  protected besideOf(line: Line): string {
    const other = this.beside()?.lines.find(({ code }) => code === line.code);
    return other ? this.amount(line, other.needed) : 'none';
  }
  protected litres(value: number): string {
    return formatQuantity(value, 'volumeL', this.session.units());
  }

  protected async count(line: Line, text: string): Promise<void> {
    const amount = Number(text.trim().replace(',', '.'));
    if (text.trim() === '' || Number.isNaN(amount) || amount < 0 || amount > 1_000_000) {
      this.fault.set(`${this.nameOf(line)} in store must be within 0–1 000 000, got ${text || 'nothing'}.`);
      return;
    }
    this.fault.set(null);
    try {
      await firstValueFrom(this.http.put('/api/store', { material: line.code, amount, version: line.version }));
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
    this.again.next();
  }
}
