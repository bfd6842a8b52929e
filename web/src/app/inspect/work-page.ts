import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import {
  may,
  workListSchema,
  type FieldPeople,
  type GiveWork,
  type Problem,
  type WorkBatch,
  type WorkList,
} from '@sombra/contract';
import {
  addDaysTo,
  formatNumber,
  formatQuantity,
  remedyHands,
  remedyHandsNames,
  remedyWords,
  needsOf,
  remedyWork,
  workNeedNames,
  workToolNames,
  type RemedyHands,
} from '@sombra/core';
import { firstValueFrom, type Subscription } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DayField } from '../fields/day-field';
import { textOf, tickOf } from '../fields/event-values';
import { AssignmentsService } from '../offline/assignments.service';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';

const keyOf = ({ place, remedy }: Pick<WorkBatch, 'place' | 'remedy'>): string => `${remedy}/${place}`;
const hours = (minutes: number): string => `${formatNumber(minutes / 60, minutes < 600 ? 1 : 0)} h`;

/** Remedies as work: batches by place, with whose hands, tools, season and weather; a sheet for a crew, or a person sent out. */
@Component({
  selector: 's-work-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, RouterLink, DayField, StateNote],
  templateUrl: './work-page.html',
  styleUrls: ['../ui/table-and-bench.scss', './work-page.scss'],
})
export class WorkPage {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  protected readonly say = sayDay;
  protected readonly hands = remedyHands;
  protected readonly handsNames = remedyHandsNames;
  private readonly http = inject(HttpClient);
  private readonly assign = inject(AssignmentsService);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly mayAssign = computed(() => this.session.may('assign'));
  protected readonly list = signal<WorkList | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly sent = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly people = signal<FieldPeople>([]);
  protected readonly place = signal('');
  protected readonly by = signal<RemedyHands | ''>('crew');
  protected readonly ahead = signal(30);
  protected readonly ticked = signal<ReadonlySet<string>>(new Set());
  protected readonly userId = signal('');
  protected readonly title = new FormControl('Remedies', { nonNullable: true });
  protected readonly until = new FormControl(addDaysTo(this.session.today(), 7), { nonNullable: true });
  private asking: Subscription | null = null;

  protected readonly places = computed(() =>
    [...new Set((this.list()?.batches ?? []).map(({ place }) => place))].sort((a, b) => a.localeCompare(b)),
  );
  protected readonly rows = computed(() => {
    const list = this.list();
    if (!list) return [];
    const [place, by] = [this.place(), this.by()];
    return list.batches
      .filter(
        (batch) => (place === '' || batch.place === place) && (by === '' || remedyWork[batch.remedy].hands === by),
      )
      .map((batch) => {
        const work = remedyWork[batch.remedy];
        return {
          ...batch,
          key: keyOf(batch),
          act: remedyWords[batch.remedy].act,
          minutes: work.minutes * batch.count,
          takes: hours(work.minutes * batch.count),
          tools: work.tools.map((tool) => workToolNames[tool]).join(', '),
          when: this.whenOf(batch, list),
          listed: { place: batch.place, remedy: batch.remedy },
        };
      });
  });
  /** What was ticked and is still there. */
  protected readonly chosen = computed(() => {
    const rows = this.rows().filter(({ key }) => this.ticked().has(key));
    if (rows.length === 0) return null;
    const tools = new Set(rows.flatMap(({ remedy }) => remedyWork[remedy].tools));
    const cautions = new Set(rows.flatMap(({ remedy }) => remedyWords[remedy].caution ?? []));
    return {
      rows,
      head: `${rows.reduce((sum, { count }) => sum + count, 0)} trees, ${hours(rows.reduce((sum, { minutes }) => sum + minutes, 0))} of work, ways apart`,
      tools: [...tools].map((tool) => workToolNames[tool]).join(', ') || 'nothing of note',
      needs: this.needsOf(rows),
      cautions: [...cautions],
    };
  });
  protected readonly orders = computed(() => this.needsOf(this.rows()));
  protected readonly sheet = computed(() => {
    const batches = (this.chosen()?.rows ?? []).map(({ place, remedy }) => ({ place, remedy }));
    return `/api/remedies/sheet.pdf?aheadDays=${this.ahead()}&batches=${encodeURIComponent(JSON.stringify(batches))}`;
  });

