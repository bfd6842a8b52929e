import { claimOf, type ReceivedLot } from './claim';
import { defaultReceivingRules as rules } from './receiving';
import { unseenTree } from './received-tree';

const good = { ...unseenTree, circlingPct: 5 };
const potBound = { ...unseenTree, circlingPct: 80 };
const soft = { ...unseenTree, ball: 'soft' as const };
const lot = (change: Partial<ReceivedLot>): ReceivedLot => ({
  ordered: { kind: 'container', caliperMm: 40 },
  expected: 10,
  arrived: 10,
  opened: [],
  verdict: null,
  ...change,
});

describe('what is claimed of a lot', () => {
  it.each([
    ['all of one sent back', { verdict: 'return' }, { returned: 10, missing: 0 }],
    ['what did not come', { arrived: 7, verdict: 'accept' }, { returned: 0, missing: 3 }],
    ['both', { arrived: 7, verdict: 'return' }, { returned: 7, missing: 3 }],
    [
      'single bad trees of one that was taken',
      { opened: [good, potBound, soft], verdict: 'correct' },
      { returned: 1, missing: 0 },
    ],
    ['nothing while it is held', { opened: [potBound], verdict: 'hold' }, { returned: 0, missing: 0 }],
    ['nothing while nobody counted', { arrived: null }, { returned: 0, missing: 0 }],
    ['nothing where more came than was ordered', { arrived: 12, verdict: 'accept' }, { returned: 0, missing: 0 }],
  ] as const)('%s', (_name, change, claim) => {
    expect(claimOf(lot(change), rules)).toEqual(claim);
  });
});
