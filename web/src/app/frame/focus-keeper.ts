import { inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import { filter } from 'rxjs';

const focusable =
  'a[href], button:not(:disabled), input:not([type=hidden]):not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex]:not([tabindex="-1"])';

/** Where an element stood when it had the focus: each one around it, with its place among its like. */
interface Standing {
  readonly parent: Element;
  readonly index: number;
}

const standingOf = (element: Element): Standing[] => {
  const found: Standing[] = [];
  for (let at: Element = element; at.parentElement; at = at.parentElement) {
    found.push({ parent: at.parentElement, index: [...at.parentElement.children].indexOf(at) });
  }
  return found;
};

/**
 * The focus never falls to the page: where what had it goes away, as a line of a list that is done, the next takes it;
 * where a page opens with nothing in focus, its work does.
 */
@Injectable({ providedIn: 'root' })
export class FocusKeeper {
  private last: Element | null = null;
  private stood: Standing[] = [];
  private path = '';

  constructor() {
    document.addEventListener('focusin', ({ target }) => {
      if (!(target instanceof Element)) return;
      this.last = target;
      this.stood = standingOf(target);
    });
    new MutationObserver(() => this.mend()).observe(document.body, { childList: true, subtree: true });
    inject(Router)
      .events.pipe(
        filter((event) => event instanceof NavigationEnd),
        takeUntilDestroyed(),
      )
      .subscribe(({ urlAfterRedirects }) => {
        const [path = ''] = urlAfterRedirects.split(/[?#]/);
        const first = path.split('/')[1] ?? '';
        const moved = this.path !== '' && this.path !== first;
        this.path = first;
        if (moved) setTimeout(() => this.toWork());
      });
  }

  private toWork(): void {
    const active = document.activeElement;
    // A link of the frame that was followed has led here: the work begins where it leads.
    const inFrame = active?.closest('s-rail, s-topbar, s-page-row, s-thumb-bar, ngb-typeahead-window') ?? null;
    if (active === document.body || inFrame) document.getElementById('work')?.focus({ preventScroll: true });
  }

  private mend(): void {
    if (document.activeElement !== document.body || !this.last || this.last.isConnected) return;
    this.last = null;
    const at = this.stood.find(({ parent }) => parent.isConnected);
    if (!at) return;
    const after = [...at.parent.children].slice(at.index);
    const before = [...at.parent.children].slice(0, at.index).reverse();
    for (const next of [...after, ...before, at.parent]) {
      const found = next.matches(focusable) ? next : next.querySelector(focusable);
      if (found instanceof HTMLElement && found.getClientRects().length > 0) {
        found.focus({ preventScroll: true });
        return;
      }
    }
    document.getElementById('work')?.focus({ preventScroll: true });
  }
}
