import { inject, Injectable } from '@angular/core';
import { NavigationStart, Router, type NavigationError } from '@angular/router';
import { filter, race, take, timer } from 'rxjs';
import { ToastsService } from './ui/toasts.service';

const againMs = 400;

/** A page that did not come: a line or a worker that failed for a moment is asked once more, then it is said. */
@Injectable({ providedIn: 'root' })
export class PageFault {
  private readonly router = inject(Router);
  private readonly toasts = inject(ToastsService);
  private asked = '';

  meet({ url }: Pick<NavigationError, 'url'>): void {
    const open = () => void this.router.navigateByUrl(url);
    if (this.asked !== url) {
      this.asked = url;
      // Whoever went elsewhere meanwhile stays there.
      const leaves$ = this.router.events.pipe(filter((event) => event instanceof NavigationStart));
      race(timer(againMs), leaves$)
        .pipe(take(1))
        .subscribe((first) => {
          if (first instanceof NavigationStart) this.asked = '';
          else open();
        });
      return;
    }
    this.asked = '';
    this.toasts.say('That page could not be loaded: the server cannot be reached.', { name: 'Try again', run: open });
  }
}
