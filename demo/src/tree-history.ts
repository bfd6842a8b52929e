import {
  addDaysTo,
  addMonthsTo,
  daysBetween,
  fieldDefault,
  groundPercolationClass,
  judgeInspection,
  monthsBetween,
  pitPlan,
  remedyProofs,
  scheduledLook,
  tapSeen,
  type Anchor,
  type CirclingRoot,
  type FieldRecord,
  type GroundFacts,
  type Inspection,
  type InspectionVerdict,
  type IsoDate,
  type LookSign,
  type ProbeClass,
  type RecordFacts,
  type RecordKind,
  type RemedyCode,
  type RemedySeen,
  type StakeState,
  type Stock,
} from '@sombra/core';
import { seededUuid, type Dice } from './seed';
import type { Site } from './measures';
import type { Wetness } from './wetness';

export type DemoRecord = FieldRecord & { readonly by: string; readonly device: string };

/** What is true of a tree, whether or not anybody has looked. */
interface Condition {
  flareDepthMm: number;
  mulchDepthMm: number;
  mulchHeaped: boolean;
  stake: StakeState;
  roots: CirclingRoot[];
  stormed: boolean;
}

export interface Planted {
  readonly site: Site;
  readonly wetness: Wetness;
  readonly stormOn: IsoDate;
  readonly ground: GroundFacts;
  readonly stock: Stock;
  readonly plantedOn: IsoDate;
  readonly today: IsoDate;
  readonly from: Dice;
}

export function record<K extends RecordKind>(
  kind: K,
  facts: RecordFacts[K],
  made: { on: IsoDate; hour: number; by: string; device?: string; from: Dice },
): DemoRecord {
  const minute = made.from.whole(0, 59);
  const instant = Date.parse(`${made.on}T${String(made.hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}:00Z`);
  return {
    id: seededUuid(instant, made.from),
    kind,
    recordedAt: new Date(instant).toISOString(),
    supersedes: null,
    facts,
    by: made.by,
    device: made.device ?? 'phone',
  } as DemoRecord;
}

/**
 * Plants a tree by its plan and runs the core forward: looks happen when the last verdict asked for them,
 * what is found follows from the tree's condition, and most remedies get done.
 */
export function treeHistory(planted: Planted): DemoRecord[] {
  const { records, condition } = plant(planted);
  const percolation = groundPercolationClass(planted.ground, fieldDefault.percolation);
  const context = { practice: fieldDefault, plantedOn: planted.plantedOn, percolation };
  let due = scheduledLook(planted.plantedOn, planted.plantedOn, fieldDefault).on;
  let repeats = 0;
  for (;;) {
    // A finding nobody can mend is not looked at every week for ever: the inspector comes back later each time.
    const wished = addDaysTo(due, planted.from.whole(0, 9) + 30 * repeats);
    const on = stormLook(wished, condition, planted) ?? wished;
    if (on > planted.today) break;
    const look = lookAt(condition, on, planted);
    records.push(
      record('inspection', look, { on, hour: planted.from.whole(8, 16), by: 'Marta Velho-Lume', from: planted.from }),
    );
    const verdict = judgeInspection(look, context);
    repeats = verdict.level === 'urgent' ? Math.min(4, repeats + 1) : 0;
    for (const { remedy } of verdict.remedies) {
      const doneOn = addDaysTo(on, planted.from.whole(1, 12));
      if (doneOn > planted.today || !getsDone(remedy, planted)) continue;
      mend(condition, remedy);
      // Now and then somebody says it was done and leaves it at that.
      const seen = doneOn.endsWith('7') ? undefined : shownAfter(remedy, condition);
      const done = seen ? { remedy, doneOn, seen } : { remedy, doneOn };
      records.push(record('remedy', done, { on: doneOn, hour: 10, by: 'Bento Quarel', from: planted.from }));
    }
    if (standsAlone(look, verdict, planted)) {
      const signedOn = addDaysTo(on, 5);
      const signed = { signedOn, reason: '' };
      records.push(record('signed_off', signed, { on: signedOn, hour: 11, by: 'Inês Tavoro', from: planted.from }));
      break;
    }
    due = verdict.nextLook.on;
    age(condition, daysBetween(on, due), planted);
  }
  return records;
}

/** Of the older trees that ask for nothing most were signed off; the rest wait for somebody's word. */
function standsAlone(
  look: Inspection,
  { remedies }: InspectionVerdict,
  { plantedOn, today, stock, from }: Planted,
): boolean {
  const floor = addMonthsTo(plantedOn, Math.ceil((stock.caliperMm / 25) * 6));
  const old = look.inspectedOn >= floor && addDaysTo(look.inspectedOn, 5) <= today;
  const normal = (look.shootMm ?? 0) >= (look.shootBeforeMm ?? Infinity) * 0.8;
  const asks = remedies.some(({ remedy }) => remedy !== 'watch_yearly_clear');
  return old && normal && !asks && look.stake === 'none' && from.chance(0.85);
}

