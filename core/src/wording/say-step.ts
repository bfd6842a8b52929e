import type { PlantingStep, StepCode } from '../pit';
import {
  bermPlaces,
  feedPlaces,
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
  stubUses,
  tieMaterials,
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
  `tie at ${say.mm('heightMm')} with a ${nameOf(tieMaterials, say.word('tie'))} in a figure of eight, its fastener on the stake, loose.`;

const flareAct = (say: Say): string => {
  if (say.word('from') === 'surface' && say.number('leftMm') > 0) {
    return `Probe for the flare: it lies ${say.mm('leftMm')} under the container’s surface and stays covered, by the practice.`;
  }
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
const feed: Sayer = (say) => {
  const { name, buys } = optionOf(fertilisers, say.word('fertiliser'));
  const place = optionOf(feedPlaces, say.word('place'));
  const amount = buys === null ? '' : `${formatNumber(say.number('amount'), 2)} ${buys.unit} for this tree, `;
  return said(
    `Feed ${place.name}`,
    `${cap(name)}: ${amount}${place.act}`,
    'The amount is measured by the label, not thrown.',
    'Against roots or trunk: salts burn.',
    'Soil test first; label and licence rule. Gloves, and keep it off skin and out of drains.',
  );
};
/** What is cut off the ball, in words. */
const rootsAct = (say: Say): string => {
  const { name, counted } = optionOf(rootCorrections, say.word('correction'));
  const over =
    say.word('correction') === 'shave_or_slits'
      ? ` (shave from ${formatNumber(say.number('shaveOverPct'), 0)} % of the face)`
      : '';
  const cuts = counted ? `, ${formatNumber(say.number('cuts'), 0)} cuts ${say.mm('cutDepthMm')} deep` : '';
  return `${cap(name)}${over}${cuts}.`;
};
const stemRootsAct = (say: Say): string => {
  const count = say.number('adventitious');
  if (count === 0) return '';
  const found = `${formatNumber(count, 0)} ${count === 1 ? 'root grows' : 'roots grow'} from the buried stem:`;
  return say.word('adventitiousKept') === 'kept'
    ? `${found} keep them for now, the tree lives by them; it is planted higher, and they come off later.`
    : `${found} cut those up to ${say.mm('adventitiousCutMm')} at the stem; thicker ones come off later.`;
};
const amend: Sayer = (s) => {
  const { act, check, avoid } = optionOf(fillPlaces, s.word('place'));
  const material = nameOf(fillMaterials, s.word('material'));
  const deep = optionOf(fillPlaces, s.word('place')).into === 'fill' ? '' : ` ${s.mm('areaDepthMm')} deep,`;
  const how = s.word('place') === 'on_top' ? 'Spread' : 'Mix';
  return said(
    how === 'Mix' ? 'Mix in' : 'Spread on top',
    `${how} ${s.L('litres')} of ${material}${deep} ${act}`,
    check,
    avoid,
  );
};
const bought = (say: Say): string =>
  say.number('boughtL') > 0 ? ` ${say.L('boughtL')} of it is bought topsoil: the spoil does not do.` : '';
const turnTree = (say: Say): string => {
  const face = say.word('face');
  if (say.word('bestFaceDeg') === '') {
    return face === 'one_sided'
      ? 'flat side to the wall, branches towards room and light.'
      : 'best face to where people see it, branches towards room and light.';
  }
  const point = compassPoint(say.number('bestFaceDeg'));
  const why = faceWords[say.word('faceWhy')] ?? 'to the';
  return face === 'one_sided' ? `full side ${why} ${point}, flat side away.` : `best face ${why} ${point}.`;
};
const faceWords: Readonly<Record<string, string>> = {
  face_from: 'towards room,',
  face_pavement: 'to where people pass,',
  face_street: 'to the street,',
  face_sun: 'to the light,',
};
const unwrap: Sayer = (s) => {
  const { offShare, beforePlacing } = optionOf(wrapRemovals, s.word('wrap'));
  return said(
    beforePlacing ? 'Take the wrap off' : 'Cut the wrap',
    `Free or cut roots that grew through the wrap first. Basket and burlap: ${nameOf(wrapRemovals, s.word('wrap'))}. Synthetic cloth and every string come off in any case.`,
    beforePlacing
      ? 'Nothing is left around or under the ball; it is carried to its hole on a sheet or a board.'
      : 'Nothing is left over the top of the ball or around the trunk.',
    offShare > 0 && offShare < 0.5
      ? 'Cloth left above the ground: it dries the ball like a wick. Bent wire stays sharp and meets roots later.'
      : 'Folding cloth down: it dries the ball like a wick. Tearing roots off with it.',
    'Cut wire springs: eyes covered.',
  );
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
      'Turf or chopped roots in the fill: they rot, leave holes and sink the soil.',
    ),
  open_tree: (s) =>
    said(
      'Open the tree while it lies',
      s.word('kind') === 'container'
        ? `Slide the container off. ${tiesAct(s)}`
        : `Cut the wrap open on top, where the trunk leaves it. ${tiesAct(s)}`,
      'Nothing is left tied around the trunk.',
      'Pulling by the trunk: roots tear off inside the ball.',
    ),
  find_flare: (s) =>
    said(
      'Find the flare',
      flareAct(s),
      'The trunk widens and two or more main roots leave it.',
      s.word('from') === 'surface'
        ? 'Trusting the surface: stock is often potted 50–150 mm too deep, and what is buried stays buried.'
        : 'Taking roots grown from a buried stem, or a graft, for the flare.',
    ),
  correct_roots: (s) =>
    said(
      'Correct the roots',
      [s.word('kind') === 'container' ? rootsAct(s) : '', stemRootsAct(s)].filter(Boolean).join(' '),
      'No root runs around the ball any more; cuts are clean.',
      'Leaving one thick circling root because it is hard to cut.',
      'Cut away from yourself, gloves on.',
    ),
  prune_broken: (s) =>
    said(
      'Prune',
      `${cap(nameOf(plantingPrunings, s.word('pruning')))}. Short branches on the stem: ${nameOf(stubUses, s.word('stubs'))}.`,
      'Cuts stand just outside the branch collar.',
      optionOf(plantingPrunings, s.word('pruning')).avoid,
    ),
  dig: (s) =>
    said(
      'Dig',
      `${s.mm('depthMm')} deep at the uphill edge of the ball, ${s.mm('widthMm')} wide ${s.number('finishedMm') > s.number('widthMm') + 1 ? 'with straight sides; they are broken in later' : 'at the top'}: ${s.L('litres')}.`,
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
      `${carryAct(s)} Set it in by the ${s.word('kind') === 'bare_root' ? 'roots' : 'ball'}, ${turnTree(s)}`,
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
  unwrap_before: unwrap,
  unwrap,
  cave_sides: (s) =>
    said(
      'Break the sides in',
      `${optionOf(pitSides, s.word('sides')).open} They fall around the ball and are the fill: ${s.L('litres')}, to ${s.mm('widthMm')} at the top.`,
      'The tree stands where it stood; no clod bridges a gap.',
      'Breaking them in before the tree stands: loose soil lies under the ball and it sinks.',
      'Stand clear of the edge you break; look for cables and pipes in the face of it.',
    ),
  amend_area: amend,
  amend,
  amend_top: amend,
  feed_base: feed,
  feed_halfway: feed,
  feed_edge: feed,
  feed_surface: feed,
  feed_drench: feed,
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
      `${s.L('litres')} in layers of a hand's breadth; settle each: ${nameOf(settlings, s.word('settling'))}. Stones: ${nameOf(stoneUses, s.word('stones'))}.` +
        (s.number('shoulderL') > 0.5 ? ` Draw ${s.L('shoulderL')} up to the shoulder of the ball.` : '') +
        bought(s),
      'Clods are broken; the fill ends at the top of the ball’s side.',
      'Soil on top of the ball; turf or chopped roots in the fill, which rot and leave holes.',
    ),
  mound: (s) =>
    said(
      'Build the mound',
      `Draw ${s.L('litres')} up to the side of the ball, ${s.mm('heightMm')} high there, falling one in ${formatNumber(s.number('perHeight'), 0)} all round.${bought(s)}`,
      'Water runs off it outward; the top of the ball shows.',
      'Soil over the ball or against the trunk.',
    ),
  bank: (s) =>
    said(
      'Bank the downhill side',
      `Draw ${s.L('litres')} up to the downhill side of the ball, ${s.mm('proudMm')} high there, and tread it.`,
      'It holds under a boot and its top is level with the ball.',
      'A loose bank: the first rain takes it, and the ball dries.',
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
      `${bermWords(s)}${s.number('litres') > 0 ? ` ${s.L('litres')} of soil.` : ''}`,
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
      `Put the guard on, wide enough for two years of growth. ${optionOf(guardRules, s.word('guard')).season ?? ''}`.trim() +
        ` Fitted anew each season until the trunk is ${s.mm('untilMm')} thick.`,
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
