import { ChangeDetectionStrategy, Component, computed, inject, input, viewChild, type ElementRef } from '@angular/core';
import { pitConflict, type GroundFacts, type NoPitPlan, type Stock } from '@sombra/core';
import { DrawingView } from './drawing-view';
import { elementWidth } from './element-width';
import { SessionService } from '../session/session.service';

/** Why a tree cannot stand at its place, drawn to scale where a measure is in the way. */
@Component({
  selector: 's-pit-conflict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `<div #room>
    @if (drawing(); as drawn) {
      <s-drawing [drawing]="drawn" />
    }
  </div>`,
})
export class PitConflictView {
  readonly none = input.required<NoPitPlan>();
  readonly stock = input.required<Stock>();
  readonly ground = input.required<GroundFacts>();
  private readonly session = inject(SessionService);
  private readonly room = viewChild<ElementRef<HTMLElement>>('room');
  private readonly widthPx = elementWidth(this.room, 480);

  protected readonly drawing = computed(() =>
    pitConflict({
      none: this.none(),
      stock: this.stock(),
      ground: this.ground(),
      units: this.session.units(),
      widthPx: Math.max(320, this.widthPx()),
      heightPx: 400,
    }),
  );
}
