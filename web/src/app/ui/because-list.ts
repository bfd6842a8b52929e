import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { sayReason, type Reason } from '@sombra/core';
import { SessionService } from '../session/session.service';

/** The reasons behind a number or a verdict, in the reader's units. */
@Component({
  selector: 's-because',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (sentence of sentences(); track $index) {
        <li>{{ sentence }}</li>
      }
    </ul>
  `,
  host: { class: 'because', style: 'display:block' },
})
export class BecauseList {
  readonly reasons = input.required<readonly Reason[]>();
  private readonly session = inject(SessionService);
  protected readonly sentences = computed(() =>
    this.reasons().map((reason) => sayReason(reason, this.session.units())),
  );
}
