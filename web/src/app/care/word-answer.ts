import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import type { CareWord } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { CareService } from './care.service';

/** What a keeper told, with a line to answer it: they see it on their page, and get it by letter. */
@Component({
  selector: 's-word-answer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p [class.help]="word().kind === 'help'">
      <b>{{ word().kind === 'help' ? 'Help' : 'Complaint' }}</b> “{{ word().words }}”
      <span class="quiet">{{ say(word().saidAt.slice(0, 10)) }}</span>
    </p>
    <form (submit)="send($event, answer.value)">
      <input
        #answer
        class="form-control"
        maxlength="400"
        placeholder="Answer"
        [attr.aria-label]="'Answer to ' + word().words"
      />
      <button type="submit" class="btn btn-outline-primary" [disabled]="busy()">Answered</button>
    </form>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 18rem;
    }
    p {
      margin: 0 0 0.3rem;
    }
    .help b {
      color: var(--urgent);
    }
    form {
      display: flex;
      gap: 0.4rem;
      margin-bottom: 0.5rem;
    }
    .btn {
      white-space: nowrap;
      min-height: 44px;
    }
  `,
})
export class WordAnswer {
  readonly word = input.required<CareWord>();
  readonly answered = output();
  private readonly doors = inject(CareService);
  protected readonly say = sayDay;
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);

  protected async send(event: Event, answer: string): Promise<void> {
    event.preventDefault();
    this.busy.set(true);
    try {
      await firstValueFrom(this.doors.answer(this.word().id, answer.trim()));
      this.fault.set(null);
      this.answered.emit();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
