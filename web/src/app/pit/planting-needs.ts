import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import {
  compassPoint,
  formatNumber,
  formatQuantity,
  sayAmount,
  labourTaskNames,
  materialCodes,
  materials,
  pitTop,
  type GroundFacts,
  type PlantingPlan,
} from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { BecauseList } from '../ui/because-list';
import { SessionService } from '../session/session.service';

/** What the tree takes besides its hole: the pit from above with its stakes, materials, hours, water afterwards. */
@Component({
  selector: 's-planting-needs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, BecauseList],
  template: `
    <section>
      <h2>{{ stakeWords() }}</h2>
      <s-drawing [drawing]="top()" />
      <s-because [reasons]="planting().stakeBecause" />
      <s-because [reasons]="planting().facing.because" />
    </section>
    <section>
      <h2>Materials and hours</h2>
      <table class="plain">
        <tbody>
          @for (line of needs(); track line.name) {
            <tr>
              <td>
                {{ line.name }}
                @if (line.because.length > 0) {
                  <s-because [reasons]="line.because" />
                }
              </td>
              <td class="num">{{ line.amount }}</td>
            </tr>
          }
          <tr>
            <td>
              Person-hours<br /><span class="quiet">{{ tasks() }}</span>
              <s-because [reasons]="planting().labour.because" />
            </td>
            <td class="num">{{ hours() }}</td>
          </tr>
          <tr>
            <td>
              Water a week, first season
              <s-because [reasons]="planting().routine.because" />
            </td>
            <td class="num">{{ weekly() }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0 2rem;
    }
    h2 {
      margin-top: 1rem;
    }
  `,
})
export class PlantingNeeds {
  readonly planting = input.required<PlantingPlan>();
  readonly ground = input.required<GroundFacts>();
  readonly windsDeg = input.required<readonly number[]>();
  readonly pavementDeg = input<number | null>(null);
  private readonly session = inject(SessionService);

  protected readonly top = computed(() =>
    pitTop({
      plan: this.planting().pit,
      stakes: this.planting().stakes,
      ground: this.ground(),
      windsDeg: this.windsDeg(),
      pavementDeg: this.pavementDeg(),
      bestFaceDeg: this.planting().facing.bestFaceDeg,
      units: this.session.units(),
      widthPx: 380,
    }),
  );
  protected readonly stakeWords = computed(() => {
    const { stakes } = this.planting();
    if (!stakes) return 'No stake';
    const mm = (value: number) => formatQuantity(value, 'lengthMm', this.session.units());
    const where =
      stakes.bearingsDeg.length > 0
        ? ` to ${stakes.bearingsDeg.map(compassPoint).join(' and ')}`
        : stakes.alongStrip
          ? ' along the strip'
          : '';
    return `${stakes.stakes === 1 ? 'One stake' : `${stakes.stakes} stakes`}${where}, ${mm(stakes.fromTrunkMm)} out, tie at ${mm(stakes.heightMm)}`;
  });
  /** What the tree takes, and what it might have taken where that has a reason. */
  protected readonly needs = computed(() => {
    const { materials: amounts, materialsBecause } = this.planting();
    return materialCodes
      .map((code) => ({ code, amount: amounts[code] ?? 0, because: materialsBecause[code] ?? [] }))
      .filter(({ amount, because }) => amount > 0 || because.length > 0)
      .map(({ code, amount, because }) => ({
        name: materials[code].name,
        amount: amount > 0 ? sayAmount(code, amount, this.session.units()) : 'none',
        because,
      }));
  });
  protected readonly hours = computed(() => formatNumber(this.planting().labour.hours, 1));
  protected readonly tasks = computed(() =>
    this.planting()
      .labour.tasks.map(({ task, minutes }) => `${labourTaskNames[task]} ${formatNumber(minutes, 0)} min`)
      .join(', '),
  );
  protected readonly weekly = computed(() => {
    const { weeklyL, firstWeeks } = this.planting().routine;
    const usual = weeklyL === null ? 'as it dries' : formatQuantity(weeklyL, 'volumeL', this.session.units());
    if (!firstWeeks) return usual;
    const { everyDays, weeks } = firstWeeks;
    return `${usual}; at first every ${everyDays === 1 ? 'day' : `${formatNumber(everyDays, 1)} days`}, ${weeks} ${weeks === 1 ? 'week' : 'weeks'}`;
  });
}
