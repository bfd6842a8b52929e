import { HttpClient } from '@angular/common/http';
import type { MapInfo } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { lastTileZoom } from './tiles';

export interface BaseTiles {
  readonly fetchTile: (at: string) => Promise<ArrayBuffer>;
  readonly maxZoom: number;
}

/** Where squares of the base map come from: the server's own, or out of the programme's PMTiles file. */
export async function baseTileSource(http: HttpClient, info: MapInfo): Promise<BaseTiles> {
  if (!info.pmtiles) {
    const options = { params: { stamp: info.stamp }, responseType: 'arraybuffer' } as const;
    const fetchTile = (at: string) => firstValueFrom(http.get(`/api/map/base/${at}`, options));
    return { fetchTile, maxZoom: lastTileZoom };
  }
  const { PMTiles } = await import('pmtiles');
  const file = new PMTiles(`${location.origin}/api/map/base.pmtiles`);
  const { maxZoom } = await file.getHeader();
  const fetchTile = async (at: string) => {
    const [z = 0, x = 0, y = 0] = at.split('/').map(Number);
    // What the file does not hold is empty ground.
    return (await file.getZxy(z, x, y))?.data ?? new ArrayBuffer(0);
  };
  return { fetchTile, maxZoom };
}
