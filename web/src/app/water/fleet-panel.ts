import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { Fleet, WaterFillPoint, WaterTruck } from '@sombra/contract';
import { formatQuantity, isMeasured, measuredFacts, type Quantity } from '@sombra/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { MeasureField } from '../fields/measure-field';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { RoundsService } from './rounds.service';

type WithNumbers<T> = { readonly [K in keyof T]: Exclude<T[K], null> };

/** Nobody is led to a street farther off than this. m */
const reachM = 150;
const number = (value: number) => new FormControl<number | null>(value, { nonNullable: true });
const version = () => new FormControl(0, { nonNullable: true });
const words = () => new FormControl('', { nonNullable: true });

/** `-25.4012, 36.9031`: longitude and latitude; `null` for anything else. */
export function readPosition(text: string): [number, number] | null {
  const parts = text.trim().split(/[,;]\s*|\s+/);
  const [lng, lat] = parts.map((part) => (part === '' ? NaN : Number(part)));
  return parts.length === 2 && lng !== undefined && lat !== undefined && Number.isFinite(lng) && Number.isFinite(lat)
    ? [lng, lat]
    : null;
}

/** What water is brought by and where tanks are filled: seen, added, changed, taken out. */
@Component({
  selector: 's-fleet-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MeasureField, ReactiveFormsModule],
  template: `
    <section aria-labelledby="trucks">
      <h2 id="trucks">Trucks and people on foot</h2>
      <table class="plain">
        <tbody>
          @for (truck of trucks(); track truck.id) {
            <tr>
              <td>
                <b>{{ truck.name }}</b><br /><span class="quiet"
                  >{{ said('volumeL', truck.tankL) }}, pours {{ said('flowLPerMin', truck.pourLPerMin) }},
                  {{ said('speedKmPerH', truck.kmPerH) }}{{ truck.onFoot ? ', on foot' : '' }}</span
                >
              </td>
              <td class="acts">
                @if (mayPlan()) {
                  <button type="button" class="btn btn-link" (click)="editTruck(truck)">Change</button>
                }
              </td>
            </tr>
          } @empty {
            <tr>
              <td class="quiet">None yet.</td>
            </tr>
          }
        </tbody>
      </table>
      @if (mayPlan()) {
        @if (truckOpen()) {
          <form [formGroup]="truckForm" (submit)="keepTruck($event)" class="two">
            <label
              >Name <input class="form-control" formControlName="name" maxlength="60" aria-label="Name of the truck"
            /></label>
            <s-measure-field formControlName="tankL" />
            <s-measure-field formControlName="pourLPerMin" />
            <s-measure-field formControlName="kmPerH" />
            <label
              >Stands at (longitude, latitude)
              <input class="form-control" formControlName="where" aria-label="Stands at"
            /></label>
            <label class="tick"><input type="checkbox" formControlName="onFoot" /> On foot</label>
            @if (truckForm.controls.version.value > 0) {
              <label class="tick"><input type="checkbox" formControlName="retired" /> Not in use any more</label>
            }
            <p class="wide">
              <button type="submit" class="btn btn-primary">Store the truck</button>
              <button type="button" class="btn btn-link" (click)="truckOpen.set(false)">Cancel</button>
            </p>
          </form>
        } @else {
          <button type="button" class="btn btn-outline-primary" (click)="newTruck()">Add a truck</button>
        }
      }
      <h2>Fill points</h2>
      <table class="plain">
        <tbody>
          @for (fill of fills(); track fill.id) {
            <tr>
              <td>
                <b>{{ fill.name }}</b><br /><span class="quiet"
                  >{{ said('flowLPerMin', fill.flowLPerMin) }}{{ fill.permit ? ', permit ' + fill.permit : '' }}</span
                >
                @if (fill.far) {
                  <br /><span class="problem">{{ fill.far }}</span>
                }
              </td>
              <td class="acts">
                @if (mayPlan()) {
                  <button type="button" class="btn btn-link" (click)="editFill(fill)">Change</button>
                }
              </td>
            </tr>
          } @empty {
            <tr>
              <td class="quiet">None: every tank lasts for one filling.</td>
            </tr>
          }
        </tbody>
      </table>
      @if (mayPlan()) {
        @if (fillOpen()) {
          <form [formGroup]="fillForm" (submit)="keepFill($event)" class="two">
            <label
              >Name
              <input class="form-control" formControlName="name" maxlength="60" aria-label="Name of the fill point"
            /></label>
            <s-measure-field formControlName="flowLPerMin" />
            <s-measure-field formControlName="connectMinutes" />
            <label
              >At (longitude, latitude) <input class="form-control" formControlName="where" aria-label="Fill point at"
            /></label>
            <label class="wide"
              >Permit
              <input
                class="form-control"
                formControlName="permit"
                maxlength="200"
                placeholder="whose leave, number, until when"
                aria-label="Permit"
            /></label>
            @if (fillForm.controls.version.value > 0) {
              <label class="tick"><input type="checkbox" formControlName="retired" /> Not in use any more</label>
            }
            <p class="wide">
              <button type="submit" class="btn btn-primary">Store the fill point</button>
              <button type="button" class="btn btn-link" (click)="fillOpen.set(false)">Cancel</button>
            </p>
          </form>
        } @else {
          <button type="button" class="btn btn-outline-primary" (click)="newFill()">Add a fill point</button>
        }
      }
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    </section>
  `,
  styles: `
    .two {
      --field-columns: minmax(0, 1fr);
      --field-width: 100%;
      display: grid;
      align-items: start;
      grid-template-columns: 1fr 1fr;
      gap: 0.5rem 1rem;
      margin: 0.5rem 0;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .tick {
      display: flex;
      gap: 0.5rem;
      align-items: center;
      min-height: 44px;
    }
    .acts {
      text-align: right;
      vertical-align: middle;
    }
    h2 {
      margin-top: 1rem;
    }
  `,
})
export class FleetPanel {
  readonly fleet = input.required<Fleet | null>();
  readonly changed = output<Fleet>();
  private readonly doors = inject(RoundsService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly mayPlan = computed(() => this.session.may('plan_rounds'));
  protected readonly truckOpen = signal(false);
  protected readonly fillOpen = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly trucks = computed(() => (this.fleet()?.trucks ?? []).filter(({ retired }) => !retired));
  protected readonly fills = computed(() =>
    (this.fleet()?.fills ?? [])
      .filter(({ retired }) => !retired)
      .map((fill) => ({
        ...fill,
        far:
          fill.fromStreetM !== null && fill.fromStreetM > reachM
            ? `No street within ${reachM} m: the way there is a straight line made longer.`
            : null,
      })),
  );

  protected readonly truckForm = new FormGroup({
    id: words(),
    version: version(),
    name: words(),
    tankL: number(1000),
    pourLPerMin: number(40),
    kmPerH: number(20),
    where: words(),
    onFoot: new FormControl(false, { nonNullable: true }),
    retired: new FormControl(false, { nonNullable: true }),
  });
  protected readonly fillForm = new FormGroup({
    id: words(),
    version: version(),
    name: words(),
    flowLPerMin: number(100),
    connectMinutes: number(5),
    where: words(),
    permit: words(),
    retired: new FormControl(false, { nonNullable: true }),
  });

  protected said(quantity: Quantity, value: number): string {
    return formatQuantity(value, quantity, this.session.units());
  }

  protected newTruck(): void {
    const where = this.trucks()[0]?.depot ?? this.fills()[0]?.position;
    this.truckForm.reset({ id: uuidv7(), version: 0, where: where?.join(', ') ?? '' });
    this.truckOpen.set(true);
  }

  protected editTruck({ depot, ...truck }: WaterTruck): void {
    this.truckForm.reset({ ...truck, where: depot.join(', ') });
    this.truckOpen.set(true);
  }

  protected newFill(): void {
    this.fillForm.reset({ id: uuidv7(), version: 0, where: this.trucks()[0]?.depot.join(', ') ?? '' });
    this.fillOpen.set(true);
  }

  protected editFill({ position, ...fill }: WaterFillPoint): void {
    this.fillForm.reset({ ...fill, where: position.join(', ') });
    this.fillOpen.set(true);
  }

  protected async keepTruck(event: Event): Promise<void> {
    event.preventDefault();
    const { where, ...typed } = this.truckForm.getRawValue();
    const truck = this.complete(this.truckForm, typed);
    if (!truck) return;
    const depot = readPosition(where);
    if (!depot) {
      this.fault.set(`Stands at must be a longitude and a latitude, as -25.4012, 36.9031; got ${where || 'nothing'}.`);
      return;
    }
    if (await this.keep(this.doors.saveTruck({ ...truck, depot }), `${truck.name} stored.`)) this.truckOpen.set(false);
  }

  protected async keepFill(event: Event): Promise<void> {
    event.preventDefault();
    const { where, ...typed } = this.fillForm.getRawValue();
    const fill = this.complete(this.fillForm, typed);
    if (!fill) return;
    const position = readPosition(where);
    if (!position) {
      this.fault.set(`At must be a longitude and a latitude, as -25.4012, 36.9031; got ${where || 'nothing'}.`);
      return;
    }
    if (await this.keep(this.doors.saveFill({ ...fill, position }), `${fill.name} stored.`)) this.fillOpen.set(false);
  }

  /** What was typed where every number is there and within its limits; else says which is not. */
  private complete<T extends Record<string, unknown>>(form: FormGroup, typed: T): WithNumbers<T> | null {
    const wrong = Object.keys(typed).find((name) => form.get(name)?.invalid || typed[name] === null);
    if (wrong === undefined) return typed as WithNumbers<T>;
    const name = isMeasured(wrong) ? measuredFacts[wrong].name : wrong;
    this.fault.set(`${name} is missing or outside its limits.`);
    return null;
  }

  private async keep(act: Observable<Fleet>, done: string): Promise<boolean> {
    this.fault.set(null);
    try {
      this.changed.emit(await firstValueFrom(act));
      this.toasts.say(done);
      return true;
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
      return false;
    }
  }
}
