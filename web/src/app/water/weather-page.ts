import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { WaterBasis, WeatherReport } from '@sombra/contract';
import {
  addDaysTo,
  displays,
  formatQuantity,
  seasonWeeks,
  toDisplay,
  weatherGaps,
  weatherSpells,
  type Spell,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { textOf } from '../fields/event-values';
import { TypedQuantity } from '../fields/typed-quantity';
import { SessionService } from '../session/session.service';
import { ChartBox, type PaintedChart } from '../ui/chart-box';
import { readProblem, sayProblem } from '../ui/problem';
import { RowReportNote } from '../ui/row-report-note';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { DateInput } from '../fields/date-input';
import { WaterBasisService } from './water-basis.service';
import { WaterService } from './water.service';

const spellNames: Readonly<Record<Spell['kind'], string>> = {
  dry: 'Dry spell',
  heat: 'Heat wave',
  frost: 'Frost at night',
};
const shownWeeks = 52;

/** The weather that trees are followed by: a year of rain and demand, what stood out, what is missing; files and gauges. */
@Component({
  selector: 's-weather-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DateInput, StateNote, ChartBox, RowReportNote],
  templateUrl: './weather-page.html',
  styleUrl: './weather-page.scss',
})
export class WeatherPage {
  protected readonly textOf = textOf;
  protected readonly say = sayDay;
  protected readonly session = inject(SessionService);
  private readonly doors = inject(WaterService);
  private readonly basisDoors = inject(WaterBasisService);
  private readonly toasts = inject(ToastsService);
  protected readonly basis = signal<WaterBasis | null>(null);
  protected readonly trouble = signal<string | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly report = signal<WeatherReport | null>(null);
  protected readonly busy = signal(false);
  private readonly file = signal<File | null>(null);
  protected readonly gaugeDay = signal(this.session.today());
  protected readonly rain = new TypedQuantity(() => ({ quantity: 'rainMm', units: this.session.units() }));
  protected readonly unit = computed(() => displays.rainMm[this.session.units()].unit);
  protected readonly mayRecord = computed(() => this.session.may('record_weather'));

  private readonly recorded = computed(() => this.basis()?.recorded ?? []);
  protected readonly until = computed(() => this.recorded().at(-1)?.day ?? null);
  protected readonly gaps = computed(() => weatherGaps(this.recorded().map(({ day }) => day)));
  protected readonly spells = computed(() =>
    weatherSpells(this.recorded())
      .reverse()
      .map((spell) => ({
        ...spell,
        name: spellNames[spell.kind],
        span: spell.from === spell.to ? sayDay(spell.from) : `${sayDay(spell.from)} to ${sayDay(spell.to)}`,
        extreme: spell.extremeC === null ? '' : formatQuantity(spell.extremeC, 'temperatureC', this.session.units()),
      })),
  );
  private readonly weeks = computed(() => {
    const basis = this.basis();
    if (!basis) return [];
    const from = addDaysTo(this.session.today(), -7 * (shownWeeks - 2));
    const { station, recorded, forecast } = basis;
    return seasonWeeks({ station, recorded, forecast }, { from, weeks: shownWeeks }).filter(
      ({ source }) => source !== 'unknown' && source !== 'usual',
    );
  });
  protected readonly lines = computed(() =>
    this.weeks().map(({ monday, source, rain, demand }) => ({
      monday: sayDay(monday),
      source: source === 'forecast' ? 'forecast' : 'measured',
      rain: formatQuantity(rain.mm, 'rainMm', this.session.units()),
      demand: formatQuantity(demand.mm, 'rainMm', this.session.units()),
    })),
  );
  protected readonly summary = computed(() => {
    const sum = (of: 'rain' | 'demand') =>
      formatQuantity(
        this.weeks().reduce((all, week) => all + week[of].mm, 0),
        'rainMm',
        this.session.units(),
      );
    return `${this.weeks().length} weeks: rain ${sum('rain')}, demand ${sum('demand')}`;
  });
  protected readonly chart = computed((): PaintedChart<'bar'> => {
    const weeks = this.weeks();
    const units = this.session.units();
    const shown = (mm: number) => toDisplay(mm, 'rainMm', units).value;
    return ({ colour, font }) => ({
      type: 'bar',
      data: {
        labels: weeks.map(({ monday }) => sayDay(monday).slice(0, -5)),
        datasets: [
          { label: 'rain', data: weeks.map(({ rain }) => shown(rain.mm)), backgroundColor: colour('--water') },
          {
            label: 'demand of the air',
            data: weeks.map(({ demand }) => shown(demand.mm)),
            backgroundColor: colour('--sun'),
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: { ticks: { color: colour('--quiet'), font }, grid: { display: false } },
          y: {
            beginAtZero: true,
            title: { display: true, text: `${displays.rainMm[units].unit} a week`, color: colour('--quiet'), font },
            ticks: { color: colour('--quiet'), font },
            grid: { color: colour('--line') },
          },
        },
        plugins: { legend: { labels: { color: colour('--ink'), font } } },
      },
    });
  });

  constructor() {
    void this.read();
  }

  protected async read(): Promise<void> {
    try {
      this.basis.set(await firstValueFrom(this.basisDoors.basis()));
      this.trouble.set(null);
    } catch (error) {
      this.trouble.set(sayProblem(readProblem(error)));
    }
  }

  protected picked(event: Event): void {
    const input = event.target as HTMLInputElement;
    const file = input.files?.[0] ?? null;
    this.file.set(file);
    if (file) void this.send(false);
    // The same file may be chosen again once it was mended.
    input.value = '';
  }

  protected async send(confirmed: boolean): Promise<void> {
    const file = this.file();
    if (!file) return;
    this.busy.set(true);
    this.fault.set(null);
    this.report.set(null);
    try {
      const report = await firstValueFrom(this.doors.importWeather(file, confirmed));
      this.report.set(report);
      if (report.stored) await this.readAnew();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }

  private async readAnew(): Promise<void> {
    this.basisDoors.forget();
    await this.read();
  }

  protected type(text: string): void {
    this.rain.type(text);
    this.fault.set(null);
  }

  protected async gauge(): Promise<void> {
    const rainMm = this.rain.value();
    if (rainMm === null || rainMm < 0 || rainMm > 1500) {
      const say = (mm: number) => formatQuantity(mm, 'rainMm', this.session.units());
      this.fault.set(`Rain must be within ${say(0)} to ${say(1500)}, got ${this.rain.text() || 'nothing'}.`);
      return;
    }
    try {
      await firstValueFrom(this.doors.gauge({ day: this.gaugeDay(), rainMm }));
      this.toasts.say(`Rain of ${sayDay(this.gaugeDay())} stored.`);
      this.rain.fill(null);
      await this.readAnew();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }
}
