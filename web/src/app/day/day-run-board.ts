import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
  ElementRef,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { keptDayOf, type DayDetail, type DayEvent } from '@sombra/contract';
import {
  causeWords,
  clockOf,
  dayParts,
  dayRun,
  heatBreaks,
  judgeHour,
  nameOfTeam,
  nextTreeFor,
  runOf,
  sayReason,
  thunderWaitMin,
  toolCodes,
  tools,
  toolsOf,
  watchDay,
  type CloseDownItem,
  type ToolCounts,
} from '@sombra/core';
import { firstValueFrom, timer } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DrawingView } from '../drawing/drawing-view';
import { elementWidth } from '../drawing/element-width';
import { numberOf, textOf } from '../fields/event-values';
import type { Sent } from '../offline/send-queue';
import { AssignmentsService } from '../offline/assignments.service';
import { SessionService } from '../session/session.service';
import { BecauseList } from '../ui/because-list';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { CheckIn } from './check-in';
import { CloseDown, closeDownWords } from './close-down';
import { minuteOf } from './day-words';
import { DaysService, type Happened } from './days.service';
import { HandOuts } from './hand-outs';
import { moved, withoutEmpty } from './team-moves';
import { ToolsCount, type ToolsCounted } from './tools-count';

const minuteMs = 60_000;
const adviceNames = { go: 'Go', delay: 'Begin later', call_off: 'Call it off', unknown: 'Not known yet' } as const;
/** What a talk holds; ticked off before tools go out. */
const talk = [
  'Gloves, eye protection, boots',
  'Tools blade down, swing radius cleared',
  'Balls by boards, never by the trunk',
  'Only inside the cleared area',
  'Traffic, wires, heat, drink',
] as const;

/** What goes wrong most: one tap says it, a second one keeps it. */
const usualTrouble = ['Cut', 'Fall', 'Strained back', 'Struck by a tool', 'Traffic', 'A line was hit', 'Heat'] as const;

