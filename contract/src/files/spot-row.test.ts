import { rowFacts, spotRowSchema, type SpotRow } from './spot-row';

const least = { ref: 'H-0101', place: 'Harbour Parade', lng: '-25.4', lat: '36.9' };
const parse = (cells: Record<string, unknown>): SpotRow => spotRowSchema.parse({ ...least, ...cells });
const faultsOf = (cells: Record<string, unknown>) => {
  const parsed = spotRowSchema.safeParse({ ...least, ...cells });
  if (!parsed.success) return parsed.error.issues.map((issue) => [String(issue.path[0]), issue.message]);
  const facts = rowFacts(parsed.data);
  return facts.ok ? [] : [[facts.column, facts.message]];
};

describe('a row of a file', () => {
  it('needs only ref, place and position', () => {
    const facts = rowFacts(parse({}));
    expect(facts).toEqual({ ok: true, facts: { ground: null, stock: null, planting: null, inspection: null } });
  });

  it('reads cells of text and values of GeoJSON alike', () => {
    const text = rowFacts(
      parse({
        soil: 'clay',
        slope_pct: '8',
        strip_width_mm: 'open',
        wire_height_m: '7.5',
        stony: 'yes',
        percolation: '0:300 30:280',
      }),
    );
    const native = rowFacts(
      parse({
        soil: 'clay',
        slope_pct: 8,
        strip_width_mm: 'open',
        wire_height_m: 7.5,
        stony: true,
        percolation: '0:300 30:280',
        lng: -25.4,
        lat: 36.9,
      }),
    );
    expect(text).toEqual(native);
    expect(text).toMatchObject({
      facts: {
        ground: {
          soil: 'clay',
          slopePct: 8,
          stripWidthMm: 'open',
          wireHeightM: 7.5,
          stony: true,
          percolation: [
            { minute: 0, levelMm: 300 },
            { minute: 30, levelMm: 280 },
          ],
        },
      },
    });
  });

  it('reads circling roots, and tells none found from not looked', () => {
    const planted = {
      planted_on: '2026-01-10',
      flare_above_grade_mm: '40 42',
      hole_width_mm: '1000',
      first_water_l: '50',
      inspected_on: '2026-02-10',
    };
    const roots = (cell: string) => {
      const facts = rowFacts(parse({ ...planted, circling_roots: cell }));
      return facts.ok ? facts.facts.inspection?.circlingRoots : facts.message;
    };
    expect(roots('350-40:18 200-230:12')).toEqual([
      { arc: { fromDeg: 350, toDeg: 40 }, diameterMm: 18 },
      { arc: { fromDeg: 200, toDeg: 230 }, diameterMm: 12 },
    ]);
    expect(roots('none')).toEqual([]);
    expect(roots('')).toBeNull();
  });

  it.each([
    [{ lat: '95' }, 'lat'],
    [{ ball_diameter_mm: 'wide', stock_kind: 'container' }, 'ball_diameter_mm'],
    [{ height_m: '40000', stock_kind: 'container' }, 'height_m'],
    [{ soil: 'mud' }, 'soil'],
    [{ percolation: '300 280 260' }, 'percolation'],
    [{ strip_width_mm: '12' }, 'strip_width_mm'],
    [{ stony: 'perhaps' }, 'stony'],
    [{ planted_on: '31/01/2026' }, 'planted_on'],
    [{ ref: '' }, 'ref'],
    [{ records: '{"not":"a list"}' }, 'records'],
    [{ caliper_mm: '50' }, 'stock_kind'],
    [
      { stock_kind: 'container', caliper_mm: '50', height_m: '3', ball_diameter_mm: '450', ball_height_mm: '400' },
      'top_roots_depth_mm',
    ],
    [
      {
        stock_kind: 'container',
        caliper_mm: '50',
        height_m: '3',
        ball_diameter_mm: '450',
        ball_height_mm: '400',
        top_roots_depth_mm: '410',
      },
      'top_roots_depth_mm',
    ],
    [{ planted_on: '2026-01-10' }, 'flare_above_grade_mm'],
    [{ inspected_on: '2026-01-10' }, 'planted_on'],
    [{ probe: 'dry' }, 'inspected_on'],
  ])('refuses %j at its column', (cells, column) => {
    expect(faultsOf(cells).map(([at]) => at)).toEqual([column]);
  });
});
