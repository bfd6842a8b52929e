import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, of } from 'rxjs';
import { sayDay } from '../ui/say-date';
import { StockService } from './stock.service';

const most = 6;

/** What nurseries owe, above the trees that wait to be measured. */
@Component({
  selector: 's-due-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (list(); as all) {
      <h2>Due from nurseries</h2>
      <ul>
        @for (order of all.awaited.slice(0, most); track order.id) {
          <li>
            <b>{{ order.nursery }}</b>, {{ order.trees === 1 ? '1 tree' : order.trees + ' trees' }} for
            {{ say(order.plantOn) }},
            <a routerLink="/deliveries">{{ order.number }}</a>
          </li>
        } @empty {
          <li class="quiet">No order is on its way.</li>
        }
        @for (claim of claims(); track claim.nursery) {
          <li>
            <b>{{ claim.nursery }}</b> owes an answer: {{ claim.returned }} returned, {{ claim.missing }} did not come,
            <a routerLink="/deliveries">claim</a>
          </li>
        }
      </ul>
      @if (all.awaited.length > most) {
        <p class="quiet">{{ all.awaited.length - most }} more orders are on their way.</p>
      }
    }
  `,
})
export class DueNote {
  protected readonly most = most;
  protected readonly say = sayDay;
  protected readonly list = toSignal(
    inject(StockService)
      .list()
      .pipe(catchError(() => of(null))),
  );
  protected readonly claims = computed(() =>
    (this.list()?.claims ?? []).filter((one) => one.returned + one.missing > 0),
  );
}
