import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { NgbDropdown, NgbDropdownMenu, NgbDropdownToggle } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { remedyCodes, type Facets, type SpotFilter } from '@sombra/contract';
import { establishingNames, establishingStates, levelNames, probeClasses, probeNames, remedyWords } from '@sombra/core';
import { catchError, filter, of, switchMap } from 'rxjs';
import { DateInput } from '../fields/date-input';
import { sayDay } from '../ui/say-date';
import { RoomMap } from '../ui/rooms';
import { ViewState } from '../ui/view-state.service';
import { SpotListService } from '../spot/spot-list.service';

type Key = 'stage' | 'level' | 'place' | 'species' | 'probe' | 'remedy' | 'due' | 'planted' | 'season' | 'comes';

interface Part {
  readonly key: Key;
  readonly name: string;
  readonly several: boolean;
  readonly options: readonly { readonly value: string; readonly name: string }[];
}

const words = (names: Readonly<Record<string, string>>, keys: readonly string[]) =>
  keys.map((value) => ({ value, name: names[value] ?? value }));

const dueNames = { late: 'past its last day', week: 'within a week' };
const plantedNames = { yes: 'planted', no: 'not yet planted' };
const otherNames: Readonly<Record<string, string>> = {
  find: 'words',
  recordedBy: 'recorded by',
  area: 'area',
  day: 'planting day',
  ref: 'numbers',
};

/** What the list and the map show: each part of the filter as a word that can be taken off. */
@Component({
  selector: 's-filter-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DateInput, NgbDropdown, NgbDropdownMenu, NgbDropdownToggle],
  template: `
    <div ngbDropdown autoClose="outside" (openChange)="isOpen.set($event)">
      <button type="button" class="btn btn-sm btn-outline-primary" ngbDropdownToggle>
        <i class="bi bi-funnel" aria-hidden="true"></i> Filter
      </button>
      <div ngbDropdownMenu class="panel">
        @for (part of parts(); track part.key) {
          <div class="part">
            <label [for]="'filter-' + part.key">{{ part.name }}</label>
            <select [id]="'filter-' + part.key" class="form-select form-select-sm" (change)="add(part, $event)">
              <option value="">any</option>
              @for (option of part.options; track option.value) {
                <option [value]="option.value">{{ option.name }}</option>
              }
            </select>
          </div>
        }
        @for (one of plantedDays; track one.key) {
          <div class="part">
            <label [for]="'filter-' + one.key">{{ one.name }}</label>
            <s-date-input
              [for]="'filter-' + one.key"
              [value]="view.filter()[one.key] ?? ''"
              (picked)="plantedOn(one.key, $event)"
            />
          </div>
        }
      </div>
    </div>
    @for (chip of chips(); track chip.key + chip.value) {
      <button type="button" class="chip" (click)="drop(chip.key, chip.value)">
        {{ chip.name }} <i class="bi bi-x-lg" aria-hidden="true"></i><span class="visually-hidden">take off</span>
      </button>
    }
    @if (chips().length > 1) {
      <button type="button" class="btn btn-sm btn-link" (click)="view.clearFilter()">Clear all</button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0.3rem;
    }
    .btn-sm {
      min-height: 36px;
    }
    .panel {
      padding: 0.6rem 0.8rem;
      width: 21rem;
    }
    .part {
      display: grid;
      grid-template-columns: 6.5rem 1fr;
      align-items: center;
      padding: 0.15rem 0;
    }
    .chip {
      border: 1px solid var(--chosen);
      border-radius: 2px;
      background: var(--chosen-pale);
      color: var(--ink);
      min-height: 32px;
      padding: 0 0.5rem;
      font-size: 0.9rem;
    }
    @media (max-width: 720px) {
      .btn-sm,
      .chip,
      select {
        min-height: 48px;
      }
    }
  `,
})
export class FilterBar {
  /** The stage a page is about: not offered as a part. */
  readonly stage = input<string | null>(null);
  protected readonly view = inject(ViewState);
  private readonly lists = inject(SpotListService);
  private readonly stages = inject(RoomMap).spotStages.map(({ path, name }) => ({ value: path, name }));
  protected readonly isOpen = signal(false);
  protected readonly plantedDays = [
    { key: 'plantedFrom', name: 'Planted from' },
    { key: 'plantedUntil', name: 'Planted until' },
  ] as const;
  private readonly facets = signal<Facets>({ places: [], species: [], stages: [], levels: [], waits: [] });

