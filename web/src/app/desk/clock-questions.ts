import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { clockQuestionsSchema, type ClockQuestion } from '@sombra/contract';
import { recordTable } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayMoment, localMoment } from '../ui/say-date';
import { ToastsService } from '../ui/toasts.service';
import { SessionService } from '../session/session.service';

/** Records whose device did not know the time: whoever decides for the programme says when they were made. */
@Component({
  selector: 's-clock-questions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (open().length > 0) {
      <details class="asked">
        <summary>
          {{ open().length === 1 ? '1 record' : open().length + ' records' }} from a device whose clock was wrong: say
          when {{ open().length === 1 ? 'it was' : 'they were' }} made
        </summary>
        <ul>
          @for (one of open(); track one.recordId) {
            <li>
              <p>
                <a [routerLink]="['/town', one.spotId]">{{ one.ref }}</a>, {{ kinds[one.kind].name.toLowerCase() }} by
                {{ one.recordedBy }}. The device said {{ moment(one.deviceSaid) }}; it came
                {{ moment(one.receivedAt) }} and stands there until then.
              </p>
              <form (submit)="answer($event, one)">
                <label [for]="'made-' + one.recordId">Made on</label>
                <input
                  type="datetime-local"
                  class="form-control"
                  name="made"
                  required
                  [id]="'made-' + one.recordId"
                  [value]="local(one.receivedAt)"
                  [max]="local(one.receivedAt)"
                />
                <button type="submit" class="btn btn-outline-primary" [disabled]="busy()">It was made then</button>
              </form>
            </li>
          }
        </ul>
      </details>
    }
  `,
  styles: `
    .asked {
      border-block: 1px solid var(--line);
      padding: 0.5rem 0;
    }
    summary {
      min-height: 44px;
      display: list-item;
      align-content: center;
      color: var(--act);
      font-weight: 600;
    }
    ul {
      list-style: none;
      padding: 0;
      margin: 0;
    }
    li {
      padding: 0.4rem 0;
    }
    p {
      margin: 0 0 0.3rem;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      align-items: center;
    }
    .form-control {
      width: auto;
    }
  `,
})
export class ClockQuestions {
  private readonly http = inject(HttpClient);
  private readonly toasts = inject(ToastsService);
  protected readonly open = signal<readonly ClockQuestion[]>([]);
  protected readonly busy = signal(false);
  protected readonly kinds = recordTable;
  protected readonly moment = sayMoment;
  protected readonly local = localMoment;

  constructor() {
    if (inject(SessionService).may('answer_clock')) void this.read();
  }

  private async read(): Promise<void> {
    try {
      this.open.set(clockQuestionsSchema.parse(await firstValueFrom(this.http.get('/api/clock-questions'))));
    } catch {
      // The desk says for itself that the server is away; these come again with it.
    }
  }

  protected async answer(event: Event, { recordId, receivedAt }: ClockQuestion): Promise<void> {
    event.preventDefault();
    const typed = String(new FormData(event.target as HTMLFormElement).get('made'));
    // To the minute: the minute it came in is the moment it came.
    const happenedAt = typed === this.local(receivedAt) ? receivedAt : new Date(typed).toISOString();
    this.busy.set(true);
    try {
      const answer = await firstValueFrom(this.http.post(`/api/clock-questions/${recordId}`, { happenedAt }));
      this.open.set(clockQuestionsSchema.parse(answer));
      this.toasts.say('Stored; what follows from it is worked out again.');
    } catch (error) {
      this.toasts.say(sayProblem(readProblem(error)));
      void this.read();
    } finally {
      this.busy.set(false);
    }
  }
}
