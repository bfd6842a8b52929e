import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { compassPoint, formatNumber, formatQuantity, remedyWords, stageNames, type SpotLife } from '@sombra/core';
import { format } from 'date-fns';
import { exhaustMap, filter, takeWhile, timer } from 'rxjs';
import { SessionService } from '../session/session.service';
import { opensForDays } from '../session/kept-session';
import { lifeOf, readSpotDetail } from '../spot/spot-context';
import { textOf } from '../fields/event-values';
import { AlongService } from '../offline/along.service';
import { LaidInService } from '../offline/laid-in.service';
import { wayTo } from './way';

/** What goes along: whether this device may leave, and the spots on it, nearest first where it knows where it is. */
@Component({
  selector: 's-along-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <h1>Taken along</h1>
    <p class="ready" role="status">
      @if (along.progress(); as now) {
        <progress [value]="now.done" [max]="now.of || 1"></progress> {{ now.done }} of {{ now.of }} spots
      } @else {
        <b>{{ readyWords() }}</b>
      }
    </p>
    @if (laid.state().kind === 'unable') {
      <p class="caution">
        This browser does not lay the application in here: it opens with the network alone. Phones need an address that
        begins with https.
      </p>
    }
    @if (along.fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (!along.goesOut()) {
      <p class="quiet">What you open is kept here by itself, the last sixty spots.</p>
    }
    @if (session.away()) {
      <p class="caution">
        No network. What is here opens and takes records; they wait on this device and are sent by themselves. Without a
        word from the server this device opens for {{ days }} days.
      </p>
    }
    <div class="acts">
      @if (along.goesOut() && !session.away()) {
        <button type="button" class="btn btn-primary" [disabled]="!!along.progress()" (click)="along.take()">
          Take along now
        </button>
      }
      <button type="button" class="btn btn-outline-primary" (click)="locate()">Nearest first</button>
      <input
        class="form-control"
        type="search"
        placeholder="Number, street, species"
        aria-label="Find among what is here"
        (input)="words.set(textOf($event))"
      />
    </div>
    @if (lost(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <ul>
      @for (one of shown(); track one.id) {
        <li>
          <a [routerLink]="['/', one.stage, one.id]">
            <span class="head"
              ><b>{{ one.ref }}</b> {{ one.place }}
              @if (one.way) {
                <span class="way">{{ one.way }}</span>
              }
            </span>
            <span class="quiet"
              ><i>{{ one.species }}</i> {{ one.waits }}</span
            >
          </a>
        </li>
      } @empty {
        <li class="quiet">Nothing is kept on this device{{ words() ? ' by these words' : '' }}.</li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.25rem;
      max-width: 48rem;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin-bottom: 0.75rem;
    }
    .acts .btn,
    .acts input {
      min-height: 48px;
    }
    .acts input {
      flex: 1 1 12rem;
    }
    ul {
      list-style: none;
      padding: 0;
      margin: 0;
    }
    a {
      display: block;
      padding: 0.55rem 0.25rem;
      min-height: 56px;
      border-bottom: 1px solid var(--line);
      color: var(--ink);
      text-decoration: none;
    }
    .head {
      display: flex;
      gap: 0.6rem;
    }
    .way {
      margin-left: auto;
      font-weight: 600;
      white-space: nowrap;
    }
    .quiet {
      display: block;
    }
  `,
})
export class AlongPage {
  protected readonly textOf = textOf;
  protected readonly days = opensForDays;
  protected readonly along = inject(AlongService);
  protected readonly laid = inject(LaidInService);
  protected readonly session = inject(SessionService);
  protected readonly words = signal('');
  protected readonly lost = signal<string | null>(null);
  private readonly here = signal<readonly [number, number] | null>(null);

  constructor() {
    void this.along.takeIfStale();
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

  protected readonly readyWords = computed(() => {
    const laid = this.laid.state();
    if (laid.kind === 'laying') {
      const far = laid.of > 0 ? `, ${laid.done} of ${laid.of} files` : '';
      return `Not ready: the application is still being laid in${far}.`;
    }
    const { count, bytes, at } = this.along.ready();
    const size = `${formatNumber(bytes / 1e6, 1)} MB`;
    if (count === 0 || at === null) {
      const opened = this.along.spots().length;
      return opened === 0 ? 'Not ready: nothing is taken along.' : `${opened} spots that were opened, ${size}`;
    }
    return `Ready for ${count} ${count === 1 ? 'tree' : 'trees'}, ${size}, ${format(at, 'HH:mm')}`;
  });

  private readonly lines = computed(() =>
    this.along.spots().flatMap(({ id, body }) => {
      try {
        const detail = readSpotDetail(body);
        const life = lifeOf(detail);
        const { position, place, ref } = detail.spot;
        return [
          { id, ref, place, position, species: detail.tree?.species ?? '', stage: life.stage, waits: waitsFor(life) },
        ];
      } catch {
        // Kept by another version, and not read by this one: it is taken anew on a network.
        return [];
      }
    }),
  );
  protected readonly shown = computed(() => {
    const asked = this.words().trim().toLowerCase();
    const [here, units] = [this.here(), this.session.units()];
    return this.lines()
      .filter((one) => `${one.ref} ${one.place} ${one.species}`.toLowerCase().includes(asked))
      .map((one) => ({ ...one, to: here && wayTo(here, one.position) }))
      .sort((a, b) => (a.to && b.to ? a.to.distanceM - b.to.distanceM : a.ref.localeCompare(b.ref)))
      .map(({ to, ...one }) => ({
        ...one,
        way: to && `${formatQuantity(to.distanceM, 'distanceM', units)} ${compassPoint(to.bearingDeg)}`,
      }));
  });

  protected locate(): void {
    this.lost.set(null);
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => this.here.set([coords.longitude, coords.latitude]),
      () => this.lost.set('This device does not say where it is. The list stands by number.'),
      { enableHighAccuracy: true, timeout: 15_000, maximumAge: 30_000 },
    );
  }
}

/** The first thing that waits there, in words. */
function waitsFor(life: SpotLife): string {
  const [first] = life.decisions;
  if (!first) return '';
  return first.remedy ? remedyWords[first.remedy].act : stageNames[first.stage];
}
