import type { Decision } from './decision';
import { because } from './reasons';
import { ofKind, type FieldRecord, type RecordOfKind } from './record';

/** Hazards that nobody has closed, of records that stand; in the order they were told. */
export function openHazards(kept: readonly FieldRecord[]): RecordOfKind<'hazard'>[] {
  const closed = new Set(ofKind(kept, 'hazard_closed').map(({ facts }) => facts.hazardId));
  return ofKind(kept, 'hazard').filter(({ id }) => !closed.has(id));
}

/** A hazard waits before all else, from the day it was seen until somebody closes it. */
export const hazardDecisions = (kept: readonly FieldRecord[]): Decision[] =>
  openHazards(kept).map(({ facts: { seenOn, hazard, called, cordoned } }) => ({
    kind: 'hazard',
    stage: 'inspect',
    level: 'urgent',
    dueOn: seenOn,
    remedy: null,
    because: [because('hazard_open', { hazard, seenOn, called, cordoned })],
  }));
