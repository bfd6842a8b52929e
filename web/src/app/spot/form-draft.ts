import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { FormGroup } from '@angular/forms';
import type { Subscription } from 'rxjs';
import { DraftsService } from '../offline/drafts.service';

/** Keeps what is typed in one form on this device until it is stored. Provided by each form. */
@Injectable()
export class FormDraft implements OnDestroy {
  private readonly drafts = inject(DraftsService);
  private subscription: Subscription | null = null;
  private name: string | null = null;
  private readonly restoredNow = signal(false);
  /** True while the form shows typing from before a reload. */
  readonly restored = this.restoredNow.asReadonly();

  /** Fills the form with `stored`, or with the draft typed over it; from then on typing is kept. */
  bind(form: FormGroup, name: string, stored: object): void {
    this.subscription?.unsubscribe();
    this.name = name;
    form.reset(stored, { emitEvent: false });
    const untouched = JSON.stringify(form.getRawValue());
    const draft = this.drafts.read(name);
    const isObject = typeof draft?.value === 'object' && draft.value !== null;
    if (isObject) form.patchValue(draft.value, { emitEvent: false });
    this.restoredNow.set(isObject);
    form.updateValueAndValidity();
    // At once, not after a pause: a record sent quickly after the last key must find its typing here.
    this.subscription = form.valueChanges.subscribe(() => {
      const value: unknown = form.getRawValue();
      if (JSON.stringify(value) === untouched) this.drafts.drop(name);
      else this.drafts.keep(name, value);
    });
  }

  clear(): void {
    if (this.name) this.drafts.drop(this.name);
    this.restoredNow.set(false);
  }

  release(): void {
    this.subscription?.unsubscribe();
    this.subscription = null;
  }

  ngOnDestroy(): void {
    this.release();
  }
}
