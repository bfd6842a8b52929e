import { HttpClient, HttpDownloadProgressEvent, HttpEventType, HttpParams, HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { importPreviewSchema, importProgressSchema, type ImportPreview, type ImportProgress } from '@sombra/contract';
import { distinctUntilChanged, filter, map, type Observable } from 'rxjs';

const typeOf = (file: File): string => (file.name.toLowerCase().endsWith('.csv') ? 'text/csv' : 'application/geo+json');

@Injectable({ providedIn: 'root' })
export class ImportService {
  private readonly http = inject(HttpClient);

  preview(file: File): Observable<ImportPreview> {
    const params = new HttpParams({ fromObject: { fileName: file.name } });
    return this.http
      .post('/api/imports/preview', file, { params, headers: { 'content-type': typeOf(file) } })
      .pipe(map((body) => importPreviewSchema.parse(body)));
  }

  /** Unsubscribing hangs up, which cancels the import: nothing of it is stored then. */
  run(file: File, id: string): Observable<ImportProgress> {
    const params = new HttpParams({ fromObject: { fileName: file.name, id } });
    const headers = { 'content-type': typeOf(file) };
    return this.http
      .post('/api/imports', file, { params, headers, observe: 'events', reportProgress: true, responseType: 'text' })
      .pipe(
        filter((event) => event.type === HttpEventType.DownloadProgress || event.type === HttpEventType.Response),
        map((event) =>
          lastLine(
            event instanceof HttpResponse
              ? (event.body ?? '')
              : ((event as HttpDownloadProgressEvent).partialText ?? ''),
          ),
        ),
        filter((line) => line !== ''),
        distinctUntilChanged(),
        map((line) => importProgressSchema.parse(JSON.parse(line))),
      );
  }
}

/** The last line that has arrived whole. */
function lastLine(text: string): string {
  const end = text.lastIndexOf('\n');
  return end === -1 ? '' : text.slice(text.lastIndexOf('\n', end - 1) + 1, end);
}
