import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { ReactiveFormsModule } from '@angular/forms';
import type { ProblemIssue } from '@sombra/contract';
import { limits, stockKinds, stockNames } from '@sombra/core';
import { MeasureField } from '../fields/measure-field';
import type { ProgrammeForm } from './programme-form';

/** The fields of a programme, in two columns: where it is, and what it goes by. */
@Component({
  selector: 's-programme-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MeasureField],
  template: `
    <div class="columns" [formGroup]="form().group">
      <section>
        <h2>Name and place</h2>
        <label for="programme-name">Name of the programme</label>
        <input id="programme-name" class="form-control" formControlName="name" maxlength="80" />
        <small class="fault">{{ faultOf('name') }}</small>
        <label for="programme-lat">Latitude, ° (north is positive)</label>
        <input
          id="programme-lat"
          class="form-control"
          formControlName="latDeg"
          inputmode="decimal"
          (paste)="paste($event)"
          aria-describedby="programme-place"
        />
        <small class="fault">{{ faultOf('latDeg') }}</small>
        <label for="programme-lng">Longitude, ° (east is positive)</label>
        <input
          id="programme-lng"
          class="form-control"
          formControlName="lngDeg"
          inputmode="decimal"
          (paste)="paste($event)"
          aria-describedby="programme-place"
        />
        <small class="fault">{{ faultOf('lngDeg') }}</small>
        <p class="quiet" id="programme-place">
          The middle of the town, up to {{ most }}° north or south: sun, what trees drink and the first map go by it.
          Both can be pasted at once, as 36.9, -25.4.
        </p>
        @if (!readonly()) {
          <button type="button" class="btn btn-outline-primary" (click)="locate()">Where this device is</button>
          <small class="fault" role="status">{{ unlocated() }}</small>
        }
        <s-measure-field formControlName="elevationM" [fault]="faultOf('elevationM')" />
        <label for="programme-zone">Time zone</label>
        <input id="programme-zone" class="form-control" formControlName="timeZone" list="time-zones" />
        <datalist id="time-zones">
          @for (zone of zones; track zone) {
            <option [value]="zone"></option>
          }
        </datalist>
        <small class="fault">{{ faultOf('timeZone') }}</small>
        <label for="programme-currency">Currency, three letters</label>
        <input id="programme-currency" class="form-control short" formControlName="currency" maxlength="3" />
        <small class="fault">{{ faultOf('currency') }}</small>
        <label for="programme-units">Units new people begin with</label>
        <select id="programme-units" class="form-select short" formControlName="units">
          <option value="metric">Metric</option>
          <option value="us">US customary</option>
        </select>
      </section>
      <section>
        <h2>Days</h2>
        <label for="programme-holidays">Holidays, one a line: MM-DD each year, YYYY-MM-DD once</label>
        <textarea id="programme-holidays" class="form-control" rows="7" formControlName="holidays"></textarea>
        <small class="fault">{{ faultOf('holidays') }}</small>
        <h3>Planting windows</h3>
        <p class="quiet">From and to by calendar, MM-DD; a window may pass the new year.</p>
        <div>
          @for (one of form().rows(); track one; let i = $index) {
            <div class="window" [formGroup]="one">
              <select class="form-select" formControlName="stock" [attr.aria-label]="'Window ' + (i + 1) + ', stock'">
                @for (kind of kinds; track kind) {
                  <option [value]="kind">{{ names[kind] }}</option>
                }
              </select>
              <input
                class="form-control"
                formControlName="from"
                placeholder="MM-DD"
                maxlength="5"
                [attr.aria-label]="'Window ' + (i + 1) + ', from'"
              />
              <input
                class="form-control"
                formControlName="to"
                placeholder="MM-DD"
                maxlength="5"
                [attr.aria-label]="'Window ' + (i + 1) + ', to'"
              />
              @if (!readonly()) {
                <button type="button" class="btn btn-link" (click)="form().removeWindow(i)">Remove</button>
              }
              <input
                class="form-control why"
                formControlName="because"
                maxlength="200"
                [attr.aria-label]="'Window ' + (i + 1) + ', because'"
              />
              <small class="fault">{{ faultUnder('windows.' + i) }}</small>
            </div>
          } @empty {
            <p class="quiet">None: any day will do for any stock.</p>
          }
        </div>
        @if (!readonly()) {
          <button type="button" class="btn btn-outline-primary" (click)="form().addWindow()">Add a window</button>
          <button type="button" class="btn btn-link" (click)="form().proposeWindows()">
            Propose for this latitude
          </button>
        }
      </section>
    </div>
  `,
  styles: `
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0 2.5rem;
    }
    label {
      margin-top: 0.6rem;
      display: block;
    }
    .short {
      width: 12rem;
    }
    .window {
      display: grid;
      grid-template-columns: minmax(8rem, 1fr) 6rem 6rem auto;
      gap: 0.3rem;
      padding: 0.4rem 0;
      border-bottom: 1px solid var(--line);
    }
    .why,
    .window .fault {
      grid-column: 1 / -1;
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
    p {
      margin: 0.3rem 0;
    }
    @media (max-width: 720px) {
      .window {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class ProgrammeFields {
  readonly form = input.required<ProgrammeForm>();
  readonly issues = input<readonly ProblemIssue[]>([]);
  readonly readonly = input(false);
  protected readonly most = limits.latDeg.max;
  protected readonly kinds = stockKinds;
  protected readonly names = stockNames;
  protected readonly zones = Intl.supportedValuesOf('timeZone');
  protected readonly unlocated = signal('');
  private readonly byField = computed(
    () => new Map(this.issues().map(({ path, message }) => [path.replace(/^programme\./, ''), message])),
  );

  protected faultOf(field: string): string | null {
    return this.byField().get(field) ?? this.faultUnder(field);
  }

  protected faultUnder(field: string): string | null {
    const under = [...this.byField()].filter(([path]) => path.startsWith(`${field}.`));
    return under.length > 0 ? under.map(([path, message]) => `${path.split('.').at(-1)} ${message}`).join(', ') : null;
  }

  protected paste(event: ClipboardEvent): void {
    if (this.form().placePasted(event.clipboardData?.getData('text') ?? '')) event.preventDefault();
  }

  protected locate(): void {
    this.unlocated.set('Asking this device…');
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        const { latitude, longitude } = coords;
        this.form().group.patchValue({ latDeg: latitude.toFixed(4), lngDeg: longitude.toFixed(4) });
        this.form().group.markAsDirty();
        this.unlocated.set('');
      },
      () => this.unlocated.set('This device does not say where it is; type it.'),
    );
  }
}
