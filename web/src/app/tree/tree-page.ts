import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  happenedOn,
  inOrder,
  isFarAhead,
  ofKind,
  recordTable,
  removalWhyNames,
  remedyWords,
  sayFacts,
  sayReason,
  standing,
  type Decision,
  type FieldRecord,
  type Finding,
  type Level,
  type RemedyCode,
  type RemedySeen,
  type SaidFact,
} from '@sombra/core';
import { KeepersPanel } from '../care/keepers-panel';
import { PitSectionView } from '../drawing/pit-section-view';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { sayProblem } from '../ui/problem';
import { sayDate, sayDay } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { FindingsList } from '../ui/findings-list';
import { SessionService } from '../session/session.service';
import { collarNow } from '../spot/collar-now';
import { DoneToday } from '../spot/done-today';
import { RecordSender } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { SpotStore } from '../spot/spot-store';
import { CollarPanel } from '../inspect/collar-panel';
import { CohortPanel } from '../inspect/cohort-panel';
import { DecidePanel } from '../inspect/decide-panel';
import { DiagnosisPanel } from '../inspect/diagnosis-panel';
import { EstablishmentPanel } from '../inspect/establishment-panel';
import { WaterPanel } from '../water/water-panel';

interface Entry {
  readonly id: string;
  readonly day: string;
  readonly name: string;
  readonly by: string;
  readonly facts: readonly SaidFact[];
  readonly findings: readonly Finding[];
  readonly level: Level | null;
  readonly corrected: boolean;
  readonly correction: boolean;
  readonly waiting: boolean;
}

/** A tree's life as one line of time, newest first, with what it needs now. */
@Component({
  selector: 's-tree-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    PitSectionView,
    BecauseList,
    LevelMark,
    DoneToday,
    FindingsList,
    SpotHead,
    WaterPanel,
    CollarPanel,
    CohortPanel,
    DecidePanel,
    DiagnosisPanel,
    EstablishmentPanel,
    KeepersPanel,
  ],
  providers: [SpotStore, RecordSender],
  template: `
    @if (store.problem(); as fault) {
      <p class="problem" role="alert">
        {{ say(fault) }} <button type="button" class="btn btn-link" (click)="store.reload()">Try again</button>
      </p>
    }
    @if (store.detail(); as detail) {
      <s-spot-head />
      <div class="pair">
        <section aria-label="Now">
          <h2>{{ view.tense() === 'today' ? 'Now' : heading() }}</h2>
          @for (line of open(); track $index) {
            <div class="open">
              <s-level-mark [level]="line.decision.level" />
              <div>
                <b>{{ line.words?.act }}</b>
                @if (line.decision.dueOn) {
                  <span class="quiet"> by {{ day(line.decision.dueOn) }}</span>
                }
                <s-because [reasons]="line.decision.because" />
                @if (line.words?.caution; as caution) {
                  <p class="quiet">{{ caution }}</p>
                }
                @if (line.words?.who === arborist) {
                  <p>
                    <a [href]="'/api/trees/' + detail.tree?.id + '/referral.pdf'" target="_blank"
                      >Sheet for the arborist, PDF</a
                    >
                  </p>
                }
              </div>
              @if (line.decision.remedy && mayMark(line.decision.remedy)) {
                <s-done-today
                  [remedy]="line.decision.remedy"
                  [busy]="sender.busy()"
                  [roots]="collar()?.roots ?? null"
                  [cuts]="collar()?.cuts ?? []"
                  (did)="done(line.decision, $event)"
                />
              }
            </div>
          } @empty {
            <p>{{ store.life()?.planting ? 'Nothing is open on this tree.' : (gone() ?? 'Not planted yet.') }}</p>
          }
          @if (sender.problem(); as fault) {
            <p class="problem" role="alert">{{ say(fault) }}</p>
          }
          @if (store.life()?.nextLook; as look) {
            <p class="next">
              <b>Next look {{ day(look.on) }}.</b>
              <span class="quiet"> {{ lookWhy() }}</span>
              @if (mayAct()) {
                <a class="btn btn-primary" [routerLink]="['/inspect', detail.spot.id]">Inspect now</a>
              }
            </p>
          }
          @if (view.tense() === 'today') {
            @defer (on immediate) {
              <s-decide />
              <s-establishment />
              <s-diagnosis />
              <s-cohort />
              <s-collar />
            }
            <s-water-panel />
            @if (store.life()?.planting) {
              <s-keepers-panel [spotId]="detail.spot.id" />
            }
          }
          @if (store.planned(); as planned) {
            <h2>As planned</h2>
            <s-pit-section [planned]="planned" />
          }
        </section>
        <section aria-label="History">
          <h2>History</h2>
          <ol>
            @for (entry of entries(); track entry.id) {
              <li [class.corrected]="entry.corrected">
                <div class="stamp">
                  <b>{{ entry.day }}</b>
                  <span class="quiet">{{ entry.by }}</span>
                </div>
                <div class="told">
                  <h3>
                    {{ entry.name }}
                    @if (entry.level) {
                      <s-level-mark [level]="entry.level" />
                    }
                    @if (entry.corrected) {
                      <small>corrected later</small>
                    }
                    @if (entry.correction) {
                      <small>a correction</small>
                    }
                    @if (entry.waiting) {
                      <small class="waits"
                        ><i class="bi bi-hourglass-split" aria-hidden="true"></i> on this device, to be sent</small
                      >
                    }
                  </h3>
                  <p class="facts">
                    @for (fact of entry.facts; track fact.key) {
                      <span
                        ><span class="quiet">{{ fact.name }}</span> {{ fact.value }}</span
                      >
                    }
                  </p>
                  @if (entry.findings.length > 0) {
                    <s-findings [findings]="entry.findings" />
                  }
                </div>
              </li>
            }
          </ol>
        </section>
      </div>
    } @else if (!store.problem()) {
      <p class="quiet" role="status">Opening the tree…</p>
    }
  `,
  styleUrl: './tree-page.scss',
})
export class TreePage {
  readonly treeId = input.required<string>();
  protected readonly store = inject(SpotStore);
  protected readonly sender = inject(RecordSender);
  private readonly session = inject(SessionService);
  protected readonly say = sayProblem;
  protected readonly day = sayDate;

