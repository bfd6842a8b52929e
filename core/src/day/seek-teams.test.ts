import fc from 'fast-check';
import { aHelper } from '../../testing/day-cases';
import { defaultTeamRules as rules, strengthOf, type Helper } from './helpers';
import { seekTeams, simplePlan } from './seek-teams';
import { scoreTeams, type TeamTask } from './team-plan';

const lead = (id: string) => aHelper(id, { skill: 'leads' });
/** Trees along a street, metres from the gathering place, on foot at 80 m a minute. */
function task(helpers: readonly Helper[], at: readonly number[], change: Partial<TeamTask> = {}, hours = 3): TeamTask {
  const places = [...at, 0];
  return {
    helpers,
    jobs: at.map((_, i) => ({ spotId: `s${i}`, hours, lifters: 1 })),
    walkMin: places.map((a) => places.map((b) => Math.abs(a - b) / 80)),
    minutes: 180,
    rules,
    ...change,
  };
}
const seek = (one: TeamTask, tries = 20_000) => seekTeams(one, { seed: 1, tries });
const why = (list: readonly { id: string; why: string }[]) => Object.fromEntries(list.map((one) => [one.id, one.why]));

describe('teams and their trees', () => {
  it('meets the pace that is known: three volunteers, three container trees of three person-hours, three hours', () => {
    const one = task([lead('a'), aHelper('b'), aHelper('c')], [0, 0, 0]);
    const plan = seek(one);
    expect(scoreTeams(one, plan.teams).scores[0]?.minutes).toBeCloseTo(180, 9);
    expect(plan.left).toEqual({ helpers: [], spots: [] });
  });
  it('gives neighbours to one team, and nobody crosses the park', () => {
    const helpers = [lead('a'), aHelper('b'), aHelper('c'), lead('d'), aHelper('e'), aHelper('f')];
    const plan = seek(task(helpers, [100, 900, 110, 910], {}, 2));
    expect(plan.teams.map(({ spotIds }) => [...spotIds].sort())).toEqual(
      expect.arrayContaining([
        ['s0', 's2'],
        ['s1', 's3'],
      ]),
    );
  });
  it('evens finishes: six like trees for two like teams are three each', () => {
    const helpers = [lead('a'), aHelper('b'), aHelper('e'), lead('c'), aHelper('d'), aHelper('f')];
    const plan = seek(task(helpers, [0, 0, 0, 0, 0, 0], { minutes: 400 }, 2));
    expect(plan.teams.map(({ spotIds }) => spotIds.length)).toEqual([3, 3]);
  });
  it('keeps minors with their guardian, and those together who said so', () => {
    const helpers = [
      lead('a'),
      lead('b'),
      aHelper('kid', { minor: true, guardianId: 'mum' }),
      aHelper('mum'),
      aHelper('x', { together: 'both' }),
      aHelper('y', { together: 'both' }),
    ];
    const teamOf = (id: string) =>
      seek(task(helpers, [0, 10])).teams.findIndex(({ helperIds }) => helperIds.includes(id));
    expect([teamOf('kid'), teamOf('x')]).toEqual([teamOf('mum'), teamOf('y')]);
  });
  it('assigns nobody without a waiver, and no minor whose guardian does not come', () => {
    const helpers = [
      lead('a'),
      aHelper('b'),
      aHelper('c', { waiver: false }),
      aHelper('kid', { minor: true, guardianId: 'c' }),
      aHelper('alone', { minor: true, guardianId: null }),
    ];
    expect(why(seek(task(helpers, [0])).left.helpers)).toEqual({
      c: 'no_waiver',
      kid: 'no_guardian',
      alone: 'no_guardian',
    });
  });
  it('says why a tree is left: too heavy, no time, nobody who leads', () => {
    const weak = [lead('a'), aHelper('b', { noLifting: true })];
    const heavy = task(weak, [0, 0]);
    const jobs = [{ ...(heavy.jobs[0] as TeamTask['jobs'][number]), lifters: 2 }, ...heavy.jobs.slice(1)];
    expect(why(seek({ ...heavy, jobs }).left.spots)).toEqual({ s0: 'too_heavy' });
    expect(why(seek(task([lead('a'), aHelper('b')], [0, 0, 0], { minutes: 200 })).left.spots)).toMatchObject({});
    expect(seek(task([lead('a'), aHelper('b')], [0, 0, 0], { minutes: 200 })).left.spots.map((one) => one.why)).toEqual(
      ['no_time'],
    );
    expect(why(seek(task([aHelper('a'), aHelper('b')], [0])).left.spots)).toEqual({ s0: 'no_lead' });
  });
  it('takes more together than a team holds as what it is: nobody can be parted', () => {
    const clan = Array.from({ length: 6 }, (_, i) => aHelper(`c${i}`, { together: 'clan' }));
    expect(
      seek(task([lead('a'), aHelper('b'), ...clan], [0])).left.helpers.every((one) => one.why === 'together_too_many'),
    ).toBe(true);
  });
  it('leaves what is locked where it is', () => {
    const helpers = [lead('a'), aHelper('b'), lead('c'), aHelper('d')];
    const one = task(helpers, [0, 1000], {}, 2);
    const far = [
      { leadId: 'a', helperIds: ['a', 'b'], spotIds: ['s1'] },
      { leadId: 'c', helperIds: ['c', 'd'], spotIds: ['s0'] },
    ];
    const locks = { teams: far, helperIds: new Set(['a', 'd']), spotIds: new Set(['s1']) };
    const plan = seekTeams(one, { seed: 3, tries: 5000, locks });
    const team = plan.teams.find(({ helperIds }) => helperIds.includes('a'));
    expect(team?.spotIds).toContain('s1');
    expect(plan.teams.find(({ helperIds }) => helperIds.includes('d'))).not.toBe(team);
  });
  it('is made again by the same seed, and stopped keeps the best so far', () => {
    const one = task([lead('a'), aHelper('b'), lead('c'), aHelper('d')], [0, 100, 300, 700, 50], {}, 1);
    expect(seek(one)).toEqual(seek(one));
    const stopped = seekTeams(one, { seed: 1, tries: 100_000, goOn: () => false });
    expect(stopped).toEqual(simplePlan(one));
  });
  it.each([
    ['a helper in two teams', [['a'], ['a']], [[], []]],
    ['an unknown spot', [['a']], [['nowhere']]],
    ['a spot in two teams', [['a'], ['b']], [['s0'], ['s0']]],
  ])('refuses a plan with %s', (_name, people, spots) => {
    const teams = people.map((helperIds, i) => ({ leadId: 'a', helperIds, spotIds: spots[i] ?? [] }));
    expect(() => scoreTeams(task([lead('a'), aHelper('b')], [0]), teams)).toThrow(/two teams|not of this day/);
  });
  it('counts hands beyond four at one pit half', () => {
    const five = Array.from({ length: 5 }, (_, i) => aHelper(`${i}`));
    expect(strengthOf(five, rules)).toBe(4.5);
    expect(strengthOf([aHelper('a', { skill: 'first_time' }), aHelper('b', { minor: true })], rules)).toBeCloseTo(
      1.35,
      9,
    );
  });

  const someone = fc.record({
    skill: fc.constantFrom('leads' as const, 'has_planted' as const, 'first_time' as const),
    minor: fc.boolean(),
    guardian: fc.nat(11),
    together: fc.option(fc.constantFrom('p', 'q'), { nil: null }),
    waiver: fc.boolean(),
    noLifting: fc.boolean(),
  });
  const anyTask = fc
    .tuple(
      fc.array(someone, { maxLength: 12 }),
      fc.array(fc.tuple(fc.nat(900), fc.integer({ min: 1, max: 3 })), { maxLength: 10 }),
    )
    .map(([people, trees]) => {
      const helpers = people.map(({ guardian, ...one }, i) =>
        aHelper(`h${i}`, { ...one, guardianId: one.minor ? `h${guardian}` : null }),
      );
      const made = task(
        helpers,
        trees.map(([at]) => at),
        {},
        1.5,
      );
      return { ...made, jobs: made.jobs.map((job, i) => ({ ...job, lifters: trees[i]?.[1] ?? 1 })) };
    });
  it('never sends a team over its time, a spot twice, a minor without guardian and waiver, a team without a lead', () => {
    fc.assert(
      fc.property(anyTask, (one) => {
        const plan = seek(one, 1500);
        const spots = [...plan.teams.flatMap(({ spotIds }) => spotIds), ...plan.left.spots.map(({ id }) => id)];
        expect(spots.sort()).toEqual(one.jobs.map(({ spotId }) => spotId).sort());
        const people = [...plan.teams.flatMap(({ helperIds }) => helperIds), ...plan.left.helpers.map(({ id }) => id)];
        expect(people.sort()).toEqual(one.helpers.map(({ id }) => id).sort());
        const byId = new Map(one.helpers.map((who) => [who.id, who]));
        for (const { overMin } of scoreTeams(one, plan.teams).scores) expect(overMin).toBeLessThan(1e-6);
        for (const { helperIds, leadId } of plan.teams) {
          expect(byId.get(leadId)).toMatchObject({ skill: 'leads', minor: false });
          expect(helperIds.length).toBeGreaterThanOrEqual(rules.least);
          expect(helperIds.length).toBeLessThanOrEqual(rules.most);
          for (const who of helperIds.map((id) => byId.get(id))) {
            expect(who?.waiver).toBe(true);
            if (who?.minor) expect(helperIds).toContain(who.guardianId);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
  it('is never worse than the plan it starts from', () => {
    fc.assert(
      fc.property(anyTask, (one) => {
        const [plan, simple] = [seek(one, 1500), simplePlan(one)];
        expect(plan.left.spots.length).toBeLessThanOrEqual(simple.left.spots.length);
        const same =
          plan.left.spots.length === simple.left.spots.length &&
          plan.left.helpers.length === simple.left.helpers.length;
        if (same) expect(plan.cost).toBeLessThanOrEqual(simple.cost + 1e-9);
      }),
      { numRuns: 40 },
    );
  });
});
