import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { takeFile } from './event-values';

/** Takes a picture, or one that was taken, in one tap. */
@Component({
  selector: 's-photo-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="btn btn-outline-primary">
      <i class="bi bi-camera" aria-hidden="true"></i> {{ words() }}
      <input class="visually-hidden" type="file" accept="image/*" capture="environment" (change)="pick($event)" />
    </label>
  `,
  styles: `
    .btn {
      position: relative;
      min-height: var(--photo-tap, 48px);
      display: inline-flex;
      align-items: center;
      gap: 0.5rem;
    }
    .btn:focus-within {
      outline: 3px solid var(--chosen);
    }
  `,
})
export class PhotoButton {
  readonly words = input.required<string>();
  readonly picked = output<File>();

  protected pick(event: Event): void {
    const file = takeFile(event);
    if (file) this.picked.emit(file);
  }
}
