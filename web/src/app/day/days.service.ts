import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  dayDetailSchema,
  dayLinkSchema,
  openDaySchema,
  openRegistrationSchema,
  plantingDaysSchema,
  privateSchema,
  seekProgressSchema,
  waiverSchema,
  type AddHelper,
  type ChangeDay,
  type ChangeHelper,
  type DayDetail,
  type KeepTeams,
  type NewDay,
  type NewDayEvent,
  type OpenDay,
  type OpenRegistration,
  type PlantingDays,
  type PrivateFacts,
  type Register,
  type SeekProgress,
  type Waiver,
} from '@sombra/contract';
import type { ToolCode } from '@sombra/core';
import { map, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import * as z from 'zod';
import { ParcelsService } from '../offline/parcels.service';
import type { Sent } from '../offline/send-queue';
import { aheadMs } from '../session/device-clock';
import { deviceId } from '../session/device-id';
import { ProgressService } from '../ui/progress.service';

/** What somebody says that happened; id, time and device are added here. */
export type Happened = { [E in NewDayEvent as E['kind']]: Pick<E, 'kind' | 'facts'> }[NewDayEvent['kind']];

/** Doors of planting days. What happens on one goes by the outbox: it is kept without a network too. */
@Injectable({ providedIn: 'root' })
export class DaysService {
  private readonly http = inject(HttpClient);
  private readonly parcels = inject(ParcelsService);
  private readonly progress = inject(ProgressService);

  all(): Observable<PlantingDays> {
    return this.http.get('/api/planting-days').pipe(map((body) => plantingDaysSchema.parse(body)));
  }
  one(id: string): Observable<DayDetail> {
    return this.detail(this.http.get(`/api/planting-days/${id}`));
  }
  make(day: NewDay): Observable<DayDetail> {
    return this.detail(this.http.post('/api/planting-days', day));
  }
  change(id: string, change: ChangeDay): Observable<DayDetail> {
    return this.detail(this.http.put(`/api/planting-days/${id}`, change));
  }
  keepTeams(id: string, teams: KeepTeams): Observable<DayDetail> {
    return this.detail(this.http.put(`/api/planting-days/${id}/teams`, teams));
  }
  /** Unsubscribing stops the search. */
  seek(id: string, asked: { seed: number; keepLocked: boolean }): Observable<SeekProgress> {
    return this.progress
      .post(`/api/planting-days/${id}/teams/seek`, asked)
      .pipe(map((line) => seekProgressSchema.parse(line)));
  }
  link(id: string, open: boolean): Observable<string> {
    return this.http
      .post(`/api/planting-days/${id}/link`, { open })
      .pipe(map((body) => dayLinkSchema.parse(body).path));
  }
  private(id: string): Observable<Record<string, PrivateFacts>> {
    return this.http
      .get(`/api/planting-days/${id}/private`)
      .pipe(map((body) => z.record(z.string(), privateSchema).parse(body)));
  }
  add(id: string, person: AddHelper): Observable<DayDetail> {
    return this.detail(this.http.post(`/api/planting-days/${id}/people`, person));
  }
  changePerson(personId: string, change: ChangeHelper): Observable<DayDetail> {
    return this.detail(this.http.put(`/api/day-people/${personId}`, change));
  }
  countTool(tool: ToolCode, count: number): Observable<unknown> {
    return this.http.put('/api/tools', { tool, count });
  }

  waiver(): Observable<Waiver> {
    return this.http.get('/api/waiver').pipe(map((body) => waiverSchema.parse(body)));
  }
  saveWaiver(waiver: Waiver): Observable<unknown> {
    return this.http.put('/api/waiver', waiver);
  }

  happened(dayId: string, what: Happened, name: string): Promise<Sent<unknown>> {
    const id = uuidv7();
    const body = {
      id,
      at: new Date().toISOString(),
      aheadMs: aheadMs(),
      device: deviceId() ?? 'browser',
      ...what,
    };
    return this.parcels.send({
      id,
      method: 'POST',
      url: `/api/planting-days/${dayId}/events`,
      body,
      name,
      about: 'Planting day',
    });
  }

  open(token: string): Observable<OpenDay> {
    return this.http.get(`/api/open/days/${token}`).pipe(map((body) => openDaySchema.parse(body)));
  }
  register(token: string, asked: Register): Observable<unknown> {
    return this.http.post(`/api/open/days/${token}`, asked);
  }
  place(token: string): Observable<OpenRegistration> {
    return this.http.get(`/api/open/places/${token}`).pipe(map((body) => openRegistrationSchema.parse(body)));
  }
  answer(token: string, answer: 'confirm' | 'cancel'): Observable<OpenRegistration> {
    return this.http
      .post(`/api/open/places/${token}`, { answer })
      .pipe(map((body) => openRegistrationSchema.parse(body)));
  }

  private detail(answer: Observable<unknown>): Observable<DayDetail> {
    return answer.pipe(map((body) => dayDetailSchema.parse(body)));
  }
}
