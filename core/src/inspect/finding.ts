import type { FindingOf, RemedyCode } from '../practice';
import type { Level } from '../reason';
import type { InspectReason } from './reasons';

/** What a finding is about, in walking order. */
export const lookAspects = ['tree', 'stake', 'guard', 'mulch', 'flare', 'roots', 'moisture'] as const;
export type LookAspect = (typeof lookAspects)[number];
export type LookFinding = FindingOf<LookAspect, InspectReason>;

export const finding = (
  aspect: LookAspect,
  level: Level,
  because: InspectReason,
  remedy: RemedyCode = 'none',
): LookFinding => ({ aspect, level, because, remedy });