/** The day as it happens: teams against time, who is here, tools out, weather, and what went wrong. */
@Component({
  selector: 's-day-run-board',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, BecauseList, CheckIn, CloseDown, HandOuts, ToolsCount],
  templateUrl: './day-run-board.html',
  styleUrl: './day-run-board.scss',
})
export class DayRunBoard {
  readonly day = input.required<DayDetail>();
  readonly changed = output();
  private readonly doors = inject(DaysService);
  private readonly assignments = inject(AssignmentsService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly textOf = textOf;
  protected readonly clock = clockOf;
  protected readonly talk = talk;
  protected readonly usualTrouble = usualTrouble;
  protected readonly adviceNames = adviceNames;
  protected readonly advices = ['go', 'delay', 'call_off'] as const;
  protected readonly tools = tools;
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly fewer = signal(0);
  protected readonly stopAt = signal<number | null>(null);
  protected readonly missingTool = signal<number | null>(null);
  protected readonly sure = signal(false);
  private readonly now = signal(Date.now());
  private readonly box = viewChild<ElementRef<HTMLElement>>('box');
  private readonly width = elementWidth(this.box, 960);
  protected readonly mayRun = computed(() => this.session.may('run_day'));
  private readonly kept = computed(() => keptDayOf(this.day(), this.session.units()));
  protected readonly watch = computed(() => watchDay(this.kept()));
  protected readonly parts = computed(() => dayParts[this.day().kind]);
  /** Rests that the heat asks for, as they stand in the run. */
  protected readonly rests = computed(() => heatBreaks(this.kept()));
  protected readonly isToday = computed(() => this.day().onDay === this.session.today());
  protected readonly nowMin = computed(() => {
    if (!this.isToday()) return null;
    return minuteOf(new Date(this.now()), this.session.programme()?.timeZone);
  });
  protected readonly runs = computed(() => {
    const stopAt = this.stopAt();
    const missing = this.missingTool();
    const { teams } = this.day();
    return runOf(this.kept(), {
      nowMin: this.nowMin(),
      fewer: Object.fromEntries(teams.map((_, i) => [i, this.fewer()])),
      stops: stopAt === null ? [] : [{ fromMin: stopAt, lengthMin: 30 }],
      slowerTeams: missing === null ? [] : [missing],
    });
  });
  protected readonly drawing = computed(() =>
    dayRun({
      hours: this.day().hours,
      runs: this.runs(),
      weather: this.day().forecast.map((hour) => judgeHour(hour, this.day().weatherRules)),
      nowMin: this.nowMin(),
      widthPx: Math.max(560, this.width()),
    }),
  );
  protected readonly late = computed(() =>
    this.runs().flatMap(({ name, lateMin, cause }) =>
      lateMin > 0 ? [`Team ${name} by ${Math.round(lateMin)} min: ${cause ? causeWords[cause] : ''}`] : [],
    ),
  );
  protected readonly hours = computed(() =>
    Array.from(
      { length: Math.ceil((this.day().hours.endMin - this.day().hours.beginMin) / 60) },
      (_, i) => this.day().hours.beginMin + i * 60,
    ),
  );
  protected readonly teams = computed(() => {
    const { teams, people } = this.day();
    const picks = toolsOf(this.kept()).teams;
    return teams.map(({ leadId, spotIds }, i) => {
      const lead = people.find(({ id }) => id === leadId);
      const planted = this.day().trees.filter((tree) => spotIds.includes(tree.spotId) && tree.planted).length;
      return {
        i,
        name: nameOfTeam(lead?.name, i),
        planted,
        of: spotIds.length,
        lead,
        briefed: this.eventsOf('briefed').some(({ facts }) => facts.team === i),
        takes: picks[i] ?? {},
        out: this.outOf(i),
        next: this.mayRun() && this.isToday() ? nextTreeFor(this.kept(), i, this.runs()) : null,
      };
    });
  });
  /** Minutes until anybody may go out again after thunder; `null` where none was heard. */
  protected readonly thunder = computed(() => {
    const heard = this.eventsOf('thunder').at(-1);
    if (!heard) return null;
    const left = thunderWaitMin(Date.parse(heard.at), this.now(), this.day().weatherRules);
    return left > 0 ? left : null;
  });
  protected readonly log = computed(() =>
    [...this.day().events]
      .reverse()
      .map((event) => ({ id: event.id, at: this.timeOf(event.at), by: event.byName, words: this.say(event) })),
  );
  protected readonly decided = computed(() => this.eventsOf('weather_decided').at(-1) ?? null);
  protected readonly weatherWords = computed(() =>
    this.watch()
      .because.map((reason) => sayReason(reason, this.session.units()))
      .join(' '),
  );

  constructor() {
    timer(minuteMs, minuteMs / 2)
      .pipe(takeUntilDestroyed())
      .subscribe(() => {
        // A phone in a pocket keeps its battery.
        if (!document.hidden) this.now.set(Date.now());
      });
  }

  private eventsOf<K extends DayEvent['kind']>(kind: K): Extract<DayEvent, { kind: K }>[] {
    return this.day().events.filter((event): event is Extract<DayEvent, { kind: K }> => event.kind === kind);
  }
  /** What a team has out: taken, less what came back. */
  private outOf(team: number): ToolCounts {
    const sum: Partial<Record<(typeof toolCodes)[number], number>> = {};
    const count = (counts: ToolCounts, times: 1 | -1) => {
      for (const code of toolCodes) if (counts[code]) sum[code] = (sum[code] ?? 0) + times * counts[code];
    };
    for (const { facts } of this.eventsOf('tools_out')) if (facts.team === team) count(facts.counts, 1);
    for (const { facts } of this.eventsOf('tools_back')) if (facts.team === team) count(facts.counts, -1);
    return Object.fromEntries(Object.entries(sum).filter(([, n]) => n > 0));
  }
  protected words(counts: ToolCounts): string {
    return toolCodes
      .flatMap((code) => (counts[code] ? [`${counts[code]} ${tools[code].toLowerCase()}`] : []))
      .join(', ');
  }
  private timeOf(instant: string): string {
    return clockOf(minuteOf(new Date(instant), this.session.programme()?.timeZone));
  }
  private say(event: DayEvent): string {
    const personOf = (id: string) => this.day().people.find((one) => one.id === id)?.name ?? 'somebody';
    const teamOf = (i: number) => `Team ${this.teams()[i]?.name ?? i + 1}`;
    switch (event.kind) {
      case 'weather_decided':
        return `${adviceNames[event.facts.advice]}. ${event.facts.why}`;
      case 'checked_in':
        return `${personOf(event.facts.personId)} is here.`;
      case 'went_home':
        return `${personOf(event.facts.personId)} went home.`;
      case 'briefed':
        return `${teamOf(event.facts.team)} was briefed.`;
      case 'tools_out':
        return `${teamOf(event.facts.team)} took ${this.words(event.facts.counts)}${event.facts.own ? `; own: ${event.facts.own}` : ''}.`;
      case 'tools_back':
        return `${teamOf(event.facts.team)} brought back ${this.words(event.facts.counts) || 'nothing'}${event.facts.note ? `: ${event.facts.note}` : ''}.`;
      case 'incident':
        return `${event.facts.nearMiss ? 'Near miss' : 'Incident'}: ${event.facts.what}${event.facts.called ? ` Called: ${event.facts.called}.` : ''}`;
      case 'message':
        return `To ${event.facts.team === null ? 'all teams' : teamOf(event.facts.team)}: ${event.facts.words}`;
      case 'close_down':
        return `Done: ${this.sayTask(event.facts)}.`;
      case 'handed_out':
        return `${this.refOf(event.facts.spotId)} handed to ${event.facts.to}.`;
      case 'thunder':
        return 'Thunder heard: everybody under a roof.';
      case 'closed':
        return `Closed after ${event.facts.hours} person-hours. ${event.facts.note}`;
    }
  }

  /** Keeps it, here or at the server, and says which. */
  protected async happened(what: Happened, name: string): Promise<Sent<unknown>['kind'] | 'failed'> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      const sent = await this.doors.happened(this.day().id, what, name);
      if (sent.kind === 'refused') this.fault.set(sayProblem(sent.problem));
      else
        this.toasts.say(
          sent.kind === 'stored' ? `${name}.` : `${name}: kept on this device, sent when there is a network.`,
        );
      this.changed.emit();
      return sent.kind;
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
      return 'failed';
    } finally {
      this.busy.set(false);
    }
  }

  protected decide(advice: 'go' | 'delay' | 'call_off'): void {
    const begin = this.watch().beginHour;
    const beginMin = advice === 'delay' && begin !== null ? begin * 60 : null;
    const why = this.weatherWords().slice(0, 300);
    void this.happened(
      { kind: 'weather_decided', facts: { advice, beginMin, why } },
      `${adviceNames[advice]}: told to all`,
    );
  }
  protected brief(team: number): void {
    void this.happened({ kind: 'briefed', facts: { team, points: [...talk] } }, 'Briefed');
  }
  protected out(team: number, { counts, words }: ToolsCounted): void {
    void this.happened({ kind: 'tools_out', facts: { team, counts, own: words } }, 'Tools counted out');
  }
  protected back(team: number, { counts, words }: ToolsCounted): void {
    void this.happened({ kind: 'tools_back', facts: { team, counts, note: words } }, 'Tools counted back');
  }
  protected tick(item: CloseDownItem): void {
    void this.happened({ kind: 'close_down', facts: item }, 'Ticked');
  }
  protected handOut({ spotId, to, done }: { spotId: string; to: string; done: () => void }): void {
    void this.happened({ kind: 'handed_out', facts: { spotId, to } }, 'Handed out').then((sent) => {
      if (sent === 'stored') done();
    });
  }
  private refOf(spotId: string | null): string {
    return this.day().trees.find((tree) => tree.spotId === spotId)?.ref ?? '';
  }
  private sayTask({ task, spotId }: CloseDownItem): string {
    return [this.refOf(spotId), closeDownWords[task].toLowerCase()].filter(Boolean).join(' ');
  }
  protected thunderHeard(): void {
    void this.happened({ kind: 'thunder', facts: { note: '' } }, 'Thunder');
  }
  protected report(nearMiss: boolean, what: HTMLTextAreaElement, called: HTMLInputElement): void {
    if (what.value.trim() === '') {
      this.fault.set('What happened must not be empty.');
      return;
    }
    const facts = { what: what.value.trim(), nearMiss, called: called.value.trim() };
    void this.happened({ kind: 'incident', facts }, nearMiss ? 'Near miss' : 'Incident').then(() => {
      what.value = '';
      called.value = '';
    });
  }
  protected message(team: string, words: HTMLInputElement): void {
    if (words.value.trim() === '') return;
    const facts = { team: team === '' ? null : Number(team), words: words.value.trim() };
    void this.happened({ kind: 'message', facts }, 'Message').then(() => (words.value = ''));
  }
  protected close(hours: HTMLInputElement, note: HTMLInputElement): void {
    const worked = hours.valueAsNumber;
    if (!(worked >= 0 && worked <= 5000)) {
      this.fault.set(`Person-hours must be within 0–5000, got ${hours.value || 'nothing'}.`);
      return;
    }
    void this.happened({ kind: 'closed', facts: { hours: worked, note: note.value.trim() } }, 'Closed');
  }
  /** Person-hours of who was here, as far as it is known. */
  protected readonly hoursHere = computed(() => {
    const end = Date.now();
    const here = this.day().people.filter(({ cameAt }) => cameAt !== null);
    const ms = here.reduce(
      (sum, { cameAt, leftAt }) => sum + ((leftAt ? Date.parse(leftAt) : end) - Date.parse(cameAt ?? '')),
      0,
    );
    return Math.round((ms / 3_600_000) * 10) / 10;
  });

  /** Each lead who has a sign-in gets the team's trees as an assignment, in their order. */
  protected async sendOut(): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      let sent = 0;
      for (const { lead, i, name } of this.teams()) {
        const spotIds =
          this.day().teams[i]?.spotIds.filter((id) => !this.day().trees.find((tree) => tree.spotId === id)?.planted) ??
          [];
        if (!lead?.userId || spotIds.length === 0) continue;
        const asked = {
          id: uuidv7(),
          kind: 'planting' as const,
          title: `Team ${name}`,
          userId: lead.userId,
          until: this.day().onDay,
          spotIds: [...spotIds],
          deliveryId: null,
        };
        await firstValueFrom(this.assignments.assign(asked));
        sent += 1;
      }
      this.toasts.say(
        sent === 0
          ? 'No lead has a sign-in: hand them the sheets.'
          : `${sent === 1 ? '1 team has' : `${sent} teams have`} its trees on the phone.`,
      );
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }

  /** Gives an early team the tree that was proposed. */
  protected async give(team: number, spotId: string): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      const { id, teams, people, locks, version } = this.day();
      const after = withoutEmpty(moved(teams, people, { kind: 'tree', id: spotId }, team));
      await firstValueFrom(this.doors.keepTeams(id, { teams: after, locks, version }));
      this.toasts.say('Given.');
      this.changed.emit();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }

  protected setFewer(event: Event): void {
    this.fewer.set(Math.max(0, Math.min(4, numberOf(event) || 0)));
  }
  protected setStop(event: Event): void {
    const value = textOf(event);
    this.stopAt.set(value === '' ? null : Number(value));
  }
  protected setMissing(event: Event): void {
    const value = textOf(event);
    this.missingTool.set(value === '' ? null : Number(value));
  }
}
