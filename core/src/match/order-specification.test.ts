import { orderSpecification } from './order-specification';

const ask = (stockKind: 'container' | 'balled' | 'bare_root', caliperMm: number, item: string) =>
  orderSpecification({ stockKind, caliperMm, heightM: 3 }).find((one) => one.item === item)?.ask;

describe('order specification', () => {
  it('asks a ball ten times as wide as the caliper of balled stock', () => {
    expect(ask('balled', 60, 'Ball')).toContain('at least 600 mm');
    expect(ask('container', 40, 'Container')).toContain('at least 360 mm');
    expect(ask('bare_root', 25, 'Roots')).toContain('at least 300 mm');
  });

  it('always asks for a visible flare, a single leader and no circling roots', () => {
    for (const kind of ['container', 'balled', 'bare_root'] as const) {
      const text = orderSpecification({ stockKind: kind, caliperMm: 30, heightM: null })
        .map((one) => one.ask)
        .join('; ');
      expect(text).toMatch(/visible/);
      expect(text).toMatch(/single straight leader/);
      expect(text).toMatch(/circling/);
    }
  });
});
