import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { KeptDevice, SaveDevice } from '@sombra/contract';
import { deviceForms, isMeasured, measuredFacts, type DeviceForm as Form, type DeviceLooks } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { MeasureField } from '../fields/measure-field';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { formNames, looksNames } from './device-words';
import { DevicesService } from './devices.service';

const number = (value: number | null = null) => new FormControl<number | null>(value, { nonNullable: true });
const words = () => new FormControl('', { nonNullable: true });
/** Of a name, what an id may hold. */
const idOf = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40);

/** A device of the programme's own, or one of the catalogue put right. */
@Component({
  selector: 's-device-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceField, MeasureField, ReactiveFormsModule],
  template: `
    <form [formGroup]="form" (submit)="keep($event)" novalidate>
      <h2>{{ device() ? 'Change ' + device()?.name : 'A device of our own' }}</h2>
      <label>Name <input class="form-control" formControlName="name" maxlength="60" /></label>
      <s-choice-field formControlName="form" label="It is" [choices]="forms" />
      <div class="two">
        <s-measure-field
          formControlName="volumeL"
          [required]="false"
          note="Empty where it runs as long as it is let."
        />
        <label>Outlets <input class="form-control" type="number" min="1" max="200" formControlName="outlets" /></label>
        <s-measure-field formControlName="inletMm" [required]="false" note="Empty where it is not filled." />
        <s-measure-field formControlName="fillMinutes" />
        <s-measure-field formControlName="soakMinutes" note="Stands in water itself before it works." />
        <s-measure-field formControlName="labelledLPerH" [required]="false" note="Empty where it says nothing." />
        <s-measure-field formControlName="perCaliperMm" [required]="false" note="Empty where one is enough." />
        <s-measure-field formControlName="clearStemMm" [required]="false" note="Empty where it needs none." />
        <s-measure-field formControlName="mostSlopePct" [required]="false" />
        <label
          >Comes off after, months
          <input class="form-control" type="number" min="1" max="120" formControlName="offAfterMonths" />
          <small>Empty where it may stay.</small></label
        >
        <label
          >Costs, in the programme's money <input class="form-control" type="number" min="0" formControlName="cost"
        /></label>
        <label>Upkeep <input class="form-control" formControlName="upkeep" maxlength="200" /></label>
      </div>
      <s-choice-field formControlName="looks" label="Looks" [choices]="looks" />
      <label class="tick"><input type="checkbox" formControlName="dug" /> Is sunk in: not into compacted soil</label>
      @if (device()) {
        <label class="tick"><input type="checkbox" formControlName="retired" /> Not used any more</label>
      }
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="submit" class="btn btn-primary" [disabled]="busy()">Store the device</button>
      <button type="button" class="btn btn-link" (click)="closed.emit()">Cancel</button>
    </form>
  `,
  styles: `
    .two {
      --field-columns: minmax(0, 1fr);
      --field-width: 100%;
      display: grid;
      align-items: start;
      grid-template-columns: repeat(auto-fit, minmax(min(11rem, 100%), 1fr));
      gap: 0 1rem;
    }
    label {
      display: block;
      padding: 0.3rem 0;
    }
    small {
      color: var(--quiet);
    }
    .tick {
      display: flex;
      gap: 0.6rem;
      align-items: center;
      min-height: 44px;
    }
    .btn {
      min-height: 44px;
    }
  `,
})
export class DeviceForm {
  /** `null` for a new one. */
  readonly device = input.required<KeptDevice | null>();
  readonly changed = output<{ readonly devices: readonly KeptDevice[]; readonly id: string }>();
  readonly closed = output();
  private readonly doors = inject(DevicesService);
  private readonly toasts = inject(ToastsService);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly forms = choicesOf(Object.fromEntries(deviceForms.map((one) => [one, formNames[one]])));
  protected readonly looks = choicesOf(looksNames);
  protected readonly form = new FormGroup({
    name: words(),
    form: new FormControl<Form>('standing', { nonNullable: true }),
    volumeL: number(),
    outlets: number(1),
    inletMm: number(),
    fillMinutes: number(2),
    soakMinutes: number(0),
    labelledLPerH: number(),
    perCaliperMm: number(),
    cost: number(0),
    upkeep: words(),
    looks: new FormControl<DeviceLooks>('plain', { nonNullable: true }),
    clearStemMm: number(),
    mostSlopePct: number(),
    dug: new FormControl(false, { nonNullable: true }),
    offAfterMonths: number(),
    retired: new FormControl(false, { nonNullable: true }),
  });
  private readonly key = computed(() => `${this.device()?.id ?? ''}/${this.device()?.version ?? 0}`);

  constructor() {
    effect(() => {
      this.key();
      const device = untracked(this.device);
      untracked(() => (device ? this.form.reset(device) : this.form.reset()));
    });
  }

  /** Names what is missing or wrong; `null` where nothing is. */
  private wrong(): string | null {
    const { name, outlets, fillMinutes, soakMinutes, cost } = this.form.getRawValue();
    if (idOf(name) === '') return 'Give it a name with letters or digits.';
    const needed = { outlets, fillMinutes, soakMinutes, cost };
    const bad = Object.keys(this.form.controls).find(
      (key) => this.form.get(key)?.invalid || (key in needed && needed[key as keyof typeof needed] === null),
    );
    if (bad === undefined) return null;
    return `${isMeasured(bad) ? measuredFacts[bad].name : bad} is missing or outside its limits.`;
  }

  protected async keep(event: Event): Promise<void> {
    event.preventDefault();
    this.fault.set(this.wrong());
    if (this.fault() !== null) return;
    const typed = this.form.getRawValue();
    const device = this.device();
    const asked: SaveDevice = {
      ...typed,
      id: device?.id ?? idOf(typed.name),
      name: typed.name.trim(),
      outlets: typed.outlets ?? 1,
      fillMinutes: typed.fillMinutes ?? 0,
      soakMinutes: typed.soakMinutes ?? 0,
      cost: typed.cost ?? 0,
      version: device?.version ?? 0,
    };
    this.busy.set(true);
    try {
      const devices = await firstValueFrom(this.doors.save(asked));
      this.toasts.say(`${asked.name} stored.`);
      this.changed.emit({ devices, id: asked.id });
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
