import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import type { OpenCare } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { readProblem, sayProblem } from '../ui/problem';
import { CareService } from './care.service';

/** A call for help, or a complaint about the look of things, in a keeper's own words. */
@Component({
  selector: 's-care-trouble',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details [open]="open()" (toggle)="open.set(isOpen($event))">
      <summary>Something is wrong</summary>
      <p class="caution">
        Is somebody in danger, a branch about to fall, a wire down? Keep away, and call the emergency number first.
      </p>
      <div role="group" aria-label="What is it">
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-pressed]="kind() === 'help'"
          (click)="kind.set('help')"
        >
          The tree needs help
        </button>
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-pressed]="kind() === 'complaint'"
          (click)="kind.set('complaint')"
        >
          I do not like how it looks
        </button>
      </div>
      <label
        >In your words
        <textarea class="form-control" rows="3" maxlength="400" #words></textarea>
      </label>
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="button" class="btn btn-primary" [disabled]="busy()" (click)="send(words)">
        Tell the programme
      </button>
      @if (sent()) {
        <p role="status">It is with the programme: you see the answer on this page.</p>
      }
    </details>
  `,
  styles: `
    summary {
      min-height: 48px;
      padding-top: 0.8rem;
      font-weight: 600;
    }
    .btn {
      min-height: 48px;
      margin: 0.3rem 0.4rem 0.3rem 0;
    }
    .btn[aria-pressed='true'] {
      background: var(--chosen);
      color: var(--on-chosen);
    }
    .caution {
      border-left: 6px solid var(--urgent);
      background: var(--caution-paper);
      padding: 0.6rem 0.8rem;
    }
    label {
      display: block;
    }
  `,
})
export class CareTrouble {
  readonly token = input.required<string>();
  readonly told = output<OpenCare>();
  private readonly doors = inject(CareService);
  protected readonly open = signal(false);
  protected readonly kind = signal<'help' | 'complaint'>('help');
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly sent = signal(false);
  /** Sent again after a cut it is the same message. */
  private id = uuidv7();

  protected isOpen(event: Event): boolean {
    return (event.target as HTMLDetailsElement).open;
  }

  protected async send(field: HTMLTextAreaElement): Promise<void> {
    const words = field.value.trim();
    if (words === '') {
      this.fault.set('Say in a few words what it is.');
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    this.sent.set(false);
    try {
      const care = await firstValueFrom(this.doors.word(this.token(), { id: this.id, kind: this.kind(), words }));
      this.id = uuidv7();
      field.value = '';
      this.sent.set(true);
      this.told.emit(care);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
