import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  compassPoint,
  digCover,
  digDepthMm,
  facingOf,
  formatQuantity,
  basisWith,
  InvalidInputError,
  judgePlanting,
  overDug,
  plantingTime,
  sayPutBack,
  sayReason,
  plumbNames,
  plumbStates,
  rootWorkNames,
  rootWorks,
  type AsBuilt,
  type PlantingFacts,
  type PlumbState,
  type RootWork,
  metRootOf,
} from '@sombra/core';
import { PitSectionView } from '../drawing/pit-section-view';
import { ChoiceField } from '../fields/choice-field';
import { DayField } from '../fields/day-field';
import { MeasureField } from '../fields/measure-field';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { FindingsList } from '../ui/findings-list';
import { sayDay } from '../ui/say-date';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { BuiltReportsPanel, type ReportedFacts } from './built-reports';
import { sendsRecords } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { CompassField } from '../fields/compass-field';

const lessOften = [
  'flareBeforeSoakMm',
  'toppedUpMm',
  'roots',
  'metRoot',
  'plumb',
  'mulchDepthMm',
  'departure',
] as const;
const points = ['first', 'second', 'third', 'fourth'] as const;

/** A planting's, or a keeper's report of one. */
type BuiltSaid = Pick<AsBuilt, 'plantedOn' | 'flareAboveGradeMm' | 'mulchDepthMm'> & {
  readonly holeWidthMm?: number | null | undefined;
  readonly firstWaterL?: number | null | undefined;
};

/** What a planting and a keeper's report both say, in the fields of the form. */
function asTyped({ plantedOn, flareAboveGradeMm, holeWidthMm = null, firstWaterL = null, mulchDepthMm }: BuiltSaid) {
  const [first = null, second = null, third = null, fourth = null] = flareAboveGradeMm;
  return { plantedOn, first, second, third, fourth, holeWidthMm, firstWaterL, mulchDepthMm: mulchDepthMm ?? null };
}

const beforeSoak = (first: number, kept: PlantingFacts | undefined): number[] => [
  first,
  ...(kept?.flareBeforeSoakMm?.slice(1) ?? []),
];

