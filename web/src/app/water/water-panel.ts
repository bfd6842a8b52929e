import { RouterLink } from '@angular/router';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  resource,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import {
  displays,
  formatQuantity,
  limits,
  moistureChecks,
  moistureRibbon,
  moistureSpans,
  ofKind,
  sensorFlagNames,
  siteUseTimes,
  standing,
  type UseFound,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { DrawingView } from '../drawing/drawing-view';
import { elementWidth } from '../drawing/element-width';
import { textOf } from '../fields/event-values';
import { TypedQuantity } from '../fields/typed-quantity';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { BecauseList } from '../ui/because-list';
import { sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { DevicePanel } from './device-panel';
import { followedTree, readLitres } from './followed-tree';
import { sayNext } from './say-next';
import { WaterBasisService } from './water-basis.service';

const shownDays = 30;

/** The water of one tree through its season: how full its ball is, when it next asks for water and how much, and why. */
@Component({
  selector: 's-water-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, BecauseList, DevicePanel, RouterLink],
  providers: [RecordSender],
  template: `
    @if (store.life()?.planting) {
      <h2>Water</h2>
      @if (water(); as now) {
        <p class="next" role="status">
          <b>{{ nextWords() }}</b>
        </p>
        <s-because [reasons]="now.because" />
        <div class="ribbon" #box>
          @if (drawing(); as drawn) {
            <s-drawing [drawing]="drawn" />
          }
        </div>
        @if (now.found; as found) {
          <p class="caution" role="note">
            <b>Its readings agree:</b> it drinks about {{ found.useTimes }} times what is expected of it. With that the
            {{ found.readings }} readings lie {{ found.offAfter.toFixed(1) }} errors off instead of
            {{ found.offBefore.toFixed(1) }}. Rule out a leak and water that misses the ball first.
            @if (maySet()) {
              <button type="button" class="btn btn-outline-primary" [disabled]="sender.busy()" (click)="adopt(found)">
                Count it so
              </button>
            }
          </p>
        }
        @if (times() !== 1) {
          <p class="quiet">
            Counted at {{ times() }} times its usual use, by its readings.
            @if (maySet()) {
              <button type="button" class="btn btn-link" [disabled]="sender.busy()" (click)="setBack()">
                Set back
              </button>
            }
          </p>
        }
        @for (line of sensors(); track line.name) {
          <p [class]="line.trusted ? 'quiet' : 'caution'">{{ line.words }}</p>
        }
        @if (felt(); as words) {
          <p class="quiet">{{ words }}</p>
        }
        @if (mayWater()) {
          <div class="give">
            <label
              >Watered today, {{ unit() }}
              <input
                class="form-control"
                inputmode="decimal"
                [value]="typed.text()"
                (input)="type(textOf($event))"
                aria-label="Watered today"
              />
            </label>
            <button type="button" class="btn btn-outline-primary" [disabled]="sender.busy()" (click)="give()">
              Store the watering
            </button>
          </div>
          <details>
            <summary>How fast its ring or well emptied</summary>
            <div class="give">
              <label
                >Water in it, {{ mmUnit() }}
                <input
                  class="form-control"
                  inputmode="decimal"
                  [value]="ring.text()"
                  (input)="ring.type(textOf($event))"
                  aria-label="Water in the ring"
                />
              </label>
              <label
                >Empty after, min
                <input
                  class="form-control"
                  inputmode="decimal"
                  [value]="emptied()"
                  (input)="emptied.set(textOf($event))"
                  aria-label="Empty after, min"
                />
              </label>
            </div>
            <p class="quiet">Kept with the watering; it says how the ground drains where nobody ran a test.</p>
          </details>
          @if (fault() ?? serverFault(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
        }
        <s-device-panel [water]="now" />
        <details>
          <summary>
            Day by day: {{ now.stressDays }} of stress, {{ now.waterloggedDays }} waterlogged, of {{ now.days.length }}
          </summary>
          <div class="scroll" tabindex="0" role="region" aria-label="Water day by day">
            <table class="plain">
              <thead>
                <tr>
                  <th scope="col">Day</th>
                  <th scope="col" class="num">Ball</th>
                  <th scope="col" class="num">±</th>
                  <th scope="col" class="num">Rain</th>
                  <th scope="col" class="num">Given</th>
                  <th scope="col" class="num">Used</th>
                  @if (shared()) {
                    <th scope="col" class="num">Other roots</th>
                  }
                  <th scope="col" class="num">Run off</th>
                  <td></td>
                </tr>
              </thead>
              <tbody>
                @for (line of lines(); track line.day) {
                  <tr>
                    <th scope="row">{{ line.day }}</th>
                    <td class="num">{{ line.share }}</td>
                    <td class="num">{{ line.error }}</td>
                    <td class="num">{{ line.rain }}</td>
                    <td class="num">{{ line.given }}</td>
                    <td class="num">{{ line.used }}</td>
                    @if (shared()) {
                      <td class="num">{{ line.others }}</td>
                    }
                    <td class="num">{{ line.drained }}</td>
                    <td>{{ line.words }}</td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
        </details>
        <p>
          <a routerLink="/water-rules" [queryParams]="{ spot: store.detail()?.spot?.id }"
            >Compare watering rules for this tree</a
          >
        </p>
        <p class="quiet">
          An estimate from weather, ball and soil; a probe at ball depth decides. Restrictions on watering come first.
        </p>
      } @else if (basis.isLoading()) {
        <p class="quiet" role="status">Working out its water…</p>
      } @else {
        <p class="quiet">
          Its water cannot be followed: no weather since it was planted is known, or no stock was measured.
        </p>
      }
    }
  `,
  styles: `
    .next {
      font-size: 1.15rem;
      margin: 0;
    }
    .ribbon {
      border: 1px solid var(--line);
      background: var(--sheet);
      margin: 0.5rem 0;
      overflow: hidden;
    }
    .give {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
      align-items: end;
    }
    .give .form-control {
      width: 8rem;
    }
    .form-control,
    .btn {
      min-height: 48px;
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
    }
    .scroll {
      overflow-x: auto;
      max-height: 22rem;
    }
  `,
})
export class WaterPanel {
  protected readonly store = inject(SpotStore);
  protected readonly sender = inject(RecordSender);
  private readonly session = inject(SessionService);
  private readonly doors = inject(WaterBasisService);
  protected readonly textOf = textOf;
  private readonly box = viewChild<ElementRef<HTMLElement>>('box');
  private readonly width = elementWidth(this.box, 560);
  protected readonly fault = signal<string | null>(null);
  protected readonly serverFault = computed(() => {
    const problem = this.sender.problem();
    return problem && sayProblem(problem);
  });
  protected readonly typed = new TypedQuantity(() => ({ quantity: 'volumeL', units: this.session.units() }));
  protected readonly ring = new TypedQuantity(() => ({ quantity: 'lengthMm', units: this.session.units() }));
  protected readonly emptied = signal('');
  protected readonly mmUnit = computed(() => displays.lengthMm[this.session.units()].unit);
  protected readonly unit = computed(() => displays.volumeL[this.session.units()].unit);
  protected readonly maySet = computed(() => this.session.may('record_site_water'));
  protected readonly times = computed(() => siteUseTimes(standing(this.store.records())));
  protected readonly mayWater = computed(() => this.session.may('record_watering'));

  protected readonly basis = resource({
    params: () => (this.store.life()?.planting ? true : undefined),
    loader: () => firstValueFrom(this.doors.basis()).catch(() => null),
  });
  protected readonly water = computed(() => {
    const [life, detail, basis] = [this.store.life(), this.store.detail(), this.basis.value()];
    if (!life || !detail || !basis) return null;
    return followedTree({ records: this.store.records(), life, detail }, basis, this.session.today());
  });
  /** The weeks of its first growing season, each with whether anybody felt its ball. */
  private readonly spans = computed(() => {
    const [life, water] = [this.store.life(), this.water()];
    const plantedOn = life?.planting?.record.facts.plantedOn;
    const checks = life && plantedOn && moistureChecks(plantedOn, life.care, life.windows);
    const days = water?.readings.map(({ day }) => day) ?? [];
    return checks ? moistureSpans(checks, days, this.session.today()) : [];
  });
  protected readonly felt = computed(() => {
    const spans = this.spans();
    const missed = spans.filter(({ read }) => !read).length;
    if (spans.length === 0) return '';
    return missed === 0
      ? `Felt in each of the ${spans.length} weeks of its first growing season.`
      : `Nobody felt the ball in ${missed} of the ${spans.length} weeks of its first growing season: the bars at the foot of the ribbon.`;
  });
  /** The last word of each sensor in its ball, and whether it is believed. */
  protected readonly sensors = computed(() => {
    const last = new Map(
      ofKind(standing(this.store.records()), 'sensor').map(({ facts }) => [facts.sensor, facts] as const),
    );
    return [...last].map(([name, { readOn, share, flag }]) => ({
      name,
      trusted: flag === null,
      words:
        flag === null
          ? `Sensor ${name}: ${Math.round((share ?? 0) * 100)} % on ${sayDay(readOn)}.`
          : `Sensor ${name} is not counted, ${sayDay(readOn)}: ${sensorFlagNames[flag]}. Look at it.`,
    }));
  });
  protected readonly drawing = computed(() => {
    const water = this.water();
    if (!water) return null;
    const size = { widthPx: Math.max(320, this.width()), heightPx: 210 };
    const checks = this.spans();
    return moistureRibbon({ water, today: this.session.today(), units: this.session.units(), checks, ...size });
  });
  protected readonly nextWords = computed(() => {
    const water = this.water();
    return water ? sayNext(water.next, { today: this.session.today(), units: this.session.units() }) : '';
  });
  /** Other roots drink from its soil: a neighbour's, or grass. */
  protected readonly shared = computed(() => (this.water()?.days ?? []).some(({ othersL }) => othersL > 0));
  protected readonly lines = computed(() => {
    const litres = (value: number) => (value < 0.05 ? '' : formatQuantity(value, 'volumeL', this.session.units()));
    return (this.water()?.days ?? [])
      .slice(-shownDays)
      .reverse()
      .map((day) => ({
        day: sayDay(day.day),
        share: `${Math.round(day.share * 100)} %`,
        error: `${Math.round(day.errorShare * 100)}`,
        rain: litres(day.rainL),
        given: litres(day.dosesL),
        used: litres(day.usedL + day.evaporatedL),
        others: litres(day.othersL),
        drained: litres(day.drainedL),
        words: day.waterlogged ? 'waterlogged' : day.stressed ? 'stress' : '',
      }));
  });

  protected type(text: string): void {
    this.typed.type(text);
    this.fault.set(null);
  }

  protected async adopt({ useTimes, readings }: UseFound): Promise<void> {
    await this.setUse(useTimes, `${readings} readings agree on it`);
  }
  protected async setBack(): Promise<void> {
    await this.setUse(1, 'set back to what is expected');
  }
  private async setUse(useTimes: number, reason: string): Promise<void> {
    const facts = { decidedOn: this.session.today(), useTimes, reason };
    await this.sender.send(
      { kind: 'site_water', facts, supersedes: null },
      `Counted at ${useTimes} times its usual use.`,
    );
  }

  protected async give(): Promise<void> {
    const read = readLitres(this.typed, { name: 'Watered today', units: this.session.units() });
    if ('fault' in read) {
      this.fault.set(read.fault);
      return;
    }
    const { litres } = read;
    const ring = this.readRing();
    if (typeof ring === 'string') {
      this.fault.set(ring);
      return;
    }
    const facts = { wateredOn: this.session.today(), litres, ...ring };
    if (await this.sender.send({ kind: 'watering', facts, supersedes: null }, 'Watering stored.')) this.clear();
  }

  private clear(): void {
    this.typed.fill(null);
    this.ring.fill(null);
    this.emptied.set('');
  }

  /** What was typed of the ring: both or neither, or what is wrong with it. */
  private readRing(): { ringMm?: number; ringMinutes?: number } | string {
    const [mm, text] = [this.ring.value(), this.emptied().trim()];
    if (this.ring.text().trim() === '' && text === '') return {};
    const minutes = text === '' ? NaN : Number(text.replace(',', '.'));
    const { ringMm, ringMinutes } = limits;
    const say = (value: number) => formatQuantity(value, 'lengthMm', this.session.units());
    if (mm === null || mm < ringMm.min || mm > ringMm.max) {
      return `Water in the ring must be within ${say(ringMm.min)} to ${say(ringMm.max)}, got ${this.ring.text() || 'nothing'}.`;
    }
    if (!(minutes >= ringMinutes.min && minutes <= ringMinutes.max)) {
      return `Empty after must be within ${ringMinutes.min} to ${ringMinutes.max} min, got ${text || 'nothing'}.`;
    }
    return { ringMm: mm, ringMinutes: minutes };
  }
}
