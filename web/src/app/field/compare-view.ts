import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { SpotDetail } from '@sombra/contract';
import {
  decisionNames,
  formatQuantity,
  remedyWords,
  soilNames,
  stageNames,
  stockNames,
  type Decision,
  type SpotLife,
} from '@sombra/core';
import { LevelMark } from '../ui/level-mark';
import { sayDay } from '../ui/say-date';
import { SessionService } from '../session/session.service';
import { PitSectionView, type PlannedPit } from '../drawing/pit-section-view';

export interface Compared {
  readonly detail: SpotDetail;
  readonly life: SpotLife;
}

interface Row {
  readonly name: string;
  readonly values: readonly string[];
  readonly differs: boolean;
}

/** Trees side by side: the same questions to each, with what differs marked. */
@Component({
  selector: 's-compare',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, LevelMark, PitSectionView],
  template: `
    <div class="scroll" tabindex="0" role="region" aria-label="Side by side">
      <table class="plain">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">What is compared</span></th>
            @for (tree of trees(); track tree.detail.spot.id) {
              <th scope="col">
                <a [routerLink]="['/town', tree.detail.spot.id]" queryParamsHandling="preserve">{{
                  tree.detail.spot.ref
                }}</a>
                @if (tree.life.planting) {
                  <s-level-mark [level]="tree.life.level" />
                }
              </th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.name) {
            <tr [class.differs]="row.differs">
              <th scope="row">{{ row.name }}</th>
              @for (value of row.values; track $index) {
                <td>{{ value }}</td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
    <h2>As planned</h2>
    <div class="drawings">
      @for (tree of trees(); track tree.detail.spot.id) {
        <figure>
          <figcaption>{{ tree.detail.spot.ref }}</figcaption>
          @if (plannedOf(tree); as planned) {
            <s-pit-section [planned]="planned" />
          } @else {
            <p class="quiet">no plan yet</p>
          }
        </figure>
      }
    </div>
  `,
  styles: `
    th s-level-mark {
      margin-left: 0.6rem;
    }
    .scroll {
      overflow-x: auto;
    }
    table {
      table-layout: fixed;
      min-width: 100%;
    }
    thead th:first-child,
    th[scope='row'] {
      width: 6rem;
    }
    td {
      min-width: 7rem;
      overflow-wrap: anywhere;
    }
    .differs td {
      font-weight: 600;
    }
    /* Beside one another where there is room for their words, else below. */
    .drawings {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(21.5rem, 100%), 1fr));
      gap: 1rem;
    }
    figure {
      margin: 0;
    }
    figcaption {
      font-weight: 600;
    }
  `,
})
export class CompareView {
  readonly trees = input.required<readonly Compared[]>();
  private readonly session = inject(SessionService);

  protected plannedOf({ life: { plan, stock, ground, practice } }: Compared): PlannedPit | null {
    return plan?.kind === 'plan' && stock ? { plan, stock, ground, practice } : null;
  }

  protected readonly rows = computed<Row[]>(() => {
    const units = this.session.units();
    const ask = (name: string, of: (tree: Compared) => string): Row => {
      const values = this.trees().map(of);
      return { name, values, differs: new Set(values).size > 1 };
    };
    return [
      ask('Place', ({ detail }) => detail.spot.place),
      ask('Species', ({ detail }) => detail.tree?.species ?? 'no tree yet'),
      ask('Stage', ({ life }) => stageNames[life.stage]),
      ask('Waits for', ({ life }) => life.decisions.map(sayDecision).join('; ') || 'nothing'),
      ask('Soil', ({ life }) => (life.ground.soil ? soilNames[life.ground.soil] : 'not measured')),
      ask('Slope', ({ life }) =>
        life.ground.slopePct === null ? '–' : formatQuantity(life.ground.slopePct, 'slopePct', units),
      ),
      ask('Stock', ({ life }) => (life.stock ? stockNames[life.stock.kind] : 'not measured')),
      ask('Caliper', ({ life }) => (life.stock ? formatQuantity(life.stock.caliperMm, 'lengthMm', units) : '–')),
      ask('Pit depth', ({ life }) =>
        life.plan?.kind === 'plan' ? formatQuantity(life.plan.depthMm.value, 'lengthMm', units) : '–',
      ),
      ask('Planted', ({ life }) => (life.planting ? sayDay(life.planting.record.facts.plantedOn) : 'not yet')),
      ask('Last look', ({ life }) => {
        const last = life.inspections.at(-1)?.record.facts;
        return last ? sayDay(last.inspectedOn) : '–';
      }),
      ask('Flare depth', ({ life }) => {
        const depth = life.inspections.at(-1)?.record.facts.flareDepthMm;
        return depth === undefined || depth === null ? '–' : formatQuantity(depth, 'lengthMm', units);
      }),
    ];
  });
}

const sayDecision = ({ kind, remedy }: Decision): string => (remedy ? remedyWords[remedy].act : decisionNames[kind]);
