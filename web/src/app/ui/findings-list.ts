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
              <b>{{ line.remedy.act }}.</b>
              @if (line.how) {
                {{ line.how }}
              }
              @if (line.caution) {
                <small>{{ line.caution }}</small>
              }
            }
          </div>
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      container-type: inline-size;
    }
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
    @container (max-width: 24rem) {
      li {
        grid-template-columns: minmax(0, 1fr);
        gap: 0.1rem;
      }
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
    this.findings().map(({ level, because, remedy }, i, all) => {
      const words = remedy === 'none' ? null : remedyWords[remedy];
      const saidBefore = all.slice(0, i).some((other) => other.remedy === remedy);
      return {
        level,
        because: sayReason(because, this.session.units()),
        remedy: words,
        // How, and with what care, is said once of all that ask for the same.
        how: saidBefore ? '' : (words?.how ?? ''),
        caution: saidBefore ? null : (words?.caution ?? null),
      };
    }),
  );
}
