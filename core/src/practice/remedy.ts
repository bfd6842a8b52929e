/** What to do about a finding; `wording` holds the sentence and the caution of each. */
export type RemedyCode =
  | 'none'
  | 'replant_higher'
  | 'widen_hole'
  | 'give_rest_of_soak'
  | 'level_the_ball'
  | 'watch_yearly_clear'
  | 'clear_to_flare'
  | 'examine_roots'
  | 'lift_and_replant'
  | 'collar_excavation'
  | 'replace_tree'
  | 'cover_roots'
  | 'top_up_mulch'
  | 'thin_mulch'
  | 'pull_back_mulch'
  | 'remove_stake'
  | 'loosen_tie'
  | 'free_tie_now'
  | 'mend_stake'
  | 'water_now'
  | 'water_soon'
  | 'skip_water'
  | 'find_drainage'
  | 'cut_root'
  | 'stage_root_cuts'
  | 'refer_arborist'
  | 'cut_stem_roots'
  | 'cut_stubs'
  | 'refit_guard'
  | 'take_off_device';

/** Remedies that bring water; whoever pours it has done them. */
export const givesWater: readonly RemedyCode[] = ['water_now', 'water_soon', 'give_rest_of_soak'];
/** All that is said of watering, to give less among it. */
export const ofWatering: readonly RemedyCode[] = [...givesWater, 'skip_water'];
