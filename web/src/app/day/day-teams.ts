import { CdkDrag, CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { keptDayOf, type DayDetail, type SeekProgress } from '@sombra/contract';
import { clockOf, nameOfTeam, runOf, scoreTeams, teamTaskOf, type LeftWhy, type PlannedTeam } from '@sombra/core';
import { firstValueFrom, type Subscription } from 'rxjs';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { leftWords } from './day-words';
import { DaysService } from './days.service';
import { moved, withoutEmpty, type Piece } from './team-moves';

/** Teams and their trees: sought, then moved by hand or key; what each move costs stands there at once. */
@Component({
  selector: 's-day-teams',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkDrag, CdkDropList, CdkDropListGroup],
  templateUrl: './day-teams.html',
  styleUrl: './day-teams.scss',
})
export class DayTeams {
  readonly day = input.required<DayDetail>();
  readonly changed = output<DayDetail>();
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly textOf = textOf;
  protected readonly clock = clockOf;
  protected readonly teams = signal<readonly PlannedTeam[]>([]);
  protected readonly locked = signal<ReadonlySet<string>>(new Set());
  protected readonly dirty = signal(false);
  protected readonly progress = signal<Extract<SeekProgress, { kind: 'running' }> | null>(null);
  protected readonly left = signal<readonly { id: string; why: string }[]>([]);
  protected readonly fault = signal<string | null>(null);
  protected readonly told = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly mayPlan = computed(() => this.session.may('plan_day'));
  protected readonly mayRun = computed(() => this.session.may('run_day'));
  private version = 0;
  private shown = '';
  private search: Subscription | null = null;

  private readonly kept = computed(() => ({ ...keptDayOf(this.day(), this.session.units()), teams: this.teams() }));
  private readonly task = computed(() => teamTaskOf(this.kept()));
  private readonly open = computed(() => new Set(this.task().jobs.map(({ spotId }) => spotId)));
  private readonly able = computed(() => new Set(this.task().helpers.map(({ id }) => id)));
  /** The plan as the core scores it: planted trees and who is gone are no part of it any more. */
  private readonly sound = computed(() =>
    this.teams().map((team) => ({
      ...team,
      helperIds: team.helperIds.filter((id) => this.able().has(id) && this.personOf(id)?.waiver),
      spotIds: team.spotIds.filter((id) => this.open().has(id)),
    })),
  );
  protected readonly scored = computed(() => {
    try {
      return scoreTeams(this.task(), this.sound());
    } catch {
      // A minor dragged from their guardian: told by the server's words when it is stored.
      return null;
    }
  });
  protected readonly runs = computed(() => runOf(this.kept()));
  protected readonly cards = computed(() =>
    this.teams().map((team, i) => ({
      name: nameOfTeam(this.personOf(team.leadId)?.name, i),
      people: team.helperIds.map((id) => ({
        id,
        name: this.personOf(id)?.name ?? 'somebody gone',
        lead: id === team.leadId,
        note: this.noteOf(id),
      })),
      trees: team.spotIds.map((id) => ({
        id,
        ref: this.treeOf(id)?.ref ?? '',
        planted: this.treeOf(id)?.planted ?? false,
      })),
      score: this.scored()?.scores[i] ?? null,
      run: this.runs()[i],
    })),
  );
  protected readonly loose = computed(() => {
    const people = new Set(this.teams().flatMap(({ helperIds }) => helperIds));
    const spots = new Set(this.teams().flatMap(({ spotIds }) => spotIds));
    return {
      people: this.day().people.filter(({ id, state }) => state === 'confirmed' && !people.has(id)),
      trees: this.day().trees.filter(({ spotId, planted, planned }) => !planted && planned && !spots.has(spotId)),
    };
  });
  protected readonly whyLeft = computed(
    () => new Map(this.left().map(({ id, why }) => [id, leftWords[why as LeftWhy] ?? why])),
  );

  constructor() {
    effect(() => {
      const day = this.day();
      untracked(() => this.fill(day));
    });
  }

  private fill(day: DayDetail): void {
    // What is being arranged here is not overwritten by what others store; storing it tells of the conflict.
    if (this.shown === day.id && this.dirty()) return;
    this.shown = day.id;
    this.version = day.version;
    this.teams.set(day.teams);
    this.locked.set(new Set([...day.locks.helperIds, ...day.locks.spotIds]));
  }

  private personOf(id: string) {
    return this.day().people.find((person) => person.id === id);
  }
  private treeOf(id: string) {
    return this.day().trees.find(({ spotId }) => spotId === id);
  }
  private noteOf(id: string): string {
    const person = this.personOf(id);
    if (!person) return '';
    return [
      person.minor && 'minor',
      !person.waiver && 'no waiver',
      person.skill === 'first_time' && !person.minor && 'first time',
      person.cameAt && 'here',
      person.leftAt && 'gone',
    ]
      .filter(Boolean)
      .join(', ');
  }

