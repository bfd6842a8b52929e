import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  aliveNames,
  barkNames,
  cutByCrew,
  flareByNames,
  guardNames,
  InvalidInputError,
  isLook,
  isPressing,
  instrumentNames,
  instrumentUnits,
  judgeInspection,
  leftOnNames,
  limits,
  lookContext,
  lookSignNames,
  mulchContactNames,
  ofKind,
  fingerNames,
  flarePicture,
  flareShapes,
  probeNames,
  rockingNames,
  sayReason,
  signPicture,
  stakeNames,
  standing,
  turfNames,
  twigHeightNames,
  twigHeights,
  type AliveClass,
  type BarkState,
  type FingerClass,
  type GuardState,
  type Inspection,
  type InstrumentKind,
  type LeftOn,
  type LookSign,
  type MulchContact,
  type ProbeClass,
  type RockingClass,
  type StakeState,
} from '@sombra/core';
import { noRoots, readRoots, type CollarRoots, type CutLimits } from '../collar/collar-roots';
import { DialField } from '../collar/dial-field';
import { DrawingView } from '../drawing/drawing-view';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { DayField } from '../fields/day-field';
import { ManyField } from '../fields/many-field';
import { MeasureField } from '../fields/measure-field';
import { LevelMark } from '../ui/level-mark';
import { toldWords } from '../told/told-words';
import { sayDate, sayDay } from '../ui/say-date';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { sendsRecords } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { FindingsList } from '../ui/findings-list';
import { ContradictionsPanel } from './contradictions-panel';
import { DiagnosisPanel } from './diagnosis-panel';
import { lookFacts } from './look-facts';
import { StagedPlanView } from './staged-plan';

const otherFlares = ['flareSecond', 'flareThird', 'flareFourth'] as const;
/** What was felt at each height. */
const woodControls = { top: 'aliveTop', middle: 'aliveMiddle', base: 'aliveBase' } as const;
const flares = ['flareDepthMm', ...otherFlares] as const;

const withinInstrument = (value: number): boolean =>
  value >= limits.instrumentValue.min && value <= limits.instrumentValue.max;

/** One look at a tree, in walking order, with the verdict as it is entered. */
@Component({
  selector: 's-inspect-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    RouterLink,
    ChoiceField,
    ContradictionsPanel,
    DayField,
    DiagnosisPanel,
    DialField,
    DrawingView,
    ManyField,
    MeasureField,
    LevelMark,
    FormFoot,
    SpotHead,
    FindingsList,
    StagedPlanView,
  ],
  providers: [sendsRecords, FormDraft],
  templateUrl: './inspect-bench.html',
  styleUrls: ['../pit/pit-bench.scss', './inspect-bench.scss'],
})
export class InspectBench extends RecordForm<'inspection'> {
  protected readonly kind = 'inspection';
  private readonly router = inject(Router);
  protected readonly stakes = choicesOf(stakeNames);
  protected readonly contacts = choicesOf(mulchContactNames);
  protected readonly probes = choicesOf(probeNames);
  protected readonly fingers = choicesOf(fingerNames);
  protected readonly alive = choicesOf(aliveNames);
  protected readonly heights = twigHeights.map((height) => ({
    control: woodControls[height],
    label: `Twig bent, bark scratched ${twigHeightNames[height]}`,
  }));
  protected readonly signs = choicesOf(lookSignNames).map((choice) => ({
    ...choice,
    picture: signPicture(choice.value as LookSign),
  }));
  protected readonly rocking = choicesOf(rockingNames);
  protected readonly guards = choicesOf(guardNames);
  protected readonly leftOn = choicesOf(leftOnNames);
  protected readonly turf = choicesOf(turfNames);
  protected readonly flareBy = choicesOf(flareByNames);
  protected readonly flareShapes = flareShapes.map(flarePicture);
  protected readonly bark = choicesOf(barkNames);
  protected readonly instruments = choicesOf({ none: 'none', ...instrumentNames });
  protected readonly circling = choicesOf({ no: 'None seen', yes: 'Yes', unseen: 'Not looked' });

