import type { PlantingStep, StepCode } from '../pit';
import {
  bermPlaces,
  fertilisers,
  fillMaterials,
  fillPlaces,
  guardRules,
  mulchMaterials,
  mulchProfiles,
  nurseryTies,
  optionOf,
  pitSides,
  plantingPrunings,
  ringRules,
  rootCorrections,
  settlings,
  stoneUses,
  wrapRemovals,
} from '../practice';
import { compassPoint, formatNumber, formatQuantity, type UnitSystem } from '../units';

/** A step in words: what to do, what to check or hit, the mistake to avoid, and the caution where there is one. */
export interface SaidStep {
  readonly title: string;
  readonly act: string;
  readonly check: string;
  readonly avoid: string;
  readonly caution: string | null;
}

interface Say {
  readonly mm: (name: string) => string;
  readonly L: (name: string) => string;
  readonly kg: (name: string) => string;
  readonly number: (name: string) => number;
  readonly word: (name: string) => string;
}
type Sayer = (say: Say) => SaidStep;

const said = (title: string, act: string, check: string, avoid: string, caution: string | null = null): SaidStep => ({
  title,
  act,
  check,
  avoid,
  caution,
});

const nameOf = (options: Readonly<Record<string, { readonly name: string }>>, key: string): string =>
  options[key]?.name ?? key;

const winds = (say: Say): string => {
  const bearings = say.word('bearings').split(' ').filter(Boolean).map(Number);
  if (bearings.length > 0) return `to the ${bearings.map(compassPoint).join(' and ')}`;
  return say.word('along') === 'strip' ? 'along the strip' : 'to windward as the site shows';
};
const stakeAct = (say: Say): string =>
  `${say.number('stakes') === 1 ? 'One stake' : `${say.number('stakes')} stakes`} ${winds(say)}, ${say.mm('fromTrunkMm')} from the trunk; ` +
  `tie at ${say.mm('heightMm')} with a wide strap, loose.`;

const flareAct = (say: Say): string => {
  const scraped =
    say.number('surplusMm') > 0
      ? `Scrape ${say.mm('surplusMm')} off the top until the first structural roots show; measure the ball again.`
      : 'Look for the first structural roots at the surface.';
  if (say.number('leftMm') === 0) return scraped;
  return (
    `Scrape ${say.mm('surplusMm')} off the top and leave ${say.mm('leftMm')}: the ball would not bear more. ` +
    'Mark on the label that the rest comes off later.'
  );
};
/** What lifted turf is kept for, if anything. */
const turfKept = (say: Say): string | null => {
  if (optionOf(bermPlaces, say.word('where')).of === 'turf') return 'the ring';
  return optionOf(ringRules, say.word('ring')).sodBack ? 'the circle, to lie upside down under the mulch' : null;
};
const bermWords = (say: Say): string => {
  const { at, of } = optionOf(bermPlaces, say.word('where'));
  const built = of === 'turf' ? 'of turf, upside down, ' : '';
  return `A ring ${built}${say.mm('heightMm')} high at the edge of the ${at ?? 'ball'}.`;
};
const mulchAct = (say: Say): string => {
  const { tapers } = optionOf(mulchProfiles, say.word('profile'));
  const over = tapers ? `${say.mm('overBallMm')} over the ball` : 'even';
  const sod = optionOf(ringRules, say.word('ring')).sodBack ? 'Sod upside down first. ' : '';
  const long = say.number('lengthMm') > say.number('ringMm');
  const along = long ? ` and along the strip to both ends of the pit, ${say.mm('lengthMm')}` : '';
  const material = cap(nameOf(mulchMaterials, say.word('material')));
  return (
    `${sod}${material}: ring of ${say.mm('ringMm')}${along}, ${say.mm('thicknessMm')} thick, ${over}, ` +
    `${say.mm('gapMm')} clear of the trunk: ${say.L('litres')}.`
  );
};
const tiesAct = (say: Say): string =>
  `Tags, ties, nursery stake and trunk wrap: ${nameOf(nurseryTies, say.word('ties'))}.`;
const feedAct = (say: Say): string => {
  const { name, buys } = optionOf(fertilisers, say.word('fertiliser'));
  const amount = buys === null ? '' : ` ${formatNumber(buys.perTree, 2)} ${buys.unit} for this tree, by the label.`;
  return `${cap(name)}:${amount}`;
};
const carryAct = (say: Say): string => {
  const people = say.number('people');
  if (say.word('means') === 'people') return people === 1 ? 'One carries it.' : `${people} carry it.`;
  return say.word('means') === 'trolley' ? `On a trolley, ${people} to push and hold.` : 'By machine, nobody beneath.';
};

