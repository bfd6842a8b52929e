import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { remedyWords, sayReason, type Finding } from '@sombra/core';
import { LevelMark } from './level-mark';
import { SessionService } from '../session/session.service';

/** Findings, worst first: level, why, what to do, and the caution where one applies. */
@Component({
  selector: 's-findings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LevelMark],
  template: `
    <ul>
      @for (line of lines(); track $index) {
        <li>
          <s-level-mark [level]="line.level" />
          <div>
            <span class="why">{{ line.because }}</span>
            @if (line.remedy) {
              <b>{{ line.remedy.act }}.</b> {{ line.remedy.how }}
              @if (line.remedy.caution) {
                <small>{{ line.remedy.caution }}</small>
              }
            }
          </div>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 6rem 1fr;
      gap: 0.75rem;
      padding: 0.45rem 0;
      border-bottom: 1px solid var(--line);
    }
    .why {
      display: block;
    }
    small {
      display: block;
      color: var(--act);
    }
  `,
})
export class FindingsList {
  readonly findings = input.required<readonly Finding[]>();
  private readonly session = inject(SessionService);
  protected readonly lines = computed(() =>
    this.findings().map((finding) => ({
      level: finding.level,
      because: sayReason(finding.because, this.session.units()),
      remedy: finding.remedy === 'none' ? null : remedyWords[finding.remedy],
    })),
  );
}
