/** How a record came by its place in time: a clock that agreed, one corrected, or one the desk is asked about. */
export const clockStates = ['kept', 'measured', 'asked'] as const;
export type ClockState = (typeof clockStates)[number];

export interface Happened {
  /** ISO 8601, UTC; what records are ordered by. Never after they arrived. */
  readonly happenedAt: string;
  readonly clock: ClockState;
}

/** What is known of the clock of the device that made a record. */
export interface DeviceClock {
  readonly deviceNow: string | null;
  readonly aheadMs?: number | null | undefined;
}

const second = 1000;
const minute = 60 * second;
/** Clocks this close agree; a request may take this long. ms */
export const agreesWithinMs = 5 * minute;
/** Nothing waits on a device longer than this: a year and its leap day. */
const longestWaitMs = 366 * 24 * 60 * minute;

/**
 * When a record was made, by the server's clock. The device sends its own time along: how far that is ahead of the
 * server's corrects what it wrote on the record, hours or days ago. Where it sent none, or where the corrected moment
 * lies after the arrival or more than a year before it, the moment of arrival stands in and the desk is asked. How far
 * ahead the device knew itself to be when it made the record counts before what it was when it sent it: a clock may be
 * set right in between.
 * @param recordedAt what the device wrote on the record, ISO 8601
 * @param clock `deviceNow`: the device's clock when it sent the record, ISO 8601, or `null`; `aheadMs`: how far it was
 *   ahead of the server's at its last contact before it made the record, ms, where it knew
 * @param receivedAt the server's clock when the record came, ISO 8601
 */
export function whenItHappened(recordedAt: string, clock: DeviceClock, receivedAt: string): Happened {
  const { deviceNow, aheadMs: knownMs = null } = clock;
  const arrived = Date.parse(receivedAt);
  const said = Date.parse(recordedAt);
  const sentMs = deviceNow === null ? null : Date.parse(deviceNow) - arrived;
  const aheadMs = knownMs ?? sentMs ?? 0;
  const corrected = said - (Math.abs(aheadMs) <= agreesWithinMs ? 0 : aheadMs);
  const agrees = Math.abs(corrected - arrived) <= agreesWithinMs;
  const possible = corrected <= arrived + agreesWithinMs && corrected >= arrived - longestWaitMs;
  if (!possible || (sentMs === null && knownMs === null && !agrees)) {
    return { happenedAt: new Date(arrived).toISOString(), clock: 'asked' };
  }
  return {
    happenedAt: new Date(Math.min(corrected, arrived)).toISOString(),
    clock: corrected === said ? 'kept' : 'measured',
  };
}
