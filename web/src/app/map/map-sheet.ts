import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { ChosenService } from '../field/chosen.service';
import { sayDate } from '../frame/say-date';
import { ViewState } from '../frame/view-state.service';

/** The map on paper: what it shows, the day, and the chosen spots by number. */
@Component({
  selector: 's-map-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Sombra map sheet</h1>
    <p>
      {{ date(view.on()) }}. North is up. Cautions: no digging without a valid locate ticket; local codes come first.
    </p>
    <img [src]="picture()" alt="Map" />
    @if (chosen.count() > 0) {
      <p>
        <b>{{ chosen.count() }} chosen:</b>
        @for (line of chosen.chosen(); track line.spotId) {
          <span class="ref">{{ line.ref }} {{ line.place }}</span>
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
      border: 1px solid #888;
    }
    .ref {
      display: inline-block;
      margin-right: 1rem;
    }
    @media print {
      :host {
        display: block;
        position: fixed;
        inset: 0;
        z-index: 2000;
        background: #fff;
        color: #000;
      }
    }
  `,
})
export class MapSheet {
  readonly picture = input.required<string>();
  protected readonly view = inject(ViewState);
  protected readonly chosen = inject(ChosenService);
  protected readonly date = sayDate;
}
