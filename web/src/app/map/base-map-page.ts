import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { baseLayers, mapLimits, type BaseLayer, type MapInfo, type Problem } from '@sombra/contract';
import { firstValueFrom, type Observable } from 'rxjs';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { MapService } from './map.service';
import { takeFile } from '../fields/event-values';

const layerWords: Readonly<Record<BaseLayer, string>> = {
  water: 'Water: areas',
  park: 'Parks: areas with a name',
  contour: 'Contours: lines with height_m',
  street: 'Streets: middle lines with a name',
  building: 'Buildings: areas with height_m',
  tram: 'Tram: lines',
  wire: 'Overhead wires: lines with height_m',
  kerb: 'Kerbs: lines',
  driveway: 'Driveways: areas or lines',
  hydrant: 'Hydrants: points',
  lamp: 'Lamp posts: points',
  sign: 'Signs: points',
};

/** The programme's own base map: a GeoJSON file for each layer, or one PMTiles file for all. */
@Component({
  selector: 's-base-map-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StateNote],
  template: `
    <h1>Base map</h1>
    <p class="quiet">
      GeoJSON in degrees, one file a layer, {{ limitMb }} MB at most. A new file takes the place of the layer; an empty
      collection removes it. Nothing is fetched from anywhere else.
    </p>
    @if (fault(); as problem) {
      <s-state-note [problem]="problem" (again)="read()" />
    }
    @if (info(); as map) {
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">Layer</th>
            <th scope="col" class="num">Features</th>
            <th scope="col">Since</th>
            <th scope="col">New file</th>
          </tr>
        </thead>
        <tbody>
          @for (layer of layers; track layer) {
            <tr>
              <td>{{ words[layer] }}</td>
              <td class="num">{{ of(map, layer)?.features ?? '–' }}</td>
              <td>{{ since(map, layer) }}</td>
              <td>
                <input
                  type="file"
                  class="form-control form-control-sm"
                  accept=".geojson,.json,application/geo+json"
                  [attr.aria-label]="'GeoJSON file for ' + words[layer]"
                  [disabled]="busy()"
                  (change)="setLayer(layer, $event)"
                />
              </td>
            </tr>
          }
          <tr>
            <td>PMTiles (version 3) with layers of these names, instead of all of them</td>
            <td class="num">{{ map.pmtiles ? '1 file' : '–' }}</td>
            <td>{{ map.pmtiles?.fileName }}</td>
            <td>
              <input
                type="file"
                class="form-control form-control-sm"
                accept=".pmtiles"
                aria-label="PMTiles file"
                [disabled]="busy()"
                (change)="setPmtiles($event)"
              />
              @if (map.pmtiles) {
                <button type="button" class="btn btn-sm btn-link" (click)="dropPmtiles()">Use the layers again</button>
              }
            </td>
          </tr>
        </tbody>
      </table>
    }
    @if (busy()) {
      <p role="status">Storing…</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
      max-width: 62rem;
    }
  `,
})
export class BaseMapPage {
  private readonly maps = inject(MapService);
  private readonly toasts = inject(ToastsService);
  protected readonly layers = baseLayers;
  protected readonly words = layerWords;
  protected readonly limitMb = mapLimits.layerBytes / 1024 / 1024;
  protected readonly info = signal<MapInfo | null>(null);
  protected readonly fault = signal<Problem | null>(null);
  protected readonly busy = signal(false);

  constructor() {
    this.read();
  }

  protected read(): void {
    void this.take(this.maps.info(), '');
  }

  protected of(map: MapInfo, layer: BaseLayer) {
    return map.layers.find((one) => one.layer === layer);
  }

  protected since(map: MapInfo, layer: BaseLayer): string {
    const at = this.of(map, layer)?.changedAt;
    return at ? sayDay(at.slice(0, 10)) : '';
  }

  protected setLayer(layer: BaseLayer, event: Event): void {
    const file = takeFile(event);
    if (file) void this.take(this.maps.setLayer(layer, file), `${layerWords[layer].split(':')[0]} stored.`);
  }

  protected setPmtiles(event: Event): void {
    const file = takeFile(event);
    if (file) void this.take(this.maps.setPmtiles(file), `${file.name} is the base map now.`);
  }

  protected dropPmtiles(): void {
    void this.take(this.maps.dropPmtiles(), 'The layers are the base map again.');
  }

  private async take(answer: Observable<MapInfo>, done: string): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      this.info.set(await firstValueFrom(answer));
      if (done) this.toasts.say(done);
    } catch (error) {
      this.fault.set(readProblem(error));
    } finally {
      this.busy.set(false);
    }
  }
}
