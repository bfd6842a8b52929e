import { ChangeDetectionStrategy, Component, input, model, output } from '@angular/core';
import { textOf } from './event-values';
import { NumberPad } from './number-pad';

/** A number large enough to read in the sun, with its unit and large keys; what doubts it stands between them. */
@Component({
  selector: 's-big-number',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberPad],
  template: `
    <span class="big">
      <input
        inputmode="decimal"
        [id]="inputId()"
        [attr.aria-label]="label()"
        [value]="typed()"
        (input)="typed.set(textOf($event))"
        (keydown.enter)="enter.emit()"
      />
      {{ unit() }}
    </span>
    <ng-content />
    <s-number-pad [(typed)]="typed" [eighths]="eighths()" />
  `,
  styles: `
    .big {
      display: flex;
      align-items: baseline;
      gap: 0.5rem;
      font-size: 1.3rem;
      margin: 0.2rem 0 0.5rem;
    }
    input {
      width: 8rem;
      min-height: 56px;
      font-size: 1.8rem;
      font-weight: 600;
      text-align: right;
      padding: 0 0.5rem;
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
    }
  `,
})
export class BigNumber {
  protected readonly textOf = textOf;
  readonly typed = model('');
  readonly unit = input.required<string>();
  /** Said by readers of screens where no label stands beside it. */
  readonly label = input<string | null>(null);
  /** For a label that stands beside it. */
  readonly inputId = input('');
  readonly eighths = input(false);
  readonly enter = output();
}
