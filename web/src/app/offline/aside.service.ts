import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { asidesSchema, type Aside } from '@sombra/contract';
import { firstValueFrom, map } from 'rxjs';

/** Doors of what arrived sealed and was refused by the server. */
@Injectable({ providedIn: 'root' })
export class AsideService {
  private readonly http = inject(HttpClient);

  all(): Promise<Aside[]> {
    return firstValueFrom(this.http.get('/api/aside').pipe(map((body) => asidesSchema.parse(body))));
  }
  decide(id: string, decision: 'again' | 'bin'): Promise<Aside[]> {
    const answer = this.http.post(`/api/aside/${id}`, { decision });
    return firstValueFrom(answer.pipe(map((body) => asidesSchema.parse(body))));
  }
}
