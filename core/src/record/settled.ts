import { addDaysTo, addMonthsTo, type IsoDate } from '../calendar';
import type { Practice, RemedyCode } from '../practice';
import type { Decision } from './decision';
import { because } from './reasons';
import { ofKind, type FieldRecord } from './record';

/** Remedies that somebody's word settles: what an arborist says, what is declined, who was told of a pest. */
export function settledRemedies(kept: readonly FieldRecord[]): { remedy: RemedyCode; on: IsoDate }[] {
  const arborists: readonly RemedyCode[] = ['refer_arborist', 'collar_excavation'];
  return [
    ...ofKind(kept, 'arborist_answer').flatMap(({ facts }) =>
      arborists.map((remedy) => ({ remedy, on: facts.answeredOn })),
    ),
    ...ofKind(kept, 'declined').map(({ facts }) => ({ remedy: facts.remedy, on: facts.decidedOn })),
    ...ofKind(kept, 'pest_told').map(({ facts }) => ({ remedy: 'name_pest' as const, on: facts.toldOn })),
  ];
}

/** An arborist who says that a tree is to be taken out is heard, until that is told as done or somebody decides otherwise. */
export function arboristDecision(
  kept: readonly FieldRecord[],
  { practice, since }: { readonly practice: Practice; readonly since: IsoDate },
): Decision[] {
  const answer = ofKind(kept, 'arborist_answer').findLast(({ facts }) => facts.answeredOn >= since)?.facts;
  if (answer?.advice !== 'take_out') return [];
  const { answeredOn, arborist } = answer;
  const ends = [
    ...ofKind(kept, 'declined').map(({ facts }) => ({ remedy: facts.remedy, on: facts.decidedOn })),
    ...ofKind(kept, 'remedy').map(({ facts }) => ({ remedy: facts.remedy, on: facts.doneOn })),
  ];
  if (ends.some(({ remedy, on }) => remedy === 'replace_tree' && on >= answeredOn)) return [];
  const days = practice.inspection.remedyDaysOf.replace_tree ?? practice.inspection.remedyDays.act;
  return [
    {
      ...{ kind: 'do_remedy', stage: 'inspect', level: 'act', remedy: 'replace_tree' },
      dueOn: addDaysTo(answeredOn, days),
      because: [because('arborist_take_out', { on: answeredOn, arborist })],
    },
  ];
}

/** What another tree may be claimed for while a warranty runs. */
const claimable: readonly RemedyCode[] = [
  'replace_tree',
  'lift_and_replant',
  'collar_excavation',
  'refer_arborist',
  'stage_root_cuts',
];

export const warrantyEnds = (plantedOn: IsoDate, { inspection: { warrantyMonths } }: Practice): IsoDate | null =>
  warrantyMonths < 1 ? null : addMonthsTo(plantedOn, Math.round(warrantyMonths));

/** Trouble found while a warranty runs is claimed before it ends; after that nobody is asked any more. */
export function claimDecision(
  kept: readonly FieldRecord[],
  of: { readonly practice: Practice; readonly plantedOn: IsoDate; readonly open: readonly Decision[] },
): Decision[] {
  const endsOn = warrantyEnds(of.plantedOn, of.practice);
  const found = of.open.find(
    ({ remedy, level }) => remedy !== null && claimable.includes(remedy) && (level === 'act' || level === 'urgent'),
  );
  const claimed = ofKind(kept, 'claim').some(({ facts }) => facts.claimedOn >= of.plantedOn);
  if (endsOn === null || !found?.remedy || claimed) return [];
  return [
    {
      ...{ kind: 'claim', stage: 'inspect', level: 'act', remedy: null },
      dueOn: endsOn,
      because: [because('warranty_runs', { endsOn, remedy: found.remedy })],
    },
  ];
}
