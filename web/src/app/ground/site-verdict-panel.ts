import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import {
  formatQuantity,
  judgeSite,
  ofKind,
  siteVerdictNames,
  sizeNames,
  standing,
  type SiteVerdict,
  type VerdictFacts,
} from '@sombra/core';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { sayDay } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { RecordSender } from '../spot/record-sender';
import { SiteLimits } from './site-limits';
import { SpotPhoto } from './spot-photo';

/** What Sombra makes of the place, every finding with its because, and what the coordinator decides. */
@Component({
  selector: 's-site-verdict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, ChoiceField, FormFoot, SiteLimits, SpotPhoto],
  providers: [RecordSender, FormDraft],
  template: `
    @if (judgement(); as judged) {
      <div class="columns">
        <section aria-labelledby="proposal">
          <h2 id="proposal">Sombra proposes: {{ names[judged.verdict] }}</h2>
          <p class="allows">{{ room() }}</p>
          <s-site-limits [limits]="judged.limits" />
          <p class="caution">
            The rules are the programme's own, version {{ rulesVersion() }}. Local codes, permits and the utilities'
            word come before them.
          </p>
        </section>
        <section aria-labelledby="decision">
          <h2 id="decision">Your verdict</h2>
          @if (standingVerdict(); as said) {
            <p>
              <b>{{ names[said.verdict] }}</b>, {{ day(said.decidedOn) }}: {{ said.reason }}
            </p>
          }
          @if (mayDecide()) {
            <form [formGroup]="form" (ngSubmit)="submit()" novalidate>
              <s-choice-field formControlName="verdict" label="This place is to" [choices]="verdicts" />
              <label for="verdict-reason">{{ reasonLabel() }}</label>
              <textarea
                id="verdict-reason"
                class="form-control"
                rows="3"
                maxlength="300"
                formControlName="reason"
              ></textarea>
              <s-form-foot
                act="Store the verdict"
                [tried]="tried()"
                [incomplete]="facts() ? null : 'Choose a verdict and say why, in 3 letters or more.'"
                (discard)="discard()"
              />
            </form>
          } @else {
            <p class="quiet">The coordinator decides.</p>
          }
          <s-spot-photo />
        </section>
      </div>
    }
  `,
  styles: `
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0 2rem;
    }
    .allows {
      font-size: 1.1rem;
    }
  `,
})
export class SiteVerdictPanel extends RecordForm<'verdict'> {
  protected readonly kind = 'verdict';
  private readonly view = inject(ViewState);
  private readonly router = inject(Router);
  protected readonly names = siteVerdictNames;
  protected readonly day = sayDay;
  protected readonly verdicts = choicesOf(siteVerdictNames);
  protected readonly form = new FormGroup({
    verdict: new FormControl<SiteVerdict | null>(null),
    reason: new FormControl('', { nonNullable: true }),
  });

  protected readonly judgement = computed(() => {
    const [detail, life] = [this.store.detail(), this.store.life()];
    return detail && life
      ? judgeSite({
          ground: life.ground,
          assessment: life.assessment,
          rules: detail.rules.ground,
          drainage: life.drainage,
        })
      : null;
  });
  protected readonly standingVerdict = computed(() => this.store.life()?.verdict ?? null);
  protected readonly rulesVersion = computed(() => this.store.detail()?.rules.ground.version ?? 1);
  protected readonly mayDecide = computed(() => this.session.may('record_verdict'));
  protected readonly room = computed(() => {
    const judged = this.judgement();
    if (!judged) return '';
    const say = (m: number) => formatQuantity(m, 'heightM', this.session.units());
    const parts = [
      judged.allows ? `Room for a ${sizeNames[judged.allows]} tree` : 'No room for even a small tree',
      ...(judged.tallestM === null ? [] : [`${say(Math.max(0, judged.tallestM))} high at most`]),
      ...(judged.widestM === null ? [] : [`soil for a crown ${say(judged.widestM)} wide`]),
    ];
    return `${parts.join(', ')}.`;
  });
  protected readonly reasonLabel = computed(() => {
    this.changes();
    const { verdict } = this.form.getRawValue();
    if (verdict === 'plant_if') return 'What must change first';
    return verdict === 'move' ? 'Where to, and why' : 'Why';
  });

  constructor() {
    super();
    this.start();
  }

  protected override corrects(): string | null {
    return null;
  }

  protected stored(): object {
    const last = ofKind(standing(this.store.detail()?.records ?? []), 'verdict').at(-1)?.facts;
    return { verdict: last?.verdict ?? null, reason: last?.reason ?? '' };
  }

  protected readFacts(): VerdictFacts | null {
    const { verdict, reason } = this.form.getRawValue();
    if (!verdict || reason.trim().length < 3) return null;
    return { decidedOn: this.session.today(), verdict, reason: reason.trim() };
  }

  protected async submit(): Promise<void> {
    const id = this.store.detail()?.spot.id;
    const verdict = this.facts()?.verdict;
    if (!(await this.save('Verdict stored.'))) return;
    if (verdict === 'plant')
      void this.router.navigate(['/match', id], { queryParams: { part: null }, queryParamsHandling: 'merge' });
    else this.view.set({ part: 'verdict' });
  }
}
