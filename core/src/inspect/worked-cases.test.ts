import { addMonthsTo, daysBetween } from '../calendar';
import { fieldDefault } from '../practice';
import { judgeInspection } from './verdict';
import { workedCases } from './worked-cases';

const inspectedOn = '2026-06-15';
const nothing = {
  inspectedOn,
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
};
const judge = ({ look, monthsSincePlanting }: (typeof workedCases)[number]) =>
  judgeInspection(
    { ...nothing, ...look },
    { practice: fieldDefault, plantedOn: addMonthsTo(inspectedOn, -monthsSincePlanting), percolation: 'good' },
  );

it.each(workedCases.map((one) => [one.said, one.monthsSincePlanting, one] as const))(
  '%s, %d months after planting',
  (_said, _months, one) => {
    const verdict = judge(one);
    const [first] = verdict.remedies;
    expect({
      level: verdict.level,
      remedy: first?.remedy ?? 'none',
      dueInDays: first ? daysBetween(inspectedOn, first.dueOn) : null,
    }).toEqual({ level: one.level, remedy: one.remedy, dueInDays: one.dueInDays });
  },
);

it('are sixty and more, each said once', () => {
  expect(workedCases.length).toBeGreaterThanOrEqual(60);
  expect(new Set(workedCases.map(({ said }) => said)).size).toBe(workedCases.length);
});

it.each(workedCases.map((one) => [one.said, one] as const))(
  '%s: the order of what is seen changes nothing',
  (_s, one) => {
    const turned = Object.fromEntries(Object.entries({ ...nothing, ...one.look }).reverse()) as typeof nothing;
    const context = { practice: fieldDefault, plantedOn: '2025-01-01', percolation: undefined };
    const [a, b] = [{ ...nothing, ...one.look }, turned].map((look) => judgeInspection(look, context));
    expect(b).toEqual(a);
  },
);
