import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { DaysService } from './days.service';

/** What volunteers sign, version after version: who signed an older one signs anew. */
@Component({
  selector: 's-waiver-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details (toggle)="read()">
      <summary>Waiver</summary>
      @if (kept(); as now) {
        <p class="quiet">
          Version {{ now.version }}. A changed text is a new version; what was signed before keeps its words. What binds
          is a matter of local law.
        </p>
        <textarea
          #text
          class="form-control"
          rows="8"
          maxlength="8000"
          aria-label="Text of the waiver"
          [value]="now.text"
        >
        </textarea>
        @if (session.may('plan_day')) {
          <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="save(text.value)">
            Store as a new version
          </button>
        }
      }
      @if (fault(); as words) {
        <p class="problem" role="alert">{{ words }}</p>
      }
    </details>
  `,
  styles: `
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
      font-weight: 600;
    }
    textarea {
      max-width: 46rem;
      margin-bottom: 0.5rem;
    }
  `,
})
export class WaiverForm {
  protected readonly session = inject(SessionService);
  private readonly doors = inject(DaysService);
  private readonly toasts = inject(ToastsService);
  protected readonly kept = signal<{ readonly version: number; readonly text: string } | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);

  protected async read(): Promise<void> {
    if (this.kept()) return;
    try {
      this.kept.set(await firstValueFrom(this.doors.waiver()));
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }

  protected async save(text: string): Promise<void> {
    const next = { version: (this.kept()?.version ?? 0) + 1, text: text.trim() };
    this.busy.set(true);
    this.fault.set(null);
    try {
      await firstValueFrom(this.doors.saveWaiver(next));
      this.kept.set(next);
      this.toasts.say(`The waiver is stored as version ${next.version}.`);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
