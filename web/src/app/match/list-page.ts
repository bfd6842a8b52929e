import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { AskList, Problem, SeasonList } from '@sombra/contract';
import { formatNumber } from '@sombra/core';
import { firstValueFrom, Subject, switchMap, takeWhile, timer } from 'rxjs';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { GroundService } from '../ground/ground.service';
import { SessionService } from '../session/session.service';
import { ListAsk } from './list-ask';
import { ListPicks } from './list-picks';
import { listStateNames } from './list-states';
import { MatchService } from './match.service';
import { sayLimit, sayMoney, sayRelaxation } from './say-limit';
import { ShareChart } from './share-chart';

/** A list that is being worked out is looked at so often. */
const againMs = 700;
const running = (list: SeasonList): boolean => list.state === 'queued' || list.state === 'solving';

/** One season's list: how far it is, what it proposes and why, what it costs the population, and its orders. */
@Component({
  selector: 's-list-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, ListAsk, ListPicks, ShareChart],
  templateUrl: './list-page.html',
  styleUrl: './list-page.scss',
})
export class ListPage {
  readonly listId = input.required<string>();
  private readonly doors = inject(MatchService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly view = inject(ViewState);
  protected readonly say = sayDay;
  protected readonly number = formatNumber;
  protected readonly stateNames = listStateNames;
  protected readonly list = signal<SeasonList | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly currency = signal('');
  protected readonly diversity = signal({ species: 10, genus: 20, family: 30 });
  protected readonly kept = signal<AskList['locks']>([]);
  private readonly look = new Subject<string>();

  protected readonly mayAct = computed(() => this.session.may('make_list'));
  protected readonly asking = computed(() => this.view.text('again') === 'yes');
  protected readonly result = computed(() => this.list()?.result ?? null);
  protected readonly meanFit = computed(() => {
    const picks = this.result()?.picks ?? [];
    return picks.length > 0 ? picks.reduce((sum, { fit }) => sum + fit, 0) / picks.length : 0;
  });
  protected readonly binding = computed(() => {
    const [list, result] = [this.list(), this.result()];
    if (!list || !result) return [];
    return result.binding.map(({ limit }) => this.limitWords(list, limit));
  });
  protected readonly relax = computed(() => {
    const [list, result] = [this.list(), this.result()];
    if (!list || !result) return [];
    return result.relax.map(
      ({ limit, by }) => `${this.limitWords(list, limit)}: ${sayRelaxation(limit, by, this.currency())}.`,
    );
  });
  protected readonly without = computed(() => {
    const spots = new Map(this.list()?.spots.map((spot) => [spot.spotId, spot]));
    return (this.result()?.without ?? []).flatMap(({ spotId, why }) => {
      const spot = spots.get(spotId);
      return spot ? [{ ...spot, why }] : [];
    });
  });
  /** What would be asked with the smallest change that makes a list possible. */
  protected readonly enough = computed(() => {
    const [list, result] = [this.list(), this.result()];
    const budget = result?.relax.find(({ limit }) => limit.kind === 'budget');
    if (!list || !budget || budget.limit.kind !== 'budget') return null;
    return Math.ceil(budget.limit.most + budget.by);
  });
  protected readonly again = computed((): AskList | null => {
    const [asked, enough] = [this.list()?.asked, this.enough()];
    return asked ? { ...asked, budget: enough ?? asked.budget } : null;
  });

  constructor() {
    effect(() => {
      const id = this.listId();
      untracked(() => {
        this.list.set(null);
        this.kept.set([]);
        this.look.next(id);
      });
    });
    this.look
      .pipe(
        switchMap((id) =>
          timer(0, againMs).pipe(
            switchMap(() => this.read(id)),
            takeWhile((list) => list === null || running(list), true),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((list) => {
        if (list) this.list.set(list);
      });
    void firstValueFrom(inject(GroundService).rules())
      .then(({ rules: { match } }) => {
        this.currency.set(match.currency);
        const { speciesPct: species, genusPct: genus, familyPct: family } = match.diversity;
        this.diversity.set({ species, genus, family });
      })
      .catch(() => undefined);
  }

  /** A look that fails is tried again: the list is worked out on the server meanwhile. */
  private async read(id: string): Promise<SeasonList | null> {
    try {
      const list = await firstValueFrom(this.doors.list(id));
      this.problem.set(null);
      return list;
    } catch (error) {
      this.problem.set(readProblem(error));
      return null;
    }
  }

  private limitWords(list: SeasonList, limit: Parameters<typeof sayLimit>[0]): string {
    return sayLimit(limit, { list, currency: this.currency(), units: this.session.units() });
  }

  protected money(amount: number): string {
    return sayMoney(amount, this.currency());
  }

  protected percent(share: number): string {
    return `${formatNumber(share * 100, 0)} %`;
  }

  protected gap(gap: number | null): string {
    if (gap === null) return 'no bound proven';
    return gap < 1e-5 ? 'proven: no list fits better' : `at most ${(gap * 100).toFixed(2)} % short of the best`;
  }

  protected async act(act: 'cancel' | 'accept'): Promise<void> {
    const count = this.result()?.picks.length ?? 0;
    const question = `Choose these ${count} trees for their places and write the nurseries' orders?`;
    if (act === 'accept' && !confirm(question)) return;
    this.busy.set(true);
    this.fault.set(null);
    try {
      this.list.set(await firstValueFrom(this.doors.actOnList(this.listId(), act)));
      this.toasts.say(act === 'accept' ? 'List accepted; its orders are written.' : 'Cancelled.');
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }

  protected print(): void {
    window.print();
  }

  protected readAgain(): void {
    this.look.next(this.listId());
  }
}
