import { withChoice, fieldDefault, type ChoiceValue } from '../practice';
import { amendmentsOf, type AmendmentSite } from './amendments';

const site: AmendmentSite = {
  backfillL: 200,
  ringMm: 2000,
  outsideM2: 2,
  wholeM2: 3,
  pitM2: 1,
  slow: false,
  fast: false,
  autumn: false,
  soilPh: null,
};
const mixed = (made: Readonly<Record<string, ChoiceValue>>, at: Partial<AmendmentSite> = {}) =>
  amendmentsOf(
    Object.entries(made).reduce((one, [path, value]) => withChoice(one, `backfill.${path}`, value), fieldDefault),
    { ...site, ...at },
  );
const codes = (...args: Parameters<typeof mixed>) => mixed(...args).because.map(({ code }) => code);

describe('what is mixed in', () => {
  it('may be several things, each with its place', () => {
    const { each, inFillL } = mixed({
      material: 'bark_fines',
      share: 0.25,
      'second.material': 'manure',
      'second.share': 0.1,
      'second.place': 'on_base',
      'third.material': 'coarse_compost',
      'third.share': 0.2,
      'third.place': 'on_top',
    });
    expect(each).toEqual([
      { material: 'bark_fines', place: 'in_fill', litres: 50, inFillL: 50, turnedL: 0 },
      { material: 'manure', place: 'on_base', litres: 20, inFillL: 20, turnedL: 0 },
      // On top of the fill it takes none of its room.
      { material: 'coarse_compost', place: 'on_top', litres: 40, inFillL: 0, turnedL: 0 },
    ]);
    expect(inFillL).toBe(70);
  });
  it('goes by bags where the practice counts bags: two of 60 L, whatever the share', () => {
    expect(mixed({ material: 'bark_fines', share: 0.5, bags: 2, place: 'on_top' }).each[0]?.litres).toBe(120);
    expect(codes({ material: 'bark_fines', bags: 1 })).toContain('amendment_bags');
  });
  it('over a whole area: outside the pit, or all of it first, to the depth the practice digs', () => {
    const area = { material: 'coarse_compost', share: 0.5 } as const;
    // 2 m² · 200 mm · 0.5, and 3 m² · 300 mm · 0.5 of which a third lies where the pit is dug.
    expect(mixed({ ...area, place: 'whole_area' }).each[0]).toMatchObject({ litres: 200, inFillL: 0, turnedL: 400 });
    const first = mixed({ ...area, place: 'area_then_hole', areaDepthMm: 300 }).each[0];
    expect(first?.litres).toBe(450 - (150 - 120));
    expect(first?.inFillL).toBe(120);
    expect(mixed({ ...area, share: 0.2, place: 'area_then_hole' }).each[0]).toMatchObject({ litres: 120, inFillL: 40 });
  });
  it('never makes more than six tenths of the fill', () => {
    const much = {
      material: 'bark_fines',
      share: 0.5,
      'second.material': 'coarse_compost',
      'second.share': 0.5,
    } as const;
    expect(mixed(much).inFillL).toBeCloseTo(120, 9);
    expect(codes(much)).toContain('amendment_capped');
  });
  it('leaves out what wicks in slow soil and what feeds in autumn, and takes the rest', () => {
    const both = { material: 'peat', share: 0.1, 'second.material': 'bark_fines', 'second.share': 0.1 } as const;
    expect(mixed(both, { slow: true }).each.map(({ material }) => material)).toEqual(['bark_fines']);
    for (const material of ['manure', 'potting_mix', 'garden_mix'] as const) {
      expect(mixed({ material, share: 0.1 }, { autumn: true })).toMatchObject({
        each: [],
        because: [{ code: 'amendment_fed_in_autumn' }],
      });
      expect(codes({ material, share: 0.1 })).toContain('amendment_fertilised');
    }
    expect(mixed({ material: 'coarse_compost', share: 0.1 }, { autumn: true }).each).toHaveLength(1);
  });
  it('names acid on acid and alkaline on alkaline where the soil was tested, and nothing in between', () => {
    expect(codes({ material: 'peat', share: 0.1 }, { soilPh: 5.2 })).toContain('amendment_acid_on_acid');
    expect(codes({ material: 'bark_fines', share: 0.1 }, { soilPh: 5.2 })).toContain('amendment_acid_on_acid');
    expect(codes({ material: 'coarse_compost', share: 0.1 }, { soilPh: 8.1 })).toContain(
      'amendment_alkaline_on_alkaline',
    );
    for (const soilPh of [null, 6.8]) {
      expect(codes({ material: 'peat', share: 0.1 }, { soilPh })).toEqual(['amendment_share']);
    }
    expect(codes({ material: 'peat', share: 0.1 }, { soilPh: 8.1 })).toEqual(['amendment_share']);
  });
  it('says what is not known of a bag, and what dries in fast soil', () => {
    expect(codes({ material: 'topsoil', share: 0.1 })).toContain('amendment_ph_unknown');
    expect(codes({ material: 'bark_fines', share: 0.1 }, { fast: true })).toContain('amendment_dries');
    expect(codes({ material: 'coarse_compost', share: 0.1 }, { fast: true })).not.toContain('amendment_dries');
  });
});
