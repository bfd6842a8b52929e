import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { displays, fieldText, formatQuantity, limits, type PlantingPlan } from '@sombra/core';
import { TypedQuantity } from '../fields/typed-quantity';
import { BecauseList } from '../ui/because-list';
import { SessionService } from '../session/session.service';
import { textOf } from '../fields/event-values';

/** The way from the kerb where it is not as the assessment has it. */
export interface Route {
  readonly distanceM?: number;
  readonly slopePct?: number;
}

/** How the tree comes from the kerb to its pit: people, trolley or machine, by its weight and the way. */
@Component({
  selector: 's-carry-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BecauseList],
  template: `
    <h2>{{ words() }}</h2>
    <div class="route">
      <label
        >From the kerb
        <span
          ><input
            class="form-control"
            inputmode="decimal"
            [attr.aria-label]="'From the kerb, ' + unit()"
            [placeholder]="measured().distance"
            [value]="entries.distanceM.text()"
            (input)="type('distanceM', textOf($event))"
          />
          {{ unit() }}</span
        ></label
      >
      <label
        >Slope of the way
        <span
          ><input
            class="form-control"
            inputmode="decimal"
            aria-label="Slope of the way, %"
            [placeholder]="measured().slope"
            [value]="entries.slopePct.text()"
            (input)="type('slopePct', textOf($event))"
          />
          %</span
        ></label
      >
    </div>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <s-because [reasons]="planting().carry.because" />
    <p class="caution">
      Lift with the legs, by the ball or container, never by the trunk. Roll heavy balls on boards. Nobody stands
      downhill of a trolley or under a load; a machine is driven by who is licensed for it.
    </p>
  `,
  styles: `
    h2 {
      margin-top: 1rem;
    }
    .route {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem 1.4rem;
      span {
        display: flex;
        gap: 0.4rem;
        align-items: center;
      }
      input {
        width: 6rem;
        min-height: 44px;
      }
    }
  `,
})
export class CarryPanel {
  protected readonly textOf = textOf;
  readonly planting = input.required<PlantingPlan>();
  /** Distance as the assessment has it; `null` where nobody measured it. Metres. */
  readonly kerbM = input<number | null>(null);
  readonly slopePct = input<number | null>(null);
  readonly route = output<Route>();
  private readonly session = inject(SessionService);
  protected readonly entries: Readonly<Record<keyof Route, TypedQuantity>> = {
    distanceM: new TypedQuantity(() => ({ quantity: 'distanceM', units: this.session.units(), range: limits.carryM })),
    slopePct: new TypedQuantity(() => ({
      quantity: 'slopePct',
      units: this.session.units(),
      range: limits.waySlopePct,
    })),
  };
  protected readonly fault = computed(() => {
    const say = (name: string, fault: string | null) =>
      fault && `${name}: ${fault.charAt(0).toLowerCase()}${fault.slice(1)}.`;
    return (
      say('From the kerb', this.entries.distanceM.fault()) ?? say('Slope of the way', this.entries.slopePct.fault())
    );
  });
  protected readonly unit = computed(() => displays.distanceM[this.session.units()].unit);
  protected readonly measured = computed(() => {
    const kerbM = this.kerbM();
    const distance = kerbM === null ? '' : fieldText(kerbM, 'distanceM', this.session.units());
    return { distance, slope: String(this.slopePct() ?? 0) };
  });
  protected readonly words = computed(() => {
    const { carry, pit } = this.planting();
    const kg = formatQuantity(pit.massKg.value, 'massKg', this.session.units());
    const people = carry.people === 1 ? 'one person' : `${carry.people} people`;
    if (carry.means === 'people') return `${kg}: carried by ${people}`;
    return carry.means === 'trolley'
      ? `${kg}: trolley and boards, ${people}`
      : `${kg}: by machine, ${people} beside it`;
  });

  protected type(key: keyof Route, text: string): void {
    this.entries[key].type(text);
    if (this.entries[key].fault()) return;
    const given = Object.entries(this.entries).map(([name, entry]) => [name, entry.value()] as const);
    this.route.emit(Object.fromEntries(given.filter(([, value]) => value !== null)));
  }
}
