import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

const [widthPx, heightPx, edgePx] = [620, 380, 24] as const;

/** Somebody's way: from where they set out and come back to, if that is known, by each place in its order. */
export interface MapWay {
  readonly name: string;
  readonly from: readonly [number, number] | null;
  readonly places: readonly {
    readonly position: readonly [number, number];
    readonly title: string;
    /** A square: somewhere to fill. */
    readonly fill: boolean;
  }[];
}

const dashes = ['', '9 5', '2 5', '14 4 3 4'] as const;

/** Ways over the ground, north up: a line each, stops as dots, fill points as squares. */
@Component({
  selector: 's-ways-map',
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
        @if (truck.depot) {
          <path [attr.d]="truck.depot" />
        }
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
export class WaysMap {
  readonly ways = input.required<readonly MapWay[]>();
  protected readonly width = widthPx;
  protected readonly height = heightPx;
  private readonly going = computed(() => this.ways().filter(({ places }) => places.length > 0));
  protected readonly label = computed(() =>
    this.going()
      .map(({ name, places }) => `${name}: ${places.filter(({ fill }) => !fill).length} trees`)
      .join('; '),
  );

  private readonly place = computed(() => {
    const all = this.going().flatMap(({ from, places }) => [
      ...(from ? [from] : []),
      ...places.map(({ position }) => position),
    ]);
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
    return this.going().map(({ name, from, places }, i) => {
      const ends = from ? [at(from)] : [];
      const points = [...ends, ...places.map(({ position }) => at(position)), ...ends];
      const [first] = points;
      const dots = places.map(({ position, title, fill }, key) => ({ key, ...at(position), title, fill }));
      const { x, y } = first ?? { x: 0, y: 0 };
      return {
        ...{ name, x, y },
        dash: dashes[i % dashes.length],
        line: points.map((point) => `${point.x.toFixed(1)},${point.y.toFixed(1)}`).join(' '),
        depot: from ? `M${x} ${y - 8}l8 14h-16z` : null,
        stops: dots.filter(({ fill }) => !fill),
        fills: dots.filter(({ fill }) => fill),
      };
    });
  });
}
