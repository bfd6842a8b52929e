import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  assignmentsSchema,
  fieldPeopleSchema,
  handOverSchema,
  type Assign,
  type Assignment,
  type FieldPeople,
  type HandOver,
} from '@sombra/contract';
import { map, tap, type Observable } from 'rxjs';
import { AlongService } from './along.service';
import { TakeAlongService } from './take-along.service';

/** Doors of who is sent out to what. */
@Injectable({ providedIn: 'root' })
export class AssignmentsService {
  private readonly http = inject(HttpClient);
  private readonly along = inject(AlongService);
  private readonly taking = inject(TakeAlongService);

  people(): Observable<FieldPeople> {
    return this.http.get('/api/assignments/people').pipe(map((body) => fieldPeopleSchema.parse(body)));
  }
  all(): Observable<Assignment[]> {
    return this.http.get('/api/assignments').pipe(map((body) => assignmentsSchema.parse(body)));
  }
  assign(assign: Assign): Observable<Assignment[]> {
    return this.changed(this.http.post('/api/assignments', assign));
  }
  end(id: string, version: number): Observable<Assignment[]> {
    return this.changed(this.http.post(`/api/assignments/${id}/end`, { version }));
  }
  handOver(id: string): Observable<HandOver> {
    return this.http.post(`/api/assignments/${id}/hand-over`, {}).pipe(map((body) => handOverSchema.parse(body)));
  }
  takeOver(code: string): Observable<Assignment[]> {
    return this.changed(this.http.post('/api/assignments/take-over', { code }));
  }

  /** What is one's own may be another thing now: it shows at once, and is taken along anew. */
  private changed(answer: Observable<unknown>): Observable<Assignment[]> {
    return answer.pipe(
      tap((body) => {
        void this.along.keepAnswer('/api/assignments', body).then(() => this.taking.take());
      }),
      map((body) => assignmentsSchema.parse(body)),
    );
  }
}
