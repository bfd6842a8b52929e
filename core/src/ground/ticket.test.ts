import fc from 'fast-check';
import { addDaysTo, isWorkingDay } from '../calendar';
import { sayReason } from '../wording';
import { defaultGroundRules as rules } from './ground-rules';
import { digCover, judgeTicket, raiseBy, ticketDates, type TicketFacts, type UtilityReply } from './ticket';

const reply = (utility: string, state: UtilityReply['state']): UtilityReply => ({
  utility,
  state,
  repliedOn: state === 'waiting' ? null : '2026-11-18',
  toleranceMm: state === 'marked' ? 600 : null,
  note: '',
});
const ticket: TicketFacts = {
  validFrom: '2026-11-19',
  validUntil: '2026-12-16',
  withdrawn: false,
  replies: [reply('Water', 'clear'), reply('Gas', 'marked')],
};
const standing = (change: Partial<TicketFacts>, day = '2026-11-23') =>
  judgeTicket({ ...ticket, ...change }, day, rules).standing;

describe('a locate ticket', () => {
  it.each([
    ['valid', {}, '2026-11-23'],
    ['not_yet', {}, '2026-11-18'],
    // Four working days from the 10th are the 11th, 14th, 15th and 16th.
    ['renew', {}, '2026-12-10'],
    ['valid', {}, '2026-12-09'],
    ['expired', {}, '2026-12-17'],
    ['unsent', { validFrom: null, validUntil: null }, '2026-11-23'],
    ['withdrawn', { withdrawn: true }, '2026-11-23'],
    ['waiting', { replies: [reply('Water', 'clear'), reply('Gas', 'waiting')] }, '2026-11-18'],
    ['overdue', { replies: [reply('Water', 'clear'), reply('Gas', 'waiting')] }, '2026-11-19'],
    ['overdue', { replies: [] }, '2026-11-20'],
    ['conflict', { replies: [reply('Water', 'conflict'), reply('Gas', 'waiting')] }, '2026-11-20'],
  ] as const)('is %s with %j on %s', (expected, change, day) => {
    expect(standing(change as Partial<TicketFacts>, day)).toBe(expected);
  });

  it.each([
    ['2026-11-23', {}, [{ validUntil: '2026-12-16' }, { toleranceMm: 600 }]],
    ['2026-11-19', {}, [{ validUntil: '2026-12-16' }, { toleranceMm: 600 }]],
    ['2026-11-18', {}, [{ validFrom: '2026-11-19' }]],
    ['2026-12-10', {}, [{ validUntil: '2026-12-16', workingDays: 4 }, { toleranceMm: 600 }]],
    ['2026-12-16', {}, [{ validUntil: '2026-12-16', workingDays: 0 }, { toleranceMm: 600 }]],
    ['2026-12-17', {}, [{ validUntil: '2026-12-16', days: 1 }]],
    ['2026-11-23', { replies: [reply('Gas', 'conflict'), reply('Water', 'conflict')] }, [{ utilities: 'Gas, Water' }]],
    [
      '2026-11-23',
      { replies: [reply('Gas', 'waiting'), reply('Water', 'clear'), reply('Cable', 'waiting')] },
      [{ utilities: 'Gas, Cable', validFrom: '2026-11-19' }],
    ],
    ['2026-11-23', { validFrom: null }, [{}]],
    ['2026-11-23', { validUntil: null }, [{}]],
    // Two utilities marked: one zone is named, and none where all is clear.
    [
      '2026-11-23',
      { replies: [reply('Gas', 'marked'), reply('Water', 'marked')] },
      [{ validUntil: '2026-12-16' }, { toleranceMm: 600 }],
    ],
    [
      '2026-12-10',
      { replies: [reply('Gas', 'marked'), reply('Water', 'marked')] },
      [{ validUntil: '2026-12-16', workingDays: 4 }, { toleranceMm: 600 }],
    ],
    ['2026-11-23', { replies: [reply('Gas', 'clear')] }, [{ validUntil: '2026-12-16' }]],
  ] as const)('says its numbers on %s with %j', (day, change, facts) => {
    const { because } = judgeTicket({ ...ticket, ...change }, day, rules);
    expect(because.map((reason) => reason.facts)).toEqual(facts);
  });

  it('without a stated tolerance has the zone of the rules', () => {
    const stricter = { ...rules, ticket: { ...rules.ticket, toleranceMm: 750 } };
    const zone = (toleranceMm: number | null) =>
      judgeTicket({ ...ticket, replies: [{ ...reply('Gas', 'marked'), toleranceMm }] }, '2026-11-23', stricter)
        .because[1];
    expect(zone(null)?.facts).toEqual({ toleranceMm: 750 });
    expect(zone(600)?.facts).toEqual({ toleranceMm: 600 });
  });

  it('names the hand-dig zone of what is marked', () => {
    const { because } = judgeTicket(ticket, '2026-11-23', rules);
    expect(because.map(({ code }) => code)).toEqual(['ticket_valid', 'hand_dig_zone']);
  });

  // 1 December 2026 is a Tuesday, the 8th a holiday of the shipped rules.
  it('raised on a Friday before a holiday may be dug by on Thursday', () => {
    expect(ticketDates('2026-12-04', rules)).toEqual({ validFrom: '2026-12-10', validUntil: '2027-01-06' });
    expect(raiseBy('2026-12-10', rules)).toBe('2026-12-06');
  });

  it('raised on the last day to raise it is valid in time, a day later it is not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1500 }), (days) => {
        const digOn = addDaysTo('2025-06-01', days);
        const last = raiseBy(digOn, rules);
        return ticketDates(last, rules).validFrom <= digOn && ticketDates(addDaysTo(last, 1), rules).validFrom > digOn;
      }),
    );
  });

  it('begins on a working day', () => {
    for (let i = 0; i < 40; i++) {
      expect(isWorkingDay(ticketDates(addDaysTo('2026-12-01', i), rules).validFrom, rules.holidays)).toBe(true);
    }
  });
});

