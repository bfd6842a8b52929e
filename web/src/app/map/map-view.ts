import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import type { Booked, Problem, SpotFilter } from '@sombra/contract';
import { formatQuantity } from '@sombra/core';
import { catchError, filter, firstValueFrom, merge, of, pairwise, switchMap } from 'rxjs';
import { BulkActs } from '../spot/bulk-acts.service';
import { ChosenService, mostChosen } from '../spot/chosen.service';
import { LiveService } from '../ui/live.service';
import { readProblem, sayProblem } from '../ui/problem';
import { StateNote } from '../ui/state-note';
import { ThemeService } from '../ui/theme.service';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { GroundService } from '../ground/ground.service';
import { OutboxService } from '../offline/outbox.service';
import { SessionService } from '../session/session.service';
import { SpotListService } from '../spot/spot-list.service';
import { SpotStore } from '../spot/spot-store';
import { AddSpotForm } from './add-spot-form';
import { MapCanvas, type Camera } from './map-canvas';
import { MapLegend } from './map-legend';
import { MapSheet } from './map-sheet';
import { MapService } from './map.service';
import { geodesicAreaM2, geodesicLengthM, thinned, type LngLat } from './measure';
import { MoveSpotForm } from './move-spot-form';

type Tool = 'look' | 'lasso' | 'measure' | 'add' | 'move';

/** The town: base map, spots as marks that tell their state, and the tools that work on them. */
@Component({
  selector: 's-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  imports: [StateNote, MapLegend, MapSheet, AddSpotForm, MoveSpotForm],
  templateUrl: './map-view.html',
  styleUrl: './map-view.scss',
})
export class MapView {
  readonly filter = input.required<SpotFilter>();
  readonly openId = input<string>();
  readonly opened = output<string>();
  protected readonly view = inject(ViewState);
  protected readonly chosen = inject(ChosenService);
  protected readonly store = inject(SpotStore);
  private readonly maps = inject(MapService);
  private readonly lists = inject(SpotListService);
  private readonly ground = inject(GroundService);
  private readonly router = inject(Router);
  private readonly toasts = inject(ToastsService);
  private readonly session = inject(SessionService);
  private readonly theme = inject(ThemeService);
  private readonly destroyed = inject(DestroyRef);
  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');

  protected readonly problem = signal<Problem | null>(null);
  protected readonly ready = signal(false);
  /** Whether everything the map asked for stands drawn. */
  protected readonly drawn = signal(false);
  protected readonly tool = signal<Tool>('look');
  protected readonly picked = signal<LngLat | null>(null);
  protected readonly measured = signal<readonly LngLat[]>([]);
  protected readonly ring = signal<readonly LngLat[] | null>(null);
  protected readonly booked = signal<Booked>({ days: [], tickets: [], zones: [] });
  protected readonly sheet = signal<{ readonly picture: string; readonly widthM: number } | null>(null);
  private canvas: MapCanvas | null = null;
  private endLasso: (() => void) | null = null;

  protected readonly mayChange = computed(() => this.session.may('add_spot') && this.view.tense() === 'today');
  protected readonly mayMove = computed(
    () => this.mayChange() && !!this.store.detail() && !this.store.life()?.planting,
  );
  protected readonly distance = computed(() =>
    formatQuantity(geodesicLengthM(this.measured()), 'distanceM', this.session.units()),
  );
  protected readonly enclosed = computed(() => geodesicAreaM2(this.measured()));
  protected readonly area = computed(() => formatQuantity(this.enclosed(), 'areaM2', this.session.units()));
  private readonly filterKey = computed(() => JSON.stringify(this.filter()));
  /** The filter the map is to go to, once it stands; the day, the stage one is in and an area drawn are none. */
  private readonly placed = computed(() => {
    if (!this.begun()) return null;
    const { on: _on, area: _area, stage: _stage, ...parts } = this.filter();
    return Object.values(parts).some((part) => part !== undefined) ? JSON.stringify(parts) : '';
  });
  /** The map stands for the first time; painted anew in other colours it stands where it stood. */
  private readonly begun = signal(false);

