import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatQuantity, sayReason, type PitPlan, type Quantity, type Reason } from '@sombra/core';
import { SessionService } from '../session/session.service';

interface Line {
  readonly name: string;
  readonly value: string;
  readonly because: readonly string[];
}

/** Every number of a pit plan, each with its reason beside it. */
@Component({
  selector: 's-pit-numbers',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <caption class="visually-hidden">
        Numbers of the pit plan
      </caption>
      <tbody>
        @for (line of lines(); track line.name) {
          <tr>
            <th scope="row">{{ line.name }}</th>
            <td class="num">{{ line.value }}</td>
            <td class="why">
              @for (sentence of line.because; track $index) {
                <span>{{ sentence }} </span>
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    table {
      width: 100%;
    }
    tr {
      display: grid;
      grid-template-columns: 1fr auto;
      border-bottom: 1px solid var(--line);
      padding: 0.35rem 0;
    }
    th,
    td {
      font-size: 1rem;
      font-weight: 500;
    }
    .num {
      font-weight: 700;
      text-align: right;
      font-variant-numeric: tabular-nums lining-nums;
    }
    .why {
      grid-column: 1 / -1;
      color: var(--quiet);
      font-size: 0.94rem;
    }
  `,
})
export class PitNumbers {
  readonly plan = input.required<PitPlan>();
  private readonly session = inject(SessionService);

  protected readonly lines = computed<Line[]>(() => {
    const plan = this.plan();
    const units = this.session.units();
    const say = (reasons: readonly Reason[]) => reasons.map((reason) => sayReason(reason, units));
    const line = (name: string, number: { value: number; because: readonly Reason[] }, quantity: Quantity): Line => ({
      name,
      value: formatQuantity(number.value, quantity, units),
      because: say(number.because),
    });
    const { team } = plan.lifting;
    const mixed = plan.amendments.each;
    const mixedL = mixed.reduce((sum, { litres }) => sum + litres, 0);
    return [
      line('Depth at the uphill edge', plan.depthMm, 'lengthMm'),
      line('Width at grade', plan.widthMm, 'lengthMm'),
      line('Flare above grade', plan.proudMm, 'lengthMm'),
      line('Downhill edge stands', plan.downhillProudMm, 'lengthMm'),
      line('Pit', plan.pitL, 'volumeL'),
      line(mixed.length > 0 ? 'Backfill' : 'Backfill, site soil', plan.backfillL, 'volumeL'),
      ...(plan.amendments.because.some(({ code }) => code !== 'amendment_none')
        ? [line('Mixed in', { value: mixedL, because: plan.amendments.because }, 'volumeL')]
        : []),
      plan.soil.boughtL > 0
        ? line('Topsoil bought', { value: plan.soil.boughtL, because: plan.spoilL.because }, 'volumeL')
        : line('Loose soil left over', plan.spoilL, 'volumeL'),
      line('Mulch', plan.mulchL, 'volumeL'),
      line('First water', plan.firstWaterL, 'volumeL'),
      {
        name: 'Berm',
        value: plan.berm ? formatQuantity(plan.berm.heightMm, 'lengthMm', units) : 'none',
        because: say(plan.bermBecause),
      },
      line('Mass as received', plan.massKg, 'massKg'),
      {
        name: 'Lifting',
        value: team.kind === 'people' ? `${team.people} ${team.people === 1 ? 'person' : 'people'}` : 'equipment',
        because: say(plan.lifting.because),
      },
    ];
  });
}
