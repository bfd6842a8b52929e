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

/** Pressed on the way to another key: Shift comes before every `?`, and before `/` on many keyboards. */
const isModifier = ({ key }: KeyboardEvent): boolean =>
  ['Shift', 'Control', 'Alt', 'AltGraph', 'Meta', 'CapsLock', 'Dead', 'Process', 'Unidentified'].includes(key);

/** Held with another key it is a shortcut of the browser; AltGr, which some keyboards need for a sign, is not. */
const holdsModifier = (event: KeyboardEvent): boolean =>
  !event.getModifierState('AltGraph') && (event.ctrlKey || event.metaKey || event.altKey);

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
    if (isModifier(event) || holdsModifier(event) || event.defaultPrevented) return;
    if (typing(event.target) || pressesItself(event) || document.querySelector('[aria-modal="true"]')) return;
    const waited = event.timeStamp - this.firstAt < 1200 ? this.first : '';
    const pair = this.found(`${waited} ${event.key}`);
    const binding = waited ? pair : this.found(event.key);
    // Only what begins a pair waits for its second: any other key leaves nothing behind.
    this.first = !binding && !waited && this.begins(event.key) ? event.key : '';
    this.firstAt = event.timeStamp;
    if (!binding) return;
    event.preventDefault();
    binding.run();
  }

  private begins(key: string): boolean {
    return this.list().some(({ keys }) => keys.startsWith(`${key} `));
  }

  /** The newest binding wins: a page may take a key over. */
  private found(keys: string): KeyBinding | undefined {
    return this.list().findLast((one) => one.keys === keys);
  }
}
