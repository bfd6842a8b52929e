export const skills = ['leads', 'has_planted', 'first_time'] as const;
export type Skill = (typeof skills)[number];

/** Somebody who comes to plant. */
export interface Helper {
  readonly id: string;
  readonly skill: Skill;
  readonly minor: boolean;
  /** Of a minor: the grown-up of the same day whom they stay with. */
  readonly guardianId: string | null;
  /** Those who give the same word stay together. */
  readonly together: string | null;
  /** May not lift. */
  readonly noLifting: boolean;
  /** Has signed the waiver; for a minor the guardian has. */
  readonly waiver: boolean;
}

/** Estimates of how hands add up; a programme's own. */
export interface TeamRules {
  readonly least: number;
  readonly most: number;
  readonly usual: number;
  /** What one of each counts for, a grown-up who has planted being 1. */
  readonly worth: Readonly<Record<Skill, number>>;
  readonly minorWorth: number;
  /** Hands beyond so many at one pit count half. */
  readonly crowdFrom: number;
}
export const defaultTeamRules: TeamRules = {
  least: 2,
  most: 5,
  usual: 3,
  worth: { leads: 1, has_planted: 1, first_time: 0.85 },
  minorWorth: 0.5,
  crowdFrom: 4,
};

export type LeftWhy =
  'no_waiver' | 'no_guardian' | 'together_too_many' | 'no_lead' | 'no_room' | 'no_time' | 'too_heavy';

/** Hands a team counts for: each by what they are worth, those beyond the crowd half. */
export function strengthOf(helpers: readonly Helper[], rules: TeamRules): number {
  const worths = helpers
    .map(({ skill, minor }) => (minor ? rules.minorWorth : rules.worth[skill]))
    .sort((a, b) => b - a);
  return worths.reduce((sum, worth, i) => sum + (i < rules.crowdFrom ? worth : worth / 2), 0);
}

/** People who are assigned together or not at all. */
export interface HelperUnit {
  readonly helpers: readonly Helper[];
  readonly leads: boolean;
  readonly lifters: number;
}

/**
 * Joins who stays together: minors with their guardians, and who gave the same word. Who may not be assigned is left
 * out with why: without a waiver, a minor whose guardian does not come, more together than a team holds.
 */
export function formUnits(
  helpers: readonly Helper[],
  rules: TeamRules,
): { units: readonly HelperUnit[]; left: readonly { id: string; why: LeftWhy }[] } {
  const left: { id: string; why: LeftWhy }[] = [];
  const signed = helpers.filter((one) => keep(one, one.waiver, 'no_waiver'));
  const grown = new Set(signed.filter(({ minor }) => !minor).map(({ id }) => id));
  const able = signed.filter((one) => {
    const guarded = !one.minor || (one.guardianId !== null && grown.has(one.guardianId));
    return keep(one, guarded, 'no_guardian');
  });
  function keep({ id }: Helper, yes: boolean, why: LeftWhy): boolean {
    if (!yes) left.push({ id, why });
    return yes;
  }
  const units: HelperUnit[] = [];
  for (const group of groupsOf(able)) {
    if (group.length > rules.most) left.push(...group.map(({ id }) => ({ id, why: 'together_too_many' as const })));
    else units.push(unitOf(group));
  }
  return { units, left };
}

const unitOf = (helpers: readonly Helper[]): HelperUnit => ({
  helpers,
  leads: helpers.some(({ skill, minor }) => skill === 'leads' && !minor),
  lifters: helpers.filter(({ minor, noLifting }) => !minor && !noLifting).length,
});

/** Connected by guardian or by word, in the order given. */
function groupsOf(helpers: readonly Helper[]): Helper[][] {
  const groupOf = new Map<string, Helper[]>();
  const wordOf = new Map<string, string>();
  for (const one of helpers) groupOf.set(one.id, [one]);
  const join = (a: string, b: string) => {
    const [into, from] = [groupOf.get(a), groupOf.get(b)];
    if (!into || !from || into === from) return;
    into.push(...from);
    for (const { id } of from) groupOf.set(id, into);
  };
  for (const { id, guardianId, minor, together } of helpers) {
    if (minor && guardianId) join(guardianId, id);
    if (!together) continue;
    const first = wordOf.get(together);
    if (first === undefined) wordOf.set(together, id);
    else join(first, id);
  }
  return [...new Set(groupOf.values())];
}
