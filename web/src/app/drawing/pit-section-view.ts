import { ChangeDetectionStrategy, Component, computed, inject, input, viewChild, type ElementRef } from '@angular/core';
import { pitSection, type GroundFacts, type PitPlan, type Practice, type StakePlan, type Stock } from '@sombra/core';
import { DrawingView } from './drawing-view';
import { elementWidth } from './element-width';
import { SessionService } from '../session/session.service';

/** A pit plan with all it was worked out from; without stakes the tree stands by itself. */
export interface PlannedPit {
  readonly plan: PitPlan;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly practice: Practice;
  readonly stakes?: StakePlan | null;
  readonly windsDeg?: readonly number[];
}

/** The pit section, drawn for the width it has, so that its words keep their size. */
@Component({
  selector: 's-pit-section',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `<div #room><s-drawing [drawing]="drawing()" /></div>`,
})
export class PitSectionView {
  readonly planned = input.required<PlannedPit>();
  private readonly session = inject(SessionService);
  private readonly room = viewChild<ElementRef<HTMLElement>>('room');
  private readonly widthPx = elementWidth(this.room, 480);

  protected readonly drawing = computed(() =>
    pitSection({
      stakes: null,
      windsDeg: [],
      ...this.planned(),
      units: this.session.units(),
      widthPx: Math.max(340, this.widthPx()),
      heightPx: 440,
    }),
  );
}
