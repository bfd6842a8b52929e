import fc from 'fast-check';
import type { Decision } from '../record';
import type { Level } from '../reason';
import { rankDecisions } from './urgency';

const decision = (level: Level, dueOn: string | null, kind: Decision['kind'] = 'do_remedy'): Decision => ({
  kind,
  stage: 'inspect',
  level,
  dueOn,
  remedy: null,
  because: [],
});
const today = '2026-06-15';

describe('ranking of the desk', () => {
  it('puts the most costly to leave first', () => {
    const ranked = rankDecisions(
      [decision('watch', '2026-06-14'), decision('urgent', today), decision('act', '2026-06-01')],
      today,
    );
    expect(ranked.map((r) => r.decision.level)).toEqual(['urgent', 'act', 'watch']);
    expect(ranked[1]).toMatchObject({ points: 59, daysLate: 14 });
  });

  it('holds back what is not due yet: remedies show two weeks ahead, looks on their day', () => {
    const shown = (d: Decision) => rankDecisions([d], today).length === 1;
    expect(shown(decision('watch', '2026-06-29'))).toBe(true);
    expect(shown(decision('watch', '2026-06-30'))).toBe(false);
    expect(shown(decision('watch', '2026-06-15', 'look'))).toBe(true);
    expect(shown(decision('watch', '2026-06-16', 'look'))).toBe(false);
    expect(shown(decision('watch', null, 'measure_ground'))).toBe(true);
  });

  it('weighs a walk that settles many trees over one that settles one, within its level', () => {
    const due = { ...decision('act', today), remedy: 'remove_stake' as const };
    const ranked = rankDecisions([{ ...due, count: 1 }, { ...due, count: 32 }, decision('urgent', today)], today);
    expect(ranked.map((r) => r.points)).toEqual([70, 55, 45]);
    expect(rankDecisions([{ ...due, count: 100_000 }], today)[0]?.points).toBe(57);
  });

  it('never ranks a thing lower for waiting longer, nor over 100 points', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<Level>('good', 'watch', 'act', 'urgent'),
        fc.integer({ min: 0, max: 900 }),
        (level, days) => {
          const on = (late: number) => new Date(Date.UTC(2026, 5, 15) - late * 86_400_000).toISOString().slice(0, 10);
          const points = (late: number) => rankDecisions([decision(level, on(late))], today)[0]?.points ?? -1;
          expect(points(days + 1)).toBeGreaterThanOrEqual(points(days));
          expect(points(days)).toBeLessThanOrEqual(100);
        },
      ),
    );
  });
});
