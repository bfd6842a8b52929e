import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { waterBasisSchema, type WaterBasis } from '@sombra/contract';
import { map, shareReplay, throwError, catchError, type Observable } from 'rxjs';

/** Weather comes by the day: read once an hour it is as new as any. */
const freshMs = 3_600_000;

/** Weather and species for the water of trees; what was taken along answers without a network. */
@Injectable({ providedIn: 'root' })
export class WaterBasisService {
  private readonly http = inject(HttpClient);
  private kept: { readonly at: number; readonly basis$: Observable<WaterBasis> } | null = null;

  /** Weather was changed here: the next to ask reads it anew. */
  forget(): void {
    this.kept = null;
  }

  basis(): Observable<WaterBasis> {
    if (!this.kept || Date.now() - this.kept.at > freshMs) {
      const basis$ = this.http.get('/api/water/basis').pipe(
        map((body): WaterBasis => waterBasisSchema.parse(body)),
        // What failed is asked again by whoever comes next.
        catchError((error: unknown) => {
          this.kept = null;
          return throwError(() => error);
        }),
        shareReplay(1),
      );
      this.kept = { at: Date.now(), basis$ };
    }
    return this.kept.basis$;
  }
}
