import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Problem } from '@sombra/contract';
import { sayProblem } from './problem';

export type NoteKind = 'empty' | 'loading' | 'failed' | 'offline' | 'denied';

const icons: Readonly<Record<NoteKind, string>> = {
  empty: 'bi-inbox',
  loading: 'bi-hourglass-split',
  failed: 'bi-exclamation-octagon-fill',
  offline: 'bi-wifi-off',
  denied: 'bi-shield-lock-fill',
};

const titles: Readonly<Record<NoteKind, string>> = {
  empty: 'Nothing here',
  loading: 'One moment',
  failed: 'This could not be shown',
  offline: 'The server cannot be reached',
  denied: 'Your role does not open this',
};

const kept = 'What you record meanwhile is kept on this device and sent when it answers again.';

/** What a place says when it has nothing to show: why, and what to do about it. */
@Component({
  selector: 's-state-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <i class="bi {{ icon() }}" aria-hidden="true"></i>
    <div [attr.role]="shown() === 'loading' || shown() === 'empty' ? 'status' : 'alert'">
      <b>{{ title() || word() }}</b>
      <p>{{ said() }}<ng-content /></p>
      @if (canRetry()) {
        <button type="button" class="btn btn-outline-primary" (click)="again.emit()">Try again</button>
      }
      @if (shown() === 'offline') {
        <a class="btn btn-link" href="/along">What is on this device</a>
      }
    </div>
  `,
  host: { '[class]': 'shown()' },
  styles: `
    :host {
      display: grid;
      grid-template-columns: 2.2rem 1fr;
      gap: 0.75rem;
      padding: 1.25rem;
      align-items: start;
    }
    i {
      font-size: 1.7rem;
      color: var(--quiet);
    }
    :host.failed i,
    :host.denied i {
      color: var(--urgent);
    }
    :host.offline i {
      color: var(--act);
    }
    p {
      margin: 0.15rem 0 0.6rem;
      max-width: 34rem;
    }
  `,
})
export class StateNote {
  readonly kind = input<NoteKind>('empty');
  readonly title = input('');
  readonly text = input('');
  /** Where there is one, it says what kind of state this is. */
  readonly problem = input<Problem | null>(null);
  readonly again = output();

  protected readonly shown = computed<NoteKind>(() => {
    const problem = this.problem();
    if (!problem) return this.kind();
    if (problem.status === 0 || problem.status === 503) return 'offline';
    return problem.status === 403 ? 'denied' : 'failed';
  });
  protected readonly icon = computed(() => icons[this.shown()]);
  protected readonly word = computed(() => titles[this.shown()]);
  protected readonly said = computed(() => {
    const problem = this.problem();
    if (!problem) return this.text();
    return this.shown() === 'offline' ? `${kept} ` : `${sayProblem(problem)} `;
  });
  protected readonly canRetry = computed(() => this.shown() === 'failed' || this.shown() === 'offline');
}
