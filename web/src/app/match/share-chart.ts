import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { rankNames, ranks, sharesOf, type PopulationCount, type Rank } from '@sombra/core';
import type { Plugin } from 'chart.js';
import { ChartBox, type PaintedChart } from '../ui/chart-box';
import { ViewState } from '../ui/view-state.service';

const mostBars = 12;

/** Shares of the population before and after planting, with the limit they are held to; the same as a table. */
@Component({
  selector: 's-share-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChartBox],
  template: `
    <section aria-labelledby="shares">
      <div class="head">
        <h2 id="shares">Shares of all trees, before and after</h2>
        <div class="ranks" role="group" aria-label="By">
          @for (one of ranks; track one) {
            <button
              type="button"
              [attr.aria-pressed]="rank() === one"
              (click)="view.set({ rank: one === 'species' ? null : one })"
            >
              {{ rankNames[one] }}
            </button>
          }
        </div>
      </div>
      <p class="key quiet">
        <span class="swatch before"></span> before <span class="swatch after"></span> after
        <span class="swatch limit"></span> most allowed, {{ limit() }} %
      </p>
      <s-chart-box [chart]="chart()" [label]="summary()" [style.height.px]="bars().length * 34 + 40" />
      @if (more() > 0) {
        <p class="quiet">{{ more() }} more gain trees and stay far below: the table holds them all.</p>
      }
      <details>
        <summary>As a table</summary>
        <table class="plain">
          <thead>
            <tr>
              <th scope="col">{{ rankNames[rank()] }}</th>
              <th scope="col" class="num">Before</th>
              <th scope="col" class="num">%</th>
              <th scope="col" class="num">After</th>
              <th scope="col" class="num">%</th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.taxon) {
              <tr>
                <td>{{ row.taxon }}</td>
                <td class="num">{{ row.before }}</td>
                <td class="num">{{ row.beforePct.toFixed(1) }}</td>
                <td class="num">{{ row.after }}</td>
                <td class="num">{{ row.afterPct.toFixed(1) }}</td>
              </tr>
            }
          </tbody>
        </table>
      </details>
    </section>
  `,
  styles: `
    .head {
      display: flex;
      flex-wrap: wrap;
      gap: 0.25rem 1rem;
      align-items: baseline;
    }
    .ranks button {
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
      min-height: 38px;
      padding: 0 0.8rem;
    }
    .ranks button[aria-pressed='true'] {
      background: var(--chosen);
      color: var(--on-chosen);
    }
    .key {
      margin: 0.3rem 0;
    }
    .swatch {
      display: inline-block;
      width: 1.1rem;
      height: 0.7rem;
      margin-left: 0.6rem;
    }
    .before {
      background: var(--fill);
      border: 1px solid var(--edge);
      margin-left: 0;
    }
    .after {
      background: var(--leaf);
    }
    .limit {
      width: 3px;
      height: 1rem;
      background: var(--urgent);
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
      cursor: pointer;
    }
  `,
})
export class ShareChart {
  readonly before = input.required<readonly PopulationCount[]>();
  readonly after = input.required<readonly PopulationCount[]>();
  /** The most each rank may hold. % */
  readonly limits = input.required<Readonly<Record<Rank, number>>>();
  protected readonly view = inject(ViewState);
  protected readonly ranks = ranks;
  protected readonly rankNames = rankNames;
  protected readonly rank = computed((): Rank => {
    const asked = this.view.text('rank');
    return ranks.find((rank) => rank === asked) ?? 'species';
  });
  protected readonly limit = computed(() => this.limits()[this.rank()]);

  /** Every taxon, those that gain first, then by what they hold after. */
  protected readonly rows = computed(() => {
    const before = new Map(sharesOf(this.before(), this.rank()).map((share) => [share.taxon, share]));
    return sharesOf(this.after(), this.rank()).map(({ taxon, count, pct }) => ({
      taxon,
      before: before.get(taxon)?.count ?? 0,
      beforePct: before.get(taxon)?.pct ?? 0,
      after: count,
      afterPct: pct,
    }));
  });
  /** The largest, and what this list adds to: as many as can be read at once. */
  private readonly worth = computed(() =>
    this.rows().filter(({ before, after }, i) => i < mostBars / 2 || after > before),
  );
  protected readonly bars = computed(() => this.worth().slice(0, mostBars));
  protected readonly more = computed(() => this.worth().length - this.bars().length);
  protected readonly summary = computed(() =>
    this.bars()
      .map(({ taxon, beforePct, afterPct }) => `${taxon} ${beforePct.toFixed(1)} to ${afterPct.toFixed(1)} %`)
      .join(', '),
  );

  protected readonly chart = computed((): PaintedChart<'bar'> => {
    const bars = this.bars();
    const limit = this.limit();
    return ({ colour, font }) => ({
      type: 'bar',
      data: {
        labels: bars.map(({ taxon }) => taxon),
        datasets: [
          {
            label: 'before',
            data: bars.map(({ beforePct }) => beforePct),
            backgroundColor: colour('--fill'),
            borderColor: colour('--edge'),
            borderWidth: 1,
          },
          { label: 'after', data: bars.map(({ afterPct }) => afterPct), backgroundColor: colour('--leaf') },
        ],
      },
      options: {
        indexAxis: 'y',
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: {
            beginAtZero: true,
            suggestedMax: limit * 1.1,
            title: { display: true, text: '% of all trees', color: colour('--quiet'), font },
            ticks: { color: colour('--quiet'), font },
            grid: { color: colour('--line') },
          },
          y: { ticks: { color: colour('--ink'), font, autoSkip: false }, grid: { display: false } },
        },
        plugins: {
          legend: { display: false },
          tooltip: { callbacks: { label: ({ dataset, parsed }) => `${dataset.label} ${parsed.x?.toFixed(1)} %` } },
        },
      },
      plugins: [limitLine(limit, colour('--urgent'))],
    });
  });
}

/** The most a taxon may hold, as a line across the bars. */
const limitLine = (pct: number, colour: string): Plugin<'bar'> => ({
  id: 'limit',
  afterDatasetsDraw({ ctx, chartArea, scales }) {
    const x = scales['x']?.getPixelForValue(pct);
    if (x === undefined || x > chartArea.right) return;
    ctx.save();
    ctx.fillStyle = colour;
    ctx.fillRect(x - 1, chartArea.top, 3, chartArea.bottom - chartArea.top);
    ctx.restore();
  },
});
