import { ChangeDetectionStrategy, Component, model } from '@angular/core';

const keys = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const;

/** Large keys for wet gloves; what is typed is the value. */
@Component({
  selector: 's-number-pad',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="pad" role="group" aria-label="Number pad">
      @for (key of keys; track key) {
        <button type="button" [attr.aria-label]="key === '⌫' ? 'Delete' : key" (click)="press(key)">{{ key }}</button>
      }
    </div>
  `,
  styles: `
    .pad {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 6px;
      max-width: 22rem;
    }
    button {
      min-height: 56px;
      font-size: 1.4rem;
      font-weight: 600;
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
    }
    button:active {
      background: var(--shade);
    }
  `,
})
export class NumberPad {
  readonly typed = model('');
  protected readonly keys = keys;

  protected press(key: (typeof keys)[number]): void {
    this.typed.update((text) => {
      if (key === '⌫') return text.slice(0, -1);
      if (key === '.' && text.includes('.')) return text;
      return text.length < 6 ? text + key : text;
    });
  }
}
