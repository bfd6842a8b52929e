import { ChangeDetectionStrategy, Component, effect, inject, input, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { OpenDay } from '@sombra/contract';
import { clockOf } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { textOf } from '../fields/event-values';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';

import { DaysService } from './days.service';

const text = () => new FormControl('', { nonNullable: true });
const tick = () => new FormControl(false, { nonNullable: true });
interface Minor {
  readonly id: string;
  name: string;
  allergies: string;
}

/** The page behind a day's link: what, where, when, the waiver, and a place; without an account. */
@Component({
  selector: 's-join-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule],
  templateUrl: './join-page.html',
  styleUrl: './join-page.scss',
})
export class JoinPage {
  readonly token = input.required<string>();
  private readonly doors = inject(DaysService);
  protected readonly textOf = textOf;
  protected readonly say = sayDate;
  protected readonly clock = clockOf;
  protected readonly day = signal<OpenDay | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly wrong = signal<string | null>(null);
  protected readonly done = signal(false);
  protected readonly busy = signal(false);
  protected readonly minors = signal<readonly Minor[]>([]);
  protected readonly form = new FormGroup({
    name: text(),
    email: text(),
    phone: text(),
    emergencyContact: text(),
    allergies: text(),
    together: text(),
    planted: tick(),
    noLifting: tick(),
    photos: tick(),
    signedBy: text(),
    website: text(),
  });
  private readonly id = uuidv7();

  constructor() {
    effect(() => {
      const token = this.token();
      firstValueFrom(this.doors.open(token)).then(
        (day) => this.day.set(day),
        (error: unknown) => this.fault.set(sayProblem(readProblem(error))),
      );
    });
  }

  protected addMinor(): void {
    this.minors.update((all) => [...all, { id: uuidv7(), name: '', allergies: '' }]);
  }
  protected setMinor(id: string, change: Partial<Minor>): void {
    this.minors.update((all) => all.map((one) => (one.id === id ? { ...one, ...change } : one)));
  }
  protected dropMinor(id: string): void {
    this.minors.update((all) => all.filter((one) => one.id !== id));
  }

  private missing(): string | null {
    const { name, email, signedBy } = this.form.getRawValue();
    if (name.trim() === '') return 'Write your name.';
    if (!/^\S+@\S+\.\S+$/.test(email))
      return 'Write an e-mail address: the letter that confirms your place goes there.';
    if (this.minors().some((minor) => minor.name.trim() === ''))
      return 'Write the name of each minor, or take the line out.';
    if (signedBy.trim() === '') return 'Sign the waiver with your name.';
    return null;
  }

  protected async send(event: Event): Promise<void> {
    event.preventDefault();
    const missing = this.missing();
    const day = this.day();
    this.wrong.set(missing);
    if (missing || !day) return;
    this.busy.set(true);
    const { name, email, phone, emergencyContact, allergies, together, planted, noLifting, photos, signedBy, website } =
      this.form.getRawValue();
    try {
      await firstValueFrom(
        this.doors.register(this.token(), {
          id: this.id,
          name,
          skill: planted ? 'has_planted' : 'first_time',
          minor: false,
          together: together.trim() || null,
          noLifting,
          photos,
          private: { email, phone, emergencyContact, allergies },
          waiverVersion: day.waiver.version,
          signedBy,
          minors: this.minors().map((minor) => ({ ...minor })),
          website,
        }),
      );
      this.done.set(true);
    } catch (error) {
      this.wrong.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
