import { seededUuid, type Dice } from './seed';
import { lngLat } from './terrain';

export interface DemoTruck {
  readonly id: string;
  readonly name: string;
  readonly onFoot: boolean;
  readonly tankL: number;
  readonly pourLPerMin: number;
  readonly kmPerH: number;
  readonly depot: readonly [number, number];
}

export interface DemoFill {
  readonly id: string;
  readonly name: string;
  readonly position: readonly [number, number];
  readonly flowLPerMin: number;
  readonly connectMinutes: number;
  readonly permit: string;
}

const instant = Date.parse('2025-01-15T09:00:00Z');

/** What the town's water is brought by, from the yard behind the harbour. */
export function demoFleet(from: Dice): { trucks: DemoTruck[]; fills: DemoFill[] } {
  const id = () => seededUuid(instant, from);
  const yard = lngLat([-180, 140]);
  return {
    trucks: [
      { id: id(), name: 'Tank truck Gull', onFoot: false, tankL: 800, pourLPerMin: 45, kmPerH: 18, depot: yard },
      { id: id(), name: 'Hand cart', onFoot: true, tankL: 90, pourLPerMin: 20, kmPerH: 3.5, depot: lngLat([60, 700]) },
    ],
    fills: [
      {
        id: id(),
        name: 'Harbour hydrant',
        position: lngLat([-120, 170]),
        flowLPerMin: 160,
        connectMinutes: 6,
        permit: 'Water works no. 4, to the end of the year',
      },
      {
        id: id(),
        name: 'Cistern Park tap',
        position: lngLat([120, 640]),
        flowLPerMin: 35,
        connectMinutes: 3,
        permit: '',
      },
    ],
  };
}
