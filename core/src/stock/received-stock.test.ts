import fc from 'fast-check';
import { expectedStock, stockOfLot, stockOfTree } from './received-stock';
import { unseenTree, type ReceivedTree } from './received-tree';
import { requireStock, stockKinds } from './stock';

const tree = (change: Partial<ReceivedTree> = {}): ReceivedTree => ({
  ...unseenTree,
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  probes: [{ depthMm: 40, nature: 'structural' }],
  ...change,
});

describe('the stock of an opened tree', () => {
  it('is what was measured, with what else was seen', () => {
    expect(stockOfTree(tree({ graftHeightMm: 90, firstBranchM: 1.5 }), 'container')).toEqual({
      kind: 'container',
      caliperMm: 50,
      heightM: 3,
      graftHeightMm: 90,
      firstBranchM: 1.5,
      ballDiameterMm: 450,
      ballHeightMm: 400,
      topRootsDepthMm: 40,
    });
  });
  it('keeps the surplus that cannot come off, never more than there is', () => {
    expect(stockOfTree(tree({ surplusLeftMm: 25 }), 'balled')).toMatchObject({ surplusLeftMm: 25 });
    expect(stockOfTree(tree({ surplusLeftMm: 90 }), 'balled')).toMatchObject({ surplusLeftMm: 40 });
  });
  it.each([
    ['caliper', { caliperMm: null }],
    ['height', { heightM: null }],
    ['ball', { ballHeightMm: null }],
    ['a structural root', { probes: [{ depthMm: 40, nature: 'fine' as const }] }],
    ['a ball deeper than its roots', { ballHeightMm: 40 }],
  ])('is none while there is no %s', (_name, change) => {
    expect(stockOfTree(tree(change), 'container')).toBeNull();
  });
  it('of bare roots needs their spread and depth', () => {
    const bare = tree({ ballDiameterMm: null, ballHeightMm: null, probes: [], rootSpreadMm: 600, rootDepthMm: 280 });
    expect(stockOfTree(bare, 'bare_root')).toMatchObject({ rootSpreadMm: 600, rootDepthMm: 280 });
    expect(stockOfTree({ ...bare, rootDepthMm: null }, 'bare_root')).toBeNull();
  });
});

describe('one stock for the trees nobody opened', () => {
  it('is the middle of each measure and the deepest roots', () => {
    const probes = (depthMm: number) => ({ probes: [{ depthMm, nature: 'structural' as const }] });
    const lot = [
      tree({ caliperMm: 40, ballDiameterMm: 400, ...probes(20) }),
      tree({ caliperMm: 50, ballDiameterMm: 500, ...probes(80) }),
      tree({ caliperMm: 60, ballDiameterMm: 450, ...probes(50) }),
    ];
    expect(stockOfLot(lot, 'container')).toMatchObject({ caliperMm: 50, ballDiameterMm: 450, topRootsDepthMm: 80 });
  });
  it('is none while no tree was measured whole', () => {
    expect(stockOfLot([tree({ caliperMm: null })], 'container')).toBeNull();
    expect(stockOfLot([], 'container')).toBeNull();
  });
  it('is one that can be planted, whatever trees it is made of', () => {
    const some = fc.array(
      fc.record({
        caliperMm: fc.integer({ min: 20, max: 100 }),
        ballHeightMm: fc.integer({ min: 150, max: 700 }),
        depth: fc.integer({ min: 0, max: 500 }),
        surplusLeftMm: fc.integer({ min: 0, max: 200 }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(some, (trees) => {
        const made = trees.map(({ depth, ...change }) =>
          tree({ ...change, probes: [{ depthMm: depth, nature: 'structural' }] }),
        );
        const stock = stockOfLot(made, 'balled');
        if (stock) expect(() => requireStock(stock)).not.toThrow();
      }),
    );
  });
});

describe('stock that is only ordered', () => {
  it('has a plausible ball for every kind and caliper that is sold', () => {
    fc.assert(
      fc.property(fc.constantFrom(...stockKinds), fc.integer({ min: 8, max: 120 }), (kind, caliperMm) => {
        const stock = expectedStock({ kind, caliperMm });
        expect(() => requireStock(stock)).not.toThrow();
        expect(stock).toMatchObject({ kind, caliperMm });
        if (stock.kind !== 'bare_root') expect(stock.ballDiameterMm).toBe(Math.max(200, 10 * caliperMm));
      }),
    );
  });
});
