import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { KeptZones, Problem } from '@sombra/contract';
import { isRestricted, programmeOn, waterClimate, weekdays, type Weekday, type ZoneProgramme } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { ProgrammeService } from '../programme/programme.service';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { DevicesService } from './devices.service';
import { WaterBasisService } from './water-basis.service';
import { ZoneForm } from './zone-form';
import { drownsInTrial, zoneOf } from './zone-trial';

const yearDays = 365;
const dayNames: Readonly<Record<Weekday, string>> = {
  mon: 'Mondays',
  tue: 'Tuesdays',
  wed: 'Wednesdays',
  thu: 'Thursdays',
  fri: 'Fridays',
  sat: 'Saturdays',
  sun: 'Sundays',
};

export const sayProgramme = ({ minutes, everyDays, timesADay }: ZoneProgramme): string =>
  `${minutes} min${timesADay > 1 ? `, ${timesADay} times a day` : ''}, ${everyDays === 1 ? 'every day' : `every ${everyDays} days`}`;

/** Valves and what grows on them: what one programme for all does to each, through the weather of a year. */
@Component({
  selector: 's-zones-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, ZoneForm],
  template: `
    <h1>Drip zones</h1>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (kept(); as all) {
      <p class="quiet">
        {{ controllerWords(all.controller) }} One valve waters all that hangs on it alike: what keeps a lawn green may
        drown the tree in it.
      </p>
      @if (restriction(); as text) {
        <p class="caution"><b>Restrictions on watering.</b> {{ text }}</p>
      }
      <div class="pair">
        <section aria-label="Zones">
          <table class="plain">
            <tbody>
              @for (line of lines(); track line.id) {
                <tr [class.here]="line.id === openId()">
                  <th scope="row">
                    <button type="button" class="btn btn-link" (click)="view.set({ zone: line.id })">
                      {{ line.name }}
                    </button>
                    <span class="quiet">{{ line.plants }}</span>
                  </th>
                  <td>
                    {{ line.programme }}
                    @if (line.turf) {
                      <span class="quiet under">{{ line.turf }}</span>
                    }
                    @if (line.problem) {
                      <span class="fault under">{{ line.problem }}</span>
                    }
                    @if (line.drowns; as words) {
                      <b class="fault under">{{ words }}</b>
                    }
                    @for (tree of line.drowned; track tree.ref) {
                      <a class="under" [routerLink]="['/tree', tree.treeId]">{{ tree.ref }} drowns now</a>
                    }
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td>
                    <s-state-note
                      kind="empty"
                      title="No valve is known yet"
                      text="Add one with the trees, shrubs and turf that hang on it: its programme is tried on each of them before it runs."
                    />
                  </td>
                </tr>
              }
            </tbody>
          </table>
          @if (mayChange()) {
            <button type="button" class="btn btn-outline-primary" (click)="view.set({ zone: 'new' })">
              Add a zone
            </button>
          }
        </section>
        @if (openId(); as id) {
          <s-zone-form [zone]="open()" [climate]="climate()" [mayChange]="mayChange()" (changed)="took($event)" />
        }
      </div>
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading the valves…" />
    }
  `,
  styleUrl: '../ui/table-and-bench.scss',
  styles: `
    :host {
      --pair: minmax(0, 1fr) minmax(0, 1.4fr);
    }
    td {
      vertical-align: top;
    }
    .fault {
      color: var(--urgent);
    }
    .btn-outline-primary {
      min-height: 44px;
      margin-top: 0.6rem;
    }
  `,
})
export class ZonesPage {
  private readonly doors = inject(DevicesService);
  private readonly basisDoors = inject(WaterBasisService);
  private readonly programme = inject(ProgrammeService);
  private readonly session = inject(SessionService);
  protected readonly view = inject(ViewState);
  protected readonly kept = signal<KeptZones | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly mayChange = computed(() => this.session.may('change_devices'));
  protected readonly openId = computed(() => {
    const asked = this.view.text('zone');
    const zones = this.kept()?.zones ?? [];
    if (asked === 'new') return this.mayChange() ? 'new' : null;
    return zones.find(({ id }) => id === asked)?.id ?? zones[0]?.id ?? null;
  });
  protected readonly open = computed(() => this.kept()?.zones.find(({ id }) => id === this.openId()) ?? null);
  private readonly weather = resource({
    loader: () =>
      Promise.all([firstValueFrom(this.basisDoors.basis()), firstValueFrom(this.programme.read())]).catch(() => null),
  });
  /** What restrictions say of valves; a programme of every so many days has to be held against them by whoever sets it. */
  protected readonly restriction = computed(() => {
    const rules = this.weather.value()?.[0].watering;
    if (!rules || !isRestricted(rules)) return '';
    const days = weekdays.filter((day) => rules.days[day]).map((day) => dayNames[day]);
    const { fromHour, untilHour } = rules;
    const hours = fromHour === 0 && untilHour === 24 ? '' : `, from ${fromHour}:00 to ${untilHour}:00`;
    return `Allowed ${days.length === 7 ? 'every day' : `on ${days.join(', ') || 'no day'}`}${hours}.`;
  });
  /** The year that was: every programme is tried on it. */
  protected readonly climate = computed(() => {
    const read = this.weather.value();
    if (!read) return [];
    const [basis, { windows }] = read;
    return waterClimate(basis, { windows, today: this.session.today() }).past.slice(-yearDays);
  });
  protected readonly lines = computed(() => {
    const today = this.session.today();
    const climate = this.climate();
    return (this.kept()?.zones ?? []).map((zone) => {
      const { body, told } = zone;
      const running = told ?? programmeOn(body, today);
      const first = drownsInTrial(zoneOf(zone), climate);
      return {
        id: zone.id,
        name: zone.retired ? `${zone.name} (no longer used)` : zone.name,
        plants: body.plants.map(({ name }) => name).join(', '),
        programme: `${told ? 'Runs' : 'Is to run'} ${sayProgramme(running)}`,
        turf:
          body.turf === null
            ? ''
            : body.turf.until >= today
              ? `New turf until ${sayDay(body.turf.until)}, then ${sayProgramme(body.programme)}`
              : `Set back from new turf since ${sayDay(body.turf.until)}`,
        problem: zone.problem ? `Not told to the controller: ${zone.problem}` : '',
        drowns: first ? `${first.name} would stand in water from ${sayDay(first.day)} on` : '',
        drowned: zone.trees.filter((tree) => tree.drowned),
      };
    });
  });

  constructor() {
    void this.read();
    inject(LiveService)
      .settled$.pipe(takeUntilDestroyed())
      .subscribe(() => void this.read());
  }

  protected controllerWords(controller: KeptZones['controller']): string {
    if (controller === 'none') return 'No controller is connected: set the valves by hand as they stand here.';
    return controller === 'simulated'
      ? 'The controller is simulated: it takes each programme, and tells when a valve was open.'
      : 'The controller takes each programme, and tells when a valve was open.';
  }

  protected took({ kept, openId }: { kept: KeptZones; openId: string }): void {
    this.kept.set(kept);
    this.view.set({ zone: openId });
  }

  protected async read(): Promise<void> {
    try {
      this.kept.set(await firstValueFrom(this.doors.zones()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }
}
