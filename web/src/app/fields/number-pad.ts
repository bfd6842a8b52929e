import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';

/** Parts of an inch, as a tape shows them. */
const parts = ['1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8'] as const;
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
    @if (eighths()) {
      <div class="parts" role="group" aria-label="Parts of an inch">
        @for (part of parts; track part) {
          <button type="button" (click)="add(part)">{{ part }}</button>
        }
      </div>
    }
  `,
  styles: `
    .parts {
      display: grid;
      grid-template-columns: repeat(7, 1fr);
      gap: 6px;
      max-width: 22rem;
      margin-top: 6px;
    }
    .parts button {
      font-size: 1rem;
      padding: 0;
    }
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
  /** With a row of eighths, where lengths are typed in inches. */
  readonly eighths = input(false);
  protected readonly keys = keys;
  protected readonly parts = parts;

  /** The part in the place of one that stands there, behind the whole inches. */
  protected add(part: (typeof parts)[number]): void {
    this.typed.update((text) => {
      const whole = /^\d+(?![\d/])/.exec(text)?.[0] ?? '';
      return whole === '' ? part : `${whole} ${part}`;
    });
  }

  protected press(key: (typeof keys)[number]): void {
    this.typed.update((text) => {
      if (key === '⌫') return text.includes('/') ? text.replace(/ ?\d+\/\d+$/, '') : text.slice(0, -1);
      if (key === '.' && text.includes('.')) return text;
      return text.length < 6 && !text.includes('/') ? text + key : text;
    });
  }
}