  constructor() {
    effect(() => this.store.open({ kind: 'tree', id: this.treeId() }));
  }

  protected readonly arborist = remedyWords.refer_arborist.who;
  protected readonly view = inject(ViewState);
  protected readonly mayAct = computed(() => this.view.tense() === 'today' && this.session.may('record_inspection'));
  protected readonly mayMark = (remedy: RemedyCode) => this.view.tense() === 'today' && this.session.mayMark(remedy);
  protected readonly heading = computed(
    () => `${this.view.tense() === 'past' ? 'As it was on' : 'As forecast for'} ${sayDay(this.view.on())}`,
  );

  protected readonly open = computed(() =>
    (this.store.life()?.decisions ?? [])
      .filter((decision) => decision.kind === 'do_remedy' && !isFarAhead(decision, this.view.on()))
      .map((decision) => ({ decision, words: decision.remedy ? remedyWords[decision.remedy] : null })),
  );

  /** The tree was taken out, and none is planted since. */
  protected readonly gone = computed(() => {
    const facts = ofKind(standing(this.store.known()), 'removal').at(-1)?.facts;
    return facts
      ? `Taken out on ${sayDay(facts.removedOn)}: ${removalWhyNames[facts.why]}. Its place waits for the next.`
      : null;
  });

  protected readonly lookWhy = computed(() => {
    const look = this.store.life()?.nextLook;
    return look ? sayReason(look.because, this.session.units()) : '';
  });

  protected readonly entries = computed<Entry[]>(() => {
    const records = this.store.known();
    const corrected = new Set(records.map((record) => record.supersedes));
    return inOrder(records as readonly (FieldRecord & { recordedBy: string; waiting?: true })[])
      .map((record) => this.entry(record, corrected))
      .sort((a, b) => (a.sortDay < b.sortDay ? 1 : a.sortDay > b.sortDay ? -1 : 0));
  });

  private entry(
    record: FieldRecord & { recordedBy: string; waiting?: true },
    corrected: ReadonlySet<string | null>,
  ): Entry & { sortDay: string } {
    const life = this.store.life();
    const verdict = life?.inspections.find((look) => look.record.id === record.id)?.verdict;
    const judgement = life?.planting?.record.id === record.id ? life.planting.judgement : undefined;
    const sortDay = happenedOn(record) ?? record.recordedAt.slice(0, 10);
    return {
      id: record.id,
      sortDay,
      day: sayDay(sortDay),
      name: recordTable[record.kind].name,
      by: record.recordedBy,
      facts: sayFacts(record.facts, this.session.units()).filter(
        // Its day stands beside it.
        ({ key }) => key !== recordTable[record.kind].day,
      ),
      findings: verdict?.findings ?? judgement?.findings ?? [],
      level: verdict?.level ?? judgement?.level ?? null,
      corrected: corrected.has(record.id),
      correction: record.supersedes !== null,
      waiting: record.waiting === true,
    };
  }

  protected readonly collar = computed(() => collarNow(this.store.life()));

  protected async done(decision: Decision, seen: RemedySeen | undefined): Promise<void> {
    if (decision.remedy) await this.sender.settle(decision.remedy, this.session.today(), seen);
  }
}
