import fc from 'fast-check';
import { leastMinutes, RoundBoard, seekRounds, simpleRounds, type RoundPlan, type RoundTask } from '.';

type Point = readonly [number, number];
const metresOf = (points: readonly Point[]): number[][] =>
  points.map(([x, y]) => points.map(([u, v]) => Math.hypot(x - u, y - v)));

const truck = { id: 'T1', tankL: 600, pourLPerMin: 30, kmPerH: 30, shiftMinutes: 420 };
const fill = { id: 'hydrant', flowLPerMin: 100, minutes: 4 };

interface Town {
  readonly stops: readonly { at: Point; litres: number; weight: number }[];
  readonly fills: readonly Point[];
  readonly depot: Point;
  readonly trucks: number;
  readonly tankL?: number;
  readonly shiftMinutes?: number;
}

function taskOf({ stops, fills, depot, trucks, tankL = 600, shiftMinutes = 420 }: Town): RoundTask {
  const all = Array.from({ length: trucks }, (_, i) => ({ ...truck, id: `T${i}`, tankL, shiftMinutes }));
  return {
    stops: stops.map(({ litres, weight }, i) => ({ id: `s${i}`, litres, weight, minutes: 2 })),
    fills: fills.map((_at, i) => ({ ...fill, id: `f${i}` })),
    trucks: all,
    metres: metresOf([...stops.map(({ at }) => at), ...fills, ...all.map(() => depot)]),
  };
}

const town = fc
  .record({
    stops: fc.array(
      fc.record({
        at: fc.tuple(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 0, max: 2000 })),
        litres: fc.integer({ min: 5, max: 300 }),
        weight: fc.integer({ min: 1, max: 5 }),
      }),
      { minLength: 1, maxLength: 14 },
    ),
    fills: fc.array(fc.tuple(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 0, max: 2000 })), { maxLength: 2 }),
    trucks: fc.integer({ min: 1, max: 3 }),
    tankL: fc.integer({ min: 100, max: 700 }),
    shiftMinutes: fc.integer({ min: 20, max: 300 }),
  })
  .map((made): Town => ({ ...made, depot: [1500, 1000] }));

/** Walks a plan as a driver would, and says what is wrong with it. */
function faultsOf(task: RoundTask, plan: RoundPlan): string[] {
  const faults: string[] = [];
  const seen = new Set<number>();
  for (const [t, round] of plan.rounds.entries()) {
    const { tankL, pourLPerMin, kmPerH, shiftMinutes } = task.trucks[t] ?? truck;
    let [at, tank, minutes, metres] = [task.stops.length + task.fills.length + t, tankL, 0, 0];
    const go = (to: number) => {
      metres += task.metres[at]?.[to] ?? Infinity;
      minutes += (task.metres[at]?.[to] ?? Infinity) / ((kmPerH * 1000) / 60);
      at = to;
    };
    for (const step of round.steps) {
      if (step.kind === 'fill') {
        go(task.stops.length + step.fill);
        const { flowLPerMin, minutes: connect } = task.fills[step.fill] ?? fill;
        if (Math.abs(tankL - tank - step.litres) > 1e-6) faults.push('fills another amount than is missing');
        minutes += connect + (tankL - tank) / flowLPerMin;
        tank = tankL;
        continue;
      }
      const stop = task.stops[step.stop];
      if (!stop || seen.has(step.stop)) faults.push('a stop twice');
      seen.add(step.stop);
      go(step.stop);
      tank -= stop?.litres ?? 0;
      minutes += (stop?.minutes ?? 0) + (stop?.litres ?? 0) / pourLPerMin;
      if (tank < -1e-9) faults.push('pours more than it has');
    }
    if (round.steps.length > 0) go(task.stops.length + task.fills.length + t);
    if (Math.abs(minutes - round.minutes) > 1e-6) faults.push(`says ${round.minutes} min, takes ${minutes}`);
    if (Math.abs(metres - round.driveM) > 1e-6) faults.push('says another way than it drives');
    if (minutes > shiftMinutes + 1e-9) faults.push('is out too long');
  }
  for (const { stop } of plan.left) if (seen.has(stop)) faults.push('served and left');
  if (seen.size + plan.left.length !== task.stops.length) faults.push('a stop is lost');
  return faults;
}

