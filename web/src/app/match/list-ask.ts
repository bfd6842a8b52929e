import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { askListSchema, type AskList, type KeptSpecies, type Outlook, type SeasonList } from '@sombra/contract';
import { judgePlantingTime, sayReason, stockKinds, stockNames, type StockKind } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { LevelMark } from '../ui/level-mark';
import { readProblem, sayProblem } from '../ui/problem';
import { DraftsService } from '../offline/drafts.service';
import { SessionService } from '../session/session.service';
import { MatchService } from './match.service';
import { textOf, tickOf } from '../fields/event-values';
import { DateInput } from '../fields/date-input';

export type ListPlace = SeasonList['spots'][number];
type Lock = AskList['locks'][number];

interface Typed {
  readonly title: string;
  readonly budget: string;
  readonly plantOn: string;
  readonly stockKinds: readonly StockKind[];
}
const fieldNames: Readonly<Record<string, string>> = {
  title: 'Name of the list',
  budget: 'Budget',
  plantOn: 'Planting begins',
  stockKinds: 'Kinds of stock',
  spotIds: 'Places',
  locks: 'Fixed choices',
};

/** What a season's list is asked for: money, day, kinds of stock, and choices that are fixed. */
@Component({
  selector: 's-list-ask',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DateInput, LevelMark],
  templateUrl: './list-ask.html',
  styleUrl: './list-ask.scss',
})
export class ListAsk {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  readonly places = input.required<readonly ListPlace[]>();
  /** A list asked for before, to be asked again with changes. */
  readonly before = input<AskList | null>(null);
  /** Choices fixed elsewhere on the page. */
  readonly fixed = input<readonly Lock[]>([]);
  readonly currency = input('');

  private readonly doors = inject(MatchService);
  private readonly session = inject(SessionService);
  private readonly drafts = inject(DraftsService);
  private readonly router = inject(Router);
  protected readonly stockKinds = stockKinds;
  protected readonly stockNames = stockNames;
  protected readonly title = signal('');
  protected readonly budget = signal('');
  protected readonly plantOn = signal('');
  protected readonly kinds = signal<ReadonlySet<StockKind>>(new Set(['container', 'balled']));
  protected readonly locks = signal<readonly Lock[]>([]);
  protected readonly lockSpot = signal('');
  protected readonly lockSpecies = signal('');
  protected readonly faults = signal<readonly string[]>([]);
  protected readonly busy = signal(false);
  private readonly outlook = signal<Outlook>({ windows: [], forecast: [] });
  protected readonly library = signal<readonly KeptSpecies[]>([]);

  /** Whether the day is a time to plant each kind of stock, with its because. */
  protected readonly times = computed(() =>
    stockKinds.map((kind) => {
      const { level, because } = judgePlantingTime({ kind, day: this.plantOn(), ...this.outlook() });
      return { kind, level, because: because.map((reason) => sayReason(reason, this.session.units())).join(' ') };
    }),
  );
  protected readonly lockLines = computed(() => {
    const refs = new Map(this.places().map(({ spotId, ref }) => [spotId, ref]));
    return this.locks().flatMap((lock) => {
      const ref = refs.get(lock.spotId);
      return ref ? [{ ...lock, ref }] : [];
    });
  });

  constructor() {
    effect(() => {
      const before = this.before();
      untracked(() => this.start(before));
    });
    effect(() => {
      const fixed = this.fixed();
      untracked(() => {
        const ids = new Set(fixed.map(({ spotId }) => spotId));
        this.locks.update((locks) => [...locks.filter(({ spotId }) => !ids.has(spotId)), ...fixed]);
      });
    });
    effect(() => {
      const typed = this.typed();
      if (this.plantOn() !== '' && !this.before()) this.drafts.keep('season-list', typed);
    });
    void firstValueFrom(this.doors.outlook())
      .then((outlook) => this.outlook.set(outlook))
      .catch(() => undefined);
    void firstValueFrom(this.doors.species())
      .then((library) => this.library.set(library))
      .catch(() => undefined);
  }

  private start(before: AskList | null): void {
    const draft = before ? null : (this.drafts.read('season-list')?.value as Partial<Typed> | undefined);
    const today = this.session.today();
    this.title.set(before?.title ?? draft?.title ?? `Season's list, ${today.slice(0, 4)}`);
    this.budget.set(before ? String(before.budget ?? '') : (draft?.budget ?? ''));
    const plantOn = before?.plantOn ?? draft?.plantOn ?? '';
    this.plantOn.set(plantOn > today ? plantOn : today);
    this.kinds.set(new Set(before?.stockKinds ?? draft?.stockKinds ?? ['container', 'balled']));
    this.locks.set(before?.locks ?? []);
  }

  private typed(): Typed {
    return {
      title: this.title(),
      budget: this.budget(),
      plantOn: this.plantOn(),
      stockKinds: stockKinds.filter((kind) => this.kinds().has(kind)),
    };
  }

  protected wantKind(kind: StockKind, on: boolean): void {
    this.kinds.update((kinds) => new Set([...kinds].filter((one) => one !== kind).concat(on ? [kind] : [])));
  }

  protected fix(): void {
    const spot = this.places().find(({ ref }) => ref === this.lockSpot().trim().toUpperCase());
    const known = this.library().find(({ species }) => species.botanical === this.lockSpecies().trim());
    const wrong = [
      ...(spot ? [] : [`Fixed choices: ${this.lockSpot() || 'no number'} is none of the places of this list.`]),
      ...(known ? [] : [`Fixed choices: ${this.lockSpecies() || 'no name'} is not in the species library.`]),
    ];
    this.faults.set(wrong);
    if (!spot || !known) return;
    const lock = { spotId: spot.spotId, species: known.species.botanical, stockKind: null };
    this.locks.update((locks) => [...locks.filter(({ spotId }) => spotId !== spot.spotId), lock]);
    this.lockSpot.set('');
    this.lockSpecies.set('');
  }

  protected unfix(spotId: string): void {
    this.locks.update((locks) => locks.filter((lock) => lock.spotId !== spotId));
  }

  protected async ask(): Promise<void> {
    const text = this.budget().trim().replace(',', '.').replace(/\s/g, '');
    const budget = text === '' ? null : Number(text);
    const ids = new Set(this.places().map(({ spotId }) => spotId));
    const parsed = askListSchema.safeParse({
      ...this.typed(),
      id: uuidv7(),
      spotIds: [...ids],
      budget,
      locks: this.locks().filter(({ spotId }) => ids.has(spotId)),
    });
    if (!parsed.success) {
      const said = parsed.error.issues.map((issue) => {
        const field = String(issue.path[0] ?? '');
        return `${fieldNames[field] ?? field}: ${sayFault(field, this.budget(), issue.message)}`;
      });
      this.faults.set([...new Set(said)]);
      return;
    }
    this.busy.set(true);
    this.faults.set([]);
    try {
      const list = await firstValueFrom(this.doors.askList(parsed.data));
      this.drafts.drop('season-list');
      await this.router.navigate(['/lists', list.id]);
    } catch (error) {
      this.faults.set([sayProblem(readProblem(error))]);
    } finally {
      this.busy.set(false);
    }
  }
}

function sayFault(field: string, budget: string, message: string): string {
  if (field === 'budget') return `must be a number of 0–100 000 000, or empty for none; got ${budget}.`;
  if (field === 'spotIds') return 'choose 1–1000 places.';
  if (field === 'stockKinds') return 'choose one kind or more.';
  if (field === 'plantOn') return 'choose a day.';
  return `${message}.`;
}
