import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { sayStep, stepPicture, type PlantingStep } from '@sombra/core';
import { DrawingView } from './drawing-view';
import { SessionService } from '../session/session.service';

/** The steps of this tree by this practice: what to do, the check, the mistake to avoid, the caution. */
@Component({
  selector: 's-planting-steps',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `
    <details>
      <summary>{{ said().length }} steps{{ name() ? ' by ' + name() : '' }}</summary>
      <ol>
        @for (step of said(); track $index) {
          <li>
            @if (step.picture; as picture) {
              <s-drawing [drawing]="picture" />
            }
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
    ol {
      columns: 20rem;
      column-gap: 2.5rem;
    }
    li {
      break-inside: avoid;
      padding: 0.35rem 0;
      border-bottom: 1px solid var(--line);
      clear: both;
      min-height: 2.4rem;
    }
    s-drawing {
      float: right;
      width: 168px;
      margin: 0 0 0.2rem 0.8rem;
    }
    span {
      display: block;
      font-size: 0.94rem;
    }
    li:has(s-drawing) {
      min-height: 118px;
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
  /** Of the practice they go by, where there are several. */
  readonly name = input('');
  private readonly session = inject(SessionService);
  protected readonly said = computed(() =>
    this.steps().map((step) => ({
      code: step.code,
      picture: stepPicture(step, this.session.units()),
      ...sayStep(step, this.session.units()),
    })),
  );
}
