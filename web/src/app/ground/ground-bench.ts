import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormArray, FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { groundGaps, soilNames, type GroundFacts, type Horizon, type SoilClass } from '@sombra/core';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { MeasureField } from '../fields/measure-field';
import { BecauseList } from '../ui/because-list';
import { ViewState } from '../ui/view-state.service';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { sendsRecords } from '../spot/record-sender';
import { CompassField } from '../fields/compass-field';
import { TermNote } from '../ui/term-note';
import { FeelTestField } from './feel-test-field';
import { PercolationField, readRows, rowsOf, type PercolationRows } from './percolation-field';

const mostLayers = 4;
const layerGroup = () =>
  new FormGroup({
    soil: new FormControl<SoilClass | null>(null),
    toMm: new FormControl<number | null>(null),
    fill: new FormControl<'yes' | 'no'>('no', { nonNullable: true }),
    rateMmPerH: new FormControl<number | null>(null),
  });

const asWord = (value: boolean | null): 'yes' | 'no' | null => (value === null ? null : value ? 'yes' : 'no');
const fromWord = (word: 'yes' | 'no' | null): boolean | null => (word === null ? null : word === 'yes');

/** What was measured at a spot, and what that means for planting there. */
@Component({
  selector: 's-ground-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    TermNote,
    ReactiveFormsModule,
    CompassField,
    ChoiceField,
    MeasureField,
    BecauseList,
    FormFoot,
    FeelTestField,
    PercolationField,
  ],
  providers: [sendsRecords, FormDraft],
  template: `
    <form [formGroup]="form" (ngSubmit)="submit()" novalidate>
      <div class="columns">
        <div>
          <s-choice-field
            formControlName="soil"
            label="Soil, by feel"
            [choices]="soils"
            [fault]="sender.faultIn('soil')"
          />
          <button type="button" class="btn btn-link" [attr.aria-expanded]="feeling()" (click)="feeling.set(!feeling())">
            <i class="bi bi-hand-index" aria-hidden="true"></i> Guide me by feel
          </button>
          @if (feeling()) {
            <s-feel-test (chosen)="felt($event)" />
          }
          <s-choice-field formControlName="stony" label="Stony or rubble" [choices]="yesNo" />
          <s-choice-field formControlName="compacted" label="Compacted, the probe stops by hand" [choices]="yesNo" />
          <s-choice-field formControlName="layered" label="Layers, one soil over another" [choices]="yesNo" />
          @if (form.value.layered === 'yes') {
            <p class="quiet">From the top down, as the hole shows them: fill over clay beside buildings, a pan.</p>
            <ng-container formArrayName="layers">
              @for (layer of form.controls.layers.controls; track layer; let i = $index) {
                @if (i <= described()) {
                  <fieldset class="layer" [formGroupName]="i">
                    <legend>Layer {{ i + 1 }}</legend>
                    <s-choice-field formControlName="soil" [label]="'Soil of layer ' + (i + 1)" [choices]="soils" />
                    <s-measure-field
                      formControlName="toMm"
                      [label]="'Layer ' + (i + 1) + ' down to'"
                      [required]="false"
                      [fault]="sender.faultIn('horizons.' + i + '.toMm')"
                    />
                    <s-choice-field
                      formControlName="fill"
                      [label]="'Layer ' + (i + 1) + ' filled by builders'"
                      [choices]="yesNo"
                    />
                    <s-measure-field
                      formControlName="rateMmPerH"
                      [label]="'Layer ' + (i + 1) + ' drains, by a hole in it'"
                      [required]="false"
                      note="Empty without a test in it"
                    />
                  </fieldset>
                }
              }
            </ng-container>
          }
        </div>
        <div>
          <s-measure-field formControlName="slopePct" [required]="false" />
          <s-compass-field
            formControlName="fallsTowardsDeg"
            label="Falls towards"
            [fault]="sender.faultIn('fallsTowardsDeg')"
          />
          <s-choice-field formControlName="stripKind" label="Room for the pit" [choices]="strips" />
          @if (form.value.stripKind === 'strip') {
            <s-measure-field formControlName="stripWidthMm" />
          }
          <s-choice-field formControlName="wireKind" label="Wires overhead" [choices]="wires" />
          @if (form.value.wireKind === 'wire') {
            <s-measure-field formControlName="wireHeightM" />
            <p class="caution">
              Stay clear of conductors with tools, poles and crown. Measure from the ground by instrument; ask the
              utility's qualified people.
            </p>
          }
        </div>
      </div>
      <p class="quiet">Percolation <s-term code="percolation" /></p>
      <s-percolation-field formControlName="percolation" [classes]="store.drainage()" />
      @if (gaps().length > 0) {
        <s-because [reasons]="gaps()" />
      }
      <s-form-foot
        act="Store ground facts"
        [looksOn]="looksOn()"
        [tried]="tried()"
        [incomplete]="incomplete()"
        [differences]="differences()"
        (discard)="discard()"
        (keepMine)="keepMine()"
        (takeTheirs)="takeTheirs()"
      />
    </form>
  `,
  styles: `
    .columns {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 0 2rem;
      margin-bottom: 1rem;
    }
    .layer {
      border-left: 3px solid var(--line);
      padding-left: 0.75rem;
      margin-bottom: 0.5rem;
    }
    .layer legend {
      font-size: 1rem;
      font-weight: 600;
    }
    @media (max-width: 980px) {
      .columns {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class GroundBench extends RecordForm<'ground'> {
  protected readonly kind = 'ground';
  private readonly router = inject(Router);
  private readonly view = inject(ViewState);
  protected readonly feeling = signal(false);
  protected readonly soils = choicesOf(soilNames);
  protected readonly yesNo = choicesOf({ no: 'No', yes: 'Yes' });
  protected readonly strips = choicesOf({ open: 'Open lawn', strip: 'Strip' });
  protected readonly wires = choicesOf({ none: 'None', wire: 'Wires' });

  protected readonly form = new FormGroup({
    soil: new FormControl<SoilClass | null>(null),
    stony: new FormControl<'yes' | 'no' | null>(null),
    compacted: new FormControl<'yes' | 'no' | null>(null),
    slopePct: new FormControl<number | null>(null),
    fallsTowardsDeg: new FormControl<number | null>(null),
    stripKind: new FormControl<'open' | 'strip' | null>(null),
    stripWidthMm: new FormControl<number | null>(null),
    wireKind: new FormControl<'none' | 'wire' | null>(null),
    wireHeightM: new FormControl<number | null>(null),
    layered: new FormControl<'yes' | 'no' | null>(null),
    layers: new FormArray(Array.from({ length: mostLayers }, layerGroup)),
    percolation: new FormControl<PercolationRows>([], { nonNullable: true }),
  });

  /** How many layers are described: one more is asked for. */
  protected readonly described = computed(() => {
    this.changes();
    return this.form.controls.layers.getRawValue().filter(({ soil, toMm }) => soil !== null && toMm !== null).length;
  });

  protected readonly gaps = computed(() => {
    const facts = this.facts();
    return facts ? groundGaps(facts, this.store.drainage()) : [];
  });

  protected readonly incomplete = computed(() =>
    this.facts()
      ? null
      : 'A value above is missing or outside its limits; each layer has a soil and goes deeper than the one above it.',
  );

  constructor() {
    super();
    this.start();
  }

  protected felt(soil: SoilClass): void {
    this.form.patchValue({ soil });
    this.form.markAsDirty();
    this.feeling.set(false);
  }

  protected stored(): object {
    const facts = this.newest()?.facts;
    if (!facts) return {};
    const { stripWidthMm: strip, wireHeightM: wire } = facts;
    return {
      soil: facts.soil,
      stony: asWord(facts.stony),
      compacted: asWord(facts.compacted),
      slopePct: facts.slopePct,
      fallsTowardsDeg: facts.fallsTowardsDeg,
      stripKind: strip === null ? null : strip === 'open' ? 'open' : 'strip',
      stripWidthMm: typeof strip === 'number' ? strip : null,
      wireKind: wire === null ? null : wire === 'none' ? 'none' : 'wire',
      wireHeightM: typeof wire === 'number' ? wire : null,
      percolation: rowsOf(facts.percolation, this.session.units()),
      layered: facts.horizons ? 'yes' : null,
      layers: Array.from({ length: mostLayers }, (_, i) => {
        const layer = facts.horizons?.[i];
        return {
          soil: layer?.soil ?? null,
          toMm: layer?.toMm ?? null,
          fill: layer?.fill ? 'yes' : 'no',
          rateMmPerH: layer?.rateMmPerH ?? null,
        };
      }),
    };
  }

  protected readFacts(): GroundFacts | null {
    const v = this.form.getRawValue();
    const percolation = readRows(v.percolation, this.session.units());
    const wrong = ['slopePct', 'fallsTowardsDeg'].some((name) => this.form.get(name)?.invalid);
    const stripWrong = v.stripKind === 'strip' && (v.stripWidthMm === null || this.form.controls.stripWidthMm.invalid);
    const wireWrong = v.wireKind === 'wire' && (v.wireHeightM === null || this.form.controls.wireHeightM.invalid);
    const layers = v.layered === 'yes' ? this.readLayers() : undefined;
    if (typeof percolation === 'string' || wrong || stripWrong || wireWrong || layers === null) return null;
    return {
      soil: v.soil,
      stony: fromWord(v.stony),
      compacted: fromWord(v.compacted),
      percolation,
      slopePct: v.slopePct,
      fallsTowardsDeg: v.fallsTowardsDeg,
      stripWidthMm: v.stripKind === 'strip' ? v.stripWidthMm : v.stripKind,
      wireHeightM: v.wireKind === 'wire' ? v.wireHeightM : v.wireKind,
      ...(layers === undefined ? {} : { horizons: layers }),
    };
  }

  /** The layers that are described; `null` while one is half described, or out of order. */
  private readLayers(): Horizon[] | null {
    const { layers } = this.form.controls;
    const found: Horizon[] = [];
    for (const [i, { soil, toMm, fill, rateMmPerH }] of layers.getRawValue().entries()) {
      if (soil === null && toMm === null && rateMmPerH === null) continue;
      if (soil === null || toMm === null || layers.at(i).invalid || toMm <= (found.at(-1)?.toMm ?? 0)) return null;
      found.push({ soil, toMm, fill: fill === 'yes', rateMmPerH });
    }
    return found.length > 0 ? found : null;
  }

  protected async submit(): Promise<void> {
    const id = this.store.detail()?.spot.id;
    if (!(await this.save('Ground facts stored.'))) return;
    if (this.gaps().length > 0) return;
    // Where the tree is bought already the place was decided on; else its surroundings come next.
    if (this.store.life()?.stock) void this.router.navigate(['/stock', id]);
    else this.view.set({ part: 'around' });
  }
}