/** How the tree was really planted, judged against its plan while it is typed. */
@Component({
  selector: 's-day-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    CompassField,
    RouterLink,
    PitSectionView,
    DayField,
    MeasureField,
    ChoiceField,
    BecauseList,
    LevelMark,
    FindingsList,
    FormFoot,
    SpotHead,
    BuiltReportsPanel,
  ],
  providers: [sendsRecords, FormDraft],
  template: `
    <s-spot-head [heading]="heading()" />
    <div class="bench">
      <form [formGroup]="form" (ngSubmit)="submit()" novalidate>
        <h2>As built</h2>
        @if (!store.detail()?.tree) {
          <p class="quiet">No tree is assigned to this spot yet.</p>
        } @else {
          <s-day-field formControlName="plantedOn" label="Planted on" [latest]="session.today()" [fault]="dayFault()" />
          <label class="over">
            <input type="checkbox" formControlName="others" />
            Planted by others, and taken over
          </label>
          @if (form.value.others) {
            <s-day-field
              formControlName="takenOn"
              label="Taken over on"
              [latest]="session.today()"
              [fault]="overFault()"
            />
            <label class="words" for="taken-from">From whom</label>
            <input id="taken-from" class="form-control" formControlName="takenFrom" maxlength="80" />
            <p class="quiet">
              What nobody recorded of the planting stays empty, and unknown. A look at the whole tree is due that day.
            </p>
          }
          <p class="quiet">Flare above grade after the soak, at one to four points; below grade is negative.</p>
          <div class="points">
            @for (point of points; track point; let i = $index) {
              <s-measure-field
                [formControlName]="point"
                fact="flareAboveGradeMm"
                [label]="'Flare, point ' + (i + 1)"
                [required]="i === 0 && !form.value.others"
                [fault]="i === 0 ? sender.faultIn('flareAboveGradeMm') : null"
              />
            }
          </div>
          <s-measure-field
            formControlName="holeWidthMm"
            [required]="!form.value.others"
            [note]="plannedWords().width"
          />
          <s-measure-field formControlName="dugDepthMm" [required]="false" [note]="plannedWords().depth" />
          @if (dugTooDeep(); as words) {
            <p class="caution" role="status">{{ words }}</p>
          }
          <s-measure-field formControlName="putBackMm" [required]="false" />
          <s-measure-field
            formControlName="firstWaterL"
            [required]="!form.value.others"
            [note]="plannedWords().water"
          />
          <s-compass-field formControlName="bestFaceDeg" label="Best face looks towards" [note]="faceNote()" />
          <s-choice-field formControlName="stakes" label="Stakes set" [choices]="stakeChoices" />
          <details [open]="saysMore()">
            <summary>More of how it was built</summary>
            <s-measure-field formControlName="flareBeforeSoakMm" [required]="false" />
            <s-measure-field formControlName="toppedUpMm" [required]="false" />
            <s-choice-field formControlName="roots" label="Roots of the ball" [choices]="rootChoices" />
            <s-measure-field formControlName="metRootMm" [required]="false" />
            <s-choice-field formControlName="metRootCut" label="That root was" [choices]="cutChoices" />
            <s-choice-field formControlName="plumb" label="Trunk from two sides" [choices]="plumbChoices" />
            <s-measure-field formControlName="mulchDepthMm" [required]="false" />
            <label class="words"
              >Why it is otherwise than planned
              <input class="form-control" formControlName="departure" maxlength="300" />
            </label>
          </details>
          <s-form-foot
            [act]="corrects() ? 'Store a correction' : 'Store as built'"
            [looksOn]="looksOn()"
            [tried]="tried()"
            [incomplete]="incomplete()"
            (discard)="discard()"
          />
        }
      </form>
      <div aria-live="polite">
        @if (cover(); as dig) {
          <p [class]="dig.kind === 'none' ? 'problem' : 'covered'" [attr.role]="dig.kind === 'none' ? 'alert' : null">
            <b>{{ dig.kind === 'none' ? 'Nobody may dig here on that day.' : 'Digging is covered on that day.' }}</b>
            {{ coverWords() }}
            @if (dig.kind === 'none') {
              <a [routerLink]="['/ground', store.detail()?.spot?.id]" [queryParams]="{ part: 'leave' }"
                >See the leave to dig</a
              >
            }
          </p>
        }
        @if (timing(); as time) {
          <div class="verdict">
            <h2>The time for it</h2>
            <s-level-mark [level]="time.level" />
          </div>
          <s-because [reasons]="time.because" />
        }
        @if (judgement(); as judged) {
          <div class="verdict">
            <h2>Against the plan</h2>
            <s-level-mark [level]="judged.level" />
          </div>
          <s-findings [findings]="judged.findings" />
        } @else {
          <p class="quiet">The difference from plan is judged as soon as the values are complete.</p>
        }
        @if (drawn(); as planned) {
          <h2>The plan</h2>
          <s-pit-section [planned]="planned" />
        } @else {
          <p class="caution">
            No pit plan stands for this spot.
            <a [routerLink]="['/stock', store.detail()?.spot?.id]">Look at the measures</a> before planting.
          </p>
        }
        @if (store.detail(); as detail) {
          <s-built-reports
            [spotId]="detail.spot.id"
            [planted]="store.life()?.planting !== null"
            (taken)="takeReport($event)"
          />
        }
        <p class="caution">
          Valid ticket on the day, gloves and boots on, swing radius cleared aloud, ball rolled on boards and never
          lifted by the trunk.
        </p>
      </div>
    </div>
  `,
  styleUrl: '../pit/pit-bench.scss',
})
export class DayBench extends RecordForm<'planting'> {
  protected readonly kind = 'planting';
  private readonly router = inject(Router);
  protected readonly points = points;

  protected readonly form = new FormGroup({
    plantedOn: new FormControl('', { nonNullable: true }),
    first: new FormControl<number | null>(null),
    second: new FormControl<number | null>(null),
    third: new FormControl<number | null>(null),
    fourth: new FormControl<number | null>(null),
    holeWidthMm: new FormControl<number | null>(null),
    firstWaterL: new FormControl<number | null>(null),
    stakes: new FormControl<string | null>(null),
    bestFaceDeg: new FormControl<number | null>(null),
    /** Only to work out what to put back: what is put back is the fact that is kept. */
    dugDepthMm: new FormControl<number | null>(null),
    putBackMm: new FormControl<number | null>(null),
    flareBeforeSoakMm: new FormControl<number | null>(null),
    toppedUpMm: new FormControl<number | null>(null),
    mulchDepthMm: new FormControl<number | null>(null),
    metRootMm: new FormControl<number | null>(null),
    metRootCut: new FormControl<'kept' | 'cut' | null>(null),
    roots: new FormControl<RootWork | null>(null),
    plumb: new FormControl<PlumbState | null>(null),
    departure: new FormControl('', { nonNullable: true }),
    others: new FormControl(false, { nonNullable: true }),
    takenOn: new FormControl('', { nonNullable: true }),
    takenFrom: new FormControl('', { nonNullable: true }),
  });
  protected readonly rootChoices = rootWorks.map((value) => ({ value, label: rootWorkNames[value] }));
  protected readonly plumbChoices = plumbStates.map((value) => ({ value, label: plumbNames[value] }));
  protected readonly cutChoices = (['kept', 'cut'] as const).map((value) => ({ value, label: value }));
  /** What is less often said stands open where something was. */
  protected readonly saysMore = computed(() => {
    const facts = this.newest()?.facts;
    return facts !== undefined && lessOften.some((name) => facts[name] !== undefined);
  });
  protected readonly stakeChoices = ['0', '1', '2', '3'].map((value) => ({
    value,
    label: value === '0' ? 'none' : value,
  }));

