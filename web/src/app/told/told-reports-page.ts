import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Told } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { textOf } from '../fields/event-values';
import { SpotListService } from '../spot/spot-list.service';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayMoment } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ToldService } from './told.service';

/** What residents told, to become a look or to be dropped with a reason; and the links of places they tell by. */
@Component({
  selector: 's-told-reports-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StateNote],
  template: `
    <h1>Told by residents</h1>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read.reload()" />
    } @else if (reports(); as all) {
      @for (one of all; track one.id) {
        <article [attr.aria-label]="'Told of ' + (one.ref ?? one.place)">
          @if (one.hasPhoto) {
            <a [href]="'/api/told/' + one.id + '/photo'" target="_blank" rel="noopener"
              ><img [src]="'/api/told/' + one.id + '/photo'" alt="Photo that came with it" loading="lazy"
            /></a>
          }
          <div>
            <p class="quiet">{{ one.place }}, {{ say(one.toldAt) }}</p>
            <p class="words">{{ one.words }}</p>
            <div class="acts">
              <label
                >Tree
                <select
                  class="form-select"
                  [attr.aria-label]="'Tree meant by ' + one.words"
                  (change)="choose(one.id, textOf($event))"
                >
                  <option value="">choose</option>
                  @for (tree of one.trees; track tree.spotId) {
                    <option [value]="tree.spotId" [selected]="chosen(one) === tree.spotId">{{ tree.ref }}</option>
                  }
                </select>
              </label>
              <button
                type="button"
                class="btn btn-primary"
                [disabled]="busy() || chosen(one) === ''"
                (click)="look(one)"
              >
                Have it looked at
              </button>
              <input
                class="form-control"
                maxlength="300"
                [attr.aria-label]="'Why nothing is looked at: ' + one.words"
                placeholder="Why nothing is looked at"
                (input)="why(one.id, textOf($event))"
              />
              <button
                type="button"
                class="btn btn-outline-primary"
                [disabled]="busy() || (reasons()[one.id] ?? '').trim() === ''"
                (click)="drop(one)"
              >
                Drop it
              </button>
            </div>
          </div>
        </article>
      } @empty {
        <s-state-note
          kind="empty"
          title="Nothing waits"
          text="What residents tell by a place’s link comes here. It becomes a look at a tree, due at once, with their words; it never is a finding."
        />
      }
    } @else {
      <s-state-note kind="loading" text="Reading what residents told…" />
    }
    @if (mayAnswer) {
      <h2>Links of places</h2>
      <p class="quiet">
        Put up where people pass, on a board or a letter. Whoever has the link may tell; it shows the trees of its place
        by number and kind, and nothing else.
      </p>
      <div class="acts">
        <label
          >Place
          <select class="form-select" aria-label="Place of the link" (change)="place.set(textOf($event))">
            <option value="">choose</option>
            @for (name of places.value() ?? []; track name) {
              <option [value]="name" [selected]="name === place()">{{ name }}</option>
            }
          </select>
        </label>
        <button type="button" class="btn btn-primary" [disabled]="busy() || place() === ''" (click)="make()">
          Make a link
        </button>
      </div>
      @if (made(); as link) {
        <p class="done" role="status">
          <b>{{ link }}</b><br />Copy it now: it is shown this once.
        </p>
      }
      @if ((links.value() ?? []).length > 0) {
        <div class="scroll" tabindex="0" role="region" aria-label="Links of places">
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">Place</th>
                <th scope="col">Made</th>
                <th scope="col" class="num">Told by it</th>
                <th scope="col">Open</th>
              </tr>
            </thead>
            <tbody>
              @for (link of links.value() ?? []; track link.id) {
                <tr>
                  <th scope="row">{{ link.place }}</th>
                  <td>{{ link.madeBy }}, {{ say(link.madeAt) }}</td>
                  <td class="num">{{ link.told }}</td>
                  <td>
                    @if (link.revoked) {
                      taken back
                    } @else {
                      <button
                        type="button"
                        class="btn btn-sm btn-outline-primary"
                        [attr.aria-label]="'Take back the link of ' + link.place"
                        (click)="revoke(link.id)"
                      >
                        Take back
                      </button>
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
      max-width: 76rem;
    }
    article {
      display: flex;
      flex-wrap: wrap;
      gap: 1rem;
      padding: 0.8rem 0;
      border-bottom: 1px solid var(--line);
    }
    article > div {
      flex: 1 1 20rem;
    }
    img {
      width: 180px;
      max-height: 180px;
      object-fit: cover;
    }
    h2 {
      margin-top: 1.6rem;
    }
    .words {
      font-size: 1.1rem;
      overflow-wrap: anywhere;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      align-items: end;
    }
    .acts input {
      flex: 1 1 14rem;
    }
    .done {
      overflow-wrap: anywhere;
    }
    .scroll {
      overflow-x: auto;
      margin-top: 0.8rem;
    }
    @media (max-width: 720px) {
      :host {
        padding: 0.75rem;
      }
    }
  `,
})
export class ToldReportsPage {
  protected readonly textOf = textOf;
  protected readonly say = sayMoment;
  private readonly doors = inject(ToldService);
  private readonly lists = inject(SpotListService);
  private readonly toasts = inject(ToastsService);
  protected readonly read = resource({ loader: () => firstValueFrom(this.doors.reports()) });
  protected readonly problem = computed(() => (this.read.error() ? readProblem(this.read.error()) : null));
  protected readonly mayAnswer = inject(SessionService).may('answer_residents');
  protected readonly reports = computed(() => (this.read.hasValue() ? this.read.value().reports : null));
  protected readonly links = resource({ loader: () => firstValueFrom(this.doors.links()).catch(() => []) });
  protected readonly places = resource({
    loader: () =>
      firstValueFrom(this.lists.facets({})).then(
        ({ places }) => places.map(({ name }) => name),
        () => [],
      ),
  });
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly place = signal('');
  protected readonly made = signal<string | null>(null);
  protected readonly reasons = signal<Readonly<Record<string, string>>>({});
  private readonly picked = signal<Readonly<Record<string, string>>>({});

