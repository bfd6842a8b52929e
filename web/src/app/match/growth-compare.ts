import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import {
  firstConflicts,
  formatQuantity,
  growthStrip,
  matureSpreadM,
  rootingVolumeM3,
  soilNeededM3,
  stripOf,
  sunAt,
  type Assessment,
  type GroundRules,
  type Pavement,
  type RankedSpecies,
  type SpotRoom,
} from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { SessionService } from '../session/session.service';

export interface GrowingPlace {
  readonly position: readonly [number, number];
  readonly rules: GroundRules;
  readonly assessment: Assessment | null;
  readonly wireHeightM: number | null;
  readonly room: SpotRoom;
  readonly pavement: Pavement | null;
}

/** Height of a tree as it is usually bought. m */
const heightAtPlantingM = 3;

const metWords = { wire: 'the wire', wall: 'the wall', tree: 'the next tree' } as const;

/** Up to three species on growth strips of one scale, with conflict, soil and shade below each. */
@Component({
  selector: 's-growth-compare',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `
    <section aria-labelledby="grow-head">
      <h2 id="grow-head">As they grow here</h2>
      @for (strip of strips(); track strip.name) {
        <h3>
          <i>{{ strip.name }}</i>
        </h3>
        <s-drawing [drawing]="strip.drawing" />
        <p>
          <b>{{ strip.met }}</b> {{ strip.soil }} {{ strip.shade }}
        </p>
      }
      <p class="quiet">
        Size by growth class, good to perhaps a third; shade on the pavement at 15:00 of the sun's clock on midsummer
        day, clear sky, level ground.
      </p>
    </section>
  `,
  styles: `
    h3 {
      margin: 0.6rem 0 0;
    }
    p {
      margin: 0.2rem 0 0.4rem;
    }
  `,
})
export class GrowthCompare {
  readonly trees = input.required<readonly RankedSpecies[]>();
  readonly place = input.required<GrowingPlace>();
  private readonly session = inject(SessionService);

  protected readonly strips = computed(() => {
    const place = this.place();
    const units = this.session.units();
    const sun = sunAt(midsummerAt15(this.session.today(), place.position), place.position);
    const inputs = this.trees().map(({ species }) => ({
      species,
      room: place.room,
      pavement: place.pavement,
      sun,
      heightAtPlantingM,
    }));
    const years = inputs.map(stripOf);
    const tallestM = Math.max(place.wireHeightM ?? 0, ...years.flat().map(({ heightM }) => heightM)) * 1.08;
    return inputs.map((one, i) => {
      const [first] = firstConflicts(one.species, place.room, heightAtPlantingM);
      const volumeM3 = rootingVolumeM3(place.assessment, place.rules);
      const m3 = (v: number) => formatQuantity(v, 'volumeM3', units);
      const needed = m3(soilNeededM3(matureSpreadM(one.species), place.rules));
      const shade = (years[i] ?? []).map(
        ({ year, shadeM2 }) => `${year} y ${formatQuantity(shadeM2, 'areaM2', units)}`,
      );
      return {
        name: one.species.botanical,
        drawing: growthStrip({ ...one, wireHeightM: place.wireHeightM, units, widthPx: 640, heightPx: 190, tallestM }),
        met: first ? `First meets ${metWords[first.with]} in year ${first.year}.` : 'Meets nothing in sixty years.',
        soil: `Asks ${needed} of soil; ${volumeM3 === null ? 'soil not measured' : `${m3(volumeM3)} is there`}.`,
        shade: place.pavement ? `Shade on the pavement: ${shade.join(', ')}.` : 'No pavement recorded to shade.',
      };
    });
  });
}

/** 15:00 of mean solar time on 21 June of the year, or 21 December south of the equator. */
function midsummerAt15(today: string, [lng, lat]: readonly [number, number]): string {
  const utcHour = 15 - lng / 15;
  const day = lat >= 0 ? [5, 21] : [11, 21];
  return new Date(Date.UTC(Number(today.slice(0, 4)), day[0] ?? 5, day[1] ?? 21) + utcHour * 3_600_000).toISOString();
}
