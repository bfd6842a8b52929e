import { addDaysTo, monthsBetween, type IsoDate } from '../calendar';
import { drainsSlowly } from '../ground';
import {
  compressedSharePct,
  isPressing,
  lookSigns,
  shootsAreShort,
  waitedForMonths,
  type DiagnosisInput,
  type Evidence,
  type Inspection,
  type LookSign,
} from '../inspect';
import type { RootWork } from '../day';
import type { BalancedDay } from '../water';
import { ofKind, type FieldRecord } from './record';
import type { SpotBasis } from './spot-basis';

/** Signs as the table of causes has them; what speaks for itself is no evidence. */
const evidenceOf: Partial<Readonly<Record<LookSign, Evidence>>> = {
  wilting: 'wilting',
  pale_leaves: 'pale_leaves',
  yellow_between_veins: 'yellow_between_veins',
  scorched_edges: 'scorched_edges',
  small_leaves: 'small_leaves',
  thin_crown: 'thin_crown',
  leafless: 'leafless',
  shedding: 'shedding',
  early_colour: 'early_colour',
  sprouts_at_base: 'sprouts_at_base',
  trunk_wound: 'trunk_wound',
  pests: 'pests',
  traffic_on_roots: 'traffic',
};
const diebackFromPct = 10;
/** Days of stress or of drowning of so many past days that count; and salt of soil and of water that harms. Estimates */
const recent = { days: 60, least: 5 } as const;
const saltFrom = { soilDsM: 2, waterDsM: 1.5 } as const;

export interface EvidenceInput {
  readonly look: Inspection;
  readonly records: readonly FieldRecord[];
  readonly basis: SpotBasis;
  /** The tree's balance until now; empty where it is not followed. */
  readonly days: readonly Pick<BalancedDay, 'day' | 'stressed' | 'waterlogged'>[];
}

/** Whether a tenth of the crown is dead, or its tip over green wood; `null` where nobody looked at either. */
function diesBack({ diebackPct, aliveAt }: Inspection): boolean | null {
  const { top, middle, base } = aliveAt ?? {};
  if (top !== undefined && top !== 'green' && (middle === 'green' || base === 'green')) return true;
  return diebackPct === undefined ? null : diebackPct >= diebackFromPct;
}

/** Whether a look found what many causes share: there is something to find out. */
export const asksForDiagnosis = (look: Inspection): boolean =>
  (look.signs ?? []).some((sign) => evidenceOf[sign] !== undefined) ||
  diesBack(look) === true ||
  shootsAreShort(look) === true;

/** What a look and the record of a tree say for and against each cause; what nobody looked at is in neither list. */
export function treeEvidence({ look, records, basis, days }: EvidenceInput): DiagnosisInput {
  // What is deep, and what presses much, is drawn where the tree's own practice draws it.
  const { flare, roots } = basis.care.inspection;
  const seen = new Set<Evidence>();
  const absent = new Set<Evidence>();
  const put = (evidence: Evidence, is: boolean): void => void (is ? seen : absent).add(evidence);
  if (look.signs) {
    for (const sign of lookSigns) {
      const evidence = evidenceOf[sign];
      if (evidence) put(evidence, look.signs.includes(sign));
    }
  }
  const dead = diesBack(look);
  if (dead !== null) put('dieback', dead);
  const short = shootsAreShort(look);
  if (short !== null) put('short_shoots', short);
  if (look.probe === 'dry' || look.probe === 'slightly_dry') seen.add('probe_dry');
  if (look.probe === 'moist') seen.add('probe_moist');
  if (look.probe === 'wet' || look.probe === 'saturated') seen.add('probe_wet');
  if (look.flareDepthMm !== null && look.flareDepthMm < flare.clearFromMm) seen.add('flare_visible');
  if (look.flareDepthMm !== null && look.flareDepthMm >= flare.examineFromMm) seen.add('flare_deep');
  if (look.circlingRoots) {
    const pressed = compressedSharePct(look.circlingRoots.filter(isPressing).map(({ arc }) => arc));
    if (pressed >= roots.stagedFromPct) seen.add('roots_pressing');
    if (pressed === 0) seen.add('roots_clear');
  }
  const since = addDaysTo(look.inspectedOn, -recent.days);
  const past = days.filter(({ day }) => day > since && day <= look.inspectedOn);
  if (past.length >= recent.least) {
    put('stress_days', past.filter(({ stressed }) => stressed).length >= recent.least);
    put('waterlogged_days', past.filter(({ waterlogged }) => waterlogged).length >= recent.least);
  }
  if (basis.percolation) put('slow_soil', drainsSlowly(basis.percolation));
  const [soil, water] = [basis.assessment?.saltDsM ?? null, basis.assessment?.irrigation?.saltDsM ?? null];
  if (soil !== null || water !== null) {
    const salty = (soil ?? 0) >= saltFrom.soilDsM || (water ?? 0) >= saltFrom.waterDsM;
    seen.add(salty ? 'salt_found' : 'salt_low');
  }
  const planting = ofKind(records, 'planting').at(-1)?.facts;
  const bound = cameBound(basis, planting?.roots);
  if (bound !== null) put('pot_bound', bound);
  const plantedOn: IsoDate | undefined = planting?.plantedOn;
  if (plantedOn) put('first_year', monthsBetween(plantedOn, look.inspectedOn) < waitedForMonths);
  return { seen: [...seen], absent: [...absent] };
}

/** Whether circling roots went into the ground with it; `null` where nobody saw, or they were put right at planting. */
function cameBound({ stock, care }: SpotBasis, roots: RootWork | undefined): boolean | null {
  if (roots === 'left') return true;
  if (roots === 'corrected') return null;
  const pct = stock && stock.kind !== 'bare_root' ? stock.circlingPct : undefined;
  if (pct === undefined) return roots === 'none_needed' ? false : null;
  return pct > care.receiving.circlingCorrectPct;
}
