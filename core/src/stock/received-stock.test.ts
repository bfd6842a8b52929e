import fc from 'fast-check';
import { expectedStock, largestThatFits, stockOfLot, stockOfTree } from './received-stock';
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
    ['width', { ballDiameterMm: null }],
    ['a structural root', { probes: [{ depthMm: 40, nature: 'fine' as const }] }],
    ['a ball deeper than its roots', { ballHeightMm: 40 }],
  ])('is none while there is no %s', (_name, change) => {
    expect(stockOfTree(tree(change), 'container')).toBeNull();
  });
  it('of bare roots needs their spread and depth', () => {
    const bare = tree({ ballDiameterMm: null, ballHeightMm: null, probes: [], rootSpreadMm: 600, rootDepthMm: 280 });
    expect(stockOfTree(bare, 'bare_root')).toMatchObject({ rootSpreadMm: 600, rootDepthMm: 280 });
    expect(stockOfTree({ ...bare, rootDepthMm: null }, 'bare_root')).toBeNull();
    expect(stockOfTree({ ...bare, rootSpreadMm: null }, 'bare_root')).toBeNull();
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
  it('leaves out what nobody saw on any tree, and asks only those where it was seen', () => {
    const probes = (depthMm: number) => ({ probes: [{ depthMm, nature: 'structural' as const }] });
    expect(stockOfLot([tree(), tree()], 'balled')).toStrictEqual({
      kind: 'balled',
      caliperMm: 50,
      heightM: 3,
      ballDiameterMm: 450,
      ballHeightMm: 400,
      topRootsDepthMm: 40,
    });
    const lot = [
      tree({ heightM: 2, ballHeightMm: 300, surplusLeftMm: 30 }),
      tree({ heightM: 4, ballHeightMm: 350, firstBranchM: 1.2, graftHeightMm: 80, ...probes(90) }),
      tree({ heightM: 3, ballHeightMm: 420, firstBranchM: 1.8, graftHeightMm: 120, surplusLeftMm: 10 }),
    ];
    // Of two the lower is the middle.
    expect(stockOfLot(lot, 'container')).toStrictEqual({
      kind: 'container',
      caliperMm: 50,
      heightM: 3,
      firstBranchM: 1.2,
      graftHeightMm: 80,
      ballDiameterMm: 450,
      ballHeightMm: 350,
      topRootsDepthMm: 90,
      surplusLeftMm: 30,
    });
  });
  it('never has roots under the ball, nor more surplus left than there is', () => {
    const probes = (depthMm: number) => ({ probes: [{ depthMm, nature: 'structural' as const }] });
    const lot = [
      tree({ ballHeightMm: 200, ...probes(20) }),
      tree({ ballHeightMm: 210, ...probes(30) }),
      tree({ ballHeightMm: 600, surplusLeftMm: 500, ...probes(500) }),
    ];
    // The middle ball is 210 mm high: the deepest roots count to a millimetre above its base.
    expect(stockOfLot(lot, 'balled')).toMatchObject({ ballHeightMm: 210, topRootsDepthMm: 209, surplusLeftMm: 209 });
  });
  it('of bare roots is the middle of their spread and depth', () => {
    const bare = (rootSpreadMm: number, rootDepthMm: number) =>
      tree({ ballDiameterMm: null, ballHeightMm: null, probes: [], rootSpreadMm, rootDepthMm });
    expect(stockOfLot([bare(500, 300), bare(700, 200), bare(600, 250)], 'bare_root')).toStrictEqual({
      kind: 'bare_root',
      caliperMm: 50,
      heightM: 3,
      rootSpreadMm: 600,
      rootDepthMm: 250,
    });
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

describe('what an ordered tree will probably come with', () => {
  it.each([
    // Ten times the caliper; two thirds as high as wide, or nine tenths; sixty times as high as thick.
    [
      { kind: 'balled', caliperMm: 60 },
      { heightM: 3.6, ballDiameterMm: 600, ballHeightMm: 400, topRootsDepthMm: 0 },
    ],
    [
      { kind: 'container', caliperMm: 40 },
      { heightM: 2.4, ballDiameterMm: 400, ballHeightMm: 360, topRootsDepthMm: 0 },
    ],
    [
      { kind: 'container', caliperMm: 10 },
      { heightM: 1.2, ballDiameterMm: 200, ballHeightMm: 180, topRootsDepthMm: 0 },
    ],
    [
      { kind: 'bare_root', caliperMm: 25 },
      { heightM: 1.5, rootSpreadMm: 350, rootDepthMm: 250 },
    ],
    [
      { kind: 'bare_root', caliperMm: 20 },
      { heightM: 1.2, rootSpreadMm: 300, rootDepthMm: 250 },
    ],
    [
      { kind: 'bare_root', caliperMm: 200 },
      { heightM: 6, rootSpreadMm: 2800, rootDepthMm: 250 },
    ],
  ] as const)('for %j', (ordered, expected) => {
    expect(expectedStock(ordered)).toStrictEqual({ ...ordered, ...expected });
  });
});

describe('the largest on offer that fits', () => {
  const offer = (kind: 'balled' | 'container', caliperMm: number, available = 3) =>
    ({ nursery: 'Viveiro Azul', species: 'Quercus ilex', kind, caliperMm, available }) as const;
  const found = (offers: Parameters<typeof largestThatFits>[0]) => {
    const best = largestThatFits(offers, { widestMm: 600, kind: 'balled' });
    return best && [best.offer.kind, best.offer.caliperMm, best.ballMm];
  };
  it('is of the kind asked for before a larger one of another', () => {
    expect(found([offer('container', 60), offer('balled', 40), offer('balled', 50)])).toEqual(['balled', 50, 500]);
    expect(found([offer('balled', 40), offer('container', 60)])).toEqual(['balled', 40, 400]);
    expect(found([offer('container', 50), offer('container', 60), offer('balled', 70)])).toEqual([
      'container',
      60,
      600,
    ]);
    expect(found([offer('balled', 61), offer('balled', 60, 0)])).toBeNull();
  });
});