  protected readonly parts = computed<Part[]>(() => {
    const counted = (list: Facets['places']) =>
      list.map(({ name, count }) => ({ value: name, name: `${name} (${count})` }));
    const year = Number(this.view.today().slice(0, 4));
    const seasons = Array.from({ length: 6 }, (_, i) => String(year - i));
    const all: Part[] = [
      { key: 'stage', name: 'Stage', several: true, options: this.stages },
      { key: 'level', name: 'Level', several: true, options: words(levelNames, ['urgent', 'act', 'watch', 'good']) },
      { key: 'due', name: 'Decision due', several: false, options: words(dueNames, ['late', 'week']) },
      {
        key: 'remedy',
        name: 'Open remedy',
        several: true,
        options: remedyCodes.map((value) => ({ value, name: remedyWords[value].act })),
      },
      { key: 'place', name: 'Place', several: true, options: counted(this.facets().places) },
      { key: 'species', name: 'Species', several: true, options: counted(this.facets().species) },
      { key: 'probe', name: 'Last probe', several: true, options: words(probeNames, probeClasses) },
      { key: 'planted', name: 'Planted', several: false, options: words(plantedNames, ['yes', 'no']) },
      { key: 'comes', name: 'Establishing', several: false, options: words(establishingNames, establishingStates) },
      {
        key: 'season',
        name: 'Season',
        several: false,
        options: seasons.map((value) => ({ value, name: `${value}/${Number(value) + 1}` })),
      },
    ];
    return all.filter(({ key }) => key !== 'stage' || !this.stage());
  });

  protected readonly chips = computed(() => {
    const filter = this.view.filter();
    return (Object.keys(filter) as (keyof SpotFilter)[]).flatMap((key) => {
      const value = filter[key];
      const several = Array.isArray(value) && key !== 'area' && key !== 'ref';
      const values = several ? (value as readonly string[]) : [value];
      return values.map((one) => ({ key, value: several ? String(one) : null, name: this.say(key, one) }));
    });
  });

  constructor() {
    toObservable(this.isOpen)
      .pipe(
        filter((open) => open),
        switchMap(() =>
          this.lists.facets(this.view.onParam() ? { on: this.view.on() } : {}).pipe(catchError(() => of(null))),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((facets) => {
        if (facets) this.facets.set(facets);
      });
  }

  private say(key: keyof SpotFilter, value: unknown): string {
    const part = this.parts().find((one) => one.key === key);
    if (key === 'area') return 'inside the drawn area';
    if (key === 'ref') return `${(value as readonly string[]).length} numbers`;
    if (key === 'day') return 'one planting day';
    if (key === 'waits') return 'one thing they wait for';
    if (key === 'plantedFrom') return `planted from ${sayDay(String(value))}`;
    if (key === 'plantedUntil') return `planted until ${sayDay(String(value))}`;
    const name = part?.options.find((option) => option.value === String(value))?.name.replace(/ \(\d+\)$/, '');
    const before = key === 'find' || key === 'recordedBy' ? `${otherNames[key]} ` : '';
    return key === 'season' ? `season ${name ?? String(value)}` : before + (name ?? String(value));
  }

  protected plantedOn(key: 'plantedFrom' | 'plantedUntil', day: string): void {
    this.view.set({ [key]: day || null });
  }

  protected add(part: Part, event: Event): void {
    const select = event.target as HTMLSelectElement;
    const { value } = select;
    select.value = '';
    if (!value) return;
    const before = part.several ? ((this.view.filter()[part.key] as readonly string[] | undefined) ?? []) : [];
    this.view.set({ [part.key]: [...new Set([...before, value])].join(',') });
  }

  protected drop(key: keyof SpotFilter, value: string | null): void {
    const rest =
      value === null ? [] : (this.view.filter()[key] as readonly string[]).filter((one) => String(one) !== value);
    this.view.set({ [key]: rest.length > 0 ? rest.join(',') : null });
  }
}
