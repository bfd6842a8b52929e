import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  InvalidInputError,
  isLook,
  judgeInspection,
  lookContext,
  mulchContactNames,
  ofKind,
  fingerNames,
  probeNames,
  sayReason,
  stakeNames,
  standing,
  type FingerClass,
  type Inspection,
  type MulchContact,
  type ProbeClass,
  type StakeState,
} from '@sombra/core';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { DayField } from '../fields/day-field';
import { MeasureField } from '../fields/measure-field';
import { LevelMark } from '../ui/level-mark';
import { sayDate, sayDay } from '../ui/say-date';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { sendsRecords } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { FindingsList } from '../ui/findings-list';
import { ContradictionsPanel } from './contradictions-panel';

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
    MeasureField,
    LevelMark,
    FormFoot,
    SpotHead,
    FindingsList,
  ],
  providers: [sendsRecords, FormDraft],
  templateUrl: './inspect-bench.html',
  styleUrl: '../pit/pit-bench.scss',
})
export class InspectBench extends RecordForm<'inspection'> {
  protected readonly kind = 'inspection';
  private readonly router = inject(Router);
  protected readonly stakes = choicesOf(stakeNames);
  protected readonly contacts = choicesOf(mulchContactNames);
  protected readonly probes = choicesOf(probeNames);
  protected readonly fingers = choicesOf(fingerNames);
  protected readonly circling = choicesOf({ no: 'None seen', yes: 'Yes', unseen: 'Not looked' });

  protected readonly form = new FormGroup({
    inspectedOn: new FormControl('', { nonNullable: true }),
    stake: new FormControl<StakeState | null>(null),
    mulchContact: new FormControl<MulchContact | null>(null),
    mulchDepthMm: new FormControl<number | null>(null),
    flareDepthMm: new FormControl<number | null>(null),
    circling: new FormControl<'no' | 'yes' | 'unseen'>('unseen', { nonNullable: true }),
    fromDeg: new FormControl<number | null>(null),
    toDeg: new FormControl<number | null>(null),
    rootMm: new FormControl<number | null>(null),
    probe: new FormControl<ProbeClass | null>(null),
    finger: new FormControl<FingerClass | null>(null),
  });

  protected readonly planting = computed(() => this.store.life()?.planting ?? null);
  protected readonly contradicts = computed(() =>
    (this.store.life()?.decisions ?? []).some(({ kind }) => kind === 'settle_contradiction'),
  );
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
    if (on > this.session.today()) return `Must not be after today, ${this.session.today()}`;
    if (on && on < plantedOn) return `Must not be before the planting, ${plantedOn}`;
    return this.sender.faultIn('inspectedOn');
  });

  /** A root that begins where it ends presses on nothing: a slip, or all the way round. */
  protected readonly arcFault = computed(() => {
    this.changes();
    const { circling, fromDeg, toDeg } = this.form.getRawValue();
    if (circling !== 'yes' || fromDeg === null || fromDeg !== toDeg) return null;
    return `Must not be where it begins, ${fromDeg}°; all the way round is 0° to 360°`;
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

  protected override corrects(): string | null {
    // One's own second look on the same day corrects the first; another day's, and another person's, stands by itself.
    const [on, me] = [this.form.getRawValue().inspectedOn, this.session.user()?.id];
    const records = this.store.detail()?.records ?? [];
    const own = new Set(records.filter(({ recordedById }) => recordedById === me).map(({ id }) => id));
    const looks = ofKind(standing(records), 'inspection').filter(({ id }) => own.has(id));
    return looks.find((look) => look.facts.inspectedOn === on)?.id ?? null;
  }

  protected stored(): object {
    return { inspectedOn: this.session.today(), circling: 'unseen' };
  }

  protected readFacts(): Inspection | null {
    const v = this.form.getRawValue();
    const optional = ['mulchDepthMm', 'flareDepthMm'].some((name) => this.form.get(name)?.invalid);
    if (optional || !v.inspectedOn) return null;
    const rootsWrong = ['fromDeg', 'toDeg', 'rootMm'].some((name) => this.form.get(name)?.invalid);
    const { fromDeg, toDeg, rootMm } = v;
    if (v.circling === 'yes' && (rootsWrong || fromDeg === null || toDeg === null || rootMm === null)) return null;
    if (v.circling === 'yes' && fromDeg === toDeg) return null;
    const roots =
      v.circling === 'unseen'
        ? null
        : v.circling === 'no'
          ? []
          : [{ arc: { fromDeg: fromDeg ?? 0, toDeg: toDeg ?? 0 }, diameterMm: rootMm ?? 0 }];
    return {
      inspectedOn: v.inspectedOn,
      flareDepthMm: v.flareDepthMm,
      mulchDepthMm: v.mulchDepthMm,
      mulchContact: v.mulchContact,
      stake: v.stake,
      probe: v.probe,
      circlingRoots: roots,
      ...(v.probe === null && v.finger !== null ? { finger: v.finger } : {}),
    };
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
