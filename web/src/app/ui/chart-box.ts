import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  untracked,
  viewChild,
} from '@angular/core';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartConfiguration,
  type ChartType,
} from 'chart.js';
import { ThemeService } from './theme.service';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** What a chart is drawn with: the colours of the theme that is on, and the page's letters. */
export interface ChartPaint {
  /** Of a name such as `--leaf`. */
  readonly colour: (name: string) => string;
  readonly font: { readonly family: string; readonly size: number };
}

export type PaintedChart<T extends ChartType> = (paint: ChartPaint) => ChartConfiguration<T, number[]>;

/** A chart that follows its numbers and the theme. What it shows is said by its label, and by a table beside it. */
@Component({
  selector: 's-chart-box',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>`,
  styles: `
    :host {
      display: block;
      position: relative;
    }
  `,
})
export class ChartBox<T extends ChartType> {
  readonly chart = input.required<PaintedChart<T>>();
  readonly label = input.required<string>();
  private readonly theme = inject(ThemeService);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private drawn: Chart<T, number[]> | null = null;

  constructor() {
    effect(() => {
      const chart = this.chart();
      this.theme.dark();
      const canvas = this.canvas().nativeElement;
      // The theme's colours stand on the page a moment after the signal.
      untracked(() => queueMicrotask(() => this.draw(canvas, chart)));
    });
    inject(DestroyRef).onDestroy(() => this.drawn?.destroy());
  }

  private draw(canvas: HTMLCanvasElement, chart: PaintedChart<T>): void {
    this.drawn?.destroy();
    const style = getComputedStyle(canvas);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    this.drawn = new Chart(canvas, chart({ colour, font: { family: style.fontFamily, size: 14 } }));
  }
}
