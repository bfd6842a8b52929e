import { DestroyRef, inject, Injectable, signal } from '@angular/core';

export interface KeyBinding {
  /** As in `KeyboardEvent.key`; two in a row are written `g d`. */
  readonly keys: string;
  readonly does: string;
  readonly where: string;
  readonly run: () => void;
}

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** Enter and Space belong to what has the focus. */
const pressesItself = ({ key, target }: KeyboardEvent): boolean =>
  (key === 'Enter' || key === ' ') &&
  target instanceof HTMLElement &&
  target.closest('button, a, summary, [role=option], [role=grid]') !== null;

/** Keys of the desk. They rest while somebody types, and while a dialog is open. */
@Injectable({ providedIn: 'root' })
export class KeysService {
  private readonly list = signal<readonly KeyBinding[]>([]);
  private first = '';
  private firstAt = 0;
  readonly bindings = this.list.asReadonly();

  constructor() {
    document.addEventListener('keydown', (event) => this.press(event));
  }

  /** Binds keys for as long as the caller lives. */
  bind(bindings: readonly KeyBinding[], until: DestroyRef = inject(DestroyRef)): void {
    this.list.update((list) => [...list, ...bindings]);
    until.onDestroy(() => this.list.update((list) => list.filter((one) => !bindings.includes(one))));
  }

  private press(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
    if (typing(event.target) || pressesItself(event) || document.querySelector('[aria-modal="true"]')) return;
    const waited = event.timeStamp - this.firstAt < 1200 ? this.first : '';
    const pair = this.found(`${waited} ${event.key}`);
    const binding = waited ? pair : this.found(event.key);
    this.first = binding ? '' : event.key;
    this.firstAt = event.timeStamp;
    if (!binding) return;
    event.preventDefault();
    binding.run();
  }

  /** The newest binding wins: a page may take a key over. */
  private found(keys: string): KeyBinding | undefined {
    return this.list().findLast((one) => one.keys === keys);
  }
}
