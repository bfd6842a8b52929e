import { ChangeDetectionStrategy, Component, computed, inject, resource } from '@angular/core';
import { RouterLink } from '@angular/router';
import { formatNumber, formatQuantity, type Grade } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { sayDay } from '../ui/say-date';
import { WaterService } from './water.service';

const useNames: Readonly<Record<Grade, string>> = { low: 'sparing', medium: 'middling', high: 'thirsty' };

/** The coarse watch over established trees: said once the ground under them lacks half of what it gives. */
@Component({
  selector: 's-drought-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @for (line of lines(); track line.use) {
      <p [class]="line.level === 'water' ? 'problem' : 'caution'" role="status">
        <b>{{ line.level === 'water' ? 'Drought' : 'Drought watch' }}:</b> {{ line.words }}
        @if (line.level === 'water') {
          <a routerLink="/rounds">Plan a round with them</a>
        }
      </p>
    }
  `,
})
export class DroughtNote {
  private readonly doors = inject(WaterService);
  private readonly session = inject(SessionService);
  private readonly watch = resource({ loader: () => firstValueFrom(this.doors.drought()).catch(() => null) });
  protected readonly lines = computed(() =>
    (this.watch.value()?.grades ?? [])
      .filter(({ level, trees }) => level !== 'none' && trees > 0)
      .map(({ use, level, deficitMm, since, trees }) => ({
        use,
        level,
        words: `the ground lacks ${formatQuantity(deficitMm, 'waterMm', this.session.units())} under ${formatNumber(trees, 0)} established ${trees === 1 ? 'tree' : 'trees'} of ${useNames[use]} species${since ? `, since ${sayDay(since)}` : ''}.`,
      })),
  );
}