  constructor() {
    void this.start();
    this.destroyed.onDestroy(() => this.canvas?.destroy());
    merge(inject(LiveService).settled$, inject(OutboxService).delivered$, inject(BulkActs).done$)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.canvas?.refresh());
    toObservable(this.view.on)
      .pipe(
        switchMap((on) => this.maps.booked(on).pipe(catchError(() => of(null)))),
        takeUntilDestroyed(),
      )
      .subscribe((booked) => {
        if (booked) this.booked.set(booked);
      });
    effect(() => {
      this.filterKey();
      if (this.ready()) this.canvas?.show(untracked(this.filter));
    });
    // A filter, or a place that was found, is gone to; what somebody panned to since stays where no filter holds.
    toObservable(this.placed)
      .pipe(
        pairwise(),
        // An address that says where to look is believed.
        filter(([before, now]) => !!now && before !== now && (before !== null || this.view.text('at') === null)),
        switchMap(([, now]) =>
          this.maps.extent(JSON.parse(now ?? '{}') as SpotFilter).pipe(catchError(() => of(null))),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((bounds) => {
        if (bounds) this.canvas?.fit(bounds, 400);
      });
    effect(() => {
      const chosen = this.chosen.chosen().map(({ position }) => position);
      const open = this.openId() ? (this.store.detail()?.spot.position ?? null) : null;
      if (this.ready()) this.canvas?.notice(open, chosen);
    });
    effect(() => {
      const { days, tickets, zones } = this.booked();
      // Rings belong to spots that are shown: those that wait for their planting day.
      const stages = this.filter().stage;
      const shown = !stages || stages.includes('day') ? days : [];
      if (this.ready()) this.canvas?.book({ days: shown, tickets, zones });
    });
    effect(() => {
      const at = this.store.detail()?.spot.position;
      if (at && this.ready()) this.canvas?.reveal(at);
    });
    effect(() => {
      this.theme.dark();
      // The theme's variables stand once the attribute is set: a frame later.
      if (untracked(this.ready)) requestAnimationFrame(() => this.repaint());
    });
    effect(() => {
      const drawn = { ring: this.ring() ?? [], line: this.measured(), points: this.points() };
      if (this.ready()) this.canvas?.draw(drawn);
    });
  }

  private readonly points = computed<readonly LngLat[]>(() => {
    const picked = this.picked();
    return picked ? [picked] : this.measured();
  });

  protected async start(): Promise<void> {
    this.problem.set(null);
    try {
      const info = await firstValueFrom(this.maps.info());
      const unit = this.session.units() === 'us' ? 'imperial' : 'metric';
      const camera = readCamera(this.view.text('at'));
      this.canvas = new MapCanvas({ container: this.box().nativeElement, info, filter: this.filter(), camera, unit });
      this.canvas.onReady(() => {
        this.ready.set(true);
        this.begun.set(true);
      });
      this.canvas.onDrawn((drawn) => this.drawn.set(drawn));
      this.canvas.onMoved(({ zoom, center }) =>
        this.view.set({ at: `${zoom.toFixed(2)}/${center[1].toFixed(6)}/${center[0].toFixed(6)}` }),
      );
      this.canvas.onClick((at, spotId, event) => this.click(at, spotId, event));
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  private repaint(): void {
    this.canvas?.repaint(this.filter());
    this.ready.set(false);
    this.canvas?.onceStyled(() => this.ready.set(true));
  }

  private click(at: LngLat, spotId: string | null, event: MouseEvent): void {
    const tool = this.tool();
    if (tool === 'measure') return this.measured.update((points) => [...points, at]);
    if (tool === 'add' || tool === 'move') return this.picked.set(at);
    if (!spotId || tool === 'lasso') return;
    if (event.ctrlKey || event.metaKey || event.shiftKey) void this.toggle(spotId);
    else this.opened.emit(spotId);
  }

  private async toggle(spotId: string): Promise<void> {
    const known = this.chosen.chosen().find((line) => line.spotId === spotId);
    if (known) return this.chosen.toggle(known);
    const detail = await firstValueFrom(this.lists.detailRef(spotId));
    const { lines } = await firstValueFrom(this.lists.list({ filter: { ...this.filter(), ref: [detail] }, limit: 1 }));
    this.chosen.add(lines);
  }

  protected use(tool: Tool): void {
    this.stopTool();
    if (this.tool() === tool && tool !== 'look') return this.tool.set('look');
    this.tool.set(tool);
    if (tool === 'lasso') {
      this.endLasso =
        this.canvas?.lasso(
          (ring) => this.ring.set([...ring]),
          (ring) => void this.chooseInside(thinned(ring)),
        ) ?? null;
    }
  }

  private stopTool(): void {
    this.endLasso?.();
    this.endLasso = null;
    this.picked.set(null);
    this.measured.set([]);
    this.ring.set(null);
  }

  protected leaveTool(): void {
    this.stopTool();
    this.tool.set('look');
  }

  private async chooseInside(ring: LngLat[]): Promise<void> {
    this.ring.set(ring);
    const area = ring.map(([lng, lat]): [number, number] => [lng, lat]);
    const { lines, total } = await firstValueFrom(
      this.lists.list({ filter: { ...this.filter(), area }, limit: mostChosen }),
    );
    if (total === 0) this.toasts.say('No spot lies inside what you drew.');
    else if (total > lines.length) this.toasts.say(`${total} spots lie inside; the first ${lines.length} are chosen.`);
    this.chosen.only(lines);
    this.endLasso?.();
    this.endLasso = null;
    this.tool.set('look');
  }

  /** Keeps the drawn area as a part of the filter, in the address too. */
  protected showOnlyInside(): void {
    const ring = this.ring();
    if (ring) this.view.set({ area: ring.map((corner) => corner.join(',')).join(';') });
    this.ring.set(null);
  }

  /** The area just drawn is the open soil of the spot: into its surroundings, to be looked at and stored. */
  protected takeSoil(): void {
    const soil = Math.round(this.enclosed() * 10) / 10;
    const id = this.store.detail()?.spot.id;
    void this.router.navigate(['/ground', id], { queryParams: { part: 'around', soil, as: null } });
  }

  /** Raises a locate ticket for the area just drawn. */
  protected async raiseTicket(): Promise<void> {
    const ring = this.ring();
    if (!ring) return;
    try {
      const ask = { purpose: 'Planting', ring: ring.map(([lng, lat]): [number, number] => [lng, lat]), renews: null };
      const ticket = await firstValueFrom(this.ground.raise(ask));
      this.ring.set(null);
      void this.router.navigate(['/tickets'], { queryParams: { ticket: ticket.id } });
    } catch (error) {
      this.toasts.say(sayProblem(readProblem(error)));
    }
  }

  protected async locate(): Promise<void> {
    const fix = await firstValueFrom(this.maps.locate());
    if (!fix) return this.toasts.say('This device does not tell where it is.');
    this.picked.set(fix.position);
    this.canvas?.flyTo(fix.position, 18);
    const how = fix.simulated ? ' (simulated position)' : '';
    this.toasts.say(
      `You are within ${formatQuantity(fix.accuracyM, 'distanceM', this.session.units())} of the mark${how}.`,
    );
  }

  protected async print(): Promise<void> {
    const picture = await this.canvas?.picture();
    if (!picture || !this.canvas) return;
    this.sheet.set({ picture, widthM: this.canvas.widthM });
    setTimeout(() => {
      window.print();
      this.sheet.set(null);
    }, 120);
  }

  protected zoomBy(step: number): void {
    this.canvas?.zoomBy(step);
  }
}

function readCamera(text: string | null): Camera | null {
  const [zoom, lat, lng] = (text ?? '').split('/').map(Number);
  if (zoom === undefined || lat === undefined || lng === undefined || [zoom, lat, lng].some(Number.isNaN)) return null;
  return { zoom, center: [lng, lat] };
}
