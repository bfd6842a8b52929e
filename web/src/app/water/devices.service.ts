import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  keptDevicesSchema,
  keptZonesSchema,
  type CalibrateDevice,
  type KeptDevice,
  type KeptZones,
  type SaveDevice,
  type SaveZone,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

const asDevices = map((body: unknown): KeptDevice[] => keptDevicesSchema.parse(body));
const asZones = map((body: unknown): KeptZones => keptZonesSchema.parse(body));

/** Doors of what brings water slowly: devices, their measurements, and valves. */
@Injectable({ providedIn: 'root' })
export class DevicesService {
  private readonly http = inject(HttpClient);

  all(): Observable<KeptDevice[]> {
    return this.http.get('/api/water/devices').pipe(asDevices);
  }
  save(device: SaveDevice): Observable<KeptDevice[]> {
    return this.http.put('/api/water/devices', device).pipe(asDevices);
  }
  calibrate(deviceId: string, asked: CalibrateDevice): Observable<KeptDevice[]> {
    return this.http.post(`/api/water/devices/${deviceId}/runs`, asked).pipe(asDevices);
  }
  zones(): Observable<KeptZones> {
    return this.http.get('/api/water/zones').pipe(asZones);
  }
  saveZone(zone: SaveZone): Observable<KeptZones> {
    return this.http.put('/api/water/zones', zone).pipe(asZones);
  }
}
