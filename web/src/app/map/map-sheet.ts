import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatQuantity } from '@sombra/core';
import { ChosenService } from '../spot/chosen.service';
import { sayDate } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';
import { MapLegend } from './map-legend';

/** The map on paper: what it shows, the day, and the chosen spots by number. */
@Component({
  selector: 's-map-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MapLegend],
  template: `
    <h1>Sombra map sheet</h1>
    <p>
      {{ date(view.on()) }}. North is up. Cautions: no digging without a valid locate ticket; local codes come first.
    </p>
    <img [src]="picture()" alt="Map" />
    <s-map-legend [onPaper]="true" />
    @if (chosen.count() > 0) {
      <p>
        <b>{{ chosen.count() }} chosen:</b>
        @for (line of chosen.chosen(); track line.spotId) {
          <span class="ref"> {{ line.ref }} {{ line.place }} </span>
        }
      </p>
    }
  `,
  styles: `
    :host {
      display: none;
    }
    img {
      max-width: 100%;
      max-height: 150mm;
      border: 1px solid #888;
    }
    .ref {
      display: inline-block;
      margin: 0 1rem 0 0.3rem;
    }
    @media print {
      :host {
        display: block;
        background: #fff;
        color: #000;
      }
    }
  `,
})
export class MapSheet {
  readonly picture = input.required<string>();
  /** What the picture shows from edge to edge. */
  readonly widthM = input.required<number>();
  private readonly session = inject(SessionService);
  protected readonly width = computed(() => formatQuantity(this.widthM(), 'distanceM', this.session.units()));
  protected readonly view = inject(ViewState);
  protected readonly chosen = inject(ChosenService);
  protected readonly date = sayDate;
}
