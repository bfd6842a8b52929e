import fc from 'fast-check';
import {
  defaultGroundRules,
  defaultPercolationLimits,
  unknownAssessment,
  unknownGround,
  wishes,
  type Assessment,
  type GroundFacts,
} from '../ground';
import { fitOf, matchSite, rankSpecies, saltBornDsM, type MatchSite } from './fit';
import { shippedSpecies } from './library';
import { defaultMatchRules } from './match-rules';
import { matureHeightM, type Species } from './species';

const ground: GroundFacts = {
  ...unknownGround,
  soil: 'loam',
  slopePct: 0,
  stripWidthMm: 2400,
  wireHeightM: 'none',
  percolation: [0, 1, 2, 3].map((i) => ({ minute: i * 30, levelMm: 300 - 20 * i })),
};
const assessment: Assessment = {
  ...unknownAssessment('2026-11-20'),
  owner: 'road',
  privateLines: 'none',
  sunHours: 9,
  openSoilM2: 60,
  soilDepthMm: 900,
  soilPh: 6.5,
  saltDsM: 1,
  wind: 'open',
};
const site = (a: Partial<Assessment> = {}, g: Partial<GroundFacts> = {}): MatchSite =>
  matchSite({
    ground: { ...ground, ...g },
    assessment: { ...assessment, ...a },
    rules: defaultGroundRules,
    matchRules: defaultMatchRules,
    drainage: defaultPercolationLimits,
  });
const species = (name: string): Species => {
  const found = shippedSpecies.find(({ botanical }) => botanical === name);
  if (!found) throw new Error(name);
  return found;
};
const left = (name: string, at: MatchSite): string[] => {
  const fit = fitOf(species(name), at);
  return fit.kind === 'excluded' ? fit.because.map(({ code }) => code) : [];
};
const anySpecies = fc.constantFrom(...shippedSpecies);

