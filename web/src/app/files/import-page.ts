import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  columnNotes,
  templateColumns,
  type ImportPreview,
  type ImportProgress,
  type ImportRow,
  type RowIssue,
} from '@sombra/contract';
import { recordTable, type RecordKind } from '@sombra/core';
import type { Subscription } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { downloadText } from '../ui/download';
import { LiveService } from '../ui/live.service';
import { readProblem, sayProblem } from '../ui/problem';
import { ImportService } from './import.service';
import { filesOf, tickOf } from '../fields/event-values';

const verdictWords: Readonly<Record<ImportRow['verdict'], { readonly word: string; readonly icon: string }>> = {
  new: { word: 'new', icon: 'bi-plus-circle-fill' },
  changed: { word: 'changed', icon: 'bi-pencil-fill' },
  same: { word: 'already here', icon: 'bi-check-lg' },
  bad: { word: 'left out', icon: 'bi-x-octagon-fill' },
};

/** A file writes records, and spots and trees besides. */
const nameOf = (kind: string): string =>
  kind in recordTable ? recordTable[kind as RecordKind].name.toLowerCase() : kind;

/** A file of measured spots: what each row would do, then the act. */
@Component({
  selector: 's-import-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ScrollingModule, RouterLink],
  templateUrl: './import-page.html',
  styleUrl: './import-page.scss',
})
export class ImportPage {
  protected readonly filesOf = filesOf;
  protected readonly tickOf = tickOf;
  private readonly imports = inject(ImportService);
  private readonly live = inject(LiveService);
  private running: Subscription | null = null;
  private actId = '';
  protected readonly file = signal<File | null>(null);
  protected readonly preview = signal<ImportPreview | null>(null);
  protected readonly reading = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly progress = signal<ImportProgress | null>(null);
  protected readonly onlyFaults = signal(false);
  protected readonly over = signal(false);
  protected readonly words = verdictWords;
  protected readonly notes = columnNotes;

  protected readonly issuesByRow = computed(() => {
    const byRow = new Map<number, RowIssue[]>();
    for (const issue of this.preview()?.issues ?? []) byRow.set(issue.row, [...(byRow.get(issue.row) ?? []), issue]);
    return byRow;
  });

  protected readonly rows = computed(() =>
    (this.preview()?.rows ?? []).filter((row) => !this.onlyFaults() || row.verdict === 'bad'),
  );

  protected readonly willWrite = computed(() => {
    const counts = this.preview()?.counts;
    return counts ? counts.new + counts.changed : 0;
  });

  protected template(): void {
    downloadText('sombra-spots.csv', `${templateColumns.join(',')}\r\n`, 'text/csv');
  }

  protected choose(files: FileList | null): void {
    const file = files?.[0];
    this.over.set(false);
    if (!file) return;
    this.file.set(file);
    this.look();
  }

  protected look(): void {
    const file = this.file();
    if (!file) return;
    this.preview.set(null);
    this.progress.set(null);
    this.fault.set(null);
    this.onlyFaults.set(false);
    this.actId = uuidv7();
    this.reading.set(true);
    this.imports.preview(file).subscribe({
      next: (preview) => {
        this.preview.set(preview);
        this.reading.set(false);
      },
      error: (error: unknown) => this.fail(error),
    });
  }

  protected run(): void {
    const file = this.file();
    if (!file) return;
    this.fault.set(null);
    this.progress.set({ kind: 'progress', done: 0, of: this.willWrite() });
    this.running = this.imports.run(file, this.actId).subscribe({
      next: (progress) => {
        if (progress.kind === 'failed')
          this.fault.set(progress.reference ? `${progress.title} Reference ${progress.reference}.` : progress.title);
        this.progress.set(progress.kind === 'failed' ? null : progress);
        if (progress.kind === 'done') this.live.acted();
      },
      error: (error: unknown) => this.fail(error),
    });
  }

  protected cancel(): void {
    this.running?.unsubscribe();
    this.progress.set(null);
    this.fault.set('The import was cancelled; nothing of it was stored.');
  }

  private fail(error: unknown): void {
    this.reading.set(false);
    this.progress.set(null);
    this.fault.set(sayProblem(readProblem(error)));
  }

  protected writes(row: ImportRow): string {
    return row.writes.map((kind) => nameOf(kind)).join(', ');
  }
}