describe('cover for digging', () => {
  const numbered = { ...ticket, number: 'LC-1', roomM: 1.8 };
  const clearance = {
    document: 'Letter 12/26',
    clearedBy: 'Roads office',
    validFrom: '2026-11-01',
    validUntil: '2026-12-31',
  };

  it('comes from a valid ticket first, from an attached clearance else', () => {
    expect(digCover({ tickets: [numbered], clearances: [clearance] }, '2026-11-23', rules)).toMatchObject({
      kind: 'ticket',
      number: 'LC-1',
      roomM: 1.8,
    });
    expect(digCover({ tickets: [], clearances: [clearance] }, '2026-11-23', rules)).toMatchObject({
      kind: 'clearance',
      document: 'Letter 12/26',
    });
    expect(digCover({ tickets: [numbered], clearances: [clearance] }, '2026-12-20', rules).kind).toBe('clearance');
  });

  it('comes from the ticket that lasts longest, wherever it stands in the list', () => {
    const longer = { ...numbered, number: 'LC-2', validUntil: '2026-12-30' };
    for (const tickets of [
      [numbered, longer],
      [longer, numbered],
    ]) {
      expect(digCover({ tickets, clearances: [] }, '2026-11-23', rules)).toMatchObject({ number: 'LC-2' });
    }
    // One that does not cover is no reason to refuse another that does.
    const expired = { ...numbered, number: 'LC-0', validUntil: '2026-11-20' };
    expect(digCover({ tickets: [expired, numbered], clearances: [] }, '2026-11-23', rules)).toMatchObject({
      number: 'LC-1',
    });
  });

  it.each([
    ['2026-10-31', 'none'],
    ['2026-11-01', 'clearance'],
    ['2026-12-31', 'clearance'],
    ['2027-01-01', 'none'],
  ] as const)('from a clearance on %s is %s', (day, kind) => {
    expect(digCover({ tickets: [], clearances: [clearance] }, day, rules).kind).toBe(kind);
  });

  it('says who cleared it and until when', () => {
    expect(digCover({ tickets: [], clearances: [clearance] }, '2026-11-23', rules).because).toEqual([
      {
        code: 'clearance_attached',
        facts: { document: 'Letter 12/26', clearedBy: 'Roads office', validUntil: '2026-12-31' },
      },
    ]);
  });

  it('that is missing is explained by the last ticket that stands, or by the day to raise one', () => {
    const withdrawn = { ...numbered, withdrawn: true };
    const expired = { ...numbered, validUntil: '2026-11-20' };
    const why = (tickets: Parameters<typeof digCover>[0]['tickets']) =>
      digCover({ tickets, clearances: [] }, '2026-12-10', rules).because;
    expect(why([expired, withdrawn])).toEqual([
      { code: 'ticket_expired', facts: { validUntil: '2026-11-20', days: 20 } },
    ]);
    expect(why([{ ...numbered, replies: [], validFrom: '2026-11-19' }, expired])[0]?.code).toBe('ticket_expired');
    // The 10th is dug by a ticket of the 6th at the latest, the 8th being a holiday.
    for (const none of [[], [withdrawn]]) {
      expect(why(none)).toEqual([{ code: 'no_ticket', facts: { raiseBy: '2026-12-06' } }]);
    }
  });

  it('says how far the spot may move for rock before it asks for a new ticket', () => {
    const said = (roomM: number) =>
      digCover({ tickets: [{ ...numbered, roomM }], clearances: [] }, '2026-11-23', rules)
        .because.map((reason) => sayReason(reason, 'metric'))
        .at(-1);
    expect(said(1.8)).toContain('the spot may move 1.8 m and still be covered');
    expect(said(0)).toContain('moved at all, it asks for a new one');
  });

  it('is none without either, after the end, or while a line is in conflict', () => {
    expect(digCover({ tickets: [], clearances: [] }, '2026-11-23', rules)).toMatchObject({
      kind: 'none',
      because: [{ code: 'no_ticket' }],
    });
    expect(digCover({ tickets: [], clearances: [clearance] }, '2027-01-01', rules).kind).toBe('none');
    const conflict = { ...numbered, number: 'LC-2', replies: [reply('Gas', 'conflict')] };
    expect(digCover({ tickets: [numbered, conflict], clearances: [clearance] }, '2026-11-23', rules)).toMatchObject({
      kind: 'none',
      because: [{ code: 'ticket_conflict' }],
    });
  });

  it('is never given by replies that are not all in', () => {
    const states = fc.array(fc.constantFrom('waiting', 'clear', 'marked', 'conflict'), { minLength: 0, maxLength: 6 });
    fc.assert(
      fc.property(states, (found) => {
        const replies = found.map((state, i) => reply(`U${i}`, state));
        const { kind } = digCover({ tickets: [{ ...numbered, replies }], clearances: [] }, '2026-11-25', rules);
        const whole = found.length > 0 && found.every((state) => state === 'clear' || state === 'marked');
        return (kind === 'ticket') === whole;
      }),
    );
  });
});
