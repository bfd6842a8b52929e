import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { HttpClient } from '@angular/common/http';
import { RouterLink } from '@angular/router';
import type { ListHead, PlantingDays, Practices, Problem, SeasonMaterials } from '@sombra/contract';
import {
  amountNumber,
  amountUnit,
  formatNumber,
  formatQuantity,
  materials,
  readAmount,
  sayAmount,
  sayPack,
  type Practice,
} from '@sombra/core';
import { catchError, combineLatest, firstValueFrom, of, startWith, Subject, switchMap } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';
import { CardsButton } from './cards-button';
import { PracticeService } from '../practice/practice.service';
import { textOf } from '../fields/event-values';

type Line = SeasonMaterials['lines'][number];
const versionOf = ({ id, version }: Pick<Practice, 'id' | 'version'>) => ({ practice: id, version: String(version) });

/** What everything that is ready to plant takes: bought against in store, hours, by this practice or another. */
@Component({
  selector: 's-materials-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, CardsButton],
  template: `
    <div class="title">
      <h1>Materials and hours</h1>
      <label
        >for
        <select class="form-select" aria-label="For" (change)="scopeTo(textOf($event))">
          <option value="">everything ready to plant</option>
          @if (days().length > 0) {
            <optgroup label="Planting days">
              @for (day of days(); track day.id) {
                <option [value]="'day:' + day.id" [selected]="day.id === view.text('day')">
                  {{ say(day.onDay) }}, {{ day.title }}
                </option>
              }
            </optgroup>
          }
          @if (lists().length > 0) {
            <optgroup label="Season's lists">
              @for (list of lists(); track list.id) {
                <option [value]="'list:' + list.id" [selected]="list.id === view.text('list')">{{ list.title }}</option>
              }
            </optgroup>
          }
        </select></label
      >
      @for (side of sides; track side.key) {
        <label
          >{{ side.word }}
          <select class="form-select" [attr.aria-label]="side.name" (change)="choose(side.key, textOf($event))">
            <option value="">{{ side.none }}</option>
            @for (one of practices()?.practices ?? []; track one.practice.id) {
              <option [value]="one.practice.id" [selected]="one.practice.id === view.text(side.key)">
                {{ one.practice.name }}
              </option>
            }
          </select></label
        >
      }
      <a class="btn btn-outline-primary" [href]="'/api/materials.csv' + query()" download>CSV</a>
      <a class="btn btn-outline-primary" [href]="'/api/materials.pdf' + query()" target="_blank">PDF</a>
      @if (!view.text('list')) {
        <s-cards-button [ask]="cards()" />
      }
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
        {{ number(all.hours, 0) }} person-hours, first season {{ weekly(all) }}.
        @if (all.remedies > 0) {
          <span class="quiet"
            >Stakes, ties, guards and mulch count {{ all.remedies }} <a routerLink="/remedies">remedies</a> due within a
            month too.</span
          >
        }
        @if (all.expected > 0) {
          <span class="quiet"
            >{{ all.expected }} of them are not here yet: their balls are taken from what was ordered.</span
          >
        }
      </p>
      @if (beside(); as other) {
        <p class="because">
          Beside it {{ other.practice.name }}: {{ other.spots.length }} trees,
          {{ number(other.hours, 0) }} person-hours, first season {{ weekly(other) }}.
        </p>
      }
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">Material</th>
            <th scope="col" class="num">Needed</th>
            @if (beside()) {
              <th scope="col" class="num">{{ beside()?.practice?.name }}</th>
            }
            <th scope="col" class="num">In store</th>
            <th scope="col">To buy</th>
          </tr>
        </thead>
        <tbody>
          @for (line of lines(); track line.code) {
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
                    [value]="stored(line)"
                    (change)="count(line, textOf($event))"
                  />
                  <span class="unit">{{ unitOf(line) }}</span>
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
      @if (all.spots.length > 0) {
        <details>
          <summary>By tree: hours and water</summary>
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">Number</th>
                <th scope="col">Place</th>
                <th scope="col">Species</th>
                <th scope="col" class="num">Person-hours</th>
                <th scope="col" class="num">A week, first season</th>
              </tr>
            </thead>
            <tbody>
              @for (one of all.spots; track one.spotId) {
                <tr>
                  <td>
                    <a [routerLink]="['/pit', one.spotId]">{{ one.ref }}</a>
                  </td>
                  <td>{{ one.place }}</td>
                  <td>
                    <i>{{ one.species }}</i>
                  </td>
                  <td class="num">{{ number(one.hours, 1) }}</td>
                  <td class="num">{{ one.weeklyL === null ? 'as it dries' : litres(one.weeklyL) }}</td>
                </tr>
              }
            </tbody>
          </table>
        </details>
      }
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
    .unit {
      display: inline-block;
      min-width: 2rem;
      text-align: left;
      padding-left: 0.4rem;
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
      cursor: pointer;
    }
    table.plain td {
      vertical-align: middle;
    }
  `,
})
export class MaterialsPage {
  protected readonly textOf = textOf;
  private readonly doors = inject(PracticeService);
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  protected readonly view = inject(ViewState);
  protected readonly number = formatNumber;
  protected readonly practices = signal<Practices | null>(null);
  protected readonly days = signal<PlantingDays>([]);
  protected readonly lists = signal<readonly ListHead[]>([]);
  protected readonly say = sayDay;
  protected readonly sides = [
    { key: 'practice', word: 'by', name: 'By', none: "the programme's practice" },
    { key: 'beside', word: 'beside', name: 'Beside', none: 'nothing' },
  ] as const;
  protected readonly sum = signal<SeasonMaterials | null>(null);
  /** The same by another practice: the one chosen, or the programme's own beside any other. */
  protected readonly beside = signal<SeasonMaterials | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly again = new Subject<void>();
  protected readonly mayCount = computed(() => this.session.may('count_store'));
  private readonly scope = computed((): Record<string, string> => {
    const [day, list] = [this.view.text('day'), this.view.text('list')];
    return day ? { day } : list ? { list } : {};
  });
  private readonly asked = computed((): Record<string, string> => {
    const practice = this.practices()?.practices.find(
      (one) => one.practice.id === this.view.text('practice'),
    )?.practice;
    return { ...this.scope(), ...(practice ? versionOf(practice) : {}) };
  });
  private readonly asideOf = computed(() => {
    const beside = this.view.text('beside');
    const kept = this.practices()?.practices.find((one) => one.practice.id === beside)?.practice;
    // Another practice than the programme's is always seen beside the programme's own.
    const shown = beside ? kept : 'practice' in this.asked() ? null : undefined;
    return shown === undefined ? null : { ...this.scope(), ...(shown ? versionOf(shown) : {}) };
  });
  /** What either takes: a material only the other asks for has its line too. */
  protected readonly lines = computed((): Line[] => {
    const [own, other] = [this.sum()?.lines ?? [], this.beside()?.lines ?? []];
    const known = new Set(own.map(({ code }) => code));
    return [...own, ...other.filter(({ code }) => !known.has(code)).map((line) => ({ ...line, needed: 0, packs: 0 }))];
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
    void firstValueFrom(this.doors.plantingDays())
      .then((days) => this.days.set(days))
      .catch(() => undefined);
    void firstValueFrom(this.doors.lists())
      .then((lists) => this.lists.set(lists.filter(({ state }) => state === 'solved' || state === 'accepted')))
      .catch(() => undefined);
    void firstValueFrom(this.doors.practices())
      .then((practices) => this.practices.set(practices))
      .catch(() => undefined);
    combineLatest([toObservable(this.asked), toObservable(this.asideOf), this.again.pipe(startWith(undefined))])
      .pipe(
        switchMap(async ([asked, aside]) => {
          try {
            const other = aside ? this.doors.materials(aside) : of(null);
            const [sum, beside] = await Promise.all([
              firstValueFrom(this.doors.materials(asked)),
              firstValueFrom(other),
            ]);
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

  protected choose(side: 'practice' | 'beside', id: string): void {
    this.view.set({ [side]: id || null });
  }

  protected scopeTo(value: string): void {
    const [kind, id] = value.split(':');
    this.view.set({ day: kind === 'day' ? (id ?? null) : null, list: kind === 'list' ? (id ?? null) : null });
  }

  protected weekly({ weeklyL }: SeasonMaterials): string {
    return weeklyL === null ? 'watered by balance or probe' : `${this.litres(weeklyL)} a week`;
  }

  protected nameOf({ code }: Line): string {
    return materials[code].name;
  }
  protected toBuy({ code, packs, packSize }: Line): string {
    if (packs === 0) return code === 'water' ? 'from the truck' : 'nothing';
    const pack = sayPack(code, packSize, this.session.units());
    return pack === 'piece' ? String(packs) : `${packs} × ${pack}`;
  }
  protected amount({ code }: Line, value: number): string {
    return sayAmount(code, value, this.session.units());
  }
  protected stored({ code, inStore }: Line): string {
    return amountNumber(code, inStore, this.session.units());
  }
  protected unitOf({ code }: Line): string {
    return amountUnit(code, this.session.units());
  }
  protected besideOf(line: Line): string {
    const other = this.beside()?.lines.find(({ code }) => code === line.code);
    return other ? this.amount(line, other.needed) : 'none';
  }
  protected litres(value: number): string {
    return formatQuantity(value, 'volumeL', this.session.units());
  }

  protected async count(line: Line, text: string): Promise<void> {
    // Numbers are shown with narrow spaces between thousands: taken back as they stand.
    const amount = readAmount(line.code, text, this.session.units(), line.inStore);
    if (amount === undefined || amount < 0 || amount > 1_000_000) {
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
