import { ChangeDetectionStrategy, Component, computed, output, signal } from '@angular/core';
import { feelQuestion, firstFeelQuestion, soilNames, type FeelStep, type SoilClass } from '@sombra/core';

/** The guided feel test: one question at a time, to the texture class. */
@Component({
  selector: 's-feel-test',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Feel test" aria-live="polite">
      @if (question(); as asked) {
        <h3>{{ asked.ask }}</h3>
        <p class="quiet">{{ asked.how }}</p>
        <div class="answers">
          @for (answer of asked.answers; track answer.say) {
            <button type="button" class="btn btn-outline-primary" (click)="take(answer.leadsTo)">
              {{ answer.say }}
            </button>
          }
        </div>
      } @else if (found(); as soil) {
        <p>
          By feel: <b>{{ names[soil] }}</b>.
        </p>
        <button type="button" class="btn btn-primary" (click)="chosen.emit(soil)">Take {{ names[soil] }}</button>
      }
      @if (steps().length > 1) {
        <button type="button" class="btn btn-link" (click)="back()">Back</button>
      }
    </section>
  `,
  styles: `
    section {
      border-left: 4px solid var(--soil);
      background: var(--shade);
      padding: 0.6rem 0.9rem;
      margin: 0.3rem 0 0.6rem;
    }
    .answers {
      display: grid;
      gap: 0.35rem;
    }
    .answers .btn {
      min-height: 48px;
      text-align: left;
    }
    p {
      margin: 0 0 0.5rem;
    }
  `,
})
export class FeelTestField {
  readonly chosen = output<SoilClass>();
  protected readonly names = soilNames;
  protected readonly steps = signal<readonly FeelStep[]>([firstFeelQuestion]);
  private readonly step = computed(() => this.steps().at(-1) ?? firstFeelQuestion);
  protected readonly question = computed(() => {
    const step = this.step();
    return step.kind === 'ask' ? feelQuestion(step.id) : null;
  });
  protected readonly found = computed(() => {
    const step = this.step();
    return step.kind === 'soil' ? step.soil : null;
  });

  protected take(step: FeelStep): void {
    this.steps.update((steps) => [...steps, step]);
  }

  protected back(): void {
    this.steps.update((steps) => steps.slice(0, -1));
  }
}
