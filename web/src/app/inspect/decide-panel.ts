import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  arboristAdviceNames,
  claimedFromNames,
  declinedByNames,
  removalWhyNames,
  readPest,
  remedyWords,
  stumpNames,
  warrantyEnds,
  type ArboristAdvice,
  type RecordFacts,
  type RecordKind,
  type RemedyCode,
  type RemovalWhy,
  type StumpState,
} from '@sombra/core';
import { textOf, tickOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';

const acts = {
  arborist_answer: 'An arborist answered',
  declined: 'Decided against advice',
  claim: 'Claim another tree',
  pest_told: 'Told of a notifiable pest',
  removal: 'Tree taken out',
} as const;
type Act = keyof typeof acts;

const options = <K extends string>(names: Readonly<Record<K, string>>) =>
  (Object.entries(names) as [K, string][]).map(([value, name]) => ({ value, name }));

/** What people decide about a tree beside its remedies: an arborist's word, against advice, a claim, a pest told of, its end. */
@Component({
  selector: 's-decide',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [RecordSender],
  template: `
    @if (offered().length > 0) {
      <section aria-label="Decide otherwise">
        <div class="acts" role="group" aria-label="What was decided">
          @for (one of offered(); track one) {
            <button
              type="button"
              class="btn btn-sm btn-outline-primary"
              [attr.aria-pressed]="act() === one"
              (click)="choose(one)"
            >
              {{ names[one] }}
            </button>
          }
        </div>
        @if (act(); as now) {
          <form (submit)="keep($event)">
            @switch (now) {
              @case ('arborist_answer') {
                <label for="decide-who">Arborist, with licence or register</label>
                <input
                  id="decide-who"
                  class="form-control"
                  maxlength="120"
                  [value]="who()"
                  (input)="who.set(textOf($event))"
                />
                <label for="decide-advice">Says</label>
                <select id="decide-advice" class="form-select" (change)="advice.set(textOf($event))">
                  @for (one of advices; track one.value) {
                    <option [value]="one.value" [selected]="one.value === advice()">{{ one.name }}</option>
                  }
                </select>
              }
              @case ('declined') {
                <label for="decide-remedy">What is not carried out</label>
                <select id="decide-remedy" class="form-select" (change)="pick($event)">
                  @for (one of remedies(); track one.value) {
                    <option [value]="one.value" [selected]="one.value === remedy()">{{ one.name }}</option>
                  }
                </select>
                <label for="decide-by">Decided by</label>
                <select id="decide-by" class="form-select" (change)="by.set(textOf($event))">
                  @for (one of deciders; track one.value) {
                    <option [value]="one.value" [selected]="one.value === by()">{{ one.name }}</option>
                  }
                </select>
              }
              @case ('claim') {
                <p>
                  The warranty runs until <b>{{ warranty() }}</b>.
                  @if (store.detail()?.tree?.id; as treeId) {
                    <a [href]="'/api/trees/' + treeId + '/claim.pdf'" target="_blank">Sheet for the claim, PDF</a>
                  }
                </p>
                <label for="decide-from">From</label>
                <select id="decide-from" class="form-select" (change)="from.set(textOf($event))">
                  @for (one of claimed; track one.value) {
                    <option [value]="one.value" [selected]="one.value === from()">{{ one.name }}</option>
                  }
                </select>
              }
              @case ('pest_told') {
                @if (pests().length > 0) {
                  <label for="decide-listed">Of the programme's list</label>
                  <select id="decide-listed" class="form-select" (change)="pickPest(textOf($event))">
                    <option value="">another</option>
                    @for (one of pests(); track one.pest) {
                      <option [value]="one.pest" [selected]="one.pest === pest()">
                        {{ one.pest }}: {{ one.tell }}
                      </option>
                    }
                  </select>
                } @else {
                  <p class="quiet">The programme lists no pests that have to be told of; its rules may.</p>
                }
                <label for="decide-pest">Pest</label>
                <input
                  id="decide-pest"
                  class="form-control"
                  maxlength="120"
                  [value]="pest()"
                  (input)="pest.set(textOf($event))"
                />
                <label for="decide-told">Who was told</label>
                <input
                  id="decide-told"
                  class="form-control"
                  maxlength="120"
                  [value]="who()"
                  (input)="who.set(textOf($event))"
                />
              }
              @case ('removal') {
                <label for="decide-why">Why</label>
                <select id="decide-why" class="form-select" (change)="why.set(textOf($event))">
                  @for (one of whys; track one.value) {
                    <option [value]="one.value" [selected]="one.value === why()">{{ one.name }}</option>
                  }
                </select>
                <label for="decide-stump">Stump</label>
                <select id="decide-stump" class="form-select" (change)="stump.set(textOf($event))">
                  @for (one of stumps; track one.value) {
                    <option [value]="one.value" [selected]="one.value === stump()">{{ one.name }}</option>
                  }
                </select>
                <label class="tick"
                  ><input type="checkbox" [checked]="reusable()" (change)="reusable.set(tickOf($event))" /> The pit may
                  be planted again as it is</label
                >
                <p class="caution">
                  Dead and leaning trees fall without warning: cordon off first; felling is for qualified people, with
                  permits where they are asked for.
                </p>
              }
            }
            @if (now !== 'pest_told') {
              <label for="decide-words">{{ now === 'declined' || now === 'claim' ? 'Why' : 'Note' }}</label>
              <textarea
                id="decide-words"
                class="form-control"
                rows="2"
                maxlength="300"
                [value]="words()"
                (input)="words.set(textOf($event))"
              ></textarea>
            }
            @if (fault(); as text) {
              <p class="problem" role="alert">{{ text }}</p>
            }
            <p>
              <button type="submit" class="btn btn-primary" [disabled]="sender.busy()">Store</button>
              <button type="button" class="btn btn-link" (click)="act.set(null)">Leave it</button>
            </p>
          </form>
        }
      </section>
    }
  `,
  styles: `
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem;
      margin: 0.75rem 0;
    }
    form {
      border-left: 5px solid var(--chosen);
      padding: 0.25rem 0 0.25rem 0.75rem;
      max-width: 34rem;
    }
    .tick {
      display: flex;
      gap: 0.5rem;
      align-items: center;
      min-height: 44px;
    }
  `,
})
export class DecidePanel {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  protected readonly names = acts;
  protected readonly advices = options(arboristAdviceNames);
  protected readonly deciders = options(declinedByNames);
  protected readonly claimed = options(claimedFromNames);
  protected readonly whys = options(removalWhyNames);
  protected readonly stumps = options(stumpNames);
  protected readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  private readonly view = inject(ViewState);
  protected readonly sender = inject(RecordSender);

  protected readonly act = signal<Act | null>(null);
  protected readonly who = signal('');
  protected readonly words = signal('');
  protected readonly pest = signal('');
  protected readonly advice = signal<ArboristAdvice>('carried_out');
  protected readonly remedy = signal<RemedyCode | null>(null);
  protected readonly by = signal<'owner' | 'programme'>('owner');
  protected readonly from = signal<'nursery' | 'contractor'>('nursery');
  protected readonly why = signal<RemovalWhy>('dead');
  protected readonly stump = signal<StumpState>('out');
  protected readonly reusable = signal(false);
  private readonly missing = signal<string | null>(null);
  protected readonly fault = computed(() => {
    const problem = this.sender.problem();
    return this.missing() ?? (problem ? sayProblem(problem) : null);
  });

  protected readonly pests = computed(() =>
    (this.store.detail()?.rules.pests.list ?? []).flatMap((line) => readPest(line) ?? []),
  );

  private readonly open = computed(() =>
    (this.store.life()?.decisions ?? []).flatMap(({ kind, level, remedy }) =>
      kind === 'do_remedy' && level !== 'good' && remedy ? [remedy] : [],
    ),
  );
  protected readonly remedies = computed(() =>
    [...new Set(this.open())].map((value) => ({ value, name: remedyWords[value].act })),
  );
  private readonly endsOn = computed(() => {
    const life = this.store.life();
    const built = life?.planting?.record.facts;
    return life && built && !built.takenOver ? warrantyEnds(built.plantedOn, life.care) : null;
  });
  protected readonly warranty = computed(() => sayDate(this.endsOn() ?? ''));

  /** What there is to decide at this tree, by this person. */
  protected readonly offered = computed<readonly Act[]>(() => {
    const [open, endsOn] = [this.open(), this.endsOn()];
    if (!this.store.life()?.planting || this.view.tense() !== 'today') return [];
    const asks: Readonly<Record<Act, boolean>> = {
      arborist_answer: open.some((one) => one === 'refer_arborist' || one === 'collar_excavation'),
      declined: open.length > 0,
      claim: endsOn !== null && endsOn >= this.session.today(),
      pest_told: open.includes('name_pest'),
      removal: true,
    };
    return (Object.keys(acts) as Act[]).filter((one) => asks[one] && this.session.may(`record_${one}`));
  });

  protected choose(act: Act): void {
    this.act.set(this.act() === act ? null : act);
    this.remedy.set(this.remedies()[0]?.value ?? null);
    this.missing.set(null);
  }

  /** What the programme says of it comes into the fields, where it may be said otherwise. */
  protected pickPest(name: string): void {
    const listed = this.pests().find(({ pest }) => pest === name);
    this.pest.set(listed?.pest ?? '');
    this.who.set(listed?.tell ?? '');
  }

  protected pick(event: Event): void {
    this.remedy.set(textOf<RemedyCode>(event));
  }

  protected async keep(event: Event): Promise<void> {
    event.preventDefault();
    const act = this.act();
    if (!act) return;
    this.missing.set(this.lacks(act));
    if (this.missing()) return;
    if (await this.send(act)) {
      this.act.set(null);
      for (const field of [this.who, this.words, this.pest]) field.set('');
    }
  }

  private lacks(act: Act): string | null {
    const long = (text: string) => text.trim().length >= 3;
    if (act === 'arborist_answer' && !long(this.who())) return 'Arborist must be named, in 3 letters or more.';
    if (act === 'pest_told' && !(long(this.pest()) && long(this.who()))) {
      return 'Pest and who was told must be named, in 3 letters or more.';
    }
    return (act === 'declined' || act === 'claim') && !long(this.words()) ? 'Say why, in 3 letters or more.' : null;
  }

  private send(act: Act): Promise<boolean> {
    const [on, note] = [this.session.today(), this.words().trim()];
    switch (act) {
      case 'arborist_answer':
        return this.keepFacts(act, { answeredOn: on, arborist: this.who().trim(), advice: this.advice(), note });
      case 'declined':
        return this.keepFacts(act, { decidedOn: on, remedy: this.remedy() ?? 'none', by: this.by(), reason: note });
      case 'claim':
        return this.keepFacts(act, { claimedOn: on, from: this.from(), reason: note });
      case 'pest_told':
        return this.keepFacts(act, { toldOn: on, pest: this.pest().trim(), told: this.who().trim() });
      case 'removal':
        return this.keepFacts(act, {
          ...{ removedOn: on, why: this.why(), stump: this.stump(), pitReusable: this.reusable(), note },
        });
    }
  }

  private keepFacts<K extends RecordKind & Act>(kind: K, facts: RecordFacts[K]): Promise<boolean> {
    return this.sender.send({ kind, facts, supersedes: null }, `${acts[kind]}: stored.`);
  }
}
