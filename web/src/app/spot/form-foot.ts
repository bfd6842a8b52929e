import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { sayProblem } from '../ui/problem';
import { FormDraft } from './form-draft';
import { RecordSender } from './record-sender';

export interface Difference {
  readonly name: string;
  readonly theirs: string;
  readonly mine: string;
}

/** The foot of every form: what went wrong, whose change came first, and the act. */
@Component({
  selector: 's-form-foot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (sender.conflict(); as conflict) {
      <div class="problem" role="alert">
        <p>{{ conflict.title }}</p>
        <table class="plain">
          <thead>
            <tr>
              <th scope="col">Differs</th>
              <th scope="col">Stored now</th>
              <th scope="col">Yours</th>
            </tr>
          </thead>
          <tbody>
            @for (difference of differences(); track difference.name) {
              <tr>
                <td>{{ difference.name }}</td>
                <td>{{ difference.theirs }}</td>
                <td>{{ difference.mine }}</td>
              </tr>
            } @empty {
              <tr>
                <td colspan="3">Nothing you typed differs from what is stored now.</td>
              </tr>
            }
          </tbody>
        </table>
        <p>Go on with yours to store them over theirs, or take theirs.</p>
        <button type="button" class="btn btn-outline-primary" (click)="keepMine.emit()">Go on with mine</button>
        <button type="button" class="btn btn-link" (click)="takeTheirs.emit()">Take theirs</button>
      </div>
    } @else if (faultText(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (tried() && incomplete()) {
      <p class="problem" role="alert">{{ incomplete() }}</p>
    }
    @if (looksOn()) {
      <p class="quiet">You look on: your role shows what is stored here, and changes nothing of it.</p>
    } @else {
      <div class="acts">
        <button type="submit" class="btn btn-primary" [disabled]="sender.busy()">
          {{ sender.busy() ? 'Storing…' : act() }}
        </button>
        @if (draft.restored()) {
          <span class="quiet">Unsaved typing restored.</span>
          <button type="button" class="btn btn-link" (click)="discard.emit()">Discard it</button>
        }
      </div>
    }
  `,
  styles: `
    .acts {
      display: flex;
      align-items: center;
      gap: 0.75rem;
      padding: 0.75rem 0;
      flex-wrap: wrap;
    }
    p {
      margin: 0 0 0.4rem;
    }
    @media (max-width: 720px) {
      .btn-primary {
        width: 100%;
      }
    }
  `,
})
export class FormFoot {
  readonly act = input.required<string>();
  readonly tried = input(false);
  /** Why the form cannot be stored yet, or null. */
  readonly incomplete = input<string | null>(null);
  /** Where the form and the newest record differ, while there is a conflict. */
  readonly differences = input<readonly Difference[]>([]);
  /** The role of whoever is here may not store this. */
  readonly looksOn = input(false);
  readonly discard = output();
  readonly keepMine = output();
  readonly takeTheirs = output();
  protected readonly sender = inject(RecordSender);
  protected readonly draft = inject(FormDraft);
  protected readonly faultText = computed(() => {
    const problem = this.sender.problem();
    return problem ? sayProblem(problem) + fieldFaults(problem.issues ?? []) : null;
  });
}

/** Faults with the name of their field, for those the form has no place of its own for. */
function fieldFaults(issues: readonly { path: string; message: string }[]): string {
  return issues.map(({ path, message }) => ` ${path.split('.').at(-1) ?? path}: ${message}.`).join('');
}
