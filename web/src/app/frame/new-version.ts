import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import { SwUpdate } from '@angular/service-worker';
import { filter, fromEvent, merge } from 'rxjs';

/** A new version of the application waits until nothing is being typed, and says so. */
@Component({
  selector: 's-new-version',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (ready()) {
      <p role="status">
        A new version of Sombra is here. It is taken over when nothing is being typed.
        <button type="button" class="btn btn-sm btn-outline-primary" (click)="takeOver()">Take it over now</button>
      </p>
    }
  `,
  styles: `
    p {
      margin: 0;
      padding: 0.3rem 1rem;
      background: var(--shade);
      border-bottom: 1px solid var(--line);
    }
  `,
})
export class NewVersion {
  private readonly updates = inject(SwUpdate);
  protected readonly ready = signal(false);

  constructor() {
    if (!this.updates.isEnabled) return;
    this.updates.versionUpdates.pipe(takeUntilDestroyed()).subscribe(({ type }) => {
      if (type === 'VERSION_READY') this.ready.set(true);
    });
    // What this version needs is gone from the device: the next one mends it.
    this.updates.unrecoverable.pipe(takeUntilDestroyed()).subscribe(() => this.takeOver());
    const walked = inject(Router).events.pipe(filter((event) => event instanceof NavigationEnd));
    merge(walked, fromEvent(document, 'visibilitychange'))
      .pipe(
        filter(() => this.ready() && !isTyping()),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.takeOver());
  }

  /** Drafts lie on the device: whoever takes it over in the middle of a form finds it as it was. */
  protected takeOver(): void {
    location.reload();
  }
}

const isTyping = (): boolean =>
  document.querySelector('form.ng-dirty') !== null ||
  (document.activeElement instanceof HTMLElement && document.activeElement.matches('input, textarea, select'));