describe('fit of a species to a spot', () => {
  it.each([
    ['Quercus robur', 'fit_too_tall', site({}, { wireHeightM: 8 })],
    ['Platanus × hispanica', 'fit_too_large', site({ clearances: [{ thing: 'building', distanceM: 3, by: 'tape' }] })],
    ['Malus floribunda', 'fit_no_room', site({ clearances: [{ thing: 'hydrant', distanceM: 0.5, by: 'tape' }] })],
    ['Tipuana tipu', 'fit_soil_short', site({ openSoilM2: 10 })],
    [
      'Olea europaea',
      'fit_drowns',
      site({}, { percolation: [0, 1, 2, 3].map((i) => ({ minute: i * 60, levelMm: 300 - 2 * i })) }),
    ],
    ['Acer rubrum', 'fit_ph', site({ soilPh: 8.2 })],
    ['Tilia cordata', 'fit_salt', site({ saltDsM: 6 })],
    ['Jacaranda mimosifolia', 'fit_shade', site({ sunHours: 2 })],
    ['Crataegus monogyna', 'fit_thorns', site({ wishes: ['no_thorns'] })],
    ['Taxus baccata', 'fit_toxic', site({ wishes: ['not_toxic'] })],
  ] as const)('leaves out %s by %s', (name, code, at) => {
    expect(left(name, at)).toContain(code);
  });

  it('leaves out what the winter kills', () => {
    const cold = { ...defaultMatchRules, climate: { ...defaultMatchRules.climate, lowestC: -12 } };
    expect(left('Jacaranda mimosifolia', { ...site(), matchRules: cold })).toContain('fit_frost');
    expect(left('Acer campestre', { ...site(), matchRules: cold })).toEqual([]);
  });

  it('always excludes at a hard limit, whatever else speaks for the species', () => {
    const height = fc.double({ min: 4, max: 30, noNaN: true });
    fc.assert(
      fc.property(anySpecies, height, (one, wireHeightM) => {
        const fit = fitOf(one, site({}, { wireHeightM }));
        const tooTall = matureHeightM(one) > wireHeightM - defaultGroundRules.wireHeadroomM;
        return !tooTall || fit.kind === 'excluded';
      }),
    );
    const salt = fc.double({ min: 0, max: 20, noNaN: true });
    fc.assert(
      fc.property(anySpecies, salt, (one, saltDsM) => {
        const fit = fitOf(one, site({ saltDsM }));
        return saltDsM <= saltBornDsM[one.salt] || fit.kind === 'excluded';
      }),
    );
  });

  it('never lowers the score for more soil, nor excludes for it', () => {
    const area = fc.double({ min: 1, max: 200, noNaN: true });
    fc.assert(
      fc.property(anySpecies, area, area, (one, a, b) => {
        const less = fitOf(one, site({ openSoilM2: Math.min(a, b) }));
        const more = fitOf(one, site({ openSoilM2: Math.max(a, b) }));
        if (less.kind === 'excluded') return true;
        return more.kind === 'fits' && more.score >= less.score - 1e-12;
      }),
    );
  });

  it('scores within 0 and 1, as the weighted mean of its parts', () => {
    const asked = fc.subarray([...wishes].filter((wish) => wish !== 'evergreen'));
    fc.assert(
      fc.property(anySpecies, asked, fc.double({ min: 3, max: 14, noNaN: true }), (one, wanted, sunHours) => {
        const fit = fitOf(one, site({ wishes: wanted, sunHours }));
        if (fit.kind === 'excluded') return fit.because.length > 0;
        const weight = fit.parts.reduce((sum, part) => sum + part.weight, 0);
        const mean = fit.parts.reduce((sum, part) => sum + part.weight * part.score, 0) / weight;
        return fit.parts.every(({ score }) => score >= 0 && score <= 1) && Math.abs(mean - fit.score) < 1e-12;
      }),
    );
  });

  it('leaves out what drowns by the lines the practice draws', () => {
    const slow = { percolation: [0, 1, 2, 3].map((i) => ({ minute: 30 * i, levelMm: 300 - 12 * i })) };
    const drowning = shippedSpecies.find(({ wet }) => wet === 'no');
    if (!drowning) throw new Error('every species bears standing water');
    const why = (drainage = defaultPercolationLimits) => {
      const fit = fitOf(drowning, { ...site({}, slow), drainage });
      return fit.kind === 'excluded' ? fit.because.map(({ code }) => code) : [];
    };
    expect(why()).toContain('fit_drowns');
    expect(why({ ...defaultPercolationLimits, goodFromMmPerH: 20 })).not.toContain('fit_drowns');
  });

  it('counts what nobody measured half, and excludes nothing for it', () => {
    const blank = matchSite({
      ground: unknownGround,
      assessment: null,
      rules: defaultGroundRules,
      matchRules: defaultMatchRules,
      drainage: defaultPercolationLimits,
    });
    const fit = fitOf(species('Quercus ilex'), blank);
    expect(fit).toMatchObject({ kind: 'fits' });
    if (fit.kind === 'fits')
      expect(fit.parts.find(({ part }) => part === 'soil')).toMatchObject({
        score: 0.5,
        because: { code: 'fit_unknown' },
      });
  });

  it('ranks the best first and names why the others are out', () => {
    const { fitting, excluded } = rankSpecies(shippedSpecies, site({}, { wireHeightM: 9 }));
    expect(fitting.length + excluded.length).toBe(shippedSpecies.length);
    expect(excluded.every(({ because }) => because.length > 0)).toBe(true);
    const scores = fitting.map(({ fit }) => fit.score);
    expect([...scores].sort((a, b) => b - a)).toEqual(scores);
  });

  it('prefers a tree that bears drought where summers are dry', () => {
    const dry = rankSpecies([species('Betula nigra'), species('Celtis australis')], site());
    expect(dry.fitting[0]?.species.botanical).toBe('Celtis australis');
  });
});

describe('what nobody measured', () => {
  const chemistry = (a: Partial<Assessment>) => {
    const fit = fitOf(species('Quercus ilex'), site(a));
    if (fit.kind !== 'fits') throw new Error('left out');
    return fit.parts.find(({ part }) => part === 'chemistry')?.score ?? NaN;
  };
  it('of salt or acidity never scores better than the best measure, nor worse than the worst', () => {
    const [none, most] = [chemistry({ saltDsM: 0 }), chemistry({ saltDsM: saltBornDsM[species('Quercus ilex').salt] })];
    const unmeasured = chemistry({ saltDsM: null });
    expect([unmeasured < none, unmeasured > most]).toEqual([true, true]);
    expect(chemistry({ soilPh: null })).toBeLessThan(chemistry({ soilPh: 6.5 }));
  });
  it('counts half where neither is known', () => {
    expect(chemistry({ saltDsM: null, soilPh: null })).toBe(0.5);
  });
});