  constructor() {
    inject(LiveService)
      .settled$.pipe(takeUntilDestroyed())
      .subscribe(() => {
        this.read.reload();
        this.links.reload();
      });
  }

  /** The tree somebody chose here, or the one the resident named. */
  protected chosen(one: Told['reports'][number]): string {
    return this.picked()[one.id] ?? one.trees.find(({ ref }) => ref === one.ref)?.spotId ?? '';
  }
  protected choose(id: string, spotId: string): void {
    this.picked.update((all) => ({ ...all, [id]: spotId }));
  }
  protected why(id: string, reason: string): void {
    this.reasons.update((all) => ({ ...all, [id]: reason }));
  }

  protected look(one: Told['reports'][number]): Promise<void> {
    return this.run(async () => {
      await firstValueFrom(this.doors.look(one.id, this.chosen(one)));
      this.toasts.say('It is looked at: a look is due there today, with these words.');
    });
  }
  protected drop(one: Told['reports'][number]): Promise<void> {
    return this.run(() => firstValueFrom(this.doors.drop(one.id, (this.reasons()[one.id] ?? '').trim())));
  }
  protected make(): Promise<void> {
    return this.run(async () => {
      const path = await firstValueFrom(this.doors.make({ id: uuidv7(), place: this.place() }));
      this.made.set(`${location.origin}${path}`);
    });
  }
  protected revoke(id: string): Promise<void> {
    return this.run(() => firstValueFrom(this.doors.revoke(id)));
  }

  private async run(act: () => Promise<unknown>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      await act();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
      // Refused or not, the list shows what is so by now.
      this.read.reload();
      this.links.reload();
    }
  }
}
