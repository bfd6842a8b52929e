import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import {
  addDaysTo,
  remedyProofs,
  remedyWords,
  remedyWork,
  sayReason,
  type RecordFacts,
  type RemedyBefore,
  type RemedyCode,
  type RemedySeen,
} from '@sombra/core';
import type { Stop } from '../along/stop';
import { SessionService } from '../session/session.service';
import { collarNow } from '../spot/collar-now';
import { DoneToday } from '../spot/done-today';
import { sayDay } from '../ui/say-date';

/** What is booked for later is left for then. */
const soonDays = 30;

/** What is to be carried out at a tree, each with how and with what care, and *done* with what shows it. */
@Component({
  selector: 's-remedy-stop',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DoneToday],
  template: `
    @for (one of asked(); track one.key) {
      <section [attr.aria-label]="one.words.act">
        <h2>{{ one.words.act }}</h2>
        <p class="quiet">{{ one.why }}</p>
        <p>{{ one.words.how }}</p>
        @if (one.words.caution; as caution) {
          <p class="caution">{{ caution }}</p>
        }
        @if (one.arborist) {
          <p><b>For a qualified arborist:</b> it is not carried out on this walk.</p>
        } @else if (session.mayMark(one.remedy)) {
          <s-done-today
            [remedy]="one.remedy"
            [busy]="busy()"
            [roots]="collar()?.roots ?? null"
            [cuts]="collar()?.cuts ?? []"
            [asksBefore]="true"
            (found)="find(one.remedy, $event)"
            (did)="say(one.remedy, $event)"
          />
        }
      </section>
    } @empty {
      <p role="status"><b>Nothing is open at this tree any more.</b></p>
    }
  `,
  styles: `
    section {
      border-top: 1px solid var(--line);
      padding: 0.5rem 0 0.75rem;
    }
    h2 {
      font-size: 1.25rem;
      margin: 0;
    }
  `,
})
export class RemedyStop {
  readonly stop = input.required<Stop>();
  readonly busy = input(false);
  readonly done = output<RecordFacts['remedy']>();
  protected readonly session = inject(SessionService);
  protected readonly collar = computed(() => collarNow(this.stop().life));
  protected readonly asked = computed(() => {
    const by = addDaysTo(this.session.today(), soonDays);
    const soon = (this.stop().life?.decisions ?? []).flatMap(({ kind, remedy, dueOn, because }) =>
      kind === 'do_remedy' && remedy && (dueOn === null || dueOn <= by) ? [{ remedy, dueOn, because }] : [],
    );
    const { id } = this.stop();
    return soon.map(({ remedy, dueOn, because }) => ({
      // Of one tree: what is typed for it stays with it.
      key: `${id}/${remedy}`,
      remedy,
      words: remedyWords[remedy],
      arborist: remedyWork[remedy].hands === 'arborist',
      why: [...because.map((reason) => sayReason(reason, this.session.units())), dueOn ? `By ${sayDay(dueOn)}.` : '']
        .filter(Boolean)
        .join(' '),
    }));
  });

  /** Measured before the work, by remedy; of one tree, and gone with it. */
  private found: { readonly stopId: string; readonly by: Partial<Record<RemedyCode, number>> } = { stopId: '', by: {} };

  protected find(remedy: RemedyCode, value: number | null): void {
    const { id } = this.stop();
    const by = this.found.stopId === id ? this.found.by : {};
    this.found = { stopId: id, by: { ...by, [remedy]: value ?? undefined } };
  }

  private beforeOf(remedy: RemedyCode): RemedyBefore | undefined {
    const proof = remedyProofs[remedy];
    const value = this.found.stopId === this.stop().id ? this.found.by[remedy] : undefined;
    return proof.kind === 'measure' && value !== undefined ? { [proof.fact]: value } : undefined;
  }

  protected say(remedy: RemedyCode, seen: RemedySeen | undefined): void {
    const before = this.beforeOf(remedy);
    const doneOn = this.session.today();
    this.done.emit({ remedy, doneOn, ...(seen ? { seen } : {}), ...(before ? { before } : {}) });
  }
}
