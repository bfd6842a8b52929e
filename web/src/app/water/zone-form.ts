import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { KeptZone, KeptZones, ZoneBody } from '@sombra/contract';
import {
  formatNumber,
  formatQuantity,
  InvalidInputError,
  seekProgramme,
  tryZone,
  zonePlantKinds,
  type ClimateDay,
  type ZonePlantKind,
  type ZoneProgramme,
  type ZoneTrial,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { QuantityInput } from '../fields/quantity-input';
import { textOf, tickOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { SpotListService } from '../spot/spot-list.service';
import { BecauseList } from '../ui/because-list';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { DateInput } from '../fields/date-input';
import { DevicesService } from './devices.service';
import { ProgrammeFields } from './programme-fields';
import { zoneOf } from './zone-trial';

type Plant = ZoneBody['plants'][number];
const plantNames: Readonly<Record<ZonePlantKind, string>> = { tree: 'Tree', shrub: 'Shrubs', turf: 'Turf' };
const fresh = (): { name: string; body: ZoneBody } => ({
  name: '',
  body: { emitterLPerH: 4, plants: [], programme: { minutes: 30, everyDays: 3, timesADay: 1 }, turf: null },
});
const newTurf: ZoneProgramme = { minutes: 8, everyDays: 1, timesADay: 3 };
/** Others get a turn between so many programmes. */
const slice = 4;

/** One valve: what hangs on it, its programme, and what that does to each plant, worked out as it is typed. */
@Component({
  selector: 's-zone-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DateInput, BecauseList, ProgrammeFields, QuantityInput],
  templateUrl: './zone-form.html',
  styleUrl: './zone-form.scss',
})
export class ZoneForm {
  readonly zone = input.required<KeptZone | null>();
  readonly climate = input.required<readonly ClimateDay[]>();
  readonly mayChange = input.required<boolean>();
  readonly changed = output<{ kept: KeptZones; openId: string }>();
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  protected readonly kinds = zonePlantKinds;
  protected readonly plantNames = plantNames;
  private readonly doors = inject(DevicesService);
  private readonly spots = inject(SpotListService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly none = signal<string | null>(null);
  protected readonly sought = signal<number | null>(null);
  private newId = uuidv7();

  /** What was typed belongs to the version it was typed on: another zone, or a newer one, is shown as it is kept. */
  private readonly typed = signal<{ of: string; name: string; body: ZoneBody } | null>(null);
  private readonly key = computed(() => {
    const zone = this.zone();
    return zone ? `${zone.id}/${zone.version}` : 'new';
  });
  protected readonly now = computed(() => {
    const typed = this.typed();
    if (typed?.of === this.key()) return typed;
    const zone = this.zone();
    return zone ? { name: zone.name, body: zone.body } : fresh();
  });
  protected readonly dirty = computed(() => this.typed()?.of === this.key());

  protected readonly trials = computed((): { trials: readonly ZoneTrial[]; fault: string | null } => {
    const { body } = this.now();
    const zone = zoneOf({ body, trees: this.zone()?.trees ?? [] });
    if (this.climate().length === 0) return { trials: [], fault: null };
    try {
      return { trials: tryZone(zone, this.climate()), fault: null };
    } catch (error) {
      if (!(error instanceof InvalidInputError)) throw error;
      return { trials: [], fault: `${error.message}.` };
    }
  });
  protected readonly lines = computed(() => {
    const units = this.session.units();
    return this.trials().trials.map((trial) => ({
      name: trial.plant.name,
      kind: plantNames[trial.plant.kind],
      run: formatQuantity(trial.runL, 'volumeL', units),
      litres: formatQuantity(trial.litres, 'volumeL', units),
      stress: formatNumber(trial.stressDays, 0),
      logged: formatNumber(trial.waterloggedDays, 0),
      drowns: trial.drowns,
      because: trial.because.slice(-1),
    }));
  });
  /** Trees that are not followed have nothing to be tried by. */
  protected readonly untried = computed(() => {
    const subjects = new Map((this.zone()?.trees ?? []).map(({ spotId, subject }) => [spotId, subject]));
    const trees = this.now().body.plants.filter(({ kind }) => kind === 'tree');
    return trees.filter(({ spotId }) => !subjects.get(spotId ?? '')).map(({ name }) => name);
  });
  protected readonly runs = computed(() =>
    (this.zone()?.runs ?? []).map((run) => ({
      at: run.at,
      words: `${new Date(run.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}: ${formatNumber(run.minutes, 0)} min, ${formatQuantity(run.litres, 'volumeL', this.session.units())}`,
    })),
  );

  protected change(change: Partial<ZoneBody>): void {
    const { name, body } = this.now();
    this.typed.set({ of: this.key(), name, body: { ...body, ...change } });
    this.none.set(null);
    this.fault.set(null);
  }
  protected rename(name: string): void {
    this.typed.set({ of: this.key(), name, body: this.now().body });
  }
  protected programme(change: Partial<ZoneProgramme>): void {
    this.change({ programme: { ...this.now().body.programme, ...change } });
  }
  protected turf(on: boolean): void {
    const until = this.session.today();
    this.change({ turf: on ? { programme: newTurf, until } : null });
  }
  protected turfProgramme(change: Partial<ZoneProgramme>): void {
    const { turf } = this.now().body;
    if (turf) this.change({ turf: { ...turf, programme: { ...turf.programme, ...change } } });
  }
  protected turfUntil(until: string): void {
    const { turf } = this.now().body;
    if (turf && until !== '') this.change({ turf: { ...turf, until } });
  }
  private plant(at: number, change: Partial<Plant>): void {
    this.change({ plants: this.now().body.plants.map((plant, i) => (i === at ? { ...plant, ...change } : plant)) });
  }
  protected plantName(at: number, event: Event): void {
    this.plant(at, { name: textOf(event) });
  }
  protected emitters(at: number, event: Event): void {
    this.plant(at, { emitters: Number(textOf(event)) });
  }
  protected area(at: number, event: Event): void {
    this.plant(at, { areaM2: Number(textOf(event)) });
  }
  protected drop(at: number): void {
    this.change({ plants: this.now().body.plants.filter((_, i) => i !== at) });
  }
  protected addPatch(kind: ZonePlantKind): void {
    const patch = { kind, name: plantNames[kind], emitters: 10, areaM2: 5, spotId: null };
    this.change({ plants: [...this.now().body.plants, patch] });
  }
  protected async addTree(field: HTMLInputElement): Promise<void> {
    const ref = field.value.trim();
    if (ref === '') return;
    await this.act(async () => {
      const { lines } = await firstValueFrom(this.spots.list({ filter: { find: ref }, offset: 0, limit: 20 }));
      const spot = lines.find((line) => line.ref.toLowerCase() === ref.toLowerCase());
      if (!spot) throw new TypeError(`No spot is called ${ref}`);
      const tree = { kind: 'tree' as const, name: spot.ref, emitters: 4, areaM2: 0, spotId: spot.spotId };
      this.change({ plants: [...this.now().body.plants, tree] });
      field.value = '';
    });
  }

  /** Tries programme after programme, a few at a time, so that the page still answers. */
  protected async seek(): Promise<void> {
    const { body } = this.now();
    const seek = seekProgramme(zoneOf({ body, trees: this.zone()?.trees ?? [] }), this.climate());
    const key = this.key();
    this.sought.set(0);
    for (let i = 0; this.sought() !== null; i++) {
      const step = seek.next();
      if (step.done) {
        if (this.key() === key) {
          this.programme(step.value.programme);
          this.none.set(this.wordsOf(step.value.trials));
        }
        break;
      }
      if (i % slice === 0) {
        this.sought.set(step.value);
        await new Promise((resolve) => setTimeout(resolve));
      }
    }
    this.sought.set(null);
  }

  /** The least harm is still harm where plants on one valve want too different things. */
  private wordsOf(trials: readonly ZoneTrial[]): string | null {
    const drowned = trials.filter(({ drowns }) => drowns).map(({ plant }) => plant.name);
    return drowned.length === 0
      ? null
      : `No programme does for all of them. This one harms least and still drowns ${drowned.join(', ')}: put them on a valve of their own, or shut it while it rains.`;
  }

  protected async save(retired = false): Promise<void> {
    const zone = this.zone();
    const { name, body } = this.now();
    const id = zone?.id ?? this.newId;
    await this.act(async () => {
      const asked = { id, name: name.trim(), body, retired, version: zone?.version ?? 0 };
      const kept = await firstValueFrom(this.doors.saveZone(asked));
      this.typed.set(null);
      this.newId = uuidv7();
      this.changed.emit({ kept, openId: id });
      this.toasts.say('Zone kept; the controller is told within a minute.');
    });
  }

  private async act(what: () => Promise<unknown>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      await what();
    } catch (error) {
      this.fault.set(error instanceof TypeError ? `${error.message}.` : sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
