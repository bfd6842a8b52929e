import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import {
  asksForDiagnosis,
  causeNames,
  checkNames,
  diagnose,
  evidenceNames,
  formatNumber,
  treeEvidence,
  type Evidence,
  type Inspection,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { SpotStore } from '../spot/spot-store';
import { followedTree } from '../water/followed-tree';
import { WaterBasisService } from '../water/water-basis.service';

const shownCauses = 4;
const shownEvidence = 3;

/** What may be behind what was seen, and the check that tells most for its minutes. */
@Component({
  selector: 's-diagnosis',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (found(); as now) {
      <section aria-labelledby="diagnosis">
        <h2 id="diagnosis">What may be behind it</h2>
        @if (now.next; as next) {
          <p class="next">
            <b>Look next: {{ next.name }}</b> <span class="quiet">({{ next.minutes }} min). {{ next.why }}</span>
          </p>
        }
        <ol>
          @for (line of now.causes; track line.cause) {
            <li>
              <span class="name">{{ line.name }}</span>
              <meter min="0" max="100" [value]="line.pct" [attr.aria-label]="line.name"></meter>
              <b class="num">{{ line.pct }} %</b>
              <span class="quiet">
                @if (line.speaksFor) {
                  for: {{ line.speaksFor }}
                }
                @if (line.speaksAgainst) {
                  against: {{ line.speaksAgainst }}
                }
              </span>
            </li>
          }
        </ol>
        <p class="quiet">
          Parts of a hundred by a table of judgement, from this look and the record: a help to look, no proof. Nothing
          is fed, sprayed or cut on it alone.
        </p>
      </section>
    }
  `,
  styles: `
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: minmax(8rem, 1fr) minmax(4rem, 8rem) 3rem;
      gap: 0 0.6rem;
      align-items: center;
      padding: 0.25rem 0;
    }
    li .quiet {
      grid-column: 1 / -1;
    }
    meter {
      width: 100%;
      height: 0.9rem;
    }
    .next {
      border-left: 4px solid var(--chosen);
      padding-left: 0.6rem;
    }
  `,
})
export class DiagnosisPanel {
  /** As it is being typed; the newest look of the tree where none is given. */
  readonly look = input<Inspection | null>(null);
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  private readonly doors = inject(WaterBasisService);

  private readonly asked = computed(() => {
    const look = this.look() ?? this.store.life()?.inspections.at(-1)?.record.facts ?? null;
    return look && asksForDiagnosis(look) ? look : null;
  });
  private readonly basis = resource({
    params: () => (this.asked() ? true : undefined),
    loader: () => firstValueFrom(this.doors.basis()).catch(() => null),
  });
  /** Its balance, where the weather is at hand; without it the look and the rest of the record count. */
  private readonly days = computed(() => {
    const [life, detail, basis] = [this.store.life(), this.store.detail(), this.basis.value()];
    if (!life || !detail || !basis) return [];
    return followedTree({ records: this.store.records(), life, detail }, basis, this.session.today())?.days ?? [];
  });
  protected readonly found = computed(() => {
    const [look, basis] = [this.asked(), this.store.life()];
    if (!look || !basis) return null;
    const { causes, checks } = diagnose(
      treeEvidence({ look, records: this.store.records(), basis, days: this.days() }),
      this.store.detail()?.rules.causes,
    );
    const [first] = checks;
    return {
      causes: causes.slice(0, shownCauses).map(({ cause, share, speaksFor, speaksAgainst }) => ({
        cause,
        name: causeNames[cause],
        pct: Math.round(share * 100),
        speaksFor: said(speaksFor),
        speaksAgainst: said(speaksAgainst),
      })),
      next: first && {
        name: checkNames[first.check],
        minutes: first.minutes,
        why: `Of what is not known yet it tells most for its time, ${formatNumber(first.bits, 2)} bits.`,
      },
    };
  });
}

/** The strongest of them; what was looked for and not found speaks as well and is told apart by the list it comes from. */
const said = (all: readonly Evidence[]): string =>
  all
    .slice(0, shownEvidence)
    .map((one) => evidenceNames[one])
    .join(', ');
