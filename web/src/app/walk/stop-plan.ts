import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { digDepthMm, formatQuantity, wholePlan } from '@sombra/core';
import type { Stop } from '../along/stop';
import { PlantingSteps } from '../drawing/planting-steps';
import { SessionService } from '../session/session.service';

/** The numbers of a tree that is about to be planted, large, and its steps with their pictures; out of what the device holds. */
@Component({
  selector: 's-stop-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PlantingSteps],
  template: `
    @if (plan(); as all) {
      <dl>
        @for (line of numbers(); track line.name) {
          <div>
            <dt>{{ line.name }}</dt>
            <dd>{{ line.value }}</dd>
          </div>
        }
      </dl>
      <s-planting-steps [steps]="all.steps" />
    } @else {
      <p class="caution">No pit plan stands for this spot: ask before anything is dug.</p>
    }
  `,
  styles: `
    dl {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 0.3rem 0.8rem;
      margin: 0.6rem 0;
    }
    dt {
      font-weight: 400;
      font-size: 1rem;
    }
    dd {
      margin: 0;
      font-size: 1.5rem;
      font-weight: 700;
    }
  `,
})
export class StopPlan {
  readonly stop = input.required<Stop>();
  private readonly session = inject(SessionService);
  protected readonly plan = computed(() => {
    const { life, detail } = this.stop();
    const plan = life && detail ? wholePlan(life, { work: detail.rules.work }) : null;
    return plan?.kind === 'plan' ? plan : null;
  });
  protected readonly numbers = computed(() => {
    const plan = this.plan();
    if (!plan) return [];
    const { pit, stakes } = plan;
    const mm = (value: number) => formatQuantity(value, 'lengthMm', this.session.units());
    return [
      { name: 'Dig, at the uphill edge', value: mm(digDepthMm(pit)) },
      { name: 'Wide', value: mm(pit.widthMm.value) },
      { name: 'Flare above grade', value: mm(pit.proudMm.value) },
      { name: 'First water', value: formatQuantity(pit.firstWaterL.value, 'volumeL', this.session.units()) },
      { name: 'Stakes', value: String(stakes?.stakes ?? 0) },
      { name: 'Weighs about', value: formatQuantity(pit.massKg.value, 'massKg', this.session.units()) },
      { name: 'Lifted by', value: plan.carry.means === 'people' ? `${plan.carry.people} people` : plan.carry.means },
    ];
  });
}
