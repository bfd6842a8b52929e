import { HttpClient, HttpParams } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { importPreviewSchema, importProgressSchema, type ImportPreview, type ImportProgress } from '@sombra/contract';
import { map, type Observable } from 'rxjs';
import { ProgressService } from '../ui/progress.service';

const typeOf = (file: File): string => (file.name.toLowerCase().endsWith('.csv') ? 'text/csv' : 'application/geo+json');

@Injectable({ providedIn: 'root' })
export class ImportService {
  private readonly http = inject(HttpClient);
  private readonly progress = inject(ProgressService);

  preview(file: File): Observable<ImportPreview> {
    const params = new HttpParams({ fromObject: { fileName: file.name } });
    return this.http
      .post('/api/imports/preview', file, { params, headers: { 'content-type': typeOf(file) } })
      .pipe(map((body) => importPreviewSchema.parse(body)));
  }

  /** Unsubscribing hangs up, which cancels the import: nothing of it is stored then. */
  run(file: File, id: string): Observable<ImportProgress> {
    const params = new HttpParams({ fromObject: { fileName: file.name, id } });
    return this.progress
      .post('/api/imports', file, { params, headers: { 'content-type': typeOf(file) } })
      .pipe(map((line) => importProgressSchema.parse(line)));
  }
}
