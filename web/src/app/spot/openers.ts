import type { DecisionKind, Stage } from '@sombra/core';

/** Where each kind of decision is settled, and what the way there is called. */
export const openers: Readonly<Record<DecisionKind, { readonly stage: Stage; readonly act: string }>> = {
  measure_ground: { stage: 'ground', act: 'Enter ground facts' },
  settle_ground: { stage: 'ground', act: 'Decide on the place' },
  change_ground: { stage: 'ground', act: 'See what must change' },
  move_spot: { stage: 'ground', act: 'Look at the place' },
  choose_species: { stage: 'match', act: 'Choose the species' },
  measure_stock: { stage: 'stock', act: 'Enter stock measures' },
  resolve_pit: { stage: 'pit', act: 'Look at the pit' },
  record_planting: { stage: 'day', act: 'Record as built' },
  hazard: { stage: 'inspect', act: 'See the hazard' },
  settle_contradiction: { stage: 'inspect', act: 'Say which stands' },
  do_remedy: { stage: 'inspect', act: 'Inspect again' },
  look: { stage: 'inspect', act: 'Inspect now' },
  claim: { stage: 'inspect', act: 'See what was found' },
  sign_off: { stage: 'inspect', act: 'See what shows it' },
};