/** On the windward street the storm broke stakes: somebody walked there in the days after. */
function stormLook(wished: IsoDate, condition: Condition, { site, stormOn, plantedOn, from }: Planted): IsoDate | null {
  const young = monthsBetween(plantedOn, stormOn) < 24;
  if (site.trouble !== 'storm' || condition.stormed || wished <= stormOn || plantedOn >= stormOn || !young) return null;
  condition.stormed = true;
  if (condition.stake !== 'none' && from.chance(0.6)) condition.stake = 'broken';
  return from.chance(0.55) ? addDaysTo(stormOn, from.whole(1, 6)) : null;
}

function plant({ ground, stock, plantedOn, site, from }: Planted): { records: DemoRecord[]; condition: Condition } {
  // The deep lot went in by the surface of the ball: nobody probed for the topmost roots.
  const unprobed = site.trouble === 'deep_stock' && stock.kind !== 'bare_root';
  const plan = pitPlan({ ground, stock, practice: fieldDefault });
  const proudMm = plan.kind === 'plan' ? plan.proudMm.value : 40;
  const widthMm = plan.kind === 'plan' ? plan.widthMm.value : 900;
  const soakL = plan.kind === 'plan' ? plan.firstWaterL.value : 40;
  const buriedMm = unprobed ? 60 + from.between(40, 130) : 0;
  const flare = Math.round(from.around(proudMm, 7));
  const facts = {
    plantedOn,
    flareAboveGradeMm: [flare, flare + from.whole(-6, 6)],
    holeWidthMm: Math.round((widthMm * from.between(0.94, 1.05)) / 10) * 10,
    firstWaterL: Math.round(soakL * from.between(0.92, 1.1)),
    practiceId: fieldDefault.id,
    practiceVersion: fieldDefault.version,
  };
  const condition: Condition = {
    flareDepthMm: buriedMm - Math.min(flare, 40) + from.between(5, 20),
    mulchDepthMm: from.between(60, 85),
    mulchHeaped: false,
    stake: stock.heightM > 2.5 && from.chance(site.trouble === 'forgotten_stakes' ? 0.95 : 0.6) ? 'in_place' : 'none',
    roots: potBound(stock, from),
    stormed: false,
  };
  return { records: [record('planting', facts, { on: plantedOn, hour: 12, by: 'Bento Quarel', from })], condition };
}

function potBound(stock: Stock, from: Dice): CirclingRoot[] {
  if (stock.kind !== 'container' || !from.chance(0.12)) return [];
  const fromDeg = from.whole(0, 35) * 10;
  const arc = { fromDeg, toDeg: (fromDeg + from.whole(3, 16) * 10) % 360 };
  return [{ arc, diameterMm: from.whole(8, 26), touch: 'pressing', nature: 'structural' }];
}

function lookAt(condition: Condition, on: IsoDate, planted: Planted): Inspection {
  const { from } = planted;
  const yearly = monthsBetween(planted.plantedOn, on) >= 11;
  const flareDepthMm = Math.round(from.around(condition.flareDepthMm, 3));
  const found = probe(on, planted);
  return {
    inspectedOn: on,
    flareDepthMm,
    alive: 'green',
    signs: signsOf(found, { buried: yearly && flareDepthMm > 75 }),
    rocks: 'firm',
    mulchDepthMm: Math.round(condition.mulchDepthMm / 5) * 5,
    mulchContact: condition.mulchHeaped ? 'heaped' : 'clear',
    stake: condition.stake,
    probe: found,
    // Roots at the collar are only seen where somebody clears soil: at the yearly look.
    circlingRoots: yearly ? condition.roots : null,
    ...(yearly ? shoots(flareDepthMm, found, from) : {}),
    ...(yearly && condition.roots.length > 0 ? { anchors: holding(condition.roots) } : {}),
  };
}

/** This year's shoots and last year's: short where the collar is buried, or the ball is dry or stands in water. */
function shoots(flareDepthMm: number, found: ProbeClass, from: Dice): Pick<Inspection, 'shootMm' | 'shootBeforeMm'> {
  const shootBeforeMm = from.whole(18, 34) * 10;
  const poor = flareDepthMm > 75 || found === 'dry' || found === 'saturated';
  const share = poor ? from.between(0.3, 0.7) : from.between(0.85, 1.3);
  return { shootMm: Math.round((shootBeforeMm * share) / 10) * 10, shootBeforeMm };
}

