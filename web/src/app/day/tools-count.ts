import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { toolCodes, tools, type ToolCode, type ToolCounts } from '@sombra/core';
import { numberOf } from '../fields/event-values';

export interface ToolsCounted {
  readonly counts: ToolCounts;
  readonly words: string;
}

/** Tools and containers of one team, counted by hand where it is not what was expected; people's own are written beside. */
@Component({
  selector: 's-tools-count',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>{{ back() ? 'Not all of it is back' : 'Otherwise, or with their own' }}</summary>
      @for (line of lines(); track line.code) {
        <label
          >{{ line.name }}
          <input
            class="form-control"
            type="number"
            inputmode="numeric"
            min="0"
            max="10000"
            [value]="line.count"
            [attr.aria-label]="line.name + ' of ' + team() + (back() ? ' back' : ' out')"
            (input)="set(line.code, numberOf($event))"
          />
        </label>
      }
      <label class="wide"
        >{{ back() ? 'What became of the rest' : 'People’s own, marked' }}
        <input #words class="form-control" maxlength="200" />
      </label>
      <button
        type="button"
        class="btn btn-outline-primary"
        [disabled]="busy()"
        (click)="counted.emit({ counts: kept(), words: words.value.trim() })"
      >
        {{ back() ? 'Count these back' : 'Count these out' }}
      </button>
    </details>
  `,
  styles: `
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
    }
    label {
      display: grid;
      grid-template-columns: 1fr 5.5rem;
      gap: 0.5rem;
      align-items: center;
    }
    .wide {
      grid-template-columns: minmax(0, 1fr);
    }
    .form-control,
    .btn {
      min-height: 48px;
    }
  `,
})
export class ToolsCount {
  /** What is expected to go out, or to come back. */
  readonly expected = input.required<ToolCounts>();
  readonly back = input.required<boolean>();
  readonly team = input.required<string>();
  readonly busy = input(false);
  readonly counted = output<ToolsCounted>();
  protected readonly numberOf = numberOf;
  private readonly typed = linkedSignal<ToolCounts>(() => this.expected());
  protected readonly lines = computed(() =>
    toolCodes
      .filter((code) => this.expected()[code])
      .map((code) => ({ code, name: tools[code], count: this.typed()[code] ?? 0 })),
  );
  protected readonly kept = computed<ToolCounts>(() =>
    Object.fromEntries(this.lines().flatMap(({ code, count }) => (count > 0 ? [[code, count]] : []))),
  );

  protected set(code: ToolCode, count: number): void {
    const whole = Math.max(0, Math.min(10_000, Math.round(count) || 0));
    this.typed.update((before) => ({ ...before, [code]: whole }));
  }
}
