import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { AsideService } from '../offline/aside.service';
import { SessionService } from '../session/session.service';

/** What arrived late, sealed, and was refused by the rules: somebody has to look at it. */
@Component({
  selector: 's-aside-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (count() > 0) {
      <p class="problem">
        {{ count() === 1 ? '1 record' : count() + ' records' }} came late from a phone and did not fit any more.
        <a routerLink="/waiting">See what and why</a>
      </p>
    }
  `,
})
export class AsideNote {
  protected readonly count = signal(0);

  constructor() {
    if (!inject(SessionService).may('settle_aside')) return;
    inject(AsideService)
      .all()
      .then(
        (asides) => this.count.set(asides.length),
        () => undefined,
      );
  }
}