  protected readonly form = new FormGroup({
    inspectedOn: new FormControl('', { nonNullable: true }),
    signs: new FormControl<readonly LookSign[] | null>(null),
    aliveTop: new FormControl<AliveClass | null>(null),
    aliveMiddle: new FormControl<AliveClass | null>(null),
    aliveBase: new FormControl<AliveClass | null>(null),
    diebackPct: new FormControl<number | null>(null),
    shootMm: new FormControl<number | null>(null),
    shootBeforeMm: new FormControl<number | null>(null),
    rocks: new FormControl<RockingClass | null>(null),
    guard: new FormControl<GuardState | null>(null),
    leftOn: new FormControl<readonly LeftOn[] | null>(null),
    turf: new FormControl<'clear' | 'creeping' | null>(null),
    flareBy: new FormControl<'scraped' | 'guessed' | null>(null),
    bark: new FormControl<BarkState | null>(null),
    barkPct: new FormControl<number | null>(null),
    stake: new FormControl<StakeState | null>(null),
    mulchContact: new FormControl<MulchContact | null>(null),
    mulchDepthMm: new FormControl<number | null>(null),
    flareDepthMm: new FormControl<number | null>(null),
    flareSecond: new FormControl<number | null>(null),
    flareThird: new FormControl<number | null>(null),
    flareFourth: new FormControl<number | null>(null),
    circling: new FormControl<'no' | 'yes' | 'unseen'>('unseen', { nonNullable: true }),
    collar: new FormControl<CollarRoots | null>(null),
    probe: new FormControl<ProbeClass | null>(null),
    finger: new FormControl<FingerClass | null>(null),
    instrument: new FormControl<InstrumentKind | 'none'>('none', { nonNullable: true }),
    device: new FormControl('', { nonNullable: true }),
    instrumentValue: new FormControl<number | null>(null),
  });

  protected readonly otherFlares = otherFlares;
  protected readonly planting = computed(() => this.store.life()?.planting ?? null);
  protected readonly told = computed(() => toldWords(this.store.life(), this.session.units()));
  protected readonly contradicts = computed(() =>
    (this.store.life()?.decisions ?? []).some(({ kind }) => kind === 'settle_contradiction'),
  );
  /** A look of that day that is kept already: another one stands beside it. */
  protected readonly sameDay = computed(() => {
    const [on, records] = [this.facts()?.inspectedOn, this.store.detail()?.records ?? []];
    const look = ofKind(standing(records), 'inspection').findLast(({ facts }) => facts.inspectedOn === on);
    return look && on ? { on, by: records.find(({ id }) => id === look.id)?.recordedBy ?? '' } : null;
  });
  protected readonly lastLook = computed(() => this.store.life()?.inspections.at(-1) ?? null);

  protected readonly verdict = computed(() => {
    const facts = this.facts();
    const planting = this.planting();
    const life = this.store.life();
    if (!facts || !isLook(facts) || !planting || !life) return null;
    try {
      return judgeInspection(facts, lookContext(life, planting.record.facts.plantedOn));
    } catch (error) {
      if (error instanceof InvalidInputError) return null;
      throw error;
    }
  });

  protected readonly heading = computed(() => {
    const verdict = this.verdict();
    return verdict ? `Next look ${sayDay(verdict.nextLook.on)}` : '';
  });

  protected readonly nextLook = computed(() => {
    const verdict = this.verdict();
    return verdict
      ? { on: sayDate(verdict.nextLook.on), because: sayReason(verdict.nextLook.because, this.session.units()) }
      : null;
  });

  protected readonly dayFault = computed(() => {
    const on = this.facts()?.inspectedOn ?? '';
    const plantedOn = this.planting()?.record.facts.plantedOn ?? '';
    if (on > this.session.today()) return `Must not be after today, ${sayDay(this.session.today())}`;
    if (on && on < plantedOn) return `Must not be before the planting, ${sayDay(plantedOn)}`;
    return this.sender.faultIn('inspectedOn');
  });

  /** What is drawn, as the draft holds it. */
  protected readonly collar = computed((): CollarRoots => {
    this.changes();
    return readRoots(this.form.getRawValue().collar) ?? noRoots;
  });
  protected readonly pathDeg = computed(() => this.store.life()?.assessment?.pavementDeg ?? null);
  protected readonly rootsBefore = computed(() => this.lastLook()?.record.facts.circlingRoots ?? []);
  /** What the practice lets a crew cut, where there is a root to cut and none of it is for an arborist. */
  protected readonly cutBy = computed((): CutLimits | null => {
    const life = this.store.life();
    if (!life || !cutByCrew(this.verdict()) || !this.collar().roots.some(isPressing)) return null;
    return life.care.inspection.roots;
  });

