import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { waterBasisSchema, type WaterBasis } from '@sombra/contract';
import { map, shareReplay, timer, type Observable } from 'rxjs';

export const waterBasisUrl = '/api/water/basis';
/** Weather comes by the day: read once an hour it is as new as any. */
const freshMs = 3_600_000;

/** Weather and species for the water of trees; what was taken along answers without a network. */
@Injectable({ providedIn: 'root' })
export class WaterBasisService {
  private readonly http = inject(HttpClient);
  private kept: Observable<WaterBasis> | null = null;

  basis(): Observable<WaterBasis> {
    this.kept ??= this.http.get(waterBasisUrl).pipe(
      map((body): WaterBasis => waterBasisSchema.parse(body)),
      shareReplay({ bufferSize: 1, refCount: false, windowTime: freshMs }),
    );
    const asked = this.kept;
    // What failed is asked again; what is old is read anew.
    asked.subscribe({ error: () => (this.kept = null) });
    timer(freshMs).subscribe(() => {
      if (this.kept === asked) this.kept = null;
    });
    return asked;
  }
}
