import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { KeptRoundPlan } from '@sombra/contract';

const [widthPx, heightPx, edgePx] = [620, 380, 24] as const;
const dashes = ['', '9 5', '2 5', '14 4 3 4'] as const;

/** The rounds of each truck over the ground, north up: lines by truck, stops as dots, fill points as squares. */
@Component({
  selector: 's-round-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="label()">
      @for (truck of drawn(); track truck.name) {
        <polyline [attr.points]="truck.line" [attr.stroke-dasharray]="truck.dash" />
        @for (one of truck.stops; track one.key) {
          <circle [attr.cx]="one.x" [attr.cy]="one.y" r="4">
            <title>{{ one.title }}</title>
          </circle>
        }
        @for (one of truck.fills; track one.key) {
          <rect [attr.x]="one.x - 6" [attr.y]="one.y - 6" width="12" height="12">
            <title>{{ one.title }}</title>
          </rect>
        }
        <path [attr.d]="truck.depot" />
        <text [attr.x]="truck.x + 10" [attr.y]="truck.y - 8">{{ truck.name }}</text>
      }
    </svg>
  `,
  styles: `
    svg {
      width: 100%;
      background: var(--land);
      border: 1px solid var(--line);
    }
    polyline {
      fill: none;
      stroke: var(--water);
      stroke-width: 2;
    }
    circle {
      fill: var(--leaf);
      stroke: var(--ink);
    }
    rect {
      fill: var(--water);
      stroke: var(--ink);
    }
    path {
      fill: var(--chosen);
    }
    text {
      fill: var(--ink);
      font-size: 14px;
    }
  `,
})
export class RoundMap {
  readonly plan = input.required<KeptRoundPlan>();
  protected readonly width = widthPx;
  protected readonly height = heightPx;
  private readonly going = computed(() => this.plan().trucks.filter(({ steps }) => steps.length > 0));
  protected readonly label = computed(() =>
    this.going()
      .map(({ name, steps }) => `${name}: ${steps.filter(({ kind }) => kind === 'stop').length} trees`)
      .join('; '),
  );

  private readonly place = computed(() => {
    const all = this.going().flatMap(({ depot, steps }) => [depot, ...steps.map(({ position }) => position)]);
    const [lngs, lats] = [all.map(([lng]) => lng), all.map(([, lat]) => lat)];
    const [west, east, south, north] = [Math.min(...lngs), Math.max(...lngs), Math.min(...lats), Math.max(...lats)];
    const narrow = Math.cos((((south + north) / 2) * Math.PI) / 180);
    const scale = Math.min(
      (widthPx - 2 * edgePx) / Math.max(1e-6, (east - west) * narrow),
      (heightPx - 2 * edgePx) / Math.max(1e-6, north - south),
    );
    const middle = [(west + east) / 2, (south + north) / 2] as const;
    return ([lng, lat]: readonly [number, number]) => ({
      x: widthPx / 2 + (lng - middle[0]) * narrow * scale,
      y: heightPx / 2 - (lat - middle[1]) * scale,
    });
  });

  protected readonly drawn = computed(() => {
    const at = this.place();
    return this.going().map(({ name, depot, steps }, i) => {
      const from = at(depot);
      const points = [from, ...steps.map(({ position }) => at(position)), from];
      return {
        name,
        ...from,
        dash: dashes[i % dashes.length],
        line: points.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '),
        depot: `M${from.x} ${from.y - 8}l8 14h-16z`,
        stops: steps.flatMap((step, k) =>
          step.kind === 'stop'
            ? [{ key: k, ...at(step.position), title: `${step.ref}, ${Math.round(step.litres)} L` }]
            : [],
        ),
        fills: steps.flatMap((step, k) =>
          step.kind === 'fill' ? [{ key: k, ...at(step.position), title: `Fill at ${step.name}` }] : [],
        ),
      };
    });
  });
}
