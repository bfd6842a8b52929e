import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DayDetail } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { readProblem, sayProblem } from '../ui/problem';
import { BuiltReportsService } from './built-reports.service';

/** Trees for residents: first that their ground may be dug and is theirs to plant, then the tree, and a link to tell how it went. */
@Component({
  selector: 's-hand-outs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <h2>{{ given() }} of {{ lines().length }} handed out</h2>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">Tree</th>
          <th scope="col">For</th>
          <th scope="col">May it be dug</th>
          <th scope="col">Handed to</th>
        </tr>
      </thead>
      <tbody>
        @for (line of lines(); track line.spotId) {
          <tr>
            <th scope="row">
              <a [routerLink]="['/ground', line.spotId]" [queryParams]="{ part: 'leave' }">{{ line.ref }}</a>
            </th>
            <td>
              <i>{{ line.species }}</i>, {{ line.place }}
            </td>
            <td>{{ line.lacks || 'yes' }}</td>
            <td>
              @if (line.to) {
                {{ line.to }}
              } @else if (!line.lacks && mayRun()) {
                <span class="row">
                  <input #to class="form-control" maxlength="80" [attr.aria-label]="line.ref + ' is handed to'" />
                  <button
                    type="button"
                    class="btn btn-primary"
                    [disabled]="busy()"
                    [attr.aria-label]="'Hand out ' + line.ref"
                    (click)="give(line.spotId, to.value)"
                  >
                    Hand out
                  </button>
                </span>
              }
              @if (links()[line.spotId]; as path) {
                <p class="link">
                  Link to tell how it was planted, shown once: <b>{{ path }}</b>
                </p>
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    td,
    th {
      vertical-align: middle;
      padding: 0.4rem 0.6rem;
    }
    .row {
      display: flex;
      gap: 0.5rem;
    }
    .btn,
    .form-control {
      min-height: 48px;
    }
    .btn {
      white-space: nowrap;
    }
    .link {
      overflow-wrap: anywhere;
      margin: 0.2rem 0 0;
    }
    @media (max-width: 720px) {
      table,
      tbody,
      tr,
      td {
        display: block;
      }
      thead {
        display: none;
      }
    }
  `,
})
export class HandOuts {
  readonly day = input.required<DayDetail>();
  readonly mayRun = input.required<boolean>();
  readonly busy = input(false);
  readonly handed = output<{ readonly spotId: string; readonly to: string; readonly done: () => void }>();
  private readonly reports = inject(BuiltReportsService);
  protected readonly fault = signal<string | null>(null);
  protected readonly links = signal<Readonly<Record<string, string>>>({});
  protected readonly lines = computed(() => {
    const to = new Map(
      this.day().events.flatMap((event) => (event.kind === 'handed_out' ? [[event.facts.spotId, event.facts.to]] : [])),
    );
    return this.day().trees.map((tree) => ({
      ...tree,
      to: to.get(tree.spotId) ?? (tree.planted ? 'planted' : null),
      lacks:
        tree.cover === 'none'
          ? tree.why
          : tree.leaveMissing
            ? 'The consent or permit it asks for is missing.'
            : tree.stock !== 'accepted'
              ? 'Yes, but no tree was received and accepted.'
              : '',
    }));
  });
  protected readonly given = computed(() => this.lines().filter(({ to }) => to !== null).length);

  protected give(spotId: string, typed: string): void {
    const to = typed.trim();
    if (to === '') {
      this.fault.set('Whom the tree is handed to must not be empty.');
      return;
    }
    this.fault.set(null);
    this.handed.emit({ spotId, to, done: () => void this.ask(spotId, to) });
  }

  /** The link goes with the tree; without a network it is made later, at its spot. */
  private async ask(spotId: string, owner: string): Promise<void> {
    try {
      const path = await firstValueFrom(this.reports.ask(spotId, { id: uuidv7(), owner }));
      this.links.update((before) => ({ ...before, [spotId]: `${location.origin}${path}` }));
    } catch (error) {
      this.fault.set(`The link was not made: ${sayProblem(readProblem(error))} Make it at the spot, under Day.`);
    }
  }
}
