import { addDaysTo, addWorkingDays, daysBetween, workingDaysBetween, type IsoDate } from '../calendar';
import { because, type GroundReason } from './reasons';
import type { GroundRules } from './ground-rules';

export const replyStates = ['waiting', 'clear', 'marked', 'conflict'] as const;
export type ReplyState = (typeof replyStates)[number];

/** What one utility said to a locate ticket. */
export interface UtilityReply {
  readonly utility: string;
  readonly state: ReplyState;
  readonly repliedOn: IsoDate | null;
  /** Either side of a mark, dug by hand; `null` where nothing is marked. mm */
  readonly toleranceMm: number | null;
  readonly note: string;
}

/** A ticket as the locate centre keeps it; dates are `null` until it has taken it. */
export interface TicketFacts {
  readonly validFrom: IsoDate | null;
  readonly validUntil: IsoDate | null;
  /** Taken back by us: covers nothing. */
  readonly withdrawn: boolean;
  readonly replies: readonly UtilityReply[];
}

export type TicketStanding =
  'unsent' | 'waiting' | 'overdue' | 'conflict' | 'not_yet' | 'valid' | 'renew' | 'expired' | 'withdrawn';

export interface JudgedTicket {
  readonly standing: TicketStanding;
  /** Whether digging is covered on the day. */
  readonly covers: boolean;
  readonly because: readonly GroundReason[];
}

/**
 * Where a ticket stands on a day. It covers digging only between its dates, and only once every utility has said
 * clear or has marked its lines: a missing reply is not a yes.
 */
export function judgeTicket(ticket: TicketFacts, day: IsoDate, rules: GroundRules): JudgedTicket {
  const say = (standing: TicketStanding, ...reasons: GroundReason[]): JudgedTicket => ({
    standing,
    covers: standing === 'valid' || standing === 'renew',
    because: reasons,
  });
  const { validFrom, validUntil, replies } = ticket;
  if (ticket.withdrawn) return say('withdrawn', because('ticket_withdrawn', {}));
  if (validFrom === null || validUntil === null) return say('unsent', because('ticket_unsent', {}));
  if (day > validUntil)
    return say('expired', because('ticket_expired', { validUntil, days: daysBetween(validUntil, day) }));
  const conflicts = replies.filter(({ state }) => state === 'conflict').map(({ utility }) => utility);
  if (conflicts.length > 0) return say('conflict', because('ticket_conflict', { utilities: conflicts.join(', ') }));
  const missing = replies.filter(({ state }) => state === 'waiting').map(({ utility }) => utility);
  if (missing.length > 0 || replies.length === 0) {
    const late = day >= validFrom;
    const facts = { utilities: missing.join(', '), validFrom };
    return say(late ? 'overdue' : 'waiting', because(late ? 'ticket_reply_missing' : 'ticket_waits', facts));
  }
  if (day < validFrom) return say('not_yet', because('ticket_not_yet', { validFrom }));
  const marked = replies.filter(({ state }) => state === 'marked');
  const zones = marked.map(({ toleranceMm }) =>
    because('hand_dig_zone', { toleranceMm: toleranceMm ?? rules.ticket.toleranceMm }),
  );
  const left = workingDaysBetween(day, validUntil, rules.holidays);
  const valid = because('ticket_valid', { validUntil });
  if (left > rules.ticket.renewWorkingDays) return say('valid', valid, ...zones.slice(0, 1));
  return say('renew', because('ticket_renew', { validUntil, workingDays: left }), ...zones.slice(0, 1));
}

/** First day of digging and last day of cover of a ticket raised on a day. */
export function ticketDates(raisedOn: IsoDate, rules: GroundRules): { validFrom: IsoDate; validUntil: IsoDate } {
  const validFrom = addWorkingDays(raisedOn, rules.ticket.leadWorkingDays, rules.holidays);
  return { validFrom, validUntil: addDaysTo(validFrom, rules.ticket.validDays - 1) };
}

/** Last day to raise a ticket for digging on a day. */
export function raiseBy(digOn: IsoDate, rules: GroundRules): IsoDate {
  // Surely early enough, also for digging on a day off; from there the last whose ticket is valid by then.
  let day = addWorkingDays(digOn, -rules.ticket.leadWorkingDays - 1, rules.holidays);
  while (ticketDates(addDaysTo(day, 1), rules).validFrom <= digOn) day = addDaysTo(day, 1);
  return day;
}

/** A document by which a spot may be dug without a ticket: who cleared it, and until when. */
export interface LawfulClearance {
  readonly document: string;
  readonly clearedBy: string;
  readonly validFrom: IsoDate;
  readonly validUntil: IsoDate;
}

/** Why a spot may be dug on a day, or may not. There is no third way. */
export type DigCover =
  | {
      readonly kind: 'ticket';
      readonly number: string;
      /** How far the spot may be moved, whichever way, and still be covered. */
      readonly roomM: number;
      readonly because: readonly GroundReason[];
    }
  | { readonly kind: 'clearance'; readonly document: string; readonly because: readonly GroundReason[] }
  | { readonly kind: 'none'; readonly because: readonly GroundReason[] };

/**
 * Cover of a spot on a day from the tickets whose area holds it and the clearances attached to it. Tickets in
 * conflict or without a reply do not cover, whatever else is there: the ground is known to be in doubt.
 */
export function digCover(
  input: {
    /** `roomM`: from the spot to the nearest edge of the ticket's area. */
    tickets: readonly (TicketFacts & { readonly number: string; readonly roomM: number })[];
    clearances: readonly LawfulClearance[];
  },
  day: IsoDate,
  rules: GroundRules,
): DigCover {
  const judged = input.tickets.map((ticket) => ({ ticket, judged: judgeTicket(ticket, day, rules) }));
  const conflict = judged.find(({ judged: { standing } }) => standing === 'conflict');
  if (conflict) return { kind: 'none', because: conflict.judged.because };
  const covering = judged
    .filter(({ judged: { covers } }) => covers)
    .sort((a, b) => (b.ticket.validUntil ?? '').localeCompare(a.ticket.validUntil ?? ''))[0];
  if (covering) {
    const { number, roomM } = covering.ticket;
    return { kind: 'ticket', number, roomM, because: [...covering.judged.because, because('ticket_room', { roomM })] };
  }
  const clearance = input.clearances.find(({ validFrom, validUntil }) => validFrom <= day && day <= validUntil);
  if (clearance) {
    const { document, clearedBy, validUntil } = clearance;
    return {
      kind: 'clearance',
      document,
      because: [because('clearance_attached', { document, clearedBy, validUntil })],
    };
  }
  const nearest = judged.filter(({ judged: { standing } }) => standing !== 'withdrawn').at(-1);
  return { kind: 'none', because: nearest?.judged.because ?? [because('no_ticket', { raiseBy: raiseBy(day, rules) })] };
}
