import { formatQuantity, type UnitSystem } from '../units';
import type { HosePlan } from '../water';
import type { Drawing, Point, Shape } from './shapes';

export interface HosePlacesInput {
  readonly plan: HosePlan;
  readonly ballDiameterMm: number;
  /** Bearing of uphill; `null` where nobody recorded it, or on the level. */
  readonly uphillDeg: number | null;
  readonly units: UnitSystem;
  readonly sidePx: number;
}

const steps = 40;
const textPx = 13;

/** Minutes and seconds, for a watch. */
export function sayMinutes(minutes: number): string {
  const seconds = Math.round(minutes * 60);
  const [whole, rest] = [Math.floor(seconds / 60), seconds % 60];
  return rest === 0 ? `${whole} min` : whole === 0 ? `${rest} s` : `${whole} min ${rest} s`;
}

/** A ball from above with the places of the hose, numbered in the order they are watered; north up, or uphill where the compass is not known. */
export function hosePlaces({ plan, ballDiameterMm, uphillDeg, units, sidePx }: HosePlacesInput): Drawing {
  const [cx, cy] = [sidePx / 2, sidePx / 2];
  const scale = (sidePx / 2 - 34) / (ballDiameterMm / 2);
  const at = (bearingDeg: number, mm: number): Point => {
    const turn = (bearingDeg * Math.PI) / 180;
    return [cx + Math.sin(turn) * mm * scale, cy - Math.cos(turn) * mm * scale];
  };
  const round = (radiusMm: number): Point[] => Array.from({ length: steps }, (_, i) => at((360 / steps) * i, radiusMm));
  const places = plan.positions.flatMap(({ bearingDeg, fromTrunkMm, minutes, litres }, i): Shape[] => {
    const [x, y] = at(bearingDeg, fromTrunkMm);
    const ring = Array.from({ length: 16 }, (_, k): Point => {
      const turn = (2 * Math.PI * k) / 16;
      return [x + 12 * Math.cos(turn), y + 12 * Math.sin(turn)];
    });
    const title = `Place ${i + 1}: ${sayMinutes(minutes)}, ${formatQuantity(litres, 'volumeL', units)}`;
    return [
      { kind: 'polygon', role: 'moisture_band', points: ring, title },
      {
        kind: 'text',
        role: 'label',
        at: [x, y + textPx / 3],
        text: String(i + 1),
        align: 'middle',
        sizePx: textPx,
        strong: true,
      },
    ];
  });
  const edge = (bearingDeg: number, text: string): Shape => {
    const [x, y] = at(bearingDeg, ballDiameterMm / 2 + 18 / scale);
    return { kind: 'text', role: 'note', at: [x, y + textPx / 3], text, align: 'middle', sizePx: textPx, strong: true };
  };
  const apart = uphillDeg === null ? 180 : Math.min(uphillDeg % 360, 360 - (uphillDeg % 360));
  const both = plan.from === 'north' && apart < 30;
  const up = [edge(0, plan.from === 'uphill' ? 'uphill' : both ? 'N, uphill' : 'N')];
  const hill = plan.from === 'north' && uphillDeg !== null && !both ? [edge(uphillDeg, 'uphill')] : [];
  const [first] = plan.positions;
  return {
    widthPx: sidePx,
    heightPx: sidePx,
    shapes: [
      { kind: 'polygon', role: 'ball', points: round(ballDiameterMm / 2) },
      { kind: 'polygon', role: 'trunk', points: round(Math.max(24, 7 / scale)) },
      ...places,
      ...up,
      ...hill,
    ],
    description: `${plan.positions.length} places for the hose round the ball, ${sayMinutes(first?.minutes ?? 0)} at each, ${sayMinutes(plan.totalMinutes)} in all`,
  };
}
