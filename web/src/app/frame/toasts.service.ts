import { Injectable, signal } from '@angular/core';

export interface Toast {
  readonly id: number;
  readonly text: string;
}

@Injectable({ providedIn: 'root' })
export class ToastsService {
  private readonly list = signal<readonly Toast[]>([]);
  private last = 0;
  readonly toasts = this.list.asReadonly();

  say(text: string): void {
    this.last += 1;
    this.list.update((toasts) => [...toasts.slice(-2), { id: this.last, text }]);
  }

  drop(id: number): void {
    this.list.update((toasts) => toasts.filter((toast) => toast.id !== id));
  }
}
