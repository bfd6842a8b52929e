import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { ListHead, Problem, SpotLine } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { ChosenService } from '../spot/chosen.service';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { GroundService } from '../ground/ground.service';
import { SessionService } from '../session/session.service';
import { SpotListService } from '../spot/spot-list.service';
import { ListAsk } from './list-ask';
import { listStateNames } from './list-states';
import { MatchService } from './match.service';
import { tickOf } from '../fields/event-values';

/** As many places as one list may hold. */
const mostPlaces = 1000;

/** Season's lists: which places are to get a tree, what may be spent, and the lists made before. */
@Component({
  selector: 's-lists-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, ListAsk],
  templateUrl: './lists-page.html',
  styleUrl: './lists-page.scss',
})
export class ListsPage {
  protected readonly tickOf = tickOf;
  private readonly doors = inject(MatchService);
  private readonly spots = inject(SpotListService);
  private readonly session = inject(SessionService);
  protected readonly chosen = inject(ChosenService);
  protected readonly view = inject(ViewState);
  protected readonly say = sayDay;
  protected readonly stateNames = listStateNames;
  protected readonly heads = signal<readonly ListHead[] | null>(null);
  protected readonly waiting = signal<readonly SpotLine[]>([]);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly currency = signal('');
  protected readonly mayAsk = computed(() => this.session.may('make_list'));

  /** Chosen on list or map, as far as no tree stands there. */
  protected readonly picked = computed(() => this.chosen.chosen().filter(({ plantedOn }) => plantedOn === null));
  protected readonly streets = computed(() => {
    const counts = new Map<string, number>();
    for (const { place } of this.waiting()) counts.set(place, (counts.get(place) ?? 0) + 1);
    return [...counts]
      .map(([name, count]) => ({ name, count, on: this.isOn(name) }))
      .sort((a, b) => a.name.localeCompare(b.name));
  });
  /** Places left out by name: without any, all that wait are in. */
  private readonly out = computed(() => new Set((this.view.text('without') ?? '').split(',').filter((one) => one)));
  protected readonly places = computed(() =>
    this.picked().length > 0 ? this.picked() : this.waiting().filter(({ place }) => !this.out().has(place)),
  );
  /** A species already chosen for a place stays, unless it is let go. */
  protected readonly fixed = computed(() =>
    this.picked().flatMap(({ spotId, species }) => (species ? [{ spotId, species, stockKind: null }] : [])),
  );

  constructor() {
    void this.read();
    void firstValueFrom(inject(GroundService).rules())
      .then(({ rules }) => this.currency.set(rules.match.currency))
      .catch(() => undefined);
  }

  protected async read(): Promise<void> {
    try {
      const [heads, { lines }] = await Promise.all([
        firstValueFrom(this.doors.lists()),
        firstValueFrom(this.spots.list({ filter: { stage: ['match'] }, sort: 'place', limit: mostPlaces })),
      ]);
      this.heads.set(heads);
      this.waiting.set(lines);
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  private isOn(name: string): boolean {
    return !this.out().has(name);
  }

  protected take(name: string, on: boolean): void {
    const out = [...this.out()].filter((one) => one !== name).concat(on ? [] : [name]);
    this.view.set({ without: out.length > 0 ? out.join(',') : null });
  }

  protected takeAll(on: boolean): void {
    this.view.set({
      without: on
        ? null
        : this.streets()
            .map(({ name }) => name)
            .join(','),
    });
  }
}
