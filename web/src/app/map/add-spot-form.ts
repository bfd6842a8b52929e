import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal } from '@angular/core';
import type { Problem } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { BulkActs } from '../spot/bulk-acts.service';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { LiveService } from '../ui/live.service';
import { SpotListService } from '../spot/spot-list.service';
import type { LngLat } from './measure';
import { textOf } from '../fields/event-values';

/** A new spot where somebody tapped: its number and place are proposed from what lies near. */
@Component({
  selector: 's-add-spot-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="map-says" (submit)="add($event)">
      <h2>New spot</h2>
      <label
        >Number
        <input
          class="form-control form-control-sm"
          maxlength="24"
          [placeholder]="proposed().ref"
          [value]="ref()"
          (focus)="mine.ref = true"
          (input)="ref.set(textOf($event))"
      /></label>
      <label
        >Place
        <input
          class="form-control form-control-sm"
          maxlength="80"
          [placeholder]="proposed().place"
          [value]="place()"
          (focus)="mine.place = true"
          (input)="place.set(textOf($event))"
      /></label>
      <label
        >Species, if known
        <input
          class="form-control form-control-sm"
          maxlength="80"
          [value]="species()"
          (input)="species.set(textOf($event))"
      /></label>
      @if (fault(); as problem) {
        <p class="problem" role="alert">{{ say(problem) }}</p>
      }
      <p>
        <button type="submit" class="btn btn-sm btn-primary" [disabled]="busy()">Add {{ ref() }}</button>
        <button type="button" class="btn btn-sm btn-link" (click)="done.emit()">Cancel</button>
      </p>
    </form>
  `,
  styles: `
    form {
      width: 19rem;
    }
    label {
      display: block;
      margin-bottom: 0.35rem;
    }
    p {
      margin: 0.4rem 0 0;
    }
  `,
})
export class AddSpotForm {
  protected readonly textOf = textOf;
  readonly at = input.required<LngLat>();
  readonly done = output();
  readonly added = output<string>();
  private readonly lists = inject(SpotListService);
  private readonly toasts = inject(ToastsService);
  private readonly acts = inject(BulkActs);
  private readonly live = inject(LiveService);
  protected readonly ref = signal('');
  protected readonly place = signal('');
  protected readonly species = signal('');
  protected readonly busy = signal(false);
  protected readonly fault = signal<Problem | null>(null);
  protected readonly say = sayProblem;
  /** Shown where it is not put. */
  protected readonly proposed = signal({ ref: '', place: '' });
  /** Where somebody is about to type nothing is put under their hands. */
  protected readonly mine = { ref: false, place: false };
  /** Sent again after a fault it is the same spot. */
  private readonly ids = { id: uuidv7(), treeId: uuidv7() };

  constructor() {
    effect(() => void this.propose(this.at()));
  }

  private async propose(at: LngLat): Promise<void> {
    const near = await firstValueFrom(this.lists.near(at)).catch(() => null);
    if (!near) return;
    this.proposed.set({ ref: near.ref, place: near.place ?? '' });
    if (!this.mine.ref) this.ref.set(near.ref);
    if (!this.mine.place && near.place) this.place.set(near.place);
  }

  protected async add(event: Event): Promise<void> {
    event.preventDefault();
    this.busy.set(true);
    this.fault.set(null);
    const [lng, lat] = this.at();
    const position: [number, number] = [Number(lng.toFixed(7)), Number(lat.toFixed(7))];
    const spot = {
      ...this.ids,
      ref: this.ref(),
      place: this.place(),
      position,
      species: this.species().trim() || null,
    };
    try {
      await firstValueFrom(this.lists.add(spot));
      const target = [{ spotId: spot.id, ref: spot.ref }];
      this.toasts.say(`${spot.ref} added on ${spot.place}.`, {
        name: 'Undo',
        run: () => void this.acts.withdraw(target),
      });
      this.live.acted();
      this.added.emit(spot.id);
      this.done.emit();
    } catch (error) {
      this.fault.set(readProblem(error));
    } finally {
      this.busy.set(false);
    }
  }
}
