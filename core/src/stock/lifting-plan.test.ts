import { liftingPlan } from './lifting-plan';
import { defaultLiftingLimits } from './mass';

describe('from the kerb to the pit', () => {
  it.each([
    [20, 5, 0, 'people', 1],
    [16, 30, 0, 'people', 3],
    [48, 20, 0, 'trolley', 2],
    // 200 kg up 12 %: 200 × 9.81 × 0.20 = 392 N, two people of 200 N.
    [200, 20, 12, 'trolley', 2],
    [240, 20, 14, 'trolley', 3],
    [246, 20, 20, 'machine', 2],
    [600, 5, 0, 'machine', 2],
  ] as const)('%d kg over %d m at %d %%: %s, %d people', (massKg, distanceM, slopePct, means, people) => {
    expect(liftingPlan({ massKg, distanceM, slopePct })).toMatchObject({ means, people });
  });

  it.each([
    // From the tail half of what a team lifts from the ground: 23 kg one, 30 two, 34 three.
    [11, 'people', 2],
    [15, 'people', 2],
    [16, 'people', 3],
    [17, 'people', 3],
    [18, 'machine', 2],
  ] as const)('comes off the truck first: %d kg by %s, %d', (massKg, means, people) => {
    const { unload, because } = liftingPlan({ massKg, distanceM: 5, slopePct: 0 });
    expect(unload).toEqual({ means, people });
    expect(because[0]?.code).toBe(means === 'people' ? 'unload_people' : 'unload_machine');
  });

  it('follows the limits of the practice', () => {
    const careful = { ...defaultLiftingLimits, onePersonKg: 15, trolleyMostKg: 40 };
    expect(liftingPlan({ massKg: 20, distanceM: 2, slopePct: 0 }, careful)).toMatchObject({
      means: 'people',
      people: 2,
    });
    expect(liftingPlan({ massKg: 48, distanceM: 2, slopePct: 0 }, careful).means).toBe('machine');
  });

  it.each([
    [-1, 5, 0],
    [20, 2001, 0],
    [20, 5, 101],
  ])('refuses %d kg over %d m at %d %%', (massKg, distanceM, slopePct) => {
    expect(() => liftingPlan({ massKg, distanceM, slopePct })).toThrow('must be within');
  });
});
