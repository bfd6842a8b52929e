import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DeskLine } from '@sombra/contract';
import { remedyWords, type RemedySeen } from '@sombra/core';
import { PitSectionView } from '../drawing/pit-section-view';
import { BecauseList } from '../ui/because-list';
import { sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { FindingsList } from '../ui/findings-list';
import { SessionService } from '../session/session.service';
import { collarNow } from '../spot/collar-now';
import { DoneToday } from '../spot/done-today';
import { RecordSender } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { SpotStore } from '../spot/spot-store';
import { openers } from '../spot/openers';
import { ViewState } from '../ui/view-state.service';

/** The chosen decision: why, what to do, and the act in place. */
@Component({
  selector: 's-desk-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, DoneToday, BecauseList, PitSectionView, FindingsList, SpotHead],
  template: `
    <s-spot-head />
    @if (words(); as remedy) {
      <h2>{{ remedy.act }}</h2>
      <p>{{ remedy.how }}</p>
    }
    <s-because [reasons]="line().because" />
    @if (line().dueOn; as day) {
      <p>
        Last day <b>{{ date(day) }}</b>
      </p>
    }
    @if (words()?.caution; as caution) {
      <p class="caution">{{ caution }}</p>
    }
    @if (sender.problem(); as fault) {
      <p class="problem" role="alert">{{ say(fault) }}</p>
    }
    <div class="acts">
      @if (view.tense() !== 'today') {
        <a class="btn btn-outline-primary" [routerLink]="['/town', line().spotId]" queryParamsHandling="preserve">
          See it on that day
        </a>
      } @else if (line().remedy; as remedy) {
        <s-done-today
          [remedy]="remedy"
          [busy]="sender.busy() || !ready()"
          [roots]="collar()?.roots ?? null"
          [cuts]="collar()?.cuts ?? []"
          (did)="done($event)"
        />
        <a class="btn btn-outline-primary" [routerLink]="['/', opener().stage, line().spotId]">{{ opener().act }}</a>
      } @else {
        <a class="btn btn-primary" [routerLink]="['/', opener().stage, line().spotId]">{{ opener().act }}</a>
      }
      @if (line().treeId) {
        <a class="btn btn-outline-primary" [routerLink]="['/tree', line().treeId]">History</a>
      }
    </div>
    @if (lastLook(); as look) {
      <h2>Last look, {{ date(look.record.facts.inspectedOn) }}</h2>
      <s-findings [findings]="look.verdict.findings" />
    } @else if (store.planned(); as planned) {
      <s-pit-section [planned]="planned" />
    }
  `,
  styles: `
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin: 1rem 0 1.25rem;
    }
  `,
})
export class DeskBench {
  readonly line = input.required<DeskLine>();
  protected readonly view = inject(ViewState);
  protected readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  protected readonly sender = inject(RecordSender);
  protected readonly say = sayProblem;
  protected readonly date = sayDate;
  /** The spot of this line is the one that is open: until then an act would meet the spot chosen before. */
  protected readonly ready = computed(() => this.store.detail()?.spot.id === this.line().spotId);
  protected readonly opener = computed(() => openers[this.line().kind]);
  protected readonly words = computed(() => {
    const { remedy } = this.line();
    return remedy ? remedyWords[remedy] : null;
  });
  protected readonly collar = computed(() => collarNow(this.store.life()));
  protected readonly lastLook = computed(() => this.store.life()?.inspections.at(-1) ?? null);

  protected async done(seen: RemedySeen | undefined): Promise<void> {
    const { remedy } = this.line();
    if (remedy && this.ready()) await this.sender.settle(remedy, this.session.today(), seen);
  }
}
