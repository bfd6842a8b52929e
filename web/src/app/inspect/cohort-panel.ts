import { NgTemplateOutlet } from '@angular/common';
import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { cohortSchema, type Cohort } from '@sombra/contract';
import {
  cohortMeasureNames,
  fewestInstrumentOthers,
  fewestOthers,
  formatNumber,
  formatQuantity,
  instrumentNames,
  instrumentUnits,
  standInCohort,
  stockNames,
  type CohortMeasure,
  type CohortStanding,
} from '@sombra/core';
import { catchError, map, of, switchMap } from 'rxjs';
import { SessionService } from '../session/session.service';
import { SpotStore } from '../spot/spot-store';
import { saySeason } from '../ui/say-date';

const standingWords = { low: 'unusually low', high: 'unusually high', usual: 'as usual', too_few: '' } as const;
const widthPx = 200;

/** A tree beside the others of its species, season and stock: how unusual it is, and by how many that is said. */
@Component({
  selector: 's-cohort',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet],
  template: `
    @if (shown(); as now) {
      <section aria-labelledby="cohort">
        <h2 id="cohort">Beside its cohort</h2>
        <p class="quiet">{{ now.who }}</p>
        @if (now.lines.length > 0 || now.instruments.length > 0) {
          <ul>
            @for (line of now.lines; track line.name) {
              <ng-container [ngTemplateOutlet]="one" [ngTemplateOutletContext]="{ $implicit: line }" />
            }
            @for (line of now.instruments; track line.name) {
              @if ('few' in line) {
                <li>
                  <b>{{ line.name }} {{ line.own }}.</b> <span class="quiet"> {{ line.few }}.</span>
                </li>
              } @else {
                <ng-container [ngTemplateOutlet]="one" [ngTemplateOutletContext]="{ $implicit: line }" />
              }
            }
          </ul>
        }
        <ng-template #one let-line>
          <li [class.odd]="line.odd">
            <b>{{ line.name }} {{ line.own }},</b> {{ line.words }}.
            <svg [attr.viewBox]="'0 0 ' + width + ' 16'" role="img" [attr.aria-label]="line.label">
              <line x1="0" y1="8" [attr.x2]="width" y2="8" />
              <line class="median" [attr.x1]="line.medianX" [attr.x2]="line.medianX" y1="3" y2="13" />
              <circle [attr.cx]="line.ownX" cy="8" r="5" />
            </svg>
          </li>
        </ng-template>
      </section>
    }
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
    }
    li {
      padding: 0.3rem 0;
    }
    svg {
      display: block;
      width: 100%;
      max-width: 20rem;
      height: 1.2rem;
    }
    line {
      stroke: var(--line);
      stroke-width: 2;
    }
    .median {
      stroke: var(--ink);
    }
    circle {
      fill: var(--leaf);
      stroke: var(--ink);
    }
    .odd circle {
      fill: var(--act);
    }
  `,
})
export class CohortPanel {
  protected readonly width = widthPx;
  private readonly http = inject(HttpClient);
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  private readonly treeId = computed(() => (this.store.life()?.planting ? this.store.detail()?.tree?.id : undefined));
  private readonly cohort = signal<Cohort | null>(null);

  constructor() {
    toObservable(this.treeId)
      .pipe(
        switchMap((treeId) =>
          treeId === undefined
            ? of(null)
            : this.http.get(`/api/trees/${treeId}/cohort`).pipe(
                map((body) => cohortSchema.parse(body)),
                // Away, or refused: nothing is compared.
                catchError(() => of(null)),
              ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((cohort) => this.cohort.set(cohort));
  }

  protected readonly shown = computed(() => {
    const cohort = this.cohort();
    if (!cohort) return null;
    return {
      who: whoOf(cohort),
      lines:
        cohort.others < fewestOthers
          ? []
          : cohort.measures.flatMap(({ measure, own, values }) => {
              const found = standInCohort(own, values);
              return found && found.standing !== 'too_few'
                ? [lineOf(cohortMeasureNames[measure], found, (value) => this.say(measure, value))]
                : [];
            }),
      instruments: cohort.instruments.map(({ kind, device, own, values }) => {
        const say = (value: number) => `${formatNumber(value, 1)} ${instrumentUnits[kind]}`;
        const name = `${sentence(instrumentNames[kind])} by ${device}`;
        const found = standInCohort(own, values, fewestInstrumentOthers);
        return found && found.standing !== 'too_few'
          ? lineOf(name, found, say)
          : {
              name,
              own: say(own),
              few: `${values.length} others by it: under ${fewestInstrumentOthers} nothing is said`,
            };
      }),
    };
  });

  private say(measure: CohortMeasure, value: number): string {
    if (measure === 'waterShare') return `${formatNumber(value * 100, 0)} %`;
    if (measure === 'diebackPct') return `${formatNumber(value, 0)} %`;
    return formatQuantity(value, 'lengthMm', this.session.units());
  }
}

function lineOf(name: string, found: CohortStanding, say: (value: number) => string) {
  const [low, high] = [Math.min(found.least, found.own), Math.max(found.most, found.own)];
  const x = (value: number) => 6 + (high > low ? (value - low) / (high - low) : 0.5) * (widthPx - 12);
  const words = `${standingWords[found.standing]}: more than ${formatNumber(found.belowPct, 0)} % of ${found.others}, whose middle is ${say(found.medianOfOthers)}`;
  return {
    name,
    own: say(found.own),
    words,
    label: `${name} ${say(found.own)}, ${words}`,
    odd: found.standing === 'low' || found.standing === 'high',
    ownX: x(found.own),
    medianX: x(found.medianOfOthers),
  };
}

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

function whoOf({ species, season, stockKind, others, troubled }: Cohort): string {
  const kind = stockKind ? `, ${stockNames[stockKind]}` : '';
  const of = `${species ?? 'species not recorded'}, planted ${saySeason(season)}${kind}`;
  if (others < fewestOthers) return `${others} others of ${of}: too few to say what is usual.`;
  return `${others} others of ${of}; ${troubled} of them ask for something.`;
}
