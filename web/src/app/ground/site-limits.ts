import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { sayReason, type SiteEffect, type SiteLimit } from '@sombra/core';
import { SessionService } from '../session/session.service';

/** Each effect has a word and a shape of its own beside its colour. */
const effects: Readonly<Record<SiteEffect, { word: string; icon: string; tone: string }>> = {
  refuse: { word: 'Not here', icon: 'bi-x-octagon-fill', tone: 'urgent' },
  move: { word: 'Move', icon: 'bi-arrows-move', tone: 'urgent' },
  change: { word: 'Change', icon: 'bi-hammer', tone: 'act' },
  unknown: { word: 'Measure', icon: 'bi-question-diamond', tone: 'watch' },
  smaller: { word: 'Limits', icon: 'bi-arrow-bar-down', tone: 'quiet' },
  fine: { word: 'Fine', icon: 'bi-check2', tone: 'good' },
};

/** What the findings at a place do to it, worst first, each with its because. */
@Component({
  selector: 's-site-limits',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (line of lines(); track $index) {
        <li>
          <span [class]="line.tone"><i class="bi {{ line.icon }}" aria-hidden="true"></i> {{ line.word }}</span>
          {{ line.text }}
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      margin: 0 0 0.6rem;
    }
    li {
      display: grid;
      grid-template-columns: 6.2rem 1fr;
      padding: 0.3rem 0;
      border-bottom: 1px solid var(--line);
    }
    span {
      font-weight: 600;
    }
    .urgent {
      color: var(--urgent);
    }
    .act {
      color: var(--act);
    }
    .watch {
      color: var(--watch);
    }
    .quiet {
      color: var(--quiet);
    }
    .good {
      color: var(--good);
    }
  `,
})
export class SiteLimits {
  readonly limits = input.required<readonly SiteLimit[]>();
  private readonly session = inject(SessionService);
  protected readonly lines = computed(() =>
    this.limits().map(({ effect, because }) => ({
      ...effects[effect],
      text: sayReason(because, this.session.units()),
    })),
  );
}
