import { ChangeDetectionStrategy, Component, computed, input, model, output, signal } from '@angular/core';
import { PhotoButton } from '../fields/photo-button';
import { shrinkPhoto } from '../fields/shrink-photo';
import { photoPlace } from './photo-place';
import { tickOf } from '../fields/event-values';

export interface TakenPhoto {
  readonly picture: Blob;
  /** Where the camera says it stood; left out of the picture itself. */
  readonly place: readonly [number, number] | null;
}

/** A picture in one tap: drawn smaller here, where it was taken read and left out unless it is wanted. */
@Component({
  selector: 's-tree-photo',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PhotoButton],
  template: `
    @if (shown(); as url) {
      <img [src]="url" alt="The tree as photographed" />
    }
    <s-photo-button [words]="busy() ? 'Reading…' : shown() ? 'New photo' : 'Photo'" (picked)="take($event)" />
    @if (placeWords(); as words) {
      <label class="place">
        <input type="checkbox" [checked]="keepPlace()" (change)="keepPlace.set(tickOf($event))" />
        Keep where it was taken, {{ words }}
      </label>
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      --photo-tap: 60px;
    }
    img {
      display: block;
      max-width: 100%;
      max-height: 16rem;
      margin-bottom: 0.5rem;
      border: 1px solid var(--line);
    }
    .place {
      display: flex;
      align-items: center;
      gap: 0.6rem;
      min-height: 48px;
    }
    .place input {
      width: 1.4rem;
      height: 1.4rem;
    }
  `,
})
export class TreePhoto {
  protected readonly tickOf = tickOf;
  readonly photo = input<TakenPhoto | null>(null);
  /** One kept by the server before. */
  readonly before = input<string | null>(null);
  readonly taken = output<TakenPhoto>();
  readonly keepPlace = model(false);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly shown = computed(() => {
    const photo = this.photo();
    return photo ? URL.createObjectURL(photo.picture) : this.before();
  });
  protected readonly placeWords = computed(() => {
    const place = this.photo()?.place;
    if (!place) return null;
    const [lng, lat] = place;
    return `${Math.abs(lat).toFixed(4)}° ${lat < 0 ? 'S' : 'N'}, ${Math.abs(lng).toFixed(4)}° ${lng < 0 ? 'W' : 'E'}`;
  });

  protected async take(file: File): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      this.taken.emit({ picture: await shrinkPhoto(file), place: await photoPlace(file) });
      this.keepPlace.set(false);
    } catch (error) {
      this.fault.set(error instanceof TypeError ? `${error.message}.` : 'This picture could not be read.');
    } finally {
      this.busy.set(false);
    }
  }
}
