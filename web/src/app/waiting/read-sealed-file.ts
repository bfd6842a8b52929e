import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { sealedFileLimits, sealedSchema, type Sealed } from '@sombra/contract';
import { takeFile } from '../fields/event-values';
import { SealingService } from '../offline/sealing.service';
import { readProblem, sayProblem } from '../ui/problem';

interface Sum {
  readonly done: number;
  readonly of: number;
  readonly stored: number;
  readonly aside: number;
  readonly faults: readonly string[];
}

/** Reads in what somebody saved on a phone that could not be brought to a network. */
@Component({
  selector: 's-read-sealed-file',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="btn btn-outline-primary">
      Read in a file saved on a phone
      <input class="visually-hidden" type="file" accept=".sealed" [disabled]="busy()" (change)="read($event)" />
    </label>
    @if (sum(); as now) {
      <p role="status">
        @if (busy()) {
          <progress [value]="now.done" [max]="now.of"></progress>
          <button type="button" class="btn btn-sm btn-outline-primary" (click)="stop.set(true)">Stop</button>
        }
        {{ now.done }} of {{ now.of }}: {{ now.stored }} stored{{
          now.aside > 0 ? ', ' + now.aside + ' refused by the rules and set aside below' : ''
        }}.
      </p>
      @for (text of now.faults; track $index) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    .btn {
      min-height: 48px;
      display: inline-grid;
      align-items: center;
    }
    label:focus-within {
      outline: 3px solid var(--chosen);
    }
  `,
})
export class ReadSealedFile {
  readonly readIn = output();
  private readonly sealing = inject(SealingService);
  protected readonly busy = signal(false);
  protected readonly stop = signal(false);
  protected readonly sum = signal<Sum | null>(null);
  protected readonly fault = signal<string | null>(null);

  protected async read(event: Event): Promise<void> {
    const file = takeFile(event);
    if (!file) return;
    this.fault.set(null);
    this.sum.set(null);
    const lines = await linesOf(file);
    if (typeof lines === 'string') {
      this.fault.set(lines);
      return;
    }
    this.busy.set(true);
    this.stop.set(false);
    await this.bringAll(lines);
    this.busy.set(false);
    this.readIn.emit();
  }

  /** One after another: what was stored before a fault stays, and read again nothing is stored twice. */
  private async bringAll(lines: readonly Sealed[]): Promise<void> {
    this.sum.set({ done: 0, of: lines.length, stored: 0, aside: 0, faults: [] });
    for (const [i, sealed] of lines.entries()) {
      if (this.stop()) return;
      try {
        const { result } = await this.sealing.bring(sealed);
        this.sum.update((now) => now && { ...now, [result]: now[result] + 1 });
      } catch (error) {
        const text = `Line ${i + 1}: ${sayProblem(readProblem(error))}`;
        this.sum.update((now) => now && { ...now, faults: [...now.faults, text].slice(0, 20) });
      }
      this.sum.update((now) => now && { ...now, done: now.done + 1 });
    }
  }
}

/** The sealed things of a file, or why it is none. */
async function linesOf(file: File): Promise<Sealed[] | string> {
  if (file.size > sealedFileLimits.bytes) {
    return `The file must have at most ${sealedFileLimits.bytes / 1e6} MB, got ${(file.size / 1e6).toFixed(1)}.`;
  }
  const lines = (await file.text()).split('\n').filter((line) => line.trim() !== '');
  if (lines.length === 0) return 'The file holds nothing.';
  if (lines.length > sealedFileLimits.lines) {
    return `The file must have at most ${sealedFileLimits.lines} lines, got ${lines.length}.`;
  }
  const read: Sealed[] = [];
  for (const [i, line] of lines.entries()) {
    const parsed = sealedSchema.safeParse(safeJson(line));
    if (!parsed.success) return `Line ${i + 1} was not saved by Sombra, or is not whole. Nothing was read in.`;
    read.push(parsed.data);
  }
  return read;
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