describe('rounds', () => {
  it('hold when a driver walks through them, and are never worse than the ones they began with', () => {
    fc.assert(
      fc.property(town, fc.integer({ min: 1, max: 1000 }), (made, seed) => {
        const task = taskOf(made);
        const plan = seekRounds(task, { seed, tries: 400 });
        expect(faultsOf(task, plan)).toEqual([]);
        expect(faultsOf(task, simpleRounds(task))).toEqual([]);
        expect(plan.cost).toBeLessThanOrEqual(simpleRounds(task).cost + 1e-9);
      }),
      { numRuns: 60 },
    );
  });

  it('take no less than the least that can be, where all is served', () => {
    fc.assert(
      fc.property(town, (made) => {
        const task = taskOf({ ...made, shiftMinutes: 1440, tankL: 40_000 });
        const plan = seekRounds(task, { seed: 1, tries: 200 });
        expect(plan.left).toEqual([]);
        expect(plan.cost).toBeGreaterThanOrEqual(leastMinutes(task) - 1e-6);
      }),
      { numRuns: 40 },
    );
  });

  it('go round a ring once', () => {
    const count = 24;
    const at = (i: number): Point => [
      1000 * Math.cos((2 * Math.PI * i) / (count + 1)),
      1000 * Math.sin((2 * Math.PI * i) / (count + 1)),
    ];
    const stops = Array.from({ length: count }, (_, i) => ({ at: at(i + 1), litres: 10, weight: 1 }));
    const shuffled = stops.map((_one, i) => stops[(i * 7) % count] ?? { at: at(0), litres: 1, weight: 1 });
    const task = taskOf({ stops: shuffled, fills: [], depot: at(0), trucks: 1 });
    const side = 2 * 1000 * Math.sin(Math.PI / (count + 1));
    const plan = seekRounds(task, { seed: 3, tries: 20_000 });
    expect(plan.rounds[0]?.driveM).toBeCloseTo((count + 1) * side, 3);
    expect(plan.left).toEqual([]);
  });

  it('serve what matters more where not all can be', () => {
    const stops = [
      { at: [100, 0], litres: 50, weight: 1 },
      { at: [0, 4000], litres: 50, weight: 4 },
    ] as const;
    const task = taskOf({ stops, fills: [], depot: [0, 0], trucks: 1, shiftMinutes: 21 });
    const plan = seekRounds(task, { seed: 1, tries: 500 });
    expect(plan.rounds[0]?.steps).toEqual([{ kind: 'stop', stop: 1 }]);
    expect(plan.left).toEqual([{ stop: 0, why: 'no_time' }]);
  });

  it('fill where it costs least time: a slow hydrant on the way loses against a fast one a little off', () => {
    const stops = [0, 1].map((i) => ({ at: [i * 1000, 0] as Point, litres: 400, weight: 1 }));
    const task = taskOf({
      stops,
      fills: [
        [500, 0],
        [500, 300],
      ],
      depot: [0, 0],
      trucks: 1,
      tankL: 400,
    });
    const slow = { ...task, fills: [{ ...fill, id: 'slow', flowLPerMin: 10 }, fill] };
    const steps = (asked: RoundTask) =>
      seekRounds(asked, { seed: 1, tries: 200 }).rounds[0]?.steps.find(({ kind }) => kind === 'fill');
    expect(steps(task)).toMatchObject({ fill: 0, litres: 400 });
    expect(steps(slow)).toMatchObject({ fill: 1, litres: 400 });
  });

  it('say why a stop can never be served', () => {
    const stops = [
      { at: [100, 0], litres: 900, weight: 1 },
      { at: [200, 0], litres: 50, weight: 1 },
      { at: [300, 0], litres: 50, weight: 1 },
    ] as const;
    const task = taskOf({ stops, fills: [], depot: [0, 0], trucks: 2 });
    const metres = task.metres.map((row, i) => row.map((m, j) => (i !== j && (i === 1 || j === 1) ? Infinity : m)));
    const plan = seekRounds({ ...task, metres }, { seed: 1, tries: 100 });
    expect(plan.left).toEqual([
      { stop: 0, why: 'tank_too_small' },
      { stop: 1, why: 'no_way' },
    ]);
    expect(plan.rounds.flatMap(({ steps }) => steps)).toEqual([{ kind: 'stop', stop: 2 }]);
  });

  it('leave a stop rather than drive a day for it without a fill point that is reached', () => {
    const stops = [0, 1, 2].map((i) => ({ at: [i * 100, 0] as Point, litres: 250, weight: 1 }));
    const task = taskOf({ stops, fills: [[50, 50]], depot: [0, 0], trucks: 1, tankL: 500 });
    const f = 3;
    const metres = task.metres.map((row, i) => row.map((m, j) => (i !== j && (i === f || j === f) ? Infinity : m)));
    const plan = seekRounds({ ...task, metres }, { seed: 1, tries: 500 });
    expect(plan.rounds[0]?.steps).toHaveLength(2);
    expect(plan.left).toHaveLength(1);
  });

  it.each([
    ['a matrix of another size', { metres: [[0]] }, 'metres'],
    ['no truck', { trucks: [], metres: metresOf([[0, 0]]) }, 'trucks'],
    ['a truck without a tank', { trucks: [{ ...truck, tankL: 0 }] }, 'tankL'],
    ['a dose of 9,000 L', { stops: [{ id: 's', litres: 9000, weight: 1, minutes: 2 }] }, 'litres'],
    ['a truck that does not move', { trucks: [{ ...truck, kmPerH: 0 }] }, 'kmPerH'],
    [
      'a fill point that gives nothing',
      {
        fills: [{ ...fill, flowLPerMin: 0 }],
        metres: metresOf([
          [0, 0],
          [1, 1],
          [2, 2],
        ]),
      },
      'flowLPerMin',
    ],
  ])('refuse %s', (_name, change, path) => {
    const task: RoundTask = {
      stops: [{ id: 's', litres: 10, weight: 1, minutes: 2 }],
      fills: [],
      trucks: [truck],
      metres: metresOf([
        [0, 0],
        [1, 1],
      ]),
      ...change,
    };
    expect(() => new RoundBoard(task)).toThrow(expect.objectContaining({ path }));
  });

  it('stop when they are told to, with the best so far', () => {
    const stops = Array.from({ length: 12 }, (_, i) => ({
      at: [i * 97, (i * 53) % 400] as Point,
      litres: 20,
      weight: 1,
    }));
    const task = taskOf({ stops, fills: [], depot: [0, 0], trucks: 1 });
    const told: number[] = [];
    const plan = seekRounds(task, { seed: 1, tries: 1e9, goOn: (done) => told.push(done) < 3 });
    expect(told).toHaveLength(3);
    expect(faultsOf(task, plan)).toEqual([]);
  });
});
