import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import type { KeptRules, Problem } from '@sombra/contract';
import {
  causeNames,
  causes,
  causeTable,
  defaultCauseRules,
  evidenceNames,
  evidences,
  likelyPctRange,
  partsRange,
  type Cause,
  type CauseRules,
  type Evidence,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { textOf } from '../fields/event-values';
import { GroundService } from '../ground/ground.service';
import { DraftsService } from '../offline/drafts.service';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';

/** A row of the table: how often each cause is at work, or how likely it shows one sign. */
type Row = 'parts' | Evidence;
const rows: readonly Row[] = ['parts', ...evidences];
const draftName = 'cause-table';
const shipped = causeTable();
const shippedIn = (row: Row, cause: Cause): number =>
  row === 'parts' ? shipped.prior(cause) : Math.round(shipped.likelihood(row, cause) * 100);
const heldIn = (rules: CauseRules, row: Row, cause: Cause): number | undefined =>
  row === 'parts' ? rules.parts[cause] : rules.likelyPct[row]?.[cause];
const rowNames: Readonly<Record<Row, string>> = { ...evidenceNames, parts: 'Before anything is known, parts of all' };

/** The table behind a diagnosis, as the programme holds it: whoever keeps its rules changes it here, cell by cell. */
@Component({
  selector: 's-cause-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StateNote],
  template: `
    @if (kept() === null && problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (kept()) {
      <p class="quiet">
        How likely each sign is, of a hundred trees with that cause. The table that ships is judgement, in steps of
        five; {{ range.min }} to {{ range.max }}, since no single sign proves or rules out.
        @if (mayEdit()) {
          What your programme holds otherwise is typed over it; an emptied cell is as it ships again.
        }
      </p>
      <div class="scroll" tabindex="0" role="region" aria-label="Causes and signs">
        <table class="plain likely">
          <thead>
            <tr>
              <th scope="col">Sign</th>
              @for (cause of causes; track cause) {
                <th scope="col" class="num">{{ causeNames[cause] }}</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (row of lines(); track row.key) {
              <tr>
                <th scope="row">{{ row.name }}</th>
                @for (cell of row.cells; track cell.cause) {
                  <td class="num" [class.high]="row.key !== 'parts' && cell.value >= 50" [class.own]="cell.own">
                    @if (mayEdit()) {
                      <input
                        inputmode="decimal"
                        [attr.aria-label]="row.name + ', ' + causeNames[cell.cause] + (cell.own ? ', changed' : '')"
                        [attr.aria-invalid]="cell.fault"
                        [class.wrong]="cell.fault"
                        [title]="'As it ships: ' + cell.shipped"
                        [value]="cell.text"
                        (change)="type(row.key, cell.cause, textOf($event))"
                      />
                    } @else {
                      {{ cell.value }}
                    }
                    @if (cell.own) {
                      <span class="shipped">{{ cell.shipped }}</span>
                    }
                  </td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
      <p class="quiet">
        {{ ownCount() }} {{ ownCount() === 1 ? 'number differs' : 'numbers differ' }} from the table that ships.
        @if (since(); as words) {
          Rules as {{ words }}.
        }
      </p>
      @if (mayEdit()) {
        @for (fault of faults(); track fault) {
          <p class="problem" role="alert">{{ fault }}</p>
        }
        @if (problem(); as trouble) {
          <p class="problem" role="alert">{{ sayProblem(trouble) }} {{ issues() }}</p>
        }
        @if (changed()) {
          <p class="store">
            <button type="button" class="btn btn-primary" [disabled]="busy() || faults().length > 0" (click)="save()">
              Store the table
            </button>
            <button type="button" class="btn btn-link" (click)="drop()">Discard what is typed</button>
          </p>
        }
      }
    }
  `,
  styles: `
    .scroll {
      overflow: auto;
      max-height: 34rem;
    }
    .likely th {
      font-size: 0.92rem;
    }
    .likely thead th {
      position: sticky;
      top: 0;
      z-index: 1;
      background: var(--paper);
    }
    .likely thead th.num {
      white-space: normal;
      vertical-align: bottom;
    }
    .likely tbody th {
      position: sticky;
      left: 0;
      min-width: 11rem;
      line-height: 1.2;
      vertical-align: middle;
      background: var(--paper);
    }
    .likely td {
      white-space: nowrap;
      vertical-align: middle;
      padding: 0.15rem 0.3rem;
    }
    .likely .high {
      font-weight: 700;
      background: var(--cost-paper);
    }
    .own {
      outline: 2px solid var(--chosen);
      outline-offset: -2px;
    }
    .shipped {
      text-decoration: line-through;
      margin-left: 0.25rem;
      color: var(--quiet);
      font-weight: 400;
    }
    input {
      width: 3rem;
      min-height: 34px;
      text-align: right;
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
      font: inherit;
    }
    input.wrong {
      border: 2px solid var(--urgent);
    }
    .store {
      position: sticky;
      bottom: 0;
      margin: 0;
      padding: 0.6rem 0;
      background: var(--paper);
      display: flex;
      gap: 0.6rem;
    }
  `,
})
export class CauseTableView {
  /** The table as it is typed, for whoever shows what it makes of trees. */
  readonly held = output<CauseRules>();
  private readonly doors = inject(GroundService);
  private readonly session = inject(SessionService);
  private readonly drafts = inject(DraftsService);
  private readonly toasts = inject(ToastsService);
  protected readonly textOf = textOf;
  protected readonly sayProblem = sayProblem;
  protected readonly causes = causes;
  protected readonly causeNames = causeNames;
  protected readonly range = likelyPctRange;
  protected readonly kept = signal<KeptRules | null>(null);
  /** Texts by `row/cause`; an empty one is as it ships. */
  protected readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly problem = signal<Problem | null>(null);
  protected readonly busy = signal(false);
  protected readonly mayEdit = computed(() => this.session.may('change_rules'));
  /** What of the table was refused, in the words of the table. */
  protected readonly issues = computed(() =>
    (this.problem()?.issues ?? [])
      .map(({ path, message }) => {
        const [row = '', cause = ''] = path.split('.').slice(-2);
        const name = [rowNames[row as Row], causeNames[cause as Cause]].filter(Boolean).join(', ');
        return name ? `${name}: ${message}.` : message;
      })
      .join(' '),
  );
  protected readonly changed = computed(() => Object.keys(this.typed()).length > 0);

  constructor() {
    const draft = this.mayEdit() ? this.drafts.read(draftName) : null;
    if (draft) this.typed.set(draft.value as Record<string, string>);
    void this.read();
  }

  protected async read(): Promise<void> {
    try {
      this.kept.set(await firstValueFrom(this.doors.rules()));
      this.problem.set(null);
      this.tell();
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected readonly since = computed(() => {
    const kept = this.kept();
    return kept && kept.rules.ground.version > 1
      ? `${kept.madeBy} left them on ${sayDay(kept.madeAt.slice(0, 10))}`
      : '';
  });

  protected readonly lines = computed(() => {
    const rules = this.kept()?.rules.causes ?? defaultCauseRules;
    const typed = this.typed();
    return rows.map((key) => ({
      key,
      name: rowNames[key],
      cells: causes.map((cause) => {
        const known = heldIn(rules, key, cause);
        const ships = shippedIn(key, cause);
        const text = typed[`${key}/${cause}`] ?? String(known ?? ships);
        const value = text.trim() === '' ? ships : numberIn(text);
        const fault = text.trim() !== '' && !isWithin(key, value);
        const shown = fault ? (known ?? ships) : value;
        return {
          cause,
          text: text.trim() === '' ? String(ships) : text,
          value: shown,
          shipped: ships,
          fault,
          own: shown !== ships,
        };
      }),
    }));
  });
  protected readonly ownCount = computed(
    () => this.lines().flatMap(({ cells }) => cells.filter(({ own }) => own)).length,
  );
  protected readonly faults = computed(() =>
    this.lines().flatMap(({ key, name, cells }) => {
      const { min, max } = key === 'parts' ? partsRange : likelyPctRange;
      return cells
        .filter(({ fault }) => fault)
        .map(({ cause, text }) => `${name}, ${causeNames[cause]}: must be within ${min}–${max}, got ${text}.`);
    }),
  );
  /** Only what differs from the table that ships is held. */
  private readonly rules = computed((): CauseRules => {
    const own = this.lines().map(
      ({ key, cells }) =>
        [key, Object.fromEntries(cells.filter((cell) => cell.own).map(({ cause, value }) => [cause, value]))] as const,
    );
    const named = own.filter(([, cells]) => Object.keys(cells).length > 0);
    return {
      parts: Object.fromEntries(named)['parts'] ?? {},
      likelyPct: Object.fromEntries(named.filter(([key]) => key !== 'parts')),
    };
  });

  protected type(row: Row, cause: Cause, text: string): void {
    const key = `${row}/${cause}`;
    const known = heldIn(this.kept()?.rules.causes ?? defaultCauseRules, row, cause);
    const same = text.trim() === String(known ?? shippedIn(row, cause)) || (text.trim() === '' && known === undefined);
    this.typed.update(({ [key]: _old, ...rest }) => (same ? rest : { ...rest, [key]: text }));
    this.problem.set(null);
    this.drafts.keep(draftName, this.typed());
    this.tell();
  }

  private tell(): void {
    this.held.emit(this.rules());
  }

  protected drop(): void {
    this.typed.set({});
    this.problem.set(null);
    this.drafts.drop(draftName);
    this.tell();
  }

  protected async save(): Promise<void> {
    const kept = this.kept();
    if (!kept) return;
    this.busy.set(true);
    try {
      this.kept.set(await firstValueFrom(this.doors.saveRules({ ...kept.rules, causes: this.rules() })));
      this.drop();
      this.toasts.say('The table stored, as a new version of the rules.');
    } catch (error) {
      this.problem.set(readProblem(error));
    } finally {
      this.busy.set(false);
    }
  }
}

const numberIn = (text: string): number => Number(text.trim().replace(',', '.'));

function isWithin(row: Row, value: number): boolean {
  const { min, max } = row === 'parts' ? partsRange : likelyPctRange;
  return Number.isFinite(value) && value >= min && value <= max;
}