  /** Whether the day that is typed is covered; history from before tickets were kept here is not asked. */
  protected readonly cover = computed(() => {
    this.typed();
    const detail = this.store.detail();
    const { plantedOn, others } = this.form.getRawValue();
    const day = plantedOn || this.session.today();
    // Others dug: no ticket of ours was asked for.
    return detail && !others && day >= detail.ticketsSince ? digCover(detail.leave, day, detail.rules.ground) : null;
  });
  protected readonly coverWords = computed(() =>
    (this.cover()?.because ?? []).map((reason) => sayReason(reason, this.session.units())).join(' '),
  );

  /** What the spot goes by, with what was put back under the ball: that still settles, so the ball stands higher. */
  private readonly basis = computed(() => {
    this.changes();
    const life = this.store.life();
    const field = this.form.get('putBackMm');
    if (!life || field?.invalid) return life;
    const putBackMm = this.form.getRawValue().putBackMm ?? 0;
    return basisWith(life, { putBackMm: putBackMm === 0 ? null : putBackMm });
  });
  private readonly plan = computed(() => {
    const plan = this.basis()?.plan;
    return plan?.kind === 'plan' ? plan : undefined;
  });
  /** The drawing follows what is typed, as the heading and the judgement do. */
  protected readonly drawn = computed(() => {
    const [planned, plan] = [this.store.planned(), this.plan()];
    return planned && plan ? { ...planned, plan } : null;
  });

  private readonly typed = toSignal(this.form.valueChanges);
  /** What a hole dug too deep asks for, before the tree goes in. */
  protected readonly dugTooDeep = computed(() => {
    this.typed();
    const life = this.store.life();
    const dugDepthMm = this.form.getRawValue().dugDepthMm;
    if (dugDepthMm === null || this.form.get('dugDepthMm')?.invalid || life?.plan?.kind !== 'plan') return null;
    const { practice, plan } = life;
    const back = overDug({ dugDepthMm, plannedDepthMm: digDepthMm(plan), practice });
    return back.putBackMm > 0 ? sayPutBack(back, this.session.units()) : null;
  });

  protected readonly plannedWords = computed(() => {
    const plan = this.plan();
    const units = this.session.units();
    if (!plan) return { width: '', water: '', depth: '' };
    return {
      width: `Planned ${formatQuantity(plan.widthMm.value, 'lengthMm', units)}`,
      depth: `Planned ${formatQuantity(plan.depthMm.value, 'lengthMm', units)} at the uphill edge; deeper is put back and firmed`,
      water: `Planned ${formatQuantity(plan.firstWaterL.value, 'volumeL', units)}`,
    };
  });

  protected readonly faceNote = computed(() => {
    const life = this.store.life();
    const { bestFaceDeg = null } = life
      ? facingOf({ assessment: life.assessment, face: life.stock?.face, sunDeg: life.sunDeg })
      : {};
    return bestFaceDeg === null ? '' : `Planned ${compassPoint(bestFaceDeg)}, ${Math.round(bestFaceDeg)}°`;
  });

  /** Whether that day is a time for this tree, by the season and by how it came; said where it is not simply so. */
  protected readonly timing = computed(() => {
    this.typed();
    const life = this.store.life();
    const time = life && plantingTime(life, this.form.getRawValue().plantedOn || this.session.today());
    return time && time.level !== 'good' ? time : null;
  });

  protected readonly heading = computed(() => {
    const plan = this.plan();
    if (!plan) return '';
    const say = (mm: number) => formatQuantity(mm, 'lengthMm', this.session.units());
    return `Flare ${say(plan.proudMm.value)} above grade`;
  });

  protected readonly judgement = computed(() => {
    const [facts, basis] = [this.facts(), this.basis()];
    if (!facts || !basis) return null;
    try {
      return judgePlanting(facts, basis);
    } catch (error) {
      if (error instanceof InvalidInputError) return null;
      throw error;
    }
  });

  protected readonly dayFault = computed(() => {
    const day = this.facts()?.plantedOn ?? '';
    if (day && day > this.session.today()) return `Must not be after today, ${sayDay(this.session.today())}`;
    return this.sender.faultIn('plantedOn');
  });

