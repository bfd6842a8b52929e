import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  decisionNames,
  hasLapsed,
  isFarAhead,
  remedyWords,
  sayReason,
  type Decision,
  type RemedySeen,
} from '@sombra/core';
import { collarNow } from '../spot/collar-now';
import { DoneToday } from '../spot/done-today';
import { openers } from '../spot/openers';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { sayProblem } from '../ui/problem';
import { sayDate, sayDay } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { FindingsList } from '../ui/findings-list';
import { SessionService } from '../session/session.service';
import { PitSectionView } from '../drawing/pit-section-view';
import { RecordSender } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { SpotStore } from '../spot/spot-store';

/** One spot on the chosen day: what it waits for, what was found last, how it was planned. */
@Component({
  selector: 's-spot-summary',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, DoneToday, BecauseList, LevelMark, FindingsList, PitSectionView, SpotHead],
  providers: [RecordSender],
  template: `
    <s-spot-head />
    @if (view.tense() === 'past') {
      <p class="then">
        <b>As it was on {{ date(view.on()) }}.</b> What was recorded later is left out.
      </p>
    } @else if (view.tense() === 'ahead') {
      <p class="then">
        <b>As forecast for {{ date(view.on()) }}</b
        >, if nothing is done until then: what falls due by that day is due.
      </p>
    }
    @for (line of open(); track $index) {
      <div class="open">
        <s-level-mark [level]="line.decision.level" />
        <div>
          <b>{{ line.title }}</b>
          @if (line.decision.dueOn) {
            <span class="quiet"> {{ line.late ? 'was due' : 'by' }} {{ day(line.decision.dueOn) }}</span>
          }
          <s-because [reasons]="line.decision.because" />
        </div>
        @if (line.decision.remedy && view.tense() === 'today' && session.mayMark(line.decision.remedy)) {
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
      @if (store.life()) {
        <p>Nothing is open here.</p>
      }
    }
    @if (sender.problem(); as fault) {
      <p class="problem" role="alert">{{ say(fault) }}</p>
    }
    @if (store.life()?.nextLook; as look) {
      <p>
        <b>{{ look.on <= view.on() ? 'Look due since' : 'Next look' }} {{ day(look.on) }}.</b>
        <span class="quiet"> {{ lookWhy() }}</span>
      </p>
    }
    @if (view.tense() === 'today' && session.may('record_inspection') && store.detail(); as detail) {
      <p class="acts">
        <a class="btn btn-primary" [routerLink]="['/', opener().stage, detail.spot.id]">{{ opener().act }}</a>
      </p>
    }
    @if (lastLook(); as look) {
      <h2>Last look, {{ date(look.record.facts.inspectedOn) }}</h2>
      <s-findings [findings]="look.verdict.findings" />
    }
    @if (store.planned(); as planned) {
      <h2>As planned</h2>
      <s-pit-section [planned]="planned" />
    }
  `,
  styles: `
    .then {
      border-left: 5px solid var(--chosen);
      background: var(--chosen-pale);
      padding: 0.4rem 0.75rem;
    }
    .open {
      display: grid;
      grid-template-columns: 6rem 1fr;
      gap: 0.75rem;
      padding: 0.5rem 0;
      border-bottom: 1px solid var(--line);
    }
    .open s-done-today {
      grid-column: -2;
    }
    .acts {
      margin: 0.75rem 0 1.25rem;
    }
    @media (max-width: 720px) {
      .open {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class SpotSummary {
  protected readonly store = inject(SpotStore);
  protected readonly sender = inject(RecordSender);
  protected readonly view = inject(ViewState);
  protected readonly session = inject(SessionService);
  protected readonly say = sayProblem;
  protected readonly date = sayDate;
  protected readonly day = sayDay;

  protected readonly open = computed(() =>
    (this.store.life()?.decisions ?? [])
      .filter(
        (decision) =>
          decision.kind !== 'look' && !hasLapsed(decision, this.view.on()) && !isFarAhead(decision, this.view.on()),
      )
      .map((decision) => ({
        decision,
        title: decision.remedy ? remedyWords[decision.remedy].act : decisionNames[decision.kind],
        late: decision.dueOn !== null && decision.dueOn < this.view.on(),
      })),
  );
  /** Where its next decision is made, and what is done there. */
  protected readonly opener = computed(() => {
    const life = this.store.life();
    const [next] = life?.decisions ?? [];
    return openers[next?.kind ?? (life?.planting ? 'look' : 'move_spot')];
  });
  protected readonly lookWhy = computed(() => {
    const look = this.store.life()?.nextLook;
    return look ? sayReason(look.because, this.session.units()) : '';
  });
  protected readonly lastLook = computed(() => this.store.life()?.inspections.at(-1) ?? null);

  protected readonly collar = computed(() => collarNow(this.store.life()));

  protected async done(decision: Decision, seen: RemedySeen | undefined): Promise<void> {
    if (decision.remedy) await this.sender.settle(decision.remedy, this.session.today(), seen);
  }
}
