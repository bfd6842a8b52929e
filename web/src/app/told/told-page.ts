import { ChangeDetectionStrategy, Component, effect, inject, input, signal, untracked } from '@angular/core';
import type { OpenTold } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { textOf } from '../fields/event-values';
import { PhotoButton } from '../fields/photo-button';
import { shrinkPhoto } from '../fields/shrink-photo';
import { readProblem, sayProblem } from '../ui/problem';
import { ToldService } from './told.service';

/** The page behind a place's link: whoever lives there tells what they see at a tree, in words and with a photo. */
@Component({
  selector: 's-told-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PhotoButton],
  template: `
    <main>
      @if (place(); as now) {
        <p class="from">{{ now.programme }}</p>
        <h1>Trees of {{ now.place }}</h1>
        @if (told()) {
          <p class="done" role="status">
            Thank you. Somebody of the programme reads it and has a look at the tree; you need do nothing more.
          </p>
          <button type="button" class="btn btn-outline-primary" (click)="another()">Tell of another tree</button>
        } @else {
          <p>See something wrong with a young tree, or wonder about it? Tell us; no account is needed.</p>
          <p class="caution">
            <b>Something is about to fall, or lies on a wire or a road?</b> Call the emergency services first, and keep
            away. This page is read on working days.
          </p>
          <form (submit)="send($event)" novalidate>
            <label
              >Which tree
              <select class="form-select" aria-label="Which tree" (change)="ref.set(textOf($event))">
                <option value="" [selected]="ref() === ''">I do not know its number</option>
                @for (tree of now.trees; track tree.ref) {
                  <option [value]="tree.ref" [selected]="ref() === tree.ref">
                    {{ tree.ref }}{{ tree.species ? ', ' + tree.species : '' }}
                  </option>
                }
              </select>
              <span class="quiet">It stands on the tag at the tree.</span>
            </label>
            <label
              >What you see
              <textarea
                class="form-control"
                rows="4"
                maxlength="400"
                aria-label="What you see"
                [value]="words()"
                (input)="words.set(textOf($event))"
              ></textarea>
            </label>
            @if (fault(); as text) {
              <p class="problem" role="alert">{{ text }}</p>
            }
            <div class="acts">
              <s-photo-button words="Add a photo" (picked)="picture.set($event)" />
              @if (picture(); as file) {
                <span role="status">{{ file.name }} is added.</span>
              }
              <button type="submit" class="btn btn-primary" [disabled]="busy()">Tell the programme</button>
            </div>
          </form>
          <p class="quiet">Kept are your words and the photo, and nothing of you. Please show no people.</p>
        }
      } @else if (fault(); as text) {
        <h1>Trees of your place</h1>
        <p class="problem" role="alert">{{ text }}</p>
      } @else {
        <p role="status">Opening…</p>
      }
    </main>
  `,
  styleUrl: '../day/join-page.scss',
  styles: `
    :host {
      align-self: flex-start;
    }
  `,
})
export class ToldPage {
  protected readonly textOf = textOf;
  readonly token = input.required<string>();
  private readonly doors = inject(ToldService);
  protected readonly place = signal<OpenTold | null>(null);
  protected readonly ref = signal('');
  protected readonly words = signal('');
  protected readonly picture = signal<File | null>(null);
  protected readonly told = signal(false);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  /** Sent again after a cut line it is the same report. */
  private id = uuidv7();

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.run(async () => this.place.set(await firstValueFrom(this.doors.open(token)))));
    });
  }

  protected async send(event: Event): Promise<void> {
    event.preventDefault();
    const words = this.words().trim();
    if (words === '') {
      this.fault.set('Say in a few words what you see.');
      return;
    }
    await this.run(async () => {
      const file = this.picture();
      // A picture that cannot be read is said before anything is sent.
      const small = file && (await shrinkPhoto(file));
      await firstValueFrom(this.doors.tell(this.token(), { id: this.id, ref: this.ref() || null, words }));
      if (small) await firstValueFrom(this.doors.photo(this.token(), this.id, small));
      this.told.set(true);
    });
  }

  protected another(): void {
    this.id = uuidv7();
    this.ref.set('');
    this.words.set('');
    this.picture.set(null);
    this.told.set(false);
  }

  private async run(act: () => Promise<unknown>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      await act();
    } catch (error) {
      this.fault.set(error instanceof TypeError ? `${error.message}.` : sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
