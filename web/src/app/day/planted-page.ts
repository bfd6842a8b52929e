import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { OpenReport } from '@sombra/contract';
import { formatQuantity } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { DayField } from '../fields/day-field';
import { MeasureField } from '../fields/measure-field';
import { PhotoButton } from '../fields/photo-button';
import { shrinkPhoto } from '../fields/shrink-photo';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate, localMoment } from '../ui/say-date';
import { BuiltReportsService } from './built-reports.service';

/** The page behind the link that goes with a tree: its numbers, whether its ground may be dug, and how it was planted. */
@Component({
  selector: 's-planted-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, DayField, MeasureField, PhotoButton],
  template: `
    <main>
      @if (tree(); as now) {
        <p class="from">{{ now.programme }}</p>
        <h1>Your tree, {{ now.ref }}</h1>
        <p>
          <i>{{ now.species }}</i> for {{ now.place }}, kept by {{ now.owner }}.
        </p>
        @switch (now.state) {
          @case ('verified') {
            <p class="done">Thank you: this planting was looked at and counts.</p>
          }
          @case ('over') {
            <p class="done">This link is no longer open. Ask the programme for a new one.</p>
          }
          @default {
            @if (now.mayDig) {
              <p class="caution"><b>The ground is cleared.</b> {{ now.why }}</p>
            } @else {
              <p class="problem" role="alert"><b>Do not dig yet.</b> {{ now.why }}</p>
            }
            @if (numbers(); as list) {
              <h2>How it goes in</h2>
              <dl>
                @for (line of list; track line.name) {
                  <div>
                    <dt>{{ line.name }}</dt>
                    <dd>{{ line.value }}</dd>
                  </div>
                }
              </dl>
            }
            <h2>How it went</h2>
            @if (now.state === 'reported') {
              <p class="done" role="status">
                Your report is stored. Somebody of the programme looks at the tree before it counts; until then you may
                tell it anew.
              </p>
            }
            <form [formGroup]="form" (submit)="send($event)" novalidate>
              <s-day-field formControlName="plantedOn" label="Planted on" [latest]="today" />
              <s-measure-field
                formControlName="flareMm"
                fact="flareAboveGradeMm"
                label="Where the trunk widens into roots, above the soil"
              />
              <s-measure-field formControlName="holeWidthMm" />
              <s-measure-field formControlName="firstWaterL" />
              <s-measure-field formControlName="mulchDepthMm" [required]="false" />
              <label
                >Anything we should know
                <textarea class="form-control" rows="2" maxlength="400" formControlName="words"></textarea>
              </label>
              <label
                >Your name, as your signature
                <input class="form-control" autocomplete="name" maxlength="80" formControlName="signedBy" />
              </label>
              @if (fault(); as text) {
                <p class="problem" role="alert">{{ text }}</p>
              }
              <div class="acts">
                @if (now.hasPhoto) {
                  <span>The photo is here.</span>
                } @else {
                  <s-photo-button words="Photo of the tree" (picked)="photo($event)" />
                }
                <button type="submit" class="btn btn-primary" [disabled]="busy()">
                  {{ now.state === 'reported' ? 'Tell it anew' : 'Tell the programme' }}
                </button>
              </div>
            </form>
            <p class="quiet">This link is open until {{ say(now.expiresOn) }}.</p>
          }
        }
      } @else if (fault(); as text) {
        <h1>Your tree</h1>
        <p class="problem" role="alert">{{ text }}</p>
      } @else {
        <p role="status">Opening…</p>
      }
    </main>
  `,
  styleUrl: './join-page.scss',
})
export class PlantedPage {
  readonly token = input.required<string>();
  private readonly doors = inject(BuiltReportsService);
  private readonly session = inject(SessionService);
  protected readonly say = sayDate;
  protected readonly tree = signal<OpenReport | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  /** Nobody is signed in here: the day is that of this device. */
  protected readonly today = localMoment(Date.now()).slice(0, 10);
  protected readonly form = new FormGroup({
    plantedOn: new FormControl(this.today, { nonNullable: true }),
    flareMm: new FormControl<number | null>(null),
    holeWidthMm: new FormControl<number | null>(null),
    firstWaterL: new FormControl<number | null>(null),
    mulchDepthMm: new FormControl<number | null>(null),
    words: new FormControl('', { nonNullable: true }),
    signedBy: new FormControl('', { nonNullable: true }),
  });
  protected readonly numbers = computed(() => {
    const plan = this.tree()?.plan;
    if (!plan) return null;
    const units = this.session.units();
    const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
    return [
      { name: 'Dig', value: `${mm(plan.digMm)} deep, ${mm(plan.widthMm)} wide` },
      { name: 'Where the trunk widens stands', value: `${mm(plan.flareAboveGradeMm)} above the soil` },
      { name: 'First water', value: formatQuantity(plan.firstWaterL, 'volumeL', units) },
    ];
  });

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.run(() => firstValueFrom(this.doors.open(token))));
    });
  }

  protected async send(event: Event): Promise<void> {
    event.preventDefault();
    const { plantedOn, flareMm, holeWidthMm, firstWaterL, mulchDepthMm, words, signedBy } = this.form.getRawValue();
    const measured = [flareMm, holeWidthMm, firstWaterL];
    if (this.form.invalid || measured.includes(null) || plantedOn === '' || signedBy.trim() === '') {
      this.fault.set('The day, the height, the width, the water and your name are needed.');
      return;
    }
    const told = {
      plantedOn,
      flareAboveGradeMm: [Number(flareMm)],
      holeWidthMm: Number(holeWidthMm),
      firstWaterL: Number(firstWaterL),
      ...(mulchDepthMm === null ? {} : { mulchDepthMm }),
      words: words.trim(),
      signedBy: signedBy.trim(),
    };
    await this.run(() => firstValueFrom(this.doors.tell(this.token(), told)));
  }

  protected async photo(file: File): Promise<void> {
    await this.run(async () => firstValueFrom(this.doors.photo(this.token(), await shrinkPhoto(file))));
  }

  private async run(act: () => Promise<OpenReport>): Promise<void> {
    this.busy.set(true);
    try {
      this.tree.set(await act());
      this.fault.set(null);
    } catch (error) {
      this.fault.set(error instanceof TypeError ? `${error.message}.` : sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
