import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { clockOf, thunderWaitMin } from '@sombra/core';
import { debounceTime, firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { minuteOf } from './day-words';
import { DaysService } from './days.service';

/** What is said to the team that plants these trees today: thunder first, then the last message of whoever runs the day. */
@Component({
  selector: 's-team-word',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (thunder(); as minutes) {
      <p class="problem" role="alert">Thunder: everybody under a roof. Nobody goes out for {{ minutes }} min more.</p>
    }
    @if (message(); as word) {
      <p class="caution" role="status">
        <b>{{ word.at }}, {{ word.by }}:</b> {{ word.words }}
      </p>
    }
  `,
})
export class TeamWord {
  readonly spotIds = input.required<readonly string[]>();
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  private readonly day = resource({
    params: () => ({ spotIds: this.spotIds(), today: this.session.today() }),
    // Without a network what was taken along answers; where nothing was, there is no word.
    loader: async ({ params: { spotIds, today } }) => {
      const days = await firstValueFrom(this.doors.all()).catch(() => []);
      for (const { id, onDay } of days) {
        if (onDay !== today) continue;
        const day = await firstValueFrom(this.doors.one(id)).catch(() => null);
        if (day?.trees.some(({ spotId }) => spotIds.includes(spotId))) return day;
      }
      return null;
    },
  });

  constructor() {
    inject(LiveService)
      .changes$.pipe(debounceTime(1000), takeUntilDestroyed())
      .subscribe(() => this.day.reload());
  }

  protected readonly message = computed(() => {
    const day = this.day.value();
    if (!day) return null;
    const team = day.teams.findIndex(({ spotIds }) => spotIds.some((id) => this.spotIds().includes(id)));
    const last = day.events
      .flatMap((event) => (event.kind === 'message' ? [event] : []))
      .filter(({ facts }) => facts.team === null || facts.team === team)
      .at(-1);
    if (!last) return null;
    const at = clockOf(minuteOf(new Date(last.at), this.session.programme()?.timeZone));
    return { at, by: last.byName, words: last.facts.words };
  });
  protected readonly thunder = computed(() => {
    const day = this.day.value();
    const heard = day?.events.flatMap((event) => (event.kind === 'thunder' ? [event] : [])).at(-1);
    return day && heard ? thunderWaitMin(Date.parse(heard.at), Date.now(), day.weatherRules) : 0;
  });
}