  protected readonly overFault = computed(() => {
    this.typed();
    const { plantedOn, takenOn } = this.form.getRawValue();
    if (takenOn > this.session.today()) return `Must not be after today, ${sayDay(this.session.today())}`;
    return takenOn < plantedOn
      ? `Must not be before the planting, ${sayDay(plantedOn)}`
      : this.sender.faultIn('takenOver');
  });

  protected readonly incomplete = computed(() => {
    this.typed();
    if (this.facts()) return null;
    return this.form.getRawValue().others
      ? 'The date as near as it is known, since when it is yours, and from whom are needed.'
      : 'The date, one flare height, the hole width and the first water are needed.';
  });

  constructor() {
    super();
    this.start();
  }

  protected stored(): object {
    const facts = this.newest()?.facts;
    if (!facts) return { plantedOn: this.session.today(), takenOn: this.session.today() };
    return {
      ...asTyped(facts),
      stakes: facts.stakes === undefined ? null : String(facts.stakes),
      putBackMm: facts.putBackMm ?? null,
      bestFaceDeg: facts.bestFaceDeg ?? null,
      flareBeforeSoakMm: facts.flareBeforeSoakMm?.[0] ?? null,
      toppedUpMm: facts.toppedUpMm ?? null,
      metRootMm: facts.metRoot?.thickestMm ?? null,
      metRootCut: facts.metRoot?.cut === undefined ? null : facts.metRoot.cut ? 'cut' : 'kept',
      roots: facts.roots ?? null,
      plumb: facts.plumb ?? null,
      departure: facts.departure ?? '',
      others: facts.takenOver !== undefined,
      takenOn: facts.takenOver?.on ?? this.session.today(),
      takenFrom: facts.takenOver?.from ?? '',
    };
  }

  /** What the keeper told goes into the form, to be looked at and stored, or not. */
  protected takeReport(facts: ReportedFacts): void {
    this.form.patchValue(asTyped(facts));
    this.form.markAsDirty();
  }

  protected readFacts(): PlantingFacts | null {
    const v = this.form.getRawValue();
    const practice = this.store.life()?.practice;
    const measured = ['holeWidthMm', 'firstWaterL', 'putBackMm', 'bestFaceDeg', 'flareBeforeSoakMm', 'toppedUpMm'];
    const wrong = [...points, ...measured, 'mulchDepthMm', 'metRootMm'].some((name) => this.form.get(name)?.invalid);
    const flare = points.map((point) => v[point]).filter((mm) => mm !== null);
    if (wrong || !practice || !v.plantedOn) return null;
    const from = v.takenFrom.trim();
    if (v.others && (!v.takenOn || v.takenOn < v.plantedOn || from === '')) return null;
    if (!v.others && (flare.length === 0 || v.holeWidthMm === null || v.firstWaterL === null)) return null;
    const kept = this.newest()?.facts;
    return {
      plantedOn: v.plantedOn,
      ...(v.others ? { takenOver: { on: v.takenOn, from } } : {}),
      flareAboveGradeMm: flare,
      ...(v.holeWidthMm === null ? {} : { holeWidthMm: v.holeWidthMm }),
      ...(v.firstWaterL === null ? {} : { firstWaterL: v.firstWaterL }),
      ...(v.stakes === null ? {} : { stakes: Number(v.stakes) }),
      ...(v.putBackMm === null || v.putBackMm === 0 ? {} : { putBackMm: v.putBackMm }),
      ...(v.bestFaceDeg === null ? {} : { bestFaceDeg: v.bestFaceDeg }),
      // Points that a phone measured and nobody changed here stay as they are.
      ...(v.flareBeforeSoakMm === null ? {} : { flareBeforeSoakMm: beforeSoak(v.flareBeforeSoakMm, kept) }),
      ...(v.toppedUpMm === null ? {} : { toppedUpMm: v.toppedUpMm }),
      ...(v.mulchDepthMm === null ? {} : { mulchDepthMm: v.mulchDepthMm }),
      ...(v.metRootMm === null ? {} : { metRoot: metRootOf(v.metRootMm, v.metRootCut) }),
      ...(v.roots === null ? {} : { roots: v.roots }),
      ...(v.plumb === null ? {} : { plumb: v.plumb }),
      ...(v.departure.trim() === '' ? {} : { departure: v.departure.trim() }),
      // Said on a phone alone, and not lost by a correction at the desk.
      ...(kept?.cutAway ? { cutAway: kept.cutAway } : {}),
      practiceId: kept?.practiceId ?? practice.id,
      practiceVersion: kept?.practiceVersion ?? practice.version,
    };
  }

  protected async submit(): Promise<void> {
    if (this.dayFault() && !this.sender.problem()) {
      this.tried.set(true);
      return;
    }
    const treeId = this.store.detail()?.tree?.id;
    if (await this.save('Planting stored.')) void this.router.navigate(['/tree', treeId]);
  }
}
