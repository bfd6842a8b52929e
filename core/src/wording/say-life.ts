import type { LifeReasonFacts } from '../record';
import { months, sentence, type Sentences } from './sentence';

export const lifeSentences: Sentences<LifeReasonFacts> = {
  clear_later: (f, s) =>
    `Planted with ${s.mm(f.leftMm)} of surplus on the ball; cleared to the flare ${months(f.months)} after planting.`,
  assessment_missing: () => 'Surroundings not looked at: wires, walls, kerbs, lines, soil for the roots.',
  verdict_missing: () => 'All is measured: plant, plant if, move, or not here?',
  verdict_move: (f) => `To be moved: ${sentence(f.reason)}`,
  verdict_plant_if: (f) => `To be planted once this is done: ${sentence(f.reason)}`,
  species_missing: () => 'No species chosen.',
  stock_missing: () => 'Ball, caliper and topmost roots not measured.',
  ready_to_plant: () => 'Ground and stock are measured and the pit plan stands.',
  stem_roots_later: (f, s) =>
    `${f.count} ${f.count === 1 ? 'root' : 'roots'} of the buried stem stayed, up to ${s.mm(f.thickestMm)} thick: cut after ${months(f.months)}, once the tree has its own.`,
  stubs_later: (f) => `Short branches were kept to thicken the stem: off after ${months(f.months)}.`,
  guard_refit: (f, s) =>
    `The trunk will be about ${s.mm(f.caliperMm)} thick, its bark counts as thin up to ${s.mm(f.untilMm)}: the guard is fitted anew each season until then.`,
};
