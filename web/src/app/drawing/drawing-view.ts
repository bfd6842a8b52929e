import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Drawing, Point } from '@sombra/core';

/** Paints a drawing of the core as SVG; each role has its own paint in the style sheet. */
@Component({
  selector: 's-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + drawing().widthPx + ' ' + drawing().heightPx"
      role="img"
      [attr.aria-label]="drawing().description"
    >
      @for (shape of drawing().shapes; track $index) {
        @switch (shape.kind) {
          @case ('polygon') {
            <polygon [attr.class]="shape.role" [attr.points]="path(shape.points)">
              @if (shape.title) {
                <svg:title>{{ shape.title }}</svg:title>
              }
            </polygon>
          }
          @case ('line') {
            <polyline [attr.class]="shape.role" [attr.points]="path(shape.points)" />
          }
          @case ('text') {
            <text
              [attr.class]="shape.strong ? shape.role + ' strong' : shape.role"
              [attr.x]="shape.at[0]"
              [attr.y]="shape.at[1]"
              [attr.text-anchor]="shape.align"
              [attr.font-size]="shape.sizePx"
            >
              {{ shape.text }}
            </text>
          }
        }
      }
    </svg>
  `,
  styleUrl: './drawing-view.scss',
})
export class DrawingView {
  readonly drawing = input.required<Drawing>();

  protected path(points: readonly Point[]): string {
    return points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');
  }
}
