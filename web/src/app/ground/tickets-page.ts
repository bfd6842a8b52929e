import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { Problem, Ticket, TicketList, Uncovered } from '@sombra/contract';
import {
  defaultGroundRules,
  formatNumber,
  judgeTicket,
  replyNames,
  ticketNames,
  type GroundRules,
  type TicketStanding,
} from '@sombra/core';
import { catchError, firstValueFrom, merge, of, Subject, switchMap, timer, type Observable } from 'rxjs';
import { BecauseList } from '../ui/because-list';
import { LiveService } from '../ui/live.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { GroundService } from './ground.service';
import { SessionService } from '../session/session.service';

const tones: Readonly<Record<TicketStanding, string>> = {
  unsent: 'act',
  waiting: 'watch',
  overdue: 'urgent',
  conflict: 'urgent',
  not_yet: 'watch',
  valid: 'good',
  renew: 'act',
  expired: 'quiet',
  withdrawn: 'quiet',
};

/** How many utilities said what, and which. */
const repliesOf = ({ replies }: Ticket) =>
  [...new Set(replies.map(({ state }) => state))].map((state) => {
    const utilities = replies.filter((reply) => reply.state === state).map(({ utility }) => utility);
    return { state, count: utilities.length, utilities: utilities.join(', ') };
  });

/** Replies still open are looked at again this often. */
const againMs = 4000;

/** Locate tickets: planting days without cover first, then every ticket with its replies and what to do about it. */
@Component({
  selector: 's-tickets-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, BecauseList, StateNote],
  templateUrl: './tickets-page.html',
  styleUrl: './tickets-page.scss',
})
export class TicketsPage {
  private readonly doors = inject(GroundService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  private readonly router = inject(Router);
  protected readonly view = inject(ViewState);
  protected readonly say = sayDay;
  protected readonly replyNames = replyNames;
  protected readonly list = signal<TicketList | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  private readonly rules = signal<GroundRules>(defaultGroundRules);
  private readonly again = new Subject<void>();

  protected readonly mayRaise = computed(() => this.session.may('raise_ticket'));
  protected readonly mayWithdraw = computed(() => this.session.may('withdraw_ticket'));
  protected readonly tickets = computed(() =>
    (this.list()?.tickets ?? []).map((ticket) => {
      const judged = judgeTicket(
        { ...ticket, withdrawn: ticket.state === 'withdrawn' },
        this.session.today(),
        this.rules(),
      );
      return {
        ...ticket,
        ...judged,
        said: repliesOf(ticket),
        word: ticketNames[judged.standing],
        tone: tones[judged.standing],
      };
    }),
  );
  protected readonly openOne = computed(() => {
    const asked = this.view.text('ticket');
    return this.tickets().find(({ id }) => id === asked) ?? null;
  });

  constructor() {
    void firstValueFrom(this.doors.rules())
      .then(({ rules }) => this.rules.set(rules.ground))
      .catch(() => undefined);
    merge(this.again, inject(LiveService).settled$, timer(0, againMs))
      .pipe(
        switchMap(() =>
          this.doors.tickets().pipe(
            catchError((error: unknown) => {
              this.problem.set(readProblem(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((list) => {
        if (!list) return;
        this.list.set(list);
        this.problem.set(null);
      });
  }

  protected read(): void {
    this.again.next();
  }

  protected area(ticket: Ticket): string {
    return `${formatNumber(ticket.areaM2, 0)} m²`;
  }

  /** The town's map with the ticket in the middle. */
  protected mapOf({ area }: Ticket): Record<string, string> {
    const corners = area.flat();
    const [lng, lat] = [0, 1].map(
      (i) => corners.reduce((sum, at) => sum + (at[i] ?? 0), 0) / Math.max(1, corners.length),
    );
    return { as: 'map', at: `17/${(lat ?? 0).toFixed(6)}/${(lng ?? 0).toFixed(6)}` };
  }

  protected raiseFor(day: Uncovered): void {
    const spotIds = day.spots.map(({ spotId }) => spotId);
    void this.run(
      this.doors.raise({ purpose: `Planting, ${day.title}`, spotIds, renews: null }),
      'Ticket raised; the locate centre is asked.',
    );
  }

  /** The same ground again: the new ticket takes over where the old one ends. */
  protected renew(ticket: Ticket): void {
    const ring = ticket.area[0];
    if (!ring) return;
    const ask = { purpose: ticket.purpose, ring: ring.slice(0, -1), renews: ticket.id };
    void this.run(this.doors.raise(ask), 'Renewal raised; the locate centre is asked.');
  }

  protected remind(ticket: Ticket, utility: string): void {
    void this.run(this.doors.remind(ticket.id, utility), `${utility} was reminded.`);
  }

  protected act(ticket: Ticket, act: 'retry' | 'withdraw'): void {
    if (act === 'withdraw' && !confirm(`Withdraw ${ticket.number ?? 'this ticket'}? It then covers nothing.`)) return;
    void this.run(
      this.doors.act(ticket.id, act),
      act === 'retry' ? 'The locate centre is asked again.' : 'Ticket withdrawn.',
    );
  }

  private async run(act: Observable<Ticket>, done: string): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      const ticket = await firstValueFrom(act);
      this.toasts.say(done);
      this.view.set({ ticket: ticket.id });
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
      this.again.next();
    }
  }

  protected close(): void {
    void this.router.navigate([], { queryParams: { ticket: null }, queryParamsHandling: 'merge' });
  }
}
