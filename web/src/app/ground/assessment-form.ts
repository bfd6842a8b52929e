import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { FormArray, FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { MapDistance, Surroundings } from '@sombra/contract';
import {
  compassPoint,
  formatQuantity,
  ownerNames,
  siteThingNames,
  siteThings,
  windNames,
  wishes,
  wishNames,
  type Assessment,
  type Clearance,
  type GroundOwner,
  type SiteThing,
  type WindExposure,
  type Wish,
  rubbingNames,
  rubbings,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { DayField } from '../fields/day-field';
import { MeasureField } from '../fields/measure-field';
import { ViewState } from '../ui/view-state.service';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { sendsRecords } from '../spot/record-sender';
import { GroundService } from './ground.service';
import { tickOf } from '../fields/event-values';
import { CompassField } from '../fields/compass-field';

/** What stands around a spot: distances proposed by the map and corrected by tape, soil, sun, wind and wishes. */
@Component({
  selector: 's-assessment-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, CompassField, ChoiceField, DayField, MeasureField, FormFoot],
  providers: [sendsRecords, FormDraft],
  templateUrl: './assessment-form.html',
  styleUrl: './assessment-form.scss',
})
export class AssessmentForm extends RecordForm<'assessment'> {
  protected readonly tickOf = tickOf;
  protected readonly kind = 'assessment';
  private readonly doors = inject(GroundService);
  private readonly view = inject(ViewState);
  protected readonly things = siteThings;
  protected readonly thingNames = siteThingNames;
  protected readonly owners = choicesOf(ownerNames);
  protected readonly winds = choicesOf(windNames);
  protected readonly wishList = wishes;
  protected readonly wishNames = wishNames;
  protected readonly rubbed = choicesOf({ none: 'nothing', ...rubbingNames, both: 'deer and mowers' });
  protected readonly yesNo = choicesOf({ no: 'No', yes: 'Yes' });
  protected readonly lines = choicesOf({ none: 'Asked: none', found: 'Yes, some' });
  protected readonly around = signal<Surroundings | null>(null);
  protected readonly aroundMissing = signal(false);

  private readonly number = () => new FormControl<number | null>(null);
  protected readonly form = new FormGroup({
    assessedOn: new FormControl('', { nonNullable: true }),
    owner: new FormControl<GroundOwner | null>(null),
    clearances: new FormArray(siteThings.map(() => new FormControl<number | null>(null))),
    privateLines: new FormControl<'none' | 'found' | null>(null),
    plannedBuilding: new FormControl<'yes' | 'no'>('no', { nonNullable: true }),
    sunHours: this.number(),
    wind: new FormControl<WindExposure | null>(null),
    winterWindDeg: this.number(),
    summerWindDeg: this.number(),
    openSoilM2: this.number(),
    soilDepthMm: this.number(),
    underPavingM3: this.number(),
    probeStopsMm: this.number(),
    rubble: new FormControl<'yes' | 'no'>('no', { nonNullable: true }),
    rubbed: new FormControl<string | null>(null),
    rockAtMm: this.number(),
    soilPh: this.number(),
    saltDsM: this.number(),
    sodiumSar: this.number(),
    waterDsM: this.number(),
    waterSar: this.number(),
    rooted: new FormControl<'yes' | 'no' | null>(null),
    neighbourSpecies: new FormControl('', { nonNullable: true }),
    neighbourM: this.number(),
    neighbourRootMm: this.number(),
    soilTestedOn: new FormControl<string | null>(null),
    pavementM: this.number(),
    pavementWidthM: this.number(),
    pavementDeg: this.number(),
    wishes: new FormControl<readonly Wish[]>([], { nonNullable: true }),
    note: new FormControl('', { nonNullable: true }),
  });

  protected readonly incomplete = computed(() =>
    this.facts()
      ? null
      : 'A value above is missing or outside its limits; pH, salt and sodium ask for the day of the test.',
  );
  protected readonly neighbours = computed(() =>
    (this.around()?.neighbours ?? []).slice(0, 3).map(({ ref, species, distanceM, crownNowM, crownMatureM }) => {
      const say = (m: number) => formatQuantity(m, 'heightM', this.session.units());
      return `${ref}${species ? ` ${species}` : ''}, ${say(distanceM)} away: crown ${say(crownNowM)} wide, grown ${say(crownMatureM)}`;
    }),
  );

  constructor() {
    super();
    this.start();
    effect(() => {
      const id = this.store.detail()?.spot.id;
      if (id) untracked(() => void this.look(id));
    });
    // An area drawn on the map, brought along in the address.
    effect(() => {
      const soil = Number(this.view.text('soil') ?? NaN);
      if (!this.store.detail() || !(soil > 0)) return;
      untracked(() => {
        this.form.patchValue({ openSoilM2: soil });
        this.form.markAsDirty();
        this.view.set({ soil: null });
      });
    });
  }

  private async look(spotId: string): Promise<void> {
    try {
      this.around.set(await firstValueFrom(this.doors.surroundings(spotId)));
      this.aroundMissing.set(false);
    } catch {
      this.aroundMissing.set(true);
    }
  }

  protected proposed(thing: SiteThing): MapDistance | undefined {
    return this.around()?.distances.find((one) => one.thing === thing);
  }

  protected noteOf(thing: SiteThing): string {
    const map = this.proposed(thing);
    if (!map) return '';
    const height = map.heightM === null ? '' : `, ${formatQuantity(map.heightM, 'heightM', this.session.units())} high`;
    const side = map.towardsDeg === null ? '' : ` to the ${compassPoint(map.towardsDeg)}`;
    return `Map: ${formatQuantity(map.distanceM, 'clearanceM', this.session.units())}${side}${height}`;
  }

  /** Fills every distance nobody has typed with the map's. */
  protected takeMap(): void {
    siteThings.forEach((thing, i) => {
      const control = this.form.controls.clearances.at(i);
      const map = this.proposed(thing);
      if (map && control.value === null) control.setValue(Math.max(0.1, map.distanceM));
    });
    const street = this.around()?.streetDeg ?? null;
    if (street !== null && this.form.value.pavementDeg === null) {
      this.form.patchValue({ pavementDeg: (street + 180) % 360 });
    }
    this.form.markAsDirty();
  }

  protected wished(wish: Wish): boolean {
    return this.form.controls.wishes.value.includes(wish);
  }

  protected wishFor(wish: Wish, on: boolean): void {
    const now = this.form.controls.wishes.value.filter((one) => one !== wish);
    const against = { evergreen: 'deciduous', deciduous: 'evergreen' }[wish as 'evergreen' | 'deciduous'];
    this.form.patchValue({ wishes: on ? [...now.filter((one) => one !== against), wish] : now });
    this.form.markAsDirty();
  }

  protected stored(): object {
    const facts = this.newest()?.facts;
    if (!facts) return { assessedOn: this.session.today(), wishes: [] };
    const {
      plannedBuilding,
      rubble,
      rubbedBy,
      clearances,
      irrigation,
      neighbourRoots,
      photoId: _photo,
      ...rest
    } = facts;
    return {
      ...rest,
      plannedBuilding: plannedBuilding ? 'yes' : 'no',
      rubble: rubble ? 'yes' : 'no',
      waterDsM: irrigation?.saltDsM ?? null,
      waterSar: irrigation?.sodiumSar ?? null,
      rooted: neighbourRoots ? 'yes' : null,
      neighbourSpecies: neighbourRoots?.species ?? '',
      neighbourM: neighbourRoots?.distanceM ?? null,
      neighbourRootMm: neighbourRoots?.thickestMm ?? null,
      rubbed: rubbedBy ? (rubbedBy.length > 1 ? 'both' : (rubbedBy[0] ?? 'none')) : null,
      clearances: siteThings.map((thing) => clearances.find((one) => one.thing === thing)?.distanceM ?? null),
    };
  }

  protected readFacts(): Assessment | null {
    const { rubbed, waterDsM, waterSar, rooted, neighbourSpecies, neighbourM, neighbourRootMm, ...v } =
      this.form.getRawValue();
    if (rooted === 'yes' && (neighbourM === null || neighbourRootMm === null)) return null;
    const tested = [v.soilPh, v.saltDsM, v.sodiumSar].some((value) => value !== null);
    if (this.form.invalid || v.assessedOn === '' || (tested && !v.soilTestedOn)) return null;
    return {
      ...v,
      clearances: siteThings.flatMap((thing, i): Clearance[] => {
        const distanceM = v.clearances[i] ?? null;
        if (distanceM === null) return [];
        const map = this.proposed(thing);
        const by = map && Math.abs(map.distanceM - distanceM) < 0.005 ? ('map' as const) : ('tape' as const);
        // The tape corrects how far it is, not on which side.
        const kept = this.newest()?.facts.clearances.find((one) => one.thing === thing)?.towardsDeg;
        const towardsDeg = map?.towardsDeg ?? kept ?? null;
        return [{ thing, distanceM, by, ...(towardsDeg === null ? {} : { towardsDeg }) }];
      }),
      plannedBuilding: v.plannedBuilding === 'yes',
      rubble: v.rubble === 'yes',
      ...(waterDsM === null && waterSar === null ? {} : { irrigation: { saltDsM: waterDsM, sodiumSar: waterSar } }),
      ...(rooted === 'yes'
        ? {
            neighbourRoots: {
              species: neighbourSpecies.trim(),
              distanceM: neighbourM ?? 0,
              thickestMm: neighbourRootMm ?? 0,
            },
          }
        : {}),
      ...(rubbed === null ? {} : { rubbedBy: rubbings.filter((one) => one === rubbed || rubbed === 'both') }),
      soilTestedOn: v.soilTestedOn === '' ? null : v.soilTestedOn,
      wishes: v.wishes,
      photoId: this.newest()?.facts.photoId ?? null,
    };
  }

  protected async submit(): Promise<void> {
    if (await this.save('Surroundings stored.')) this.view.set({ part: 'verdict' });
  }
}
