import { causes, causeTable, checks, evidences, overfullCheck, type CauseRules } from './cause-table';
import { diagnose } from './diagnosis';
import { diagnosisCases } from './diagnosis-cases';

const { likelihood } = causeTable();

describe('cases written before the table', () => {
  it.each(diagnosisCases.map((one) => [one.said, one] as const))(
    '%s',
    (_said, { seen, absent = [], cause, nextCheck }) => {
      const found = diagnose({ seen, absent });
      if (cause) expect(found.causes[0]?.cause).toBe(cause);
      if (nextCheck) expect(found.checks[0]?.check).toBe(nextCheck);
      expect(cause ?? nextCheck).toBeDefined();
    },
  );
  it('are twenty at least', () => {
    expect(diagnosisCases.length).toBeGreaterThanOrEqual(20);
  });
});

describe('a diagnosis', () => {
  it('sums to one, likeliest first, whatever is known', () => {
    for (const one of evidences) {
      const { causes: ranked } = diagnose({ seen: [one] });
      expect(ranked.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
      const shares = ranked.map(({ share }) => share);
      expect([...shares].sort((a, b) => b - a)).toEqual(shares);
      expect(ranked.map(({ cause }) => cause).sort()).toEqual([...causes].sort());
    }
  });
  it('does not depend on the order, nor on what is said twice', () => {
    const seen = ['wilting', 'probe_wet', 'slow_soil'] as const;
    const turned = diagnose({ seen: [...seen].reverse() }).causes.map(({ cause, share }) => [cause, share.toFixed(12)]);
    const twice = diagnose({ seen: [...seen, 'wilting'] }).causes.map(({ cause, share }) => [cause, share.toFixed(12)]);
    const plain = diagnose({ seen }).causes.map(({ cause, share }) => [cause, share.toFixed(12)]);
    expect(turned).toEqual(plain);
    expect(twice).toEqual(plain);
  });
  it('is never sure: each likelihood lies between a twentieth and nineteen twentieths', () => {
    for (const evidence of evidences) {
      for (const cause of causes) {
        expect(likelihood(evidence, cause)).toBeGreaterThanOrEqual(0.05);
        expect(likelihood(evidence, cause)).toBeLessThanOrEqual(0.95);
      }
    }
    // Answers that shut each other out are no likelier together than one of them.
    for (const { answers } of Object.values(checks)) {
      for (const cause of causes) {
        const sum = answers.reduce((all, one) => all + likelihood(one, cause), 0);
        expect(sum).toBeLessThanOrEqual(1 + 1e-9);
      }
    }
  });
  it('by hand: leaves that hang over a dry probe', () => {
    // 26 × 0.65 × 0.75 of all that is summed the same way.
    const weigh = causes.map((cause) => likelihood('wilting', cause) * likelihood('probe_dry', cause));
    expect(weigh[0]).toBeCloseTo(0.65 * 0.75, 12);
    const { causes: ranked } = diagnose({ seen: ['wilting', 'probe_dry'] });
    const drowned = ranked.find(({ cause }) => cause === 'drowned');
    const dry = ranked.find(({ cause }) => cause === 'too_dry');
    expect((dry?.share ?? 0) / (drowned?.share ?? 1)).toBeCloseTo((26 * 0.65 * 0.75) / (16 * 0.55 * 0.05), 6);
    expect(dry?.speaksFor).toEqual(expect.arrayContaining(['wilting', 'probe_dry']));
    expect(drowned?.speaksAgainst).toContain('probe_dry');
  });
  it('asks for no check that was made, and each tells something or nothing, never less', () => {
    const all = diagnose({ seen: [] }).checks;
    expect(all).toHaveLength(Object.keys(checks).length);
    for (const { bits } of all) expect(bits).toBeGreaterThanOrEqual(0);
    expect(diagnose({ seen: ['probe_moist'] }).checks.map(({ check }) => check)).not.toContain('probe');
    expect(diagnose({ seen: [], absent: ['slow_soil'] }).checks.map(({ check }) => check)).not.toContain('percolation');
  });
  it('refuses what is seen and absent at once', () => {
    expect(() => diagnose({ seen: ['pests'], absent: ['pests'] })).toThrow(
      'absent must not hold what is seen, got pests',
    );
  });
});

describe('a table as a programme holds it', () => {
  const held: CauseRules = { parts: { drowned: 48 }, likelyPct: { wilting: { too_dry: 20 } } };
  it('counts with what is held otherwise, and with the table that ships for the rest', () => {
    const by = causeTable(held);
    expect([by.prior('drowned'), by.likelihood('wilting', 'too_dry')]).toEqual([48, 0.2]);
    expect([by.prior('too_dry'), by.likelihood('wilting', 'drowned')]).toEqual([26, likelihood('wilting', 'drowned')]);
    // Thrice the parts for drowned, and a sign that dryness shows seldom: 26 × 0.2 against 48 × 0.55.
    const shares = diagnose({ seen: ['wilting'] }, held).causes;
    const share = (cause: string) => shares.find((one) => one.cause === cause)?.share ?? 0;
    expect(share('drowned') / share('too_dry')).toBeCloseTo((48 * 0.55) / (26 * 0.2), 9);
    expect(diagnose({ seen: ['wilting'] }).causes[0]?.cause).toBe('too_dry');
  });
  it('names a check whose answers are likelier together than certain', () => {
    expect(overfullCheck(held)).toBeNull();
    const likelyPct = { probe_dry: { too_dry: 80 } };
    // 80 and, as it ships, 20 moist and 5 wet.
    expect(overfullCheck({ parts: {}, likelyPct })).toEqual({ check: 'probe', cause: 'too_dry', pct: 105 });
  });
});
