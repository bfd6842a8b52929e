import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  invoiceReportSchema,
  type InvoiceReport,
  fleetSchema,
  roundHeadSchema,
  seekRoundsProgressSchema,
  waterRoundSchema,
  type Fleet,
  type GiveRound,
  type RoundHead,
  type SeekRounds,
  type SeekRoundsProgress,
  type WaterFillPoint,
  type WaterRound,
  type WaterTruck,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';
import * as z from 'zod';
import { ProgressService } from '../ui/progress.service';

/** Doors of watering rounds and of what they go with. */
@Injectable({ providedIn: 'root' })
export class RoundsService {
  private readonly http = inject(HttpClient);
  private readonly progress = inject(ProgressService);

  fleet(): Observable<Fleet> {
    return this.http.get('/api/water/fleet').pipe(map((body) => fleetSchema.parse(body)));
  }
  saveTruck(truck: WaterTruck): Observable<Fleet> {
    return this.http.put('/api/water/trucks', truck).pipe(map((body) => fleetSchema.parse(body)));
  }
  saveFill(fill: WaterFillPoint): Observable<Fleet> {
    return this.http.put('/api/water/fill-points', fill).pipe(map((body) => fleetSchema.parse(body)));
  }
  rounds(): Observable<RoundHead[]> {
    return this.http.get('/api/water/rounds').pipe(map((body) => z.array(roundHeadSchema).parse(body)));
  }
  round(id: string): Observable<WaterRound> {
    return this.http.get(`/api/water/rounds/${id}`).pipe(map((body) => waterRoundSchema.parse(body)));
  }
  plan(asked: SeekRounds): Observable<SeekRoundsProgress> {
    return this.progress.post('/api/water/rounds', asked).pipe(map((line) => seekRoundsProgressSchema.parse(line)));
  }
  give(id: string, asked: GiveRound): Observable<WaterRound> {
    return this.http.post(`/api/water/rounds/${id}/give`, asked).pipe(map((body) => waterRoundSchema.parse(body)));
  }

  invoice(file: File): Observable<InvoiceReport> {
    const options = { headers: { 'content-type': 'text/csv' } };
    return this.http.post('/api/water/invoice', file, options).pipe(map((body) => invoiceReportSchema.parse(body)));
  }
}
