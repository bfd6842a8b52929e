import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { addDaysTo, daysBetween, displays, formatQuantity, toDisplay } from '@sombra/core';
import { SessionService } from '../session/session.service';
import { sayDay } from '../ui/say-date';
import { ChartBox, type PaintedChart } from '../ui/chart-box';

const shownDays = 21;

/** Water asked for by day, as a chart and as a table. */
@Component({
  selector: 's-water-days',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChartBox],
  template: `
    <section aria-labelledby="by-day">
      <h2 id="by-day">Asked for by day</h2>
      @if (days().length === 0) {
        <p class="quiet">Nobody asks for water as far as one can see.</p>
      } @else {
        <s-chart-box [chart]="chart()" [label]="summary()" />
        <p class="quiet">Without rain beyond the forecast. What is overdue is asked for today.</p>
        <details>
          <summary>As a table</summary>
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">Day</th>
                <th scope="col" class="num">Trees</th>
                <th scope="col" class="num">Water</th>
              </tr>
            </thead>
            <tbody>
              @for (row of rows(); track row.day) {
                <tr>
                  <th scope="row">{{ row.day }}</th>
                  <td class="num">{{ row.trees }}</td>
                  <td class="num">{{ row.litres }}</td>
                </tr>
              }
            </tbody>
          </table>
        </details>
      }
    </section>
  `,
  styles: `
    s-chart-box {
      height: 260px;
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
      cursor: pointer;
    }
  `,
})
export class WaterDays {
  readonly days = input.required<readonly { day: string; trees: number; litres: number }[]>();
  private readonly session = inject(SessionService);

  protected readonly rows = computed(() =>
    this.days().map(({ day, trees, litres }) => ({
      day: sayDay(day),
      trees,
      litres: formatQuantity(litres, 'volumeL', this.session.units()),
    })),
  );
  protected readonly summary = computed(() =>
    this.rows()
      .slice(0, 7)
      .map(({ day, trees, litres }) => `${day}: ${trees} trees, ${litres}`)
      .join('; '),
  );
  /** Every day of the span, those without any too. */
  private readonly bars = computed(() => {
    const today = this.session.today();
    const byDay = new Map(this.days().map((one) => [one.day, one]));
    const last = this.days().at(-1)?.day ?? today;
    const count = Math.min(shownDays, Math.max(7, daysBetween(today, last) + 1));
    const units = this.session.units();
    return Array.from({ length: count }, (_, i) => addDaysTo(today, i)).map((day) => ({
      day: sayDay(day).slice(0, -5),
      water: toDisplay(byDay.get(day)?.litres ?? 0, 'volumeL', units).value,
    }));
  });

  protected readonly chart = computed((): PaintedChart<'bar'> => {
    const bars = this.bars();
    const { unit } = displays.volumeL[this.session.units()];
    return ({ colour, font }) => ({
      type: 'bar',
      data: {
        labels: bars.map(({ day }) => day),
        datasets: [{ label: unit, data: bars.map(({ water }) => water), backgroundColor: colour('--water') }],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: { ticks: { color: colour('--quiet'), font }, grid: { display: false } },
          y: {
            beginAtZero: true,
            title: { display: true, text: unit, color: colour('--quiet'), font },
            ticks: { color: colour('--quiet'), font },
            grid: { color: colour('--line') },
          },
        },
        plugins: { legend: { display: false } },
      },
    });
  });
}
