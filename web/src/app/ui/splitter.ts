import { ChangeDetectionStrategy, Component, effect, ElementRef, inject, input, signal } from '@angular/core';

const least = 26;
const most = 78;

/** The edge between field and bench: dragged or keyed, and remembered on this device. */
@Component({
  selector: 's-splitter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: ``,
  host: {
    role: 'separator',
    tabindex: '0',
    'aria-orientation': 'vertical',
    'aria-label': 'Width of the field',
    '[attr.aria-valuenow]': 'share()',
    'aria-valuemin': '26',
    'aria-valuemax': '78',
    '(pointerdown)': 'grab($event)',
    '(pointermove)': 'drag($event)',
    '(pointerup)': 'held = false',
    '(pointercancel)': 'held = false',
    '(keydown)': 'key($event)',
  },
  styles: `
    :host {
      display: block;
      width: 9px;
      margin: 0 -4px;
      z-index: 5;
      cursor: col-resize;
      touch-action: none;
      background: linear-gradient(to right, transparent 4px, var(--line) 4px, var(--line) 5px, transparent 5px);
    }
    :host(:hover),
    :host(:focus-visible) {
      background: linear-gradient(to right, transparent 3px, var(--chosen) 3px, var(--chosen) 6px, transparent 6px);
    }
    @media (max-width: 980px), print {
      :host {
        display: none;
      }
    }
  `,
})
export class Splitter {
  readonly name = input.required<string>();
  readonly usual = input(50);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly share = signal(50);
  protected held = false;

  constructor() {
    effect(() => this.share.set(Number(localStorage.getItem(this.storageKey()) ?? this.usual())));
    effect(() => {
      const parent = this.host.nativeElement.parentElement;
      parent?.style.setProperty('--field-share', `${this.share()}%`);
    });
  }

  private storageKey(): string {
    return `sombra.width.${this.name()}`;
  }

  protected grab(event: PointerEvent): void {
    this.held = true;
    this.host.nativeElement.setPointerCapture?.(event.pointerId);
    event.preventDefault();
  }

  protected drag(event: PointerEvent): void {
    const parent = this.host.nativeElement.parentElement;
    if (!this.held || !parent) return;
    const { left, width } = parent.getBoundingClientRect();
    this.set((100 * (event.clientX - left)) / width);
  }

  protected key(event: KeyboardEvent): void {
    const step = { ArrowLeft: -2, ArrowRight: 2 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    this.set(this.share() + step);
  }

  private set(share: number): void {
    this.share.set(Math.round(Math.min(most, Math.max(least, share))));
    localStorage.setItem(this.storageKey(), String(this.share()));
  }
}
