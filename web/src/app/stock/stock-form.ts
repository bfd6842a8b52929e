import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { crownFaceNames, formatQuantity, stockNames, type CrownFace, type Stock, type StockKind } from '@sombra/core';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { MeasureField } from '../fields/measure-field';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { sendsRecords } from '../spot/record-sender';
import { caliperNote } from './tree-questions';

/** What a tree measures as received; whoever shows it reads `facts` while they are typed. */
@Component({
  selector: 's-stock-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, ChoiceField, MeasureField, FormFoot],
  providers: [sendsRecords, FormDraft],
  templateUrl: './stock-form.html',
  styles: `
    h2:not(:first-child) {
      margin-top: 0.75rem;
    }
  `,
})
export class StockForm extends RecordForm<'stock'> {
  protected readonly kind = 'stock';
  protected readonly kinds = choicesOf(stockNames);
  protected readonly faces = choicesOf(crownFaceNames);

  protected readonly form = new FormGroup({
    kind: new FormControl<StockKind>('container', { nonNullable: true }),
    caliperMm: new FormControl<number | null>(null),
    heightM: new FormControl<number | null>(null),
    ballDiameterMm: new FormControl<number | null>(null),
    ballHeightMm: new FormControl<number | null>(null),
    topRootsDepthMm: new FormControl<number | null>(null),
    rootSpreadMm: new FormControl<number | null>(null),
    rootDepthMm: new FormControl<number | null>(null),
    surplusLeftMm: new FormControl<number | null>(null),
    firstBranchM: new FormControl<number | null>(null),
    graftHeightMm: new FormControl<number | null>(null),
    circlingPct: new FormControl<number | null>(null),
    stemRootCount: new FormControl<number | null>(null),
    stemRootMm: new FormControl<number | null>(null),
    face: new FormControl<CrownFace | null>(null),
  });

  protected readonly caliperNote = computed(() => caliperNote(this.session.units()));

  protected readonly deeperThanBall = computed(() => {
    const facts = this.facts();
    if (!facts || facts.kind === 'bare_root' || facts.topRootsDepthMm < facts.ballHeightMm) return null;
    const say = (mm: number) => formatQuantity(mm, 'lengthMm', this.session.units());
    return `Must be less than the ball height, ${say(facts.ballHeightMm)}, got ${say(facts.topRootsDepthMm)}`;
  });

  protected readonly leftTooMuch = computed(() => {
    const facts = this.facts();
    if (!facts || facts.kind === 'bare_root' || (facts.surplusLeftMm ?? 0) <= facts.topRootsDepthMm) return null;
    const say = (mm: number) => formatQuantity(mm, 'lengthMm', this.session.units());
    return `Must be at most the surplus, ${say(facts.topRootsDepthMm)}, got ${say(facts.surplusLeftMm ?? 0)}`;
  });

  protected readonly incomplete = computed(() => {
    if (this.deeperThanBall()) return 'The topmost roots cannot lie below the ball.';
    if (this.leftTooMuch()) return 'No more surplus can stay on than there is.';
    return this.facts() ? null : 'A measure above is missing or outside its limits.';
  });

  constructor() {
    super();
    this.start();
  }

  protected stored(): object {
    const facts = this.newest()?.facts;
    const stemRoots = facts && facts.kind !== 'bare_root' ? facts.adventitious : undefined;
    return {
      surplusLeftMm: null,
      circlingPct: null,
      firstBranchM: null,
      graftHeightMm: null,
      face: null,
      ...facts,
      stemRootCount: stemRoots?.count ?? null,
      stemRootMm: stemRoots?.thickestMm ?? null,
    };
  }

  protected readFacts(): Stock | null {
    const v = this.form.getRawValue();
    const names =
      v.kind === 'bare_root'
        ? (['rootSpreadMm', 'rootDepthMm'] as const)
        : ([
            'ballDiameterMm',
            'ballHeightMm',
            'topRootsDepthMm',
            'surplusLeftMm',
            'circlingPct',
            'stemRootCount',
          ] as const);
    if (
      [...names, 'caliperMm', 'heightM', 'firstBranchM', 'graftHeightMm'].some((name) => this.form.get(name)?.invalid)
    )
      return null;
    const { ballDiameterMm, ballHeightMm, topRootsDepthMm, rootSpreadMm, rootDepthMm, surplusLeftMm } = v;
    if (v.caliperMm === null || v.heightM === null) return null;
    // How it came is ticked at the gate, not here: it stays as it was.
    const kept = this.newest()?.facts;
    const top = {
      caliperMm: v.caliperMm,
      heightM: v.heightM,
      ...(v.firstBranchM === null ? {} : { firstBranchM: v.firstBranchM }),
      ...(v.graftHeightMm === null ? {} : { graftHeightMm: v.graftHeightMm }),
      ...(v.face === null ? {} : { face: v.face }),
      ...(kept?.arrival ? { arrival: kept.arrival } : {}),
    };
    if (v.kind === 'bare_root') {
      return rootSpreadMm === null || rootDepthMm === null ? null : { kind: v.kind, ...top, rootSpreadMm, rootDepthMm };
    }
    if (ballDiameterMm === null || ballHeightMm === null || topRootsDepthMm === null) return null;
    const left = surplusLeftMm === null || surplusLeftMm === 0 ? {} : { surplusLeftMm };
    const { stemRootCount, stemRootMm } = v;
    if (stemRootCount !== null && (stemRootMm === null || this.form.controls.stemRootMm.invalid)) return null;
    const stem = stemRootCount === null ? {} : { adventitious: { count: stemRootCount, thickestMm: stemRootMm ?? 0 } };
    const circling = v.circlingPct === null ? {} : { circlingPct: v.circlingPct };
    return { kind: v.kind, ...top, ballDiameterMm, ballHeightMm, topRootsDepthMm, ...left, ...circling, ...stem };
  }

  protected async submit(): Promise<void> {
    if (this.deeperThanBall() || this.leftTooMuch()) {
      this.tried.set(true);
      return;
    }
    await this.save('Stock measures stored.');
  }
}
