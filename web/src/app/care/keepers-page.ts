import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { Keeper, Problem } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { sayNext } from '../water/say-next';
import { CareService } from './care.service';
import { WordAnswer } from './word-answer';

const groups = ['waits', 'silent', 'due', 'fine'] as const;
type Group = (typeof groups)[number];
export const groupNames: Readonly<Record<Group, string>> = {
  waits: 'Wait for an answer',
  silent: 'Silent',
  due: 'Asked to water',
  fine: 'All well',
};
const groupOf = ({ open, state }: Keeper): Group => (open.length > 0 ? 'waits' : state);

/** All who keep a tree: who waits for an answer, who has gone silent though their tree asks, and when each was heard of. */
@Component({
  selector: 's-keepers-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, WordAnswer],
  template: `
    <h1>Keepers of trees</h1>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (keepers(); as all) {
      @if (all.length === 0) {
        <s-state-note
          kind="empty"
          title="Nobody keeps a tree yet"
          text="Open a planted tree and give it to who lives by it: they get a link that says when it wants water, and how much in their own buckets."
        />
      } @else {
        <div class="groups" role="group" aria-label="Which keepers">
          @for (one of groups; track one) {
            <button
              type="button"
              [class]="one"
              [attr.aria-pressed]="group() === one"
              (click)="view.set({ group: group() === one ? null : one })"
            >
              <b>{{ counts()[one] }}</b> {{ names[one] }}
            </button>
          }
          <a class="btn btn-outline-primary" href="/api/care/keepers.csv" download>CSV</a>
        </div>
        <p class="quiet">
          Silent is who was asked to water and not heard of since: the tree asks at half of what it can drink, days
          before a leaf shows it.
        </p>
        <div class="scroll" tabindex="0" role="region" aria-label="Keepers">
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">Tree</th>
                <th scope="col">Keeper</th>
                <th scope="col">Next water</th>
                <th scope="col">Heard of</th>
                <th scope="col">Reminded</th>
                <th scope="col">Told</th>
              </tr>
            </thead>
            <tbody>
              @for (line of lines(); track line.id) {
                <tr>
                  <th scope="row">
                    <a [routerLink]="['/tree', line.treeId]">{{ line.ref }}</a>
                    <span class="quiet">{{ line.place }}</span>
                  </th>
                  <td>
                    {{ line.name }}
                    @if (line.stands) {
                      <span class="quiet under">{{ line.stands }}</span>
                    }
                    @if (line.group === 'silent') {
                      <span class="silent-word">silent</span>
                    }
                  </td>
                  <td>{{ line.nextWords }}</td>
                  <td>{{ line.heard }}</td>
                  <td>{{ line.reminded }}</td>
                  <td>
                    @for (word of line.open; track word.id) {
                      <s-word-answer [word]="word" (answered)="read()" />
                    }
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td colspan="6">No keeper is in this group.</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Asking who keeps which tree…" />
    }
  `,
  styleUrl: '../ui/group-buttons.scss',
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
    }
    .scroll {
      overflow-x: auto;
    }
    tbody th,
    tbody td {
      vertical-align: top;
    }
    th .quiet,
    .under {
      display: block;
      font-weight: 400;
      font-size: 0.92rem;
    }
    .silent-word {
      color: var(--act);
      font-weight: 700;
    }
    @media (max-width: 900px) {
      :host {
        padding: 0.75rem;
      }
    }
  `,
})
export class KeepersPage {
  private readonly doors = inject(CareService);
  private readonly session = inject(SessionService);
  protected readonly view = inject(ViewState);
  protected readonly groups = groups;
  protected readonly names = groupNames;
  protected readonly keepers = signal<readonly Keeper[] | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly group = computed((): Group | undefined => groups.find((one) => one === this.view.text('group')));
  protected readonly counts = computed(() => {
    const counts: Record<Group, number> = { waits: 0, silent: 0, due: 0, fine: 0 };
    for (const keeper of this.keepers() ?? []) counts[groupOf(keeper)] += 1;
    return counts;
  });
  protected readonly lines = computed(() => {
    const of = { today: this.session.today(), units: this.session.units() };
    const asked = this.group();
    return (this.keepers() ?? [])
      .filter((keeper) => asked === undefined || groupOf(keeper) === asked)
      .map((keeper) => ({
        ...keeper,
        group: groupOf(keeper),
        stands: keeper.deputyOf
          ? `for ${keeper.deputyOf}, ${sayDay(keeper.fromDay ?? '')} to ${sayDay(keeper.untilDay ?? '')}`
          : '',
        nextWords: keeper.next ? sayNext(keeper.next, of) : 'not followed',
        heard: keeper.heardOn ? sayDay(keeper.heardOn) : `not yet; since ${sayDay(keeper.since)}`,
        reminded: keeper.remindedOn
          ? sayDay(keeper.remindedOn)
          : keeper.hasAddress
            ? keeper.wantsLetters
              ? 'not yet'
              : 'wants none'
            : 'no address',
      }));
  });

  constructor() {
    void this.read();
    inject(LiveService)
      .settled$.pipe(takeUntilDestroyed())
      .subscribe(() => void this.read());
  }

  protected async read(): Promise<void> {
    try {
      this.keepers.set(await firstValueFrom(this.doors.all()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }
}
