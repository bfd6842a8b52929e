import { ChangeDetectionStrategy, Component, computed, inject, input, viewChild, type ElementRef } from '@angular/core';
import { pitSection, type GroundFacts, type PitPlan, type Practice, type StakePlan, type Stock } from '@sombra/core';
import { DrawingView } from './drawing-view';
import { elementWidth } from './element-width';
import { SessionService } from '../session/session.service';

/** The pit section, drawn for the width it has, so that its words keep their size. */
@Component({
  selector: 's-pit-section',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `<div #room><s-drawing [drawing]="drawing()" /></div>`,
})
export class PitSectionView {
  readonly plan = input.required<PitPlan>();
  readonly stock = input.required<Stock>();
  readonly ground = input.required<GroundFacts>();
  readonly practice = input.required<Practice>();
  /** Left out, the tree stands by itself. */
  readonly stakes = input<StakePlan | null>(null);
  readonly windsDeg = input<readonly number[]>([]);
  private readonly session = inject(SessionService);
  private readonly room = viewChild<ElementRef<HTMLElement>>('room');
  private readonly widthPx = elementWidth(this.room, 480);

  protected readonly drawing = computed(() =>
    pitSection({
      plan: this.plan(),
      stock: this.stock(),
      ground: this.ground(),
      practice: this.practice(),
      stakes: this.stakes(),
      windsDeg: this.windsDeg(),
      units: this.session.units(),
      widthPx: Math.max(340, this.widthPx()),
      heightPx: 420,
    }),
  );
}
