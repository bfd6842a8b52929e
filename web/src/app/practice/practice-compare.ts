import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import {
  choiceTable,
  choiceValue,
  formatQuantity,
  materials,
  nearestPreset,
  plantingPlan,
  practiceDifferences,
  sayAmount,
  sayReason,
  type Assessment,
  type Choice,
  type ChoiceValue,
  type GroundFacts,
  type MaterialCode,
  type PlantingPlan,
  type Practice,
  type Quantity,
  type Stock,
  type WorkRules,
} from '@sombra/core';
import { PitSectionView } from '../drawing/pit-section-view';
import { PlantingSteps } from '../drawing/planting-steps';
import { SessionService } from '../session/session.service';
import { sayChoice } from './say-choice';

export interface ExampleTree {
  readonly name: string;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  /** Where its spot is, and when it is planted, as far as that is known. */
  readonly sunDeg?: number | null;
  readonly autumn?: boolean;
}

interface Side {
  readonly practice: Practice;
  readonly plan: PlantingPlan | null;
  /** Why there is no plan, and which shipped practice covers this stock. */
  readonly none: string;
}

/** One practice, or two side by side, on the same tree: the pit, what it takes, and where they choose otherwise. */
@Component({
  selector: 's-practice-compare',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet, PitSectionView, PlantingSteps],
  template: `
    @if (!brief()) {
      <ng-container [ngTemplateOutlet]="drawn" [ngTemplateOutletContext]="{ shown: sides() }" />
    }
    <table class="plain numbers">
      <thead>
        <tr>
          <th scope="col">For one tree</th>
          @for (side of sides(); track $index) {
            <th scope="col" class="num">{{ side.practice.name }}</th>
          }
        </tr>
      </thead>
      <tbody>
        @for (row of numbers(); track row.name) {
          <tr [class.differs]="row.differs">
            <th scope="row">{{ row.name }}</th>
            @for (value of row.values; track $index) {
              <td class="num">{{ value }}</td>
            }
          </tr>
        }
      </tbody>
    </table>
    @if (brief()) {
      <ng-container [ngTemplateOutlet]="drawn" [ngTemplateOutletContext]="{ shown: sides().slice(-1) }" />
    }
    @if (!brief()) {
      <h2>Steps</h2>
      <div class="sides" [class.two]="sides().length === 2">
        @for (side of sides(); track $index) {
          <div>
            @if (side.plan; as plan) {
              <s-planting-steps [steps]="plan.steps" [name]="side.practice.name" />
            }
          </div>
        }
      </div>
      <h2>{{ b() ? 'Where they choose otherwise' : 'What it chooses, and who holds it' }}</h2>
      <table class="plain">
        <tbody>
          @for (row of choices(); track row.choice.path) {
            <tr>
              <th scope="row">
                {{ row.choice.name }}
                @if (row.choice.research) {
                  <br /><span class="quiet">{{ row.choice.research }}</span>
                }
              </th>
              @for (said of row.said; track $index) {
                <td>
                  <b>{{ said.value }}</b><br /><span class="quiet">{{ said.held }}</span>
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    }
    <ng-template #drawn let-shown="shown">
      <div class="sides" [class.two]="shown.length === 2">
        @for (side of shown; track $index) {
          <section [attr.aria-label]="side.practice.name">
            <h2>{{ side.practice.name }}</h2>
            @if (side.plan; as plan) {
              <s-pit-section
                [planned]="{
                  plan: plan.pit,
                  stock: tree().stock,
                  ground: tree().ground,
                  practice: side.practice,
                  stakes: plan.stakes,
                }"
              />
            } @else {
              <p class="problem">{{ side.none }}</p>
            }
          </section>
        }
      </div>
    </ng-template>
  `,
  styles: `
    .sides.two {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0 1.5rem;
    }
    .numbers {
      margin-bottom: 1rem;
    }
    tbody th {
      color: var(--ink);
      font-weight: 500;
      font-size: 1rem;
      max-width: 18rem;
    }
    .differs td {
      font-weight: 700;
    }
  `,
})
export class PracticeCompare {
  readonly a = input.required<Practice>();
  readonly b = input<Practice | null>(null);
  readonly tree = input.required<ExampleTree>();
  readonly work = input.required<WorkRules>();
  /** Drawing and numbers alone, beside something else. */
  readonly brief = input(false);
  private readonly session = inject(SessionService);