const sayers: Readonly<Record<StepCode, Sayer>> = {
  mark_out: (s) =>
    said(
      'Mark out',
      `Mark the pit, ${s.mm('widthMm')} wide${s.number('lengthMm') > s.number('widthMm') + 1 ? ` and ${s.mm('lengthMm')} along the strip` : ''}, and the ring of ${s.mm('ringMm')}.`,
      'The stem stands where the mark is, inside the area of the ticket.',
      'Digging before the ticket for this day was read.',
      'Buried lines: no valid ticket, no digging. Hand-dig within the tolerance of every mark.',
    ),
  lift_turf: (s) =>
    said(
      'Lift turf and old mulch',
      turfKept(s) ? `Lift the turf in slabs and keep it for ${turfKept(s)}.` : 'Rake old mulch off, lift the turf.',
      'Turf lies apart from the soil.',
      'Turf in the fill: it rots and leaves holes.',
    ),
  open_tree: (s) =>
    said(
      'Open the tree while it lies',
      s.word('kind') === 'container'
        ? `Slide the container off. ${tiesAct(s)}`
        : `Cut the wrap open on top and off what will be out of reach. ${tiesAct(s)}`,
      'Nothing is left tied around the trunk.',
      'Pulling by the trunk: roots tear off inside the ball.',
    ),
  find_flare: (s) =>
    said(
      'Find the flare',
      flareAct(s),
      'The trunk widens and two or more main roots leave it.',
      'Taking roots grown from a buried stem, or a graft, for the flare.',
    ),
  correct_roots: (s) =>
    said(
      'Correct the roots',
      `${cap(nameOf(rootCorrections, s.word('correction')))}.`,
      'No root runs around the ball any more; cuts are clean.',
      'Leaving one thick circling root because it is hard to cut.',
      'Cut away from yourself, gloves on.',
    ),
  prune_broken: (s) =>
    said(
      'Prune',
      `${cap(nameOf(plantingPrunings, s.word('pruning')))}.`,
      'Cuts stand just outside the branch collar.',
      optionOf(plantingPrunings, s.word('pruning')).avoid,
    ),
  dig: (s) =>
    said(
      'Dig',
      `${s.mm('depthMm')} deep at the uphill edge of the ball, ${s.mm('widthMm')} wide at the top: ${s.L('pitL')}.`,
      'Depth under a straight edge laid across the pit.',
      'Deeper than the number: loose soil under the ball sinks it.',
      'Clear the swing of a pick aloud; lift it and let it drop. Stop at any pipe, cable or unknown object.',
    ),
  drain: () =>
    said(
      'Bore the drain',
      'Bore one hole, a hand across, through the base beside where the ball will stand; fill it with coarse gravel.',
      'Water poured in is gone before the tree is placed.',
      'A drain that ends in the same tight soil: then plant higher, or elsewhere.',
      'Boring is digging: within the ticket only, and stop at any resistance that is not soil.',
    ),
  rough_sides: (s) =>
    said(
      'Open the sides',
      optionOf(pitSides, s.word('sides')).open,
      'No side shines.',
      'Leaving the sides smooth: roots turn along them and stay in.',
    ),
  check_depth: (s) =>
    said(
      'Check the depth before the tree goes in',
      `Pit ${s.mm('depthMm')}, roots ${s.mm('rootsMm')}: the flare will stand ${s.mm('proudMm')} above grade.`,
      'Straight edge across the pit, rule down to the base and along the ball.',
      'Correcting with the tree in the hole.',
    ),
  firm_base: (s) =>
    said(
      'Put back and firm',
      `Put ${s.mm('fillMm')} back in two layers and tread each.`,
      'A heel leaves no mark.',
      'One thick loose layer.',
    ),
  stake_before: (s) =>
    said(
      'Stake first',
      stakeAct(s),
      'It stands firm and clear of where the roots will lie.',
      'Driving it through roots later.',
    ),
  cone: () =>
    said(
      'Make the cone',
      'Heap a cone of soil on the firm base and spread the roots over it.',
      'Roots point outward and down; the old soil line is noted, the flare rules.',
      'Roots bent up or round to fit.',
    ),
  place: (s) =>
    said(
      'Place',
      `${carryAct(s)} Set it in by the ${s.word('kind') === 'bare_root' ? 'roots' : 'ball'}, best face to the street.`,
      'The flare stands at its number on every side.',
      'Lifting by the trunk.',
      `It weighs ${s.kg('massKg')}: lift with the team and tools the plan names; roll heavy balls on boards.`,
    ),
  plumb: () =>
    said(
      'Plumb',
      'Look from two sides at right angles; rock the ball level.',
      'The trunk is upright from both sides.',
      'Bending the trunk straight with the stake.',
    ),
  unwrap: (s) =>
    said(
      'Cut the wrap',
      `Basket and burlap: ${nameOf(wrapRemovals, s.word('wrap'))}. Synthetic cloth and every string come off in any case.`,
      'Nothing is left over the top of the ball or around the trunk.',
      'Folding cloth down: it dries the ball like a wick.',
      'Cut wire springs: eyes covered.',
    ),
  amend: (s) => {
    const { act, check, avoid } = optionOf(fillPlaces, s.word('place'));
    const material = nameOf(fillMaterials, s.word('material'));
    return said('Mix in', `Mix ${s.L('litres')} of ${material} ${act}`, check, avoid);
  },
  feed: (s) =>
    said(
      'Feed',
      feedAct(s),
      'The amount is measured, not thrown.',
      'Against roots or trunk: salts burn.',
      'Soil test first; label and licence rule. Gloves, and keep it off skin and out of drains.',
    ),
  gypsum: (s) =>
    said(
      'Work in gypsum',
      `${s.kg('kg')} over the base, the sides and into the fill.`,
      'The soil test that asks for it is on record.',
      'Gypsum without a test: it helps sodic soil alone.',
      'Dust: mask and eyes covered.',
    ),
  fill: (s) =>
    said(
      'Fill',
      `${s.L('litres')} in layers of a hand's breadth; settle each: ${nameOf(settlings, s.word('settling'))}. Stones: ${nameOf(stoneUses, s.word('stones'))}.`,
      'Clods are broken; the fill ends at the top of the ball’s side.',
      'Soil on top of the ball, turf in the fill.',
    ),
  soak_halfway: (s) =>
    said(
      'Soak halfway',
      `${s.L('litres')} when the pit is half full.`,
      'Water sinks before you go on.',
      'Working mud: it sets hard.',
    ),
  measure_flare: (s) =>
    said(
      'Measure the flare',
      `At four points: ${s.mm('proudMm')} above grade, within ${s.mm('toleranceMm')}. Before and after the soak.`,
      'The drop is written down: it trains the allowance for settling.',
      'Trusting the eye.',
    ),
  stake_after: (s) =>
    said(
      'Stake',
      stakeAct(s),
      `The tree moves a hand’s breadth and comes back. Off after ${s.number('months')} months.`,
      'Stakes through the ball; wire or string on bark.',
      'Look for marks before driving a stake; eyes and hands clear of the driver.',
    ),
  make_berm: (s) =>
    said(
      'Make the berm',
      bermWords(s),
      'It holds water all round, higher on the downhill side.',
      'A bowl against the trunk.',
    ),
  final_soak: (s) =>
    said(
      'Final soak',
      `${s.L('litres')}, slowly.`,
      'The probe finds moist soil down to the base of the ball.',
      'Leaving sunken fill: top it up to grade.',
    ),
  herbicide: () =>
    said(
      'Herbicide',
      'Pre-emergent under the mulch, by its label, by whoever holds the licence.',
      'None on bark, roots or wet soil.',
      'More than the label says.',
      'Label and licence rule; gloves and eye protection; keep people and dogs off until it is dry.',
    ),
  mulch: (s) =>
    said(
      'Mulch',
      mulchAct(s),
      'The flare can be seen.',
      'Mulch against the bark: it rots and hides gnawing.',
      optionOf(mulchMaterials, s.word('material')).caution,
    ),
  guard: (s) =>
    said(
      'Guard',
      `Put the guard on, wide enough for two years of growth. ${optionOf(guardRules, s.word('guard')).season ?? ''}`.trim(),
      'It stands clear of the bark.',
      'A guard nobody loosens.',
    ),
  label: () =>
    said(
      'Label, photograph, record',
      'Label on the stake or in the ground, never on the trunk; photograph; record as built.',
      'Four flare heights, width, water and departures are recorded.',
      'Leaving it for tomorrow.',
    ),
};

const cap = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A step in words, in the reader's units. */
export function sayStep({ code, facts }: PlantingStep, units: UnitSystem): SaidStep {
  const number = (name: string) => Number(facts[name] ?? 0);
  return sayers[code]({
    number,
    word: (name) => String(facts[name] ?? ''),
    mm: (name) => formatQuantity(number(name), 'lengthMm', units),
    L: (name) => formatQuantity(number(name), 'volumeL', units),
    kg: (name) => formatQuantity(number(name), 'massKg', units),
  });
}