  protected putCollar(collar: CollarRoots): void {
    this.form.patchValue({ collar });
  }

  /** A root that begins where it ends presses on nothing: a slip, or all the way round. */
  protected readonly arcFault = computed(() => {
    this.changes();
    if (this.form.getRawValue().circling !== 'yes') return null;
    const at = this.collar().roots.findIndex(({ arc }) => arc.fromDeg === arc.toDeg);
    if (at < 0) return null;
    const { fromDeg } = this.collar().roots[at]?.arc ?? { fromDeg: 0 };
    return `Root ${at + 1} must not end where it begins, ${fromDeg}°; all the way round is 0° to 360°`;
  });

  protected readonly incomplete = computed(() => {
    if (!this.facts()) return 'A value above is missing or outside its limits.';
    return this.verdict() ? null : 'Record at least one thing you looked at.';
  });

  constructor() {
    super();
    this.start();
  }

  protected readonly sayDay = sayDay;
  protected readonly instrumentUnit = (kind: InstrumentKind): string => instrumentUnits[kind];
  protected readonly instrument = computed(() => {
    this.changes();
    const { instrument } = this.form.getRawValue();
    return instrument === 'none' ? null : instrument;
  });
  protected readonly instrumentFault = computed(() => {
    this.changes();
    const { instrument, device, instrumentValue: value } = this.form.getRawValue();
    if (instrument === 'none') return null;
    if (value !== null && !withinInstrument(value)) {
      const { min, max } = limits.instrumentValue;
      return `Instrument value must be within ${min}–${max}, got ${value}`;
    }
    return value === null || device.trim() === ''
      ? 'An instrument value is kept with its device: both are needed'
      : null;
  });

  protected override corrects(): string | null {
    // One's own second look on the same day corrects the first; another day's, and another person's, stands by itself.
    const [on, me] = [this.form.getRawValue().inspectedOn, this.session.user()?.id];
    const records = this.store.detail()?.records ?? [];
    const own = new Set(records.filter(({ recordedById }) => recordedById === me).map(({ id }) => id));
    const looks = ofKind(standing(records), 'inspection').filter(({ id }) => own.has(id));
    return looks.find((look) => look.facts.inspectedOn === on)?.id ?? null;
  }

  protected stored(): object {
    // Most programmes own one device: the one of the last look stands there already.
    const device = this.lastLook()?.record.facts.instruments?.at(0)?.device ?? '';
    return { inspectedOn: this.session.today(), circling: 'unseen', instrument: 'none', device };
  }

  protected readFacts(): Inspection | null {
    const v = this.form.getRawValue();
    const measures = ['diebackPct', 'shootMm', 'shootBeforeMm', 'mulchDepthMm', 'barkPct', ...flares];
    if (measures.some((name) => this.form.get(name)?.invalid) || !v.inspectedOn) return null;
    const collar = readRoots(v.collar) ?? noRoots;
    // Somebody saw roots: how many and where is still to be drawn.
    if (v.circling === 'yes' && collar.roots.length === 0) return null;
    if (v.circling === 'yes' && collar.roots.some(({ arc }) => arc.fromDeg === arc.toDeg)) return null;
    const seen = { yes: collar, no: noRoots, unseen: null } as const;
    const otherFlaresMm = [v.flareSecond, v.flareThird, v.flareFourth];
    const felt = twigHeights.flatMap((height) => {
      const one = v[woodControls[height]];
      return one === null ? [] : [[height, one] as const];
    });
    const aliveAt = felt.length > 0 ? Object.fromEntries(felt) : null;
    const { instrumentValue: value } = v;
    const device = v.device.trim();
    const kind = v.instrument === 'none' ? null : v.instrument;
    // A value without its device, or none, is not half kept.
    if (kind !== null && (device === '' || value === null || !withinInstrument(value))) return null;
    const instruments = kind === null || value === null ? null : [{ kind, device, value }];
    return lookFacts(
      { ...v, instruments, alive: null, aliveAt, otherFlaresMm, collar: seen[v.circling] },
      v.inspectedOn,
    );
  }

  protected async submit(): Promise<void> {
    if (!this.verdict() || (this.dayFault() && !this.sender.problem())) {
      this.tried.set(true);
      return;
    }
    const treeId = this.store.detail()?.tree?.id;
    if (await this.save('Inspection stored.')) void this.router.navigate(['/tree', treeId]);
  }
}
