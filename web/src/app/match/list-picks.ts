import { ChangeDetectionStrategy, Component, computed, inject, input, model } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { AskList, SeasonList } from '@sombra/contract';
import { formatNumber, formatQuantity, stockNames } from '@sombra/core';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';
import { sayLimit, sayMoney, sayOffer } from './say-limit';
import { tickOf } from '../fields/event-values';

const orders = ['ref', 'place', 'species', 'price', 'fit'] as const;
type Order = (typeof orders)[number];

/** Every place with its tree: what it costs, how it fits, what the next best would cost and what was kept out. */
@Component({
  selector: 's-list-picks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <h2>Trees and their places</h2>
    <table class="plain">
      <thead>
        <tr>
          @for (head of heads; track head.name) {
            <th scope="col" [class.num]="head.num" [attr.aria-sort]="head.key === sort() ? 'ascending' : null">
              @if (head.key) {
                <button type="button" (click)="view.set({ order: head.key === 'ref' ? null : head.key })">
                  {{ head.key === 'price' ? 'Price, ' + currency() : head.name }}
                </button>
              } @else {
                {{ head.name }}
              }
            </th>
          }
          @if (mayKeep()) {
            <th scope="col" class="no-print">Fix</th>
          }
        </tr>
      </thead>
      <tbody>
        @for (line of lines(); track line.spotId) {
          <tr>
            <td>
              <a [routerLink]="['/match', line.spotId]">{{ line.ref }}</a>
            </td>
            <td>{{ line.place }}</td>
            <td>
              <i>{{ line.species }}</i><br /><span class="quiet">{{ line.stock }}, {{ line.nursery }}</span>
            </td>
            <td class="num">{{ line.priceText }}</td>
            <td class="num">{{ line.fitText }}</td>
            <td>{{ line.next }}</td>
            <td>{{ line.better }}</td>
            @if (mayKeep()) {
              <td class="no-print">
                <input
                  type="checkbox"
                  [attr.aria-label]="'Fix ' + line.species + ' for ' + line.ref"
                  [checked]="line.kept"
                  (change)="keep(line, tickOf($event))"
                />
              </td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    th button {
      border: 0;
      background: none;
      color: inherit;
      padding: 0;
      min-height: 32px;
      text-decoration: underline;
    }
    th[aria-sort] button {
      color: var(--chosen);
      font-weight: 700;
    }
    input[type='checkbox'] {
      width: 1.25rem;
      height: 1.25rem;
    }
  `,
})
export class ListPicks {
  protected readonly tickOf = tickOf;
  readonly list = input.required<SeasonList>();
  readonly currency = input('');
  readonly mayKeep = input(false);
  readonly kept = model<AskList['locks']>([]);
  protected readonly view = inject(ViewState);
  private readonly session = inject(SessionService);
  protected readonly heads: readonly { name: string; key: Order | null; num: boolean }[] = [
    { name: 'Number', key: 'ref', num: false },
    { name: 'Place', key: 'place', num: false },
    { name: 'Tree', key: 'species', num: false },
    { name: 'Price', key: 'price', num: true },
    { name: 'Fit, %', key: 'fit', num: true },
    { name: 'Next best would', key: null, num: false },
    { name: 'Better, but', key: null, num: false },
  ];
  protected readonly sort = computed((): Order => {
    const asked = this.view.text('order');
    return orders.find((order) => order === asked) ?? 'ref';
  });

  private readonly all = computed(() => {
    const list = this.list();
    const units = this.session.units();
    const said = { list, currency: this.currency(), units };
    const offers = new Map(list.result?.offers.map((offer) => [offer.id, offer]));
    const spots = new Map(list.spots.map((spot) => [spot.spotId, spot]));
    const kept = new Set(this.kept().map(({ spotId }) => spotId));
    return (list.result?.picks ?? []).flatMap(({ spotId, offerId, fit, next, better }) => {
      const [spot, offer] = [spots.get(spotId), offers.get(offerId)];
      if (!spot || !offer) return [];
      const other = next && offers.get(next.offerId);
      return [
        {
          ...spot,
          species: offer.species,
          stockKind: offer.stockKind,
          stock: `${stockNames[offer.stockKind]}, ${formatQuantity(offer.caliperMm, 'lengthMm', units)}`,
          nursery: offer.nursery,
          price: offer.price,
          priceText: formatNumber(offer.price, 2),
          fit,
          fitText: formatNumber(fit * 100, 0),
          next:
            next && other
              ? `${sayChange(next, this.currency())}: ${sayOffer(other, units)}`
              : 'no other keeps every limit here',
          better: better
            ? `${better.species} fits ${formatNumber(better.fitMore * 100, 0)} more; ${
                better.blockedBy.map((limit) => lowFirst(sayLimit(limit, said))).join('; ') ||
                'it costs the rest of the list more'
              }`
            : '',
          kept: kept.has(spotId),
        },
      ];
    });
  });
  protected readonly lines = computed(() => {
    const by = this.sort();
    return [...this.all()].sort((a, b) => {
      if (by === 'price') return b.price - a.price;
      if (by === 'fit') return a.fit - b.fit;
      return a[by].localeCompare(b[by]) || a.ref.localeCompare(b.ref);
    });
  });

  protected keep(
    line: { spotId: string; species: string; stockKind: AskList['locks'][number]['stockKind'] },
    on: boolean,
  ) {
    const { spotId, species, stockKind } = line;
    const others = this.kept().filter((lock) => lock.spotId !== spotId);
    this.kept.set(on ? [...others, { spotId, species, stockKind }] : others);
  }
}

const lowFirst = (text: string): string => text.replace(/^The /, 'the ');

/** `lose 4 of fit and cost 20 EUR more` */
function sayChange({ fitLoss, priceMore }: { fitLoss: number; priceMore: number }, currency: string): string {
  const points = formatNumber(Math.abs(fitLoss) * 100, 0);
  const fit = points === '0' ? 'fit alike' : fitLoss > 0 ? `lose ${points} of fit` : `gain ${points} of fit`;
  if (Math.abs(priceMore) < 0.005) return `${fit} at the same price`;
  const price = sayMoney(Math.round(Math.abs(priceMore) * 100) / 100, currency);
  return `${fit} and ${priceMore > 0 ? 'cost' : 'save'} ${price}${priceMore > 0 ? ' more' : ''}`;
}
