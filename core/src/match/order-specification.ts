import type { StockKind } from '../stock';

export interface SpecificationItem {
  readonly item: string;
  readonly ask: string;
}

/** Ball diameter asked for each millimetre of caliper, after the usual nursery standards. */
const ballPerCaliper: Readonly<Record<'container' | 'balled', number>> = { container: 9, balled: 10 };
/** Root spread of bare-root stock for each millimetre of caliper. */
const spreadPerCaliper = 12;

/** What a delivery is held to, line by line: to be agreed in writing before the order, measured on arrival. */
export function orderSpecification(line: {
  stockKind: StockKind;
  caliperMm: number;
  heightM: number | null;
}): SpecificationItem[] {
  const { stockKind, caliperMm, heightM } = line;
  const roots =
    stockKind === 'bare_root'
      ? { item: 'Roots', ask: `spread of at least ${caliperMm * spreadPerCaliper} mm, moist, unbroken, none circling` }
      : {
          item: stockKind === 'container' ? 'Container' : 'Ball',
          ask: `diameter at least ${Math.round(caliperMm * ballPerCaliper[stockKind])} mm, firm, roots to its edge, none thicker than a finger circling`,
        };
  return [
    { item: 'Caliper', ask: `${caliperMm} mm at 150 mm above the flare (300 mm once over 100 mm), − 0 / + 10 mm` },
    ...(heightM === null ? [] : [{ item: 'Height', ask: `about ${heightM.toFixed(1)} m` }]),
    roots,
    { item: 'Flare', ask: 'visible, topmost structural roots within 50 mm of the surface' },
    { item: 'Stem', ask: 'single straight leader, no wounds, no stubs, no ties left in the bark' },
    { item: 'Crown', ask: 'typical of the species, sound branch unions, well rooted and hardened off' },
    { item: 'Name', ask: 'true to name, each tree or bundle labelled with its botanical name' },
  ];
}
