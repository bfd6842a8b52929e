import type { RemedyCode } from '../practice';
import type { Level } from '../reason';
import type { Inspection } from './look';
import type { CirclingRoot, RootTouch } from './root-arcs';

/** Findings of one look, and what follows by the practice that ships: for whoever wants to check the judgement. */
export interface WorkedCase {
  /** As an inspector would say it. */
  readonly said: string;
  readonly monthsSincePlanting: number;
  readonly look: Partial<Inspection>;
  /** Of the whole look. */
  readonly level: Level;
  /** The first thing to do; `none` where there is nothing. */
  readonly remedy: RemedyCode;
  /** Days until it has to be done; `null` without a remedy. */
  readonly dueInDays: number | null;
}

const root = (fromDeg: number, toDeg: number, diameterMm: number, touch: RootTouch = 'pressing'): CirclingRoot => ({
  arc: { fromDeg, toDeg },
  diameterMm,
  touch,
});
type Row = readonly [string, number, Partial<Inspection>, Level, RemedyCode, number | null];

/** Urgent within 2 days, act within a fortnight, watch within a year, or as long as the remedy itself may take: a probe three days. */
const rows: readonly Row[] = [
  // Flare: under 25 mm watched, to 75 cleared, to 150 the roots examined, deeper lifted while young.
  ['Flare shows at the surface', 6, { flareDepthMm: 0 }, 'good', 'none', null],
  ['Flare stands 40 mm clear', 6, { flareDepthMm: -40 }, 'good', 'none', null],
  ['Flare stands 120 mm clear, fine roots dry', 6, { flareDepthMm: -120 }, 'act', 'cover_roots', 14],
  ['Flare 10 mm down', 6, { flareDepthMm: 10 }, 'watch', 'watch_yearly_clear', 365],
  ['Flare 24 mm down', 30, { flareDepthMm: 24 }, 'watch', 'watch_yearly_clear', 365],
  ['Flare 25 mm down', 6, { flareDepthMm: 25 }, 'act', 'clear_to_flare', 14],
  ['Flare 60 mm down, third year', 30, { flareDepthMm: 60 }, 'act', 'clear_to_flare', 14],
  ['Flare 75 mm down', 6, { flareDepthMm: 75 }, 'act', 'examine_roots', 14],
  ['Flare 150 mm down', 6, { flareDepthMm: 150 }, 'act', 'examine_roots', 14],
  [
    'Flare 100 mm down, roots uncovered and sound',
    6,
    { flareDepthMm: 100, circlingRoots: [] },
    'act',
    'clear_to_flare',
    14,
  ],
  ['Flare 180 mm down, planted last spring', 6, { flareDepthMm: 180 }, 'urgent', 'lift_and_replant', 90],
  ['Flare 180 mm down, fourth year', 40, { flareDepthMm: 180 }, 'urgent', 'collar_excavation', 90],
  ['Flare 10 mm down, guessed', 6, { flareDepthMm: 10, flareBy: 'guessed' }, 'watch', 'watch_yearly_clear', 365],
  ['Bark below the old line sound', 30, { bark: 'sound' }, 'good', 'none', null],
  ['Bark soft over a tenth of the girth', 30, { bark: 'soft', barkPct: 10 }, 'watch', 'watch_yearly_clear', 365],
  ['Bark cracked over a third of the girth', 30, { bark: 'cracked', barkPct: 33 }, 'act', 'refer_arborist', 30],
  ['Bark decayed', 30, { bark: 'decayed', barkPct: 5 }, 'urgent', 'refer_arborist', 30],
  // Roots: under a quarter cut, to a half in stages, over it an arborist; thick and grown-in ones are not for the crew.
  ['No root circles', 12, { circlingRoots: [] }, 'good', 'none', null],
  ['A root crosses, clear of the trunk', 12, { circlingRoots: [root(0, 60, 20, 'clear')] }, 'good', 'none', null],
  ['A root touches the trunk', 12, { circlingRoots: [root(0, 60, 20, 'touching')] }, 'watch', 'cut_root', 365],
  ['One root presses on a sixth', 12, { circlingRoots: [root(0, 60, 20)] }, 'act', 'cut_root', 14],
  ['One root presses on just under a quarter', 12, { circlingRoots: [root(0, 89, 20)] }, 'act', 'cut_root', 14],
  [
    'Roots press on a quarter',
    12,
    { circlingRoots: [root(350, 40, 18), root(30, 80, 26)] },
    'act',
    'stage_root_cuts',
    60,
  ],
  ['Roots press on a half', 12, { circlingRoots: [root(0, 180, 20)] }, 'act', 'stage_root_cuts', 60],
  ['Roots press on more than a half', 24, { circlingRoots: [root(0, 200, 20)] }, 'urgent', 'refer_arborist', 30],
  ['A root of 60 mm presses', 60, { circlingRoots: [root(0, 30, 60)] }, 'act', 'refer_arborist', 30],
  [
    'A thin root grown into the trunk',
    36,
    { circlingRoots: [root(0, 30, 15, 'grown_in')] },
    'act',
    'refer_arborist',
    30,
  ],
  [
    'Two roots on the same arc count once',
    12,
    { circlingRoots: [root(0, 60, 20), root(0, 60, 12)] },
    'act',
    'cut_root',
    14,
  ],
  [
    'Roots hold it all round',
    24,
    { anchors: [0, 100, 220].map((bearingDeg) => ({ bearingDeg, diameterMm: 25 })) },
    'good',
    'none',
    null,
  ],
  [
    'Roots hold it on one side',
    24,
    { anchors: [0, 60].map((bearingDeg) => ({ bearingDeg, diameterMm: 25 })) },
    'watch',
    'none',
    null,
  ],
  ['No root to be seen that holds it', 24, { anchors: [] }, 'act', 'refer_arborist', 30],
  // Mulch: 25 to 100 mm, clear of the trunk.
  ['Mulch 70 mm, clear', 6, { mulchDepthMm: 70, mulchContact: 'clear' }, 'good', 'none', null],
  ['Mulch 10 mm', 6, { mulchDepthMm: 10, mulchContact: 'clear' }, 'watch', 'top_up_mulch', 365],
  ['Mulch 140 mm', 6, { mulchDepthMm: 140, mulchContact: 'clear' }, 'act', 'thin_mulch', 14],
  ['Mulch touches the trunk', 6, { mulchDepthMm: 70, mulchContact: 'touching' }, 'act', 'pull_back_mulch', 14],
  [
    'A cone of mulch on the trunk, none beside it',
    6,
    { mulchDepthMm: 0, mulchContact: 'heaped' },
    'act',
    'pull_back_mulch',
    14,
  ],
  ['Grass creeps into the ring', 18, { turf: 'creeping' }, 'watch', 'clear_turf', 60],
  ['The ring is free of grass', 18, { turf: 'clear' }, 'good', 'none', null],
  // Stake: off after about a year where the ball stands.
  ['No stake, nothing moves', 18, { stake: 'none', rocks: 'firm' }, 'good', 'none', null],
  ['Staked half a year, tie loose', 6, { stake: 'in_place' }, 'good', 'none', null],
  ['Staked for fourteen months', 14, { stake: 'in_place', rocks: 'firm' }, 'act', 'remove_stake', 14],
  [
    'Staked for fourteen months, the ball moves',
    14,
    { stake: 'in_place', rocks: 'ball_moves' },
    'act',
    'mend_stake',
    14,
  ],
  ['No stake, the ball moves', 8, { stake: 'none', rocks: 'ball_moves' }, 'act', 'mend_stake', 14],
  ['Tie tight', 6, { stake: 'tight' }, 'act', 'loosen_tie', 14],
  ['Tie bites into the bark', 20, { stake: 'biting' }, 'urgent', 'free_tie_now', 2],
  ['Stake broken', 6, { stake: 'broken' }, 'act', 'mend_stake', 14],
  ['The trunk bends, the ball stands', 6, { rocks: 'trunk_bends' }, 'good', 'none', null],
  // Guard, tags, wrap.
  ['Guard fits', 6, { guard: 'fits' }, 'good', 'none', null],
  ['Guard tight', 18, { guard: 'tight' }, 'act', 'refit_guard', 14],
  ['Guard damaged', 6, { guard: 'damaged' }, 'watch', 'refit_guard', 60],
  ['Nursery stake and tags still on', 2, { leftOn: ['nursery_stake', 'tags'] }, 'act', 'take_things_off', 14],
  ['Nothing left on', 2, { leftOn: [] }, 'good', 'none', null],
  // Moisture by probe at ball depth; the finger tells of the top alone.
  ['Probe: dry', 5, { probe: 'dry' }, 'urgent', 'water_now', 2],
  ['Probe: drying', 5, { probe: 'slightly_dry' }, 'watch', 'water_soon', 7],
  ['Probe: moist', 5, { probe: 'moist' }, 'good', 'none', null],
  ['Probe: wet', 5, { probe: 'wet' }, 'watch', 'skip_water', 14],
  ['Probe: waterlogged', 5, { probe: 'saturated' }, 'urgent', 'find_drainage', 2],
  ['No probe, a finger finds it dry', 5, { finger: 'finger_dry' }, 'act', 'water_soon', 7],
  // The whole tree: alive, signs that many causes share, and those that speak for themselves.
  ['Green, nothing to be seen', 8, { alive: 'green', signs: [] }, 'good', 'none', null],
  ['Wood brittle at every height', 5, { alive: 'brittle' }, 'act', 'replace_tree', 180],
  [
    'Tip brittle, green half-way',
    30,
    { alive: 'brittle', aliveAt: { top: 'brittle', middle: 'green' } },
    'act',
    'prune_structure',
    14,
  ],
  [
    'Tip dry, green half-way, first year',
    5,
    { alive: 'dry', aliveAt: { top: 'dry', middle: 'green' } },
    'watch',
    'probe_first',
    3,
  ],
  [
    'Brittle at all three heights',
    5,
    { alive: 'brittle', aliveAt: { top: 'brittle', middle: 'brittle', base: 'brittle' } },
    'act',
    'replace_tree',
    180,
  ],
  [
    'Tip brittle, dry at the foot, first year',
    5,
    { alive: 'brittle', aliveAt: { top: 'brittle', middle: 'dry', base: 'dry' } },
    'watch',
    'probe_first',
    3,
  ],
  [
    'Green at the tip, bark dead at the foot',
    20,
    { alive: 'dry', aliveAt: { top: 'green', base: 'dry' } },
    'act',
    'refer_arborist',
    30,
  ],
  ['Dry under the bark, first year', 5, { alive: 'dry' }, 'watch', 'probe_first', 3],
  ['Dry under the bark, second year', 14, { alive: 'dry' }, 'act', 'replace_tree', 180],
  ['Leaves hang, nobody probed', 5, { signs: ['wilting'] }, 'watch', 'probe_first', 3],
  ['Leaves hang, probe waterlogged', 5, { signs: ['wilting'], probe: 'saturated' }, 'urgent', 'find_drainage', 2],
  ['Leaves hang, probe dry', 5, { signs: ['wilting'], probe: 'dry' }, 'urgent', 'water_now', 2],
  [
    'Leafless in its first year, green wood',
    7,
    { signs: ['leafless'], alive: 'green', probe: 'moist' },
    'watch',
    'none',
    null,
  ],
  ['Leafless in its third year', 26, { signs: ['leafless'] }, 'act', 'refer_arborist', 30],
  ['Leader lost', 18, { signs: ['leader_lost'] }, 'act', 'prune_structure', 14],
  ['Wound on the trunk', 18, { signs: ['trunk_wound'] }, 'watch', 'protect_trunk', 60],
  ['Machines on the roots', 18, { signs: ['traffic_on_roots'] }, 'act', 'fence_roots', 14],
  ['Pests', 18, { signs: ['pests'] }, 'act', 'name_pest', 14],
  ['A tenth of the crown dead', 30, { diebackPct: 10 }, 'watch', 'none', null],
  ['A third of the crown dead', 30, { diebackPct: 33 }, 'act', 'refer_arborist', 30],
  ['Shoots a third of last year’s', 30, { shootMm: 100, shootBeforeMm: 300 }, 'watch', 'none', null],
  [
    'Shoots a third of last year’s, first year',
    8,
    { shootMm: 100, shootBeforeMm: 300, signs: [] },
    'good',
    'none',
    null,
  ],
  [
    'Sound but for a biting tie',
    20,
    { alive: 'green', signs: [], flareDepthMm: 0, probe: 'moist', stake: 'biting' },
    'urgent',
    'free_tie_now',
    2,
  ],
];

export const workedCases: readonly WorkedCase[] = rows.map(
  ([said, monthsSincePlanting, look, level, remedy, dueInDays]) => ({
    said,
    monthsSincePlanting,
    look,
    level,
    remedy,
    dueInDays,
  }),
);