  protected readonly sides = computed((): Side[] => {
    const { stock, ground, assessment, sunDeg, autumn } = this.tree();
    return [this.a(), this.b()]
      .filter((one) => one !== null)
      .map((practice) => {
        const plan = plantingPlan({ practice, stock, ground, assessment, sunDeg, autumn, work: this.work() });
        if (plan.kind === 'plan') return { practice, plan, none: '' };
        const why = plan.because.map((reason) => sayReason(reason, this.session.units())).join(' ');
        const nearest = nearestPreset(practice, stock.kind);
        const instead = nearest.id === practice.id ? '' : ` The nearest that does: ${nearest.name}.`;
        return { practice, plan: null, none: why + instead };
      });
  });

  protected readonly numbers = computed(() => {
    const units = this.session.units();
    const row = (name: string, say: (plan: PlantingPlan) => string) => {
      const values = this.sides().map(({ plan }) => (plan ? say(plan) : '–'));
      return { name, values, differs: values.length === 2 && values[0] !== values[1] };
    };
    const quantity = (name: string, kind: Quantity, of: (plan: PlantingPlan) => number | null) =>
      row(name, (plan) => {
        const value = of(plan);
        return value === null ? 'by balance or probe' : formatQuantity(value, kind, units);
      });
    const codes = new Set(this.sides().flatMap(({ plan }) => Object.keys(plan?.materials ?? {}) as MaterialCode[]));
    codes.delete('water');
    return [
      quantity('Flare above grade', 'lengthMm', ({ pit }) => pit.proudMm.value),
      quantity('Depth of the pit', 'lengthMm', ({ pit }) => pit.depthMm.value),
      quantity('Width of the pit', 'lengthMm', ({ pit }) => pit.widthMm.value),
      quantity('Soil to dig', 'volumeL', ({ pit }) => pit.soil.dugL),
      quantity('broken in from the sides', 'volumeL', ({ pit }) => pit.soil.cavedL),
      quantity('drawn up to the ball', 'volumeL', ({ pit }) => pit.soil.moundL + pit.soil.bankL),
      quantity('into the berm', 'volumeL', ({ pit }) => pit.soil.bermL),
      quantity('Soil left over, loose', 'volumeL', ({ pit }) => pit.spoilL.value),
      ...[...codes].map((code) =>
        row(materials[code].name, ({ materials: amounts }) => {
          const amount = amounts[code] ?? 0;
          return amount === 0 ? 'none' : sayAmount(code, amount, units);
        }),
      ),
      quantity('First water', 'volumeL', ({ pit }) => pit.firstWaterL.value),
      quantity('Water a week, first season', 'volumeL', ({ routine }) => routine.weeklyL),
      quantity('Person-hours', 'hours', ({ labour }) => labour.hours),
      row('Steps', ({ steps }) => String(steps.length)),
    ];
  });

  protected readonly choices = computed(() => {
    const [a, b] = [this.a(), this.b()];
    const shown: Choice[] = b
      ? practiceDifferences(a, b).map(({ choice }) => choice)
      : choiceTable
          .flatMap(({ choices }) => choices)
          .filter(({ idleWhile }) => !idleWhile || choiceValue(a, idleWhile.path) !== idleWhile.value);
    return shown.map((choice) => ({
      choice,
      said: [a, b]
        .filter((one) => one !== null)
        .map((practice) => this.said(choice, choiceValue(practice, choice.path))),
    }));
  });

  private said(choice: Choice, value: ChoiceValue): { value: string; held: string } {
    const held = choice.kind === 'option' ? (choice.options[String(value)]?.held ?? '') : choice.held;
    return { value: sayChoice(choice, value, this.session.units()), held };
  }
}
