import { Injectable, signal } from '@angular/core';

export interface ToastAct {
  readonly name: string;
  readonly run: () => void;
}

export interface Toast {
  readonly id: number;
  readonly text: string;
  readonly act: ToastAct | null;
  readonly forMs: number;
}

const readMs = 6000;
/** What can be undone stays undoable for a minute. */
export const undoMs = 60_000;

@Injectable({ providedIn: 'root' })
export class ToastsService {
  private readonly list = signal<readonly Toast[]>([]);
  private last = 0;
  readonly toasts = this.list.asReadonly();

  /** Says something; with an act it stays for as long as the act can still be done. */
  say(text: string, act: ToastAct | null = null): void {
    this.last += 1;
    const toast = { id: this.last, text, act, forMs: act ? undoMs : readMs };
    // Old news leave first; what can be undone stays.
    this.list.update((toasts) => [
      ...toasts.filter((one) => one.act).slice(-2),
      ...toasts.filter((one) => !one.act).slice(-1),
      toast,
    ]);
  }

  /** Takes back what was said last and still can be. @returns whether there was any */
  undo(): boolean {
    const last = this.list().findLast((toast) => toast.act);
    if (last) this.act(last);
    return last !== undefined;
  }

  act(toast: Toast): void {
    this.drop(toast.id);
    toast.act?.run();
  }

  drop(id: number): void {
    this.list.update((toasts) => toasts.filter((toast) => toast.id !== id));
  }
}