  constructor() {
    const query = inject(ActivatedRoute).snapshot.queryParamMap;
    this.place.set(query.get('place') ?? '');
    const by = query.get('by');
    if (by === 'all') this.by.set('');
    else if (remedyHands.some((one) => one === by)) this.by.set(by as RemedyHands);
    const ahead = Number(query.get('ahead') ?? 30);
    if (Number.isInteger(ahead) && ahead >= 0 && ahead <= 366) this.ahead.set(ahead);
    this.read();
    if (this.mayAssign()) {
      firstValueFrom(this.assign.people()).then(
        (people) => this.people.set(people.filter(({ role }) => may(role, 'record_remedy'))),
        () => undefined,
      );
    }
  }

  private whenOf({ remedy }: WorkBatch, { coolDays, coolSeason }: WorkList): string {
    const { season, weather } = remedyWork[remedy];
    if (season === 'cool' && !coolSeason) return 'wait for the cool season';
    if (weather !== 'cool_cloudy') return 'any day';
    const days = coolDays.slice(0, 3).map((day) => sayDay(day));
    return days.length === 0 ? 'no cool, cloudy day in the forecast' : `cool and cloudy: ${days.join(', ')}`;
  }

  private needsOf(rows: readonly WorkBatch[]): string {
    const sums = needsOf(rows);
    return [...sums]
      .map(([need, amount]) =>
        need === 'mulchL' || need === 'soilL'
          ? `${formatQuantity(amount, 'volumeL', this.session.units())} of ${workNeedNames[need]}`
          : `${formatNumber(amount, 0)} ${workNeedNames[need]}`,
      )
      .join(', ');
  }

  protected read(): void {
    this.asking?.unsubscribe();
    this.asking = this.http.get('/api/remedies', { params: { aheadDays: this.ahead() } }).subscribe({
      next: (body) => {
        this.list.set(workListSchema.parse(body));
        this.problem.set(null);
      },
      error: (error: unknown) => this.problem.set(readProblem(error)),
    });
  }

  protected within(text: string): void {
    const days = Number(text);
    if (!Number.isInteger(days) || days < 0 || days > 366 || text.trim() === '') {
      this.fault.set(`Due within must be within 0 to 366 days, got ${text}.`);
      return;
    }
    this.fault.set(null);
    this.ahead.set(days);
    this.show({ ahead: days === 30 ? null : days });
    this.read();
  }
  protected at(place: string): void {
    this.place.set(place);
    this.show({ place: place || null });
  }
  protected handled(by: string): void {
    this.by.set(by as RemedyHands | '');
    this.show({ by: by === 'crew' ? null : by || 'all' });
  }
  private show(queryParams: Record<string, string | number | null>): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  protected tick(key: string, on: boolean): void {
    this.ticked.update((all) => new Set(on ? [...all, key] : [...all].filter((one) => one !== key)));
  }

  private giveId = uuidv7();
  protected async give(): Promise<void> {
    const chosen = this.chosen();
    if (!chosen || this.busy()) return;
    if (this.userId() === '' || this.title.value.trim() === '') {
      this.fault.set(this.userId() === '' ? 'Say who goes.' : 'Called must not be empty.');
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    const asked: GiveWork = {
      ...{ id: this.giveId, title: this.title.value, userId: this.userId(), until: this.until.value },
      aheadDays: this.ahead(),
      batches: chosen.rows.map(({ place, remedy }) => ({ place, remedy })),
    };
    try {
      await firstValueFrom(this.http.post('/api/remedies/give', asked));
      const name = this.people().find(({ id }) => id === this.userId())?.name ?? '';
      this.sent.set(`Sent out: ${name} takes it along on the next contact.`);
      this.giveId = uuidv7();
      this.ticked.set(new Set());
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