  protected seek(): void {
    this.fault.set(null);
    this.progress.set({ kind: 'running', done: 0, cost: 0 });
    const asked = {
      seed: this.teams().length > 0 ? Date.now() % 1_000_000_000 : 1,
      keepLocked: this.locked().size > 0,
    };
    this.search = this.doors.seek(this.day().id, asked).subscribe({
      next: (line) => {
        if (line.kind === 'running') this.progress.set(line);
        if (line.kind === 'failed') this.fault.set(line.title);
        if (line.kind !== 'found') return;
        this.arrange(line.teams, 'Teams found');
        this.left.set([...line.left.helpers, ...line.left.spots]);
      },
      error: (error: unknown) => {
        this.fault.set(sayProblem(readProblem(error)));
        this.progress.set(null);
      },
      complete: () => this.progress.set(null),
    });
  }
  protected stop(): void {
    this.search?.unsubscribe();
    this.progress.set(null);
  }

  /** The change with what it costs: later or earlier finish, more or less on foot. */
  private arrange(teams: readonly PlannedTeam[], what: string): void {
    const before = this.scored();
    this.teams.set(teams);
    this.dirty.set(true);
    const after = this.scored();
    if (!before || !after || before.scores.length === 0) return this.told.set(`${what}.`);
    const last = (scores: typeof after.scores) => Math.max(0, ...scores.map(({ minutes }) => minutes));
    const walked = (scores: typeof after.scores) => scores.reduce((sum, { walkMin }) => sum + walkMin, 0);
    const finish = Math.round(last(after.scores) - last(before.scores));
    const walk = Math.round(walked(after.scores) - walked(before.scores));
    const said = (n: number, more: string, less: string) =>
      n === 0 ? null : `${Math.abs(n)} min ${n > 0 ? more : less}`;
    const parts = [
      said(finish, 'later to the last tree', 'earlier to the last tree'),
      said(walk, 'more on foot', 'less on foot'),
    ];
    this.told.set(`${what}: ${parts.filter(Boolean).join(', ') || 'costs nothing'}.`);
  }

  protected move(piece: Piece, to: number): void {
    const name = piece.kind === 'person' ? this.personOf(piece.id)?.name : this.treeOf(piece.id)?.ref;
    this.arrange(moved(this.teams(), this.day().people, piece, to), `${name} moved`);
  }
  protected moveTo(piece: Piece, event: Event): void {
    const value = textOf(event);
    if (value !== '') this.move(piece, value === 'out' ? -1 : Number(value));
  }
  protected drop(event: CdkDragDrop<number, number, Piece>): void {
    const { previousContainer, container, item, currentIndex } = event;
    if (previousContainer === container && item.data.kind === 'person') return;
    const name = item.data.kind === 'person' ? this.personOf(item.data.id)?.name : this.treeOf(item.data.id)?.ref;
    this.arrange(moved(this.teams(), this.day().people, item.data, container.data, currentIndex), `${name} moved`);
  }
  protected lead(team: number, id: string): void {
    this.arrange(
      this.teams().map((one, i) => (i === team ? { ...one, leadId: id } : one)),
      `${this.personOf(id)?.name} leads`,
    );
  }
  protected toggleLock(id: string): void {
    const locked = new Set(this.locked());
    if (!locked.delete(id)) locked.add(id);
    this.locked.set(locked);
    this.dirty.set(true);
  }
  protected addTeam(): void {
    const lead =
      this.loose().people.find(({ skill, minor }) => skill === 'leads' && !minor) ??
      this.loose().people.find(({ minor }) => !minor);
    if (lead) this.arrange([...this.teams(), { leadId: lead.id, helperIds: [lead.id], spotIds: [] }], 'Team added');
  }
  protected discard(): void {
    this.dirty.set(false);
    this.told.set(null);
    this.left.set([]);
    this.fill(this.day());
  }

  protected async store(): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      const spots = new Set(this.day().trees.map(({ spotId }) => spotId));
      const ids = [...this.locked()];
      const day = await firstValueFrom(
        this.doors.keepTeams(this.day().id, {
          teams: withoutEmpty(this.teams()),
          locks: { helperIds: ids.filter((id) => !spots.has(id)), spotIds: ids.filter((id) => spots.has(id)) },
          version: this.version,
        }),
      );
      this.dirty.set(false);
      this.changed.emit(day);
      this.toasts.say('The teams are stored.');
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
