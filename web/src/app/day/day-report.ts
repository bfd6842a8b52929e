import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DayDetail, DayEvent } from '@sombra/contract';
import { clockOf, formatNumber, formatQuantity, learnPace, materials, sayAmount } from '@sombra/core';
import { SessionService } from '../session/session.service';
import { BecauseList } from '../ui/because-list';
import { FindingsList } from '../ui/findings-list';
import { LevelMark } from '../ui/level-mark';

/** What came of the day: planned against done, each tree as built, hours, trouble, and whom to thank. */
@Component({
  selector: 's-day-report',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, BecauseList, FindingsList, LevelMark],
  template: `
    <dl>
      @for (line of sums(); track line.name) {
        <div>
          <dt>{{ line.name }}</dt>
          <dd>{{ line.value }}</dd>
        </div>
      }
    </dl>
    <s-because [reasons]="pace().because" />
    <h2>Trees as built</h2>
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">Tree</th>
          <th scope="col">Species</th>
          <th scope="col">Planted</th>
          <th scope="col">Standing</th>
          <th scope="col">Found</th>
        </tr>
      </thead>
      <tbody>
        @for (tree of trees(); track tree.spotId) {
          <tr>
            <th scope="row">
              <a [routerLink]="['/inspect', tree.spotId]">{{ tree.ref }}</a>
            </th>
            <td>
              <i>{{ tree.species }}</i>
            </td>
            <td>
              {{ tree.doneMin === null ? (tree.planted ? 'earlier' : 'not planted') : clock(tree.doneMin)
              }}{{ tree.built ? ', ' + tree.built.by : '' }}
            </td>
            <td>
              @if (tree.built; as built) {
                <s-level-mark [level]="built.level" />
              }
            </td>
            <td>
              @if (tree.built; as built) {
                @if (built.level !== 'good') {
                  <s-findings [findings]="built.findings" />
                } @else {
                  as planned
                }
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
    @if (left().length > 0) {
      <p class="caution">
        {{ left().length }} not planted: {{ left().join(', ') }}. Heel the trees in and water them, fence every open
        hole.
      </p>
    }
    @if (used()) {
      <h2>Materials used, by plan</h2>
      <p>{{ used() }}. Closing the day takes them out of the store.</p>
    }
    @if (departures().length > 0) {
      <h2>Otherwise than planned</h2>
      <ul>
        @for (one of departures(); track one.ref) {
          <li>{{ one.ref }}: {{ one.why }}</li>
        }
      </ul>
    }
    @if (trouble().length > 0) {
      <h2>Incidents and near misses</h2>
      <ul>
        @for (one of trouble(); track one.id) {
          <li>
            {{ one.facts.nearMiss ? 'Near miss' : 'Incident' }}: {{ one.facts.what
            }}{{ one.facts.called ? ' Called: ' + one.facts.called : '' }}
          </li>
        }
      </ul>
    }
    <h2>Thanks to</h2>
    <p>{{ thanks() || 'nobody was checked in' }}</p>
    <p class="quiet">
      The first looks of every planted tree stand on their lists already; when it asks for water stands on its page.
    </p>
  `,
  styles: `
    dl {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem 2rem;
      margin: 0 0 0.6rem;
    }
    dt {
      font-weight: 400;
      color: var(--quiet);
    }
    dd {
      margin: 0;
      font-size: 1.4rem;
      font-weight: 700;
    }
    @media (max-width: 720px) {
      table {
        display: block;
        overflow-x: auto;
      }
    }
  `,
})
export class DayReport {
  readonly day = input.required<DayDetail>();
  private readonly session = inject(SessionService);
  protected readonly clock = clockOf;
  protected readonly pace = computed(() => learnPace(this.day().worked));
  protected readonly trees = computed(() => this.day().trees);
  protected readonly left = computed(() => this.trees().flatMap(({ planted, ref }) => (planted ? [] : [ref])));
  protected readonly trouble = computed(() =>
    this.day().events.filter((event): event is Extract<DayEvent, { kind: 'incident' }> => event.kind === 'incident'),
  );
  protected readonly used = computed(() =>
    this.day()
      .materialsUsed.map(
        ({ code, amount }) => `${materials[code].name.toLowerCase()} ${sayAmount(code, amount, this.session.units())}`,
      )
      .join(', '),
  );
  protected readonly departures = computed(() =>
    this.trees().flatMap(({ ref, built }) => (built?.departure ? [{ ref, why: built.departure }] : [])),
  );
  protected readonly thanks = computed(() =>
    this.day()
      .people.filter(({ cameAt }) => cameAt !== null)
      .map(({ name }) => name)
      .sort((a, b) => a.localeCompare(b))
      .join(', '),
  );
  protected readonly sums = computed(() => {
    const planted = this.trees().filter((tree) => tree.planted);
    const ruled = planted.reduce((sum, { ruledH }) => sum + ruledH, 0);
    const water = planted.reduce((sum, { built }) => sum + (built?.firstWaterL ?? 0), 0);
    const closed = this.day()
      .events.filter((event): event is Extract<DayEvent, { kind: 'closed' }> => event.kind === 'closed')
      .at(-1);
    return [
      { name: 'Planted', value: `${planted.length} of ${this.trees().length}` },
      {
        name: 'Came',
        value: `${this.day().people.filter(({ cameAt }) => cameAt).length} of ${this.day().people.filter(({ state }) => state === 'confirmed').length}`,
      },
      { name: 'Person-hours worked', value: closed ? formatNumber(closed.facts.hours, 1) : 'not closed yet' },
      { name: 'By the rules', value: formatNumber(ruled, 1) },
      { name: 'First water', value: formatQuantity(water, 'volumeL', this.session.units()) },
    ];
  });
}
