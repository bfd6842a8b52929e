import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  Injector,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { PlantingDays } from '@sombra/contract';
import { addDaysTo, formatNumber, stageNames } from '@sombra/core';
import { exhaustMap, filter, firstValueFrom, takeWhile, timer } from 'rxjs';
import { SessionService } from '../session/session.service';
import { sayDate, sayClock } from '../ui/say-date';
import { opensForDays } from '../session/device-marks';
import { textOf } from '../fields/event-values';
import { whenIdle } from '../ui/when-idle';
import { AlongService } from '../offline/along.service';
import { TakeAlongService } from '../offline/take-along.service';
import { LaidInService } from '../offline/laid-in.service';
import { readProblem, sayProblem } from '../ui/problem';
import { AlongMap } from './along-map';
import { AssignmentCard } from './assignment-card';
import { AssignmentsService } from '../offline/assignments.service';
import { StopsService } from './stops.service';
import { WhereService } from './where.service';

/** Each line is worked out by the core: so many at a time, or a tap would wait for all of them. */
const linesAtOnce = 4;
const firstLines = 20;

/** Home of the field: whether this device may leave, what one is sent out to, and what lies here, as a map and a list. */
@Component({
  selector: 's-along-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, AlongMap, AssignmentCard],
  providers: [StopsService, WhereService],
  templateUrl: './along-page.html',
  styleUrl: './along-page.scss',
})
export class AlongPage {
  protected readonly textOf = textOf;
  protected readonly sayDate = sayDate;
  /** Today's and those of the next two days, for whoever runs them. */
  protected readonly plantingDays = signal<PlantingDays>([]);
  protected readonly days = opensForDays;
  protected readonly along = inject(AlongService);
  protected readonly taking = inject(TakeAlongService);
  protected readonly laid = inject(LaidInService);
  protected readonly session = inject(SessionService);
  protected readonly where = inject(WhereService);
  private readonly stops = inject(StopsService);
  private readonly assignments = inject(AssignmentsService);
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  protected readonly words = signal('');
  /** `map=yes` in the address shows the map. */
  readonly map = input<string>();
  protected readonly asMap = linkedSignal(() => this.map() === 'yes');
  protected readonly code = signal('');
  protected readonly codeFault = signal<string | null>(null);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.where.stop());
    // What one is sent out to is to be pressed first: each line of the list is worked out by the core.
    whenIdle(() => this.readStops());
    void this.taking.takeIfStale().catch(() => undefined);
    void this.readDays().catch(() => undefined);
    effect(() => {
      if (this.drawn() < this.most()) whenIdle(() => this.drawn.update((count) => count + linesAtOnce));
    });
    effect(() => {
      // A map without one's own place on it is half a map.
      if (this.asMap()) untracked(() => this.where.follow());
    });
    // Looked at until it lies here whole; nobody counts while the page is hidden.
    timer(0, 1000)
      .pipe(
        filter(() => !document.hidden),
        exhaustMap(() => this.laid.look()),
        takeWhile(({ kind }) => kind === 'laying'),
        takeUntilDestroyed(),
      )
      .subscribe();
  }

  protected readStops(): void {
    void this.stops.read();
  }

  private async readDays(): Promise<void> {
    if (!this.session.may('run_day')) return;
    const { DaysService } = await import('../day/days.service');
    const daysDoor = this.injector.get(DaysService);
    const [today, last] = [this.session.today(), addDaysTo(this.session.today(), 2)];
    // Where neither server nor device knows of any there is none to show.
    const days = await firstValueFrom(daysDoor.all()).catch((): PlantingDays => []);
    this.plantingDays.set(days.filter(({ onDay, state }) => state === 'planned' && onDay >= today && onDay <= last));
  }

  protected readonly readyWords = computed(() => {
    const laid = this.laid.state();
    if (laid.kind === 'laying') {
      const far = laid.of > 0 ? `, ${laid.done} of ${laid.of} files` : '';
      return `Not ready: the application is still being laid in${far}.`;
    }
    const ready = this.along.ready();
    if (!ready) return 'Looking what is here…';
    const { count, isWhole, opened, bytes, at } = ready;
    const size = `${formatNumber(bytes / 1e6, 1)} MB`;
    if (count === 0 || at === null) {
      return opened === 0 ? 'Not ready: nothing is taken along.' : `${opened} spots that were opened, ${size}`;
    }
    const here = `${count} ${count === 1 ? 'tree' : 'trees'}, ${size}, ${sayClock(at)}`;
    return isWhole || this.taking.isThrough()
      ? `Ready for ${here}`
      : `Not ready: cut short at ${here}. It goes on where there is a network.`;
  });

  /** What lies here besides spots. */
  protected readonly also = computed(() => {
    const { tiles, photos, deliveries } = this.along.kinds();
    const parts = [
      tiles > 0 ? `the map around them (${tiles} squares)` : '',
      photos > 0 ? `${photos} ${photos === 1 ? 'photo' : 'photos'} in small` : '',
      deliveries > 0 ? `${deliveries} ${deliveries === 1 ? 'delivery' : 'deliveries'}` : '',
    ].filter(Boolean);
    return parts.length > 0 ? `With it: ${parts.join(', ')}.` : '';
  });

  protected readonly room = computed(() => {
    const left = this.taking.shortOfRoom();
    return left === null ? '' : `${formatNumber(left / 1e6, 0)} MB`;
  });

  protected readonly isFar = computed(() => this.where.isFarFrom(this.stops.stops().map(({ position }) => position)));

  /** Those that are meant by the words, nearest first where the device knows where it is, by number else. */
  protected readonly meant = computed(() => {
    const asked = this.words().trim().toLowerCase();
    const near = this.where.here() !== null && !this.isFar();
    const away = new Map<string, number>();
    const stops = this.stops
      .stops()
      .filter((one) => `${one.ref} ${one.place} ${one.species}`.toLowerCase().includes(asked));
    if (near) for (const one of stops) away.set(one.id, this.where.distanceM(one.position) ?? 0);
    return stops.sort((a, b) => (near ? (away.get(a.id) ?? 0) - (away.get(b.id) ?? 0) : a.ref.localeCompare(b.ref)));
  });
  protected readonly areRead = this.stops.areRead;
  protected readonly cameNot = this.stops.fault;
  protected readonly all = signal(false);
  protected readonly most = computed(() => Math.min(this.meant().length, this.all() ? Infinity : firstLines));
  private readonly drawn = linkedSignal({ source: this.words, computation: () => linesAtOnce });

  /** The first of them: a long list would keep the hand waiting. */
  protected readonly shown = computed(() => {
    const near = this.where.here() !== null && !this.isFar();
    return this.meant()
      .slice(0, Math.min(this.drawn(), this.most()))
      .map((one) => {
        const stage = one.life?.stage ?? 'ground';
        const { id, ref, place, species } = one;
        const way = near ? this.where.way(one.position) : '';
        return { id, ref, place, species, stage, way, waits: one.waits || stageNames[stage] };
      });
  });

  protected open(spotId: string): void {
    const stage = this.stops.stop(spotId)?.life?.stage;
    if (stage) void this.router.navigate(['/', stage, spotId]);
  }

  protected async takeOver(event: Event): Promise<void> {
    event.preventDefault();
    this.codeFault.set(null);
    try {
      await firstValueFrom(this.assignments.takeOver(this.code()));
      this.code.set('');
    } catch (error) {
      const problem = readProblem(error);
      const [issue] = problem.issues ?? [];
      this.codeFault.set(
        issue && problem.title.startsWith('A value') ? `The code ${issue.message}.` : sayProblem(problem),
      );
    }
  }
}
