import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { sayStep, type PlantingStep } from '@sombra/core';
import { SessionService } from '../people/session.service';

/** The steps of this tree by this practice: what to do, the check, the mistake to avoid, the caution. */
@Component({
  selector: 's-planting-steps',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>{{ said().length }} steps</summary>
      <ol>
        @for (step of said(); track step.code) {
          <li>
            <b>{{ step.title }}.</b> {{ step.act }}
            <span class="check"><i class="bi bi-check2" aria-hidden="true"></i> {{ step.check }}</span>
            <span class="avoid"><i class="bi bi-x-lg" aria-hidden="true"></i> Not: {{ step.avoid }}</span>
            @if (step.caution) {
              <span class="danger"
                ><i class="bi bi-exclamation-triangle-fill" aria-hidden="true"></i> {{ step.caution }}</span
              >
            }
          </li>
        }
      </ol>
    </details>
  `,
  styles: `
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
      cursor: pointer;
      font-weight: 600;
    }
    li {
      padding: 0.35rem 0;
      border-bottom: 1px solid var(--line);
    }
    span {
      display: block;
      font-size: 0.94rem;
    }
    .check {
      color: var(--good);
    }
    .avoid {
      color: var(--quiet);
    }
    .danger {
      color: var(--act);
      font-weight: 600;
    }
  `,
})
export class PlantingSteps {
  readonly steps = input.required<readonly PlantingStep[]>();
  private readonly session = inject(SessionService);
  protected readonly said = computed(() =>
    this.steps().map((step) => ({ code: step.code, ...sayStep(step, this.session.units()) })),
  );
}
