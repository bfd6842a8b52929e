import { remedyWork, type RemedyHands } from '../inspect';
import type { RemedyCode } from '../practice';

export interface RemedyWords {
  /** Short imperative for lists and buttons. */
  readonly act: string;
  /** What to do, in a sentence or two. */
  readonly how: string;
  /** Who may do it; empty where nothing is done. */
  readonly who: string;
  /** Shown wherever the remedy is: local codes and licensed practice come first. */
  readonly caution: string | null;
}

const lifting = 'Lift by the ball, never by the trunk; heavy balls go by trolley, boards or machine.';
const cuts = 'Cuts that could loosen the tree, big roots and compressed-air tools are for a qualified arborist.';

const saidOf: Readonly<Record<RemedyCode, Omit<RemedyWords, 'who'>>> = {
  none: { act: 'Nothing to do', how: 'Nothing to do.', caution: null },
  replant_higher: {
    act: 'Raise the tree',
    how: 'Lift the ball and firm soil under it until the flare stands at the planned height, then soak again.',
    caution: lifting,
  },
  widen_hole: {
    act: 'Widen the hole',
    how: 'Loosen the soil around the pit out to the planned width, in the top 300 mm.',
    caution: null,
  },
  give_rest_of_soak: {
    act: 'Give the rest of the soak',
    how: 'Bring the missing water the same day, slowly, inside the berm.',
    caution: null,
  },
  level_the_ball: {
    act: 'Level the ball',
    how: 'Check that the trunk is plumb from two sides and firm the low side.',
    caution: lifting,
  },
  watch_yearly_clear: {
    act: 'Clear the collar at the yearly look',
    how: 'Brush soil and mulch off the flare at the next yearly look.',
    caution: null,
  },
  clear_to_flare: {
    act: 'Clear soil to the flare',
    how: 'Take soil off down to the flare by hand and taper it out; spread the surplus as a wider mulch ring.',
    caution: 'Work by hand near bark; never scrape into soft or cracked bark.',
  },
  examine_roots: {
    act: 'Examine the collar roots',
    how: 'Uncover the collar by hand and look for roots that circle or press; then clear and taper, or refer.',
    caution: cuts,
  },
  lift_and_replant: {
    act: 'Lift and replant',
    how: 'Lift the tree while it is young and plant it again with the flare at the planned height; in a cool season.',
    caution: `A valid utility ticket is needed before digging. ${lifting}`,
  },
  collar_excavation: {
    act: 'Refer for collar excavation',
    how: 'Too long planted to lift: have the collar excavated by a qualified arborist, or weigh replacement.',
    caution: cuts,
  },
  replace_tree: {
    act: 'Replace the tree',
    how: 'Claim it while a warranty runs; plant a new one by the practice, its flare found first.',
    caution: 'No digging without a valid utility ticket.',
  },
  cover_roots: {
    act: 'Cover bare roots',
    how: 'Bring soil up to the flare and mulch over it, clear of the trunk.',
    caution: null,
  },
  top_up_mulch: { act: 'Top up mulch', how: 'Add mulch up to the practice depth, clear of the trunk.', caution: null },
  thin_mulch: {
    act: 'Thin the mulch',
    how: 'Rake mulch down to the practice depth and spread it wider.',
    caution: null,
  },
  pull_back_mulch: {
    act: 'Pull back mulch',
    how: 'Pull mulch off the trunk to the practice gap and look at the bark below.',
    caution: null,
  },
  remove_stake: {
    act: 'Remove stake and ties',
    how: 'Rock the trunk: if the ball does not move, take stake and ties away.',
    caution: null,
  },
  loosen_tie: {
    act: 'Loosen the tie',
    how: 'Refit the tie loose and wide, fastener away from the bark.',
    caution: null,
  },
  free_tie_now: {
    act: 'Free the biting tie',
    how: 'Cut the tie off now; if grown in, take only what comes free and refer the rest.',
    caution: cuts,
  },
  mend_stake: {
    act: 'Mend or remove the stake',
    how: 'If the ball moves, stake again outside the ball; if it stands, take the stake away.',
    caution: null,
  },
  water_now: {
    act: 'Water now',
    how: 'Soak the ball slowly until the probe reads moist at ball depth.',
    caution: null,
  },
  water_soon: { act: 'Water this week', how: 'Water within the week and probe again.', caution: null },
  skip_water: { act: 'Skip the next watering', how: 'Leave out the next watering and probe again.', caution: null },
  find_drainage: {
    act: 'Stop watering, find the drainage',
    how: 'Stop watering; look for a berm that ponds, a leaking line, or slow soil, and open a drain only if water stands.',
    caution: 'No digging without a valid utility ticket.',
  },
  cut_root: {
    act: 'Cut the circling root',
    how: 'Cut where it leaves the trunk and at the far side; keep roots moist, on a cool day.',
    caution: cuts,
  },
  stage_root_cuts: {
    act: 'Plan staged root cuts',
    how: 'Cut over several seasons, at most a quarter of the root area in one; never two anchors side by side at once.',
    caution: cuts,
  },
  refer_arborist: {
    act: 'Refer to an arborist',
    how: 'Have a qualified arborist judge anchorage, prognosis and cost against replacement.',
    caution: cuts,
  },
  cut_stem_roots: {
    act: 'Cut roots of the buried stem',
    how: 'Uncover the stem down to the flare and cut the roots that grow from it above, at the stem; then taper the soil.',
    caution: cuts,
  },
  cut_stubs: {
    act: 'Cut the short branches of the stem',
    how: 'They have thickened the stem for a season: cut them off at the collar.',
    caution: 'Clean tools; a cut stands just outside the branch collar.',
  },
  refit_guard: {
    act: 'Fit the guard anew',
    how: 'Take it off, look at the bark under it, and put it on wider; or leave it off once the bark is rough.',
    caution: null,
  },
  take_guard_off: {
    act: 'Take the guard off',
    how: 'Its season is over: take it off, look at the bark under it, and keep it for the autumn.',
    caution: null,
  },
  probe_first: {
    act: 'Probe the ball first',
    how: 'Leaves that hang, pale or brown are of a ball too dry or too wet alike: feel it at its base before anything is done.',
    caution: null,
  },
  prune_structure: {
    act: 'Prune for structure',
    how: 'Choose the straightest upright shoot as leader and shorten its rivals, while the tree is young.',
    caution: 'Cut just outside the branch collar, no stubs; never near wires.',
  },
  prune_broken: {
    act: 'Cut broken branches',
    how: 'Cut what is broken or torn back to a sound branch or to its collar.',
    caution: 'Cut just outside the branch collar, no stubs; never near wires.',
  },
  protect_trunk: {
    act: 'Protect the trunk',
    how: 'Widen the mulch ring so that no machine comes near, and fit a loose guard; leave the wound open.',
    caution: null,
  },
  name_pest: {
    act: 'Have the pest named',
    how: 'Photograph it and its traces and have it named before anything is used; tell whom the local list says.',
    caution: 'Products only by their label and by whoever is licensed.',
  },
  fence_roots: {
    act: 'Fence the root zone',
    how: 'Keep feet, machines and stores off the roots with a fence out to the drip line, and no nearer than twelve times the trunk’s thickness; mulch inside it, and tell whoever works there.',
    caution: 'No digging without a valid utility ticket.',
  },
  take_things_off: {
    act: 'Take off what is left on',
    how: 'Take off nursery stake, tags, wrap, bag or wire, and look at the bark under them.',
    caution: null,
  },
  clear_turf: {
    act: 'Clear grass out of the ring',
    how: 'Pull or slice grass out of the ring by hand and mulch over it.',
    caution: 'No trimmer near the trunk; herbicides only by label and licence.',
  },
  take_off_device: {
    act: 'Take off the watering device',
    how: 'Take it off, look at the bark below it, and write down where it is kept.',
    caution: null,
  },
};

export const remedyHandsNames: Readonly<Record<RemedyHands, string>> = {
  crew: 'crew',
  arborist: 'a qualified arborist',
  office: 'whoever can name it',
};

export const remedyWords = Object.fromEntries(
  Object.entries(saidOf).map(([code, words]) => [
    code,
    {
      ...words,
      who: code === 'none' ? '' : remedyHandsNames[remedyWork[code as RemedyCode].hands],
    },
  ]),
) as Readonly<Record<RemedyCode, RemedyWords>>;
