import { HttpClient, HttpEventType, HttpResponse, type HttpParams } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { distinctUntilChanged, filter, map, type Observable } from 'rxjs';

/** Long acts the server answers line by line, in JSON, while they go on. */
@Injectable({ providedIn: 'root' })
export class ProgressService {
  private readonly http = inject(HttpClient);

  /** Each line as it comes whole, skipping those overtaken. Unsubscribing hangs up, which cancels the act. */
  post(url: string, body: unknown, options: { params?: HttpParams; headers?: Record<string, string> } = {}) {
    const asked = { ...options, observe: 'events', reportProgress: true, responseType: 'text' } as const;
    return this.http.post(url, body, asked).pipe(
      filter((event) => event.type === HttpEventType.DownloadProgress || event.type === HttpEventType.Response),
      map((event) => lastLine(event instanceof HttpResponse ? (event.body ?? '') : (event.partialText ?? ''))),
      filter((line) => line !== ''),
      distinctUntilChanged(),
      map((line): unknown => JSON.parse(line)),
    ) satisfies Observable<unknown>;
  }
}

/** The last line that has arrived whole. */
function lastLine(text: string): string {
  const end = text.lastIndexOf('\n');
  return end === -1 ? '' : text.slice(text.lastIndexOf('\n', end - 1) + 1, end);
}
