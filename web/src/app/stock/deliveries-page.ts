import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { DeliveryList, Problem } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { SessionService } from '../session/session.service';
import { StockService } from './stock.service';

/** What nurseries still owe, and what has come. */
@Component({
  selector: 's-deliveries-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote],
  template: `
    <h1>Deliveries</h1>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (list(); as all) {
      <h2>Awaited</h2>
      <table class="plain">
        <tbody>
          @for (order of all.awaited; track order.id) {
            <tr>
              <td>
                <b>{{ order.number }}</b>
              </td>
              <td>{{ order.nursery }}</td>
              <td class="num">{{ order.trees }} trees</td>
              <td>for {{ say(order.plantOn) }}</td>
              <td>
                @if (mayReceive()) {
                  <button type="button" class="btn btn-primary" [disabled]="busy()" (click)="arrive(order.id)">
                    It has arrived
                  </button>
                }
              </td>
            </tr>
          } @empty {
            <tr>
              <td class="quiet">No order is on its way. <a routerLink="/lists">Season's lists</a> write orders.</td>
            </tr>
          }
        </tbody>
      </table>
      @if (all.claims.length > 0) {
        <h2>Claims</h2>
        <table class="plain">
          <tbody>
            @for (claim of all.claims; track claim.nursery) {
              <tr>
                <td>
                  <b>{{ claim.nursery }}</b>
                </td>
                <td>{{ claim.returned }} returned, {{ claim.missing }} did not come</td>
                <td>{{ claim.deliveries === 1 ? '1 delivery' : claim.deliveries + ' deliveries' }}</td>
                <td>
                  <a
                    class="btn btn-outline-primary"
                    target="_blank"
                    [href]="'/api/claims?nursery=' + encode(claim.nursery)"
                    >Claim sheet, PDF</a
                  >
                </td>
              </tr>
            }
          </tbody>
        </table>
      }
      <h2>Arrived</h2>
      <table class="plain">
        <tbody>
          @for (one of all.deliveries; track one.id) {
            <tr>
              <td>
                <a [routerLink]="['/deliveries', one.id]">{{ one.orderNumber }}</a>
              </td>
              <td>{{ one.nursery }}</td>
              <td>{{ say(one.arrivedOn) }}</td>
              <td class="num">{{ one.arrived }} of {{ one.expected }} trees</td>
              <td>
                {{ standing(one.undecided) }}{{ one.returned > 0 ? ', ' : '' }}
                @if (one.returned > 0) {
                  <b>{{ one.returned }} returned</b>
                }
              </td>
            </tr>
          } @empty {
            <tr>
              <td class="quiet">Nothing yet.</td>
            </tr>
          }
        </tbody>
      </table>
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading deliveries…" />
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
      max-width: 64rem;
    }
    h2 {
      margin-top: 1rem;
    }
    td {
      vertical-align: middle;
    }
  `,
})
export class DeliveriesPage {
  private readonly doors = inject(StockService);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly say = sayDay;
  protected readonly encode = encodeURIComponent;
  protected readonly list = signal<DeliveryList | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly mayReceive = computed(() => this.session.may('receive_stock'));

  constructor() {
    void this.read();
  }

  protected async read(): Promise<void> {
    try {
      this.list.set(await firstValueFrom(this.doors.list()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected standing(undecided: number): string {
    if (undecided === 0) return 'decided';
    return undecided === 1 ? '1 lot to decide' : `${undecided} lots to decide`;
  }

  protected async arrive(orderId: string): Promise<void> {
    this.busy.set(true);
    try {
      const asked = { id: uuidv7(), orderId, arrivedOn: this.session.today() };
      const delivery = await firstValueFrom(this.doors.open(asked));
      await this.router.navigate(['/deliveries', delivery.id]);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
