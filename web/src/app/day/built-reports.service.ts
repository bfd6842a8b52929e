import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  builtReportsSchema,
  dayLinkSchema,
  openReportSchema,
  type AskReport,
  type BuiltReports,
  type OpenReport,
  type ReportBuilt,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

/** Doors of what keepers of trees tell by their links. */
@Injectable({ providedIn: 'root' })
export class BuiltReportsService {
  private readonly http = inject(HttpClient);

  of(spotId: string): Observable<BuiltReports> {
    return this.http.get(`/api/spots/${spotId}/built-reports`).pipe(map((body) => builtReportsSchema.parse(body)));
  }
  /** The address of the link, known this once. */
  ask(spotId: string, asked: AskReport): Observable<string> {
    return this.http
      .post(`/api/spots/${spotId}/built-reports`, asked)
      .pipe(map((body) => dayLinkSchema.parse(body).path));
  }
  takeBack(id: string): Observable<unknown> {
    return this.http.post(`/api/built-reports/${id}/revoke`, {});
  }

  open(token: string): Observable<OpenReport> {
    return this.http.get(`/api/open/planted/${token}`).pipe(map((body) => openReportSchema.parse(body)));
  }
  tell(token: string, told: ReportBuilt): Observable<OpenReport> {
    return this.http.post(`/api/open/planted/${token}`, told).pipe(map((body) => openReportSchema.parse(body)));
  }
  photo(token: string, picture: Blob): Observable<OpenReport> {
    return this.http
      .put(`/api/open/planted/${token}/photo`, picture, { headers: { 'content-type': 'application/octet-stream' } })
      .pipe(map((body) => openReportSchema.parse(body)));
  }
}