/** Too dry and too wet look much alike; a buried collar shows in the crown. */
function signsOf(found: ProbeClass, { buried }: { readonly buried: boolean }): LookSign[] {
  const leaves: Partial<Record<ProbeClass, LookSign[]>> = {
    dry: ['wilting', 'scorched_edges'],
    saturated: ['wilting', 'pale_leaves'],
  };
  return [...(leaves[found] ?? []), ...(buried ? (['thin_crown'] as const) : [])];
}

/** Roots that run away from the trunk, on the sides that no root circles. */
const holding = (roots: readonly CirclingRoot[]): Anchor[] =>
  [40, 130, 210].map((past, i) => ({
    bearingDeg: ((roots[0]?.arc.toDeg ?? 0) + past) % 360,
    diameterMm: 24 + 6 * i,
  }));

/** What the last fortnight left in the ball, and what the place does with water. */
function probe(on: IsoDate, { site, wetness, from }: Planted): ProbeClass {
  const leftMm = wetness(on);
  if (site.trouble === 'ponding_clay' && leftMm > -25) return from.pick(['saturated', 'saturated', 'wet']);
  if (site.trouble === 'overwatered' && leftMm < -15) return from.pick(['saturated', 'wet', 'wet']);
  if (leftMm < -45) return from.pick(['moist', 'slightly_dry', 'slightly_dry', 'dry']);
  if (leftMm < -15) return from.pick(['moist', 'moist', 'moist', 'moist', 'slightly_dry']);
  return from.pick(['moist', 'moist', 'moist', 'moist', 'moist', 'moist', 'wet']);
}

const neverDone: readonly RemedyCode[] = [
  'lift_and_replant',
  'collar_excavation',
  'replace_tree',
  'refer_arborist',
  'stage_root_cuts',
];

function getsDone(remedy: RemedyCode, { site, from }: Planted): boolean {
  if (remedy === 'remove_stake' && site.trouble === 'forgotten_stakes') return false;
  if (remedy === 'find_drainage') return from.chance(0.4);
  return !neverDone.includes(remedy) && from.chance(0.85);
}

function mend(condition: Condition, remedy: RemedyCode): void {
  if (remedy === 'clear_to_flare' || remedy === 'watch_yearly_clear') condition.flareDepthMm = 0;
  if (remedy === 'pull_back_mulch') condition.mulchHeaped = false;
  if (remedy === 'thin_mulch' || remedy === 'top_up_mulch') condition.mulchDepthMm = 70;
  if (remedy === 'remove_stake' || remedy === 'free_tie_now' || remedy === 'mend_stake') condition.stake = 'none';
  if (remedy === 'loosen_tie') condition.stake = 'in_place';
  if (remedy === 'cut_root') condition.roots = [];
}

/** What shows that a remedy was done, as the tree then is; nothing where nothing can. */
function shownAfter(
  remedy: RemedyCode,
  { flareDepthMm, mulchDepthMm, roots, stake }: Condition,
): RemedySeen | undefined {
  const proof = remedyProofs[remedy];
  switch (proof.kind) {
    case 'measure':
      return { [proof.fact]: Math.round(proof.fact === 'flareDepthMm' ? flareDepthMm : mulchDepthMm) };
    case 'roots':
      return { circlingRoots: roots };
    case 'taps':
      if (proof.taps.includes('felt_moist')) return tapSeen.felt_moist;
      if (stake === 'none' && proof.taps.includes('off_and_firm')) return tapSeen.off_and_firm;
      return proof.taps[0] && tapSeen[proof.taps[0]];
    case 'word':
      return undefined;
  }
}

function age(condition: Condition, days: number, { site, from }: Planted): void {
  condition.mulchDepthMm = Math.max(5, condition.mulchDepthMm - days * from.between(0.05, 0.12));
  condition.flareDepthMm += days * 0.01;
  if (site.trouble === 'mulch_heaps' && from.chance(0.3)) {
    condition.mulchHeaped = true;
    condition.mulchDepthMm += 70;
  }
  if (condition.stake === 'in_place' && from.chance(days / 900)) condition.stake = from.pick(['tight', 'broken']);
  else if (condition.stake === 'tight' && from.chance(days / 300)) condition.stake = 'biting';
}

/** The last planting seasons (November to March) as first days, oldest first; the one under way comes last. */
export function plantingSeasons(today: IsoDate, count: number): IsoDate[] {
  const year = Number(today.slice(0, 4)) - (today.slice(5) < '11-01' ? 1 : 0);
  const latest = `${year}-11-03`;
  return Array.from({ length: count }, (_, i) => addMonthsTo(latest, -12 * (count - 1 - i)));
}
