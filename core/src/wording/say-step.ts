import type { PlantingStep, StepCode } from '../pit';
import {
  fillMaterials,
  mulchMaterials,
  plantingPrunings,
  rootCorrections,
  settlings,
  stoneUses,
  wrapRemovals,
} from '../practice';
import { compassPoint, formatQuantity, type UnitSystem } from '../units';

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
  return bearings.length === 0 ? 'to windward as the site shows' : `to the ${bearings.map(compassPoint).join(' and ')}`;
};
const stakeAct = (say: Say): string =>
  `${say.number('stakes') === 1 ? 'One stake' : `${say.number('stakes')} stakes`} ${winds(say)}, ${say.mm('fromTrunkMm')} from the trunk; ` +
  `tie at ${say.mm('heightMm')} with a wide strap, loose.`;

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
      s.word('where') === 'turf'
        ? 'Lift the turf in slabs and keep it for the ring.'
        : 'Rake old mulch off, lift the turf.',
      'Turf lies apart from the soil.',
      'Turf in the fill: it rots and leaves holes.',
    ),
  open_tree: (s) =>
    said(
      'Open the tree while it lies',
      s.word('kind') === 'container'
        ? 'Slide the container off; take off tags, ties, nursery stake and trunk wrap.'
        : 'Cut the wrap open on top and off what will be out of reach; take off tags, ties, nursery stake and trunk wrap.',
      'Nothing is left tied around the trunk.',
      'Pulling by the trunk: roots tear off inside the ball.',
    ),
  find_flare: (s) =>
    said(
      'Find the flare',
      s.number('surplusMm') > 0
        ? `Scrape ${s.mm('surplusMm')} off the top until the first structural roots show; measure the ball again.`
        : 'Look for the first structural roots at the surface.',
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
      'Shaping the crown now: the tree needs its leaves.',
    ),
  dig: (s) =>
    said(
      'Dig',
      `${s.mm('depthMm')} deep at the uphill edge of the ball, ${s.mm('widthMm')} wide at the top: ${s.L('pitL')}.`,
      'Depth under a straight edge laid across the pit.',
      'Deeper than the number: loose soil under the ball sinks it.',
      'Clear the swing of a pick aloud; lift it and let it drop. Stop at any pipe, cable or unknown object.',
    ),
  rough_sides: (s) =>
    said(
      'Open the sides',
      s.word('sides') === 'broken_down'
        ? 'Break the sides down inward with a bar.'
        : 'Rough up glazed sides with fork or pick.',
      'No side shines.',
      'Leaving a smooth pot of clay: roots turn round in it.',
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
      `Set it in by the ${s.word('kind') === 'bare_root' ? 'roots' : 'ball'}, best face to the street.`,
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
  mix_fill: (s) =>
    said(
      'Mix the fill',
      `Mix ${s.L('litres')} of ${nameOf(fillMaterials, s.word('material'))} evenly into the site soil.`,
      'One colour, no layers.',
      'A layer on top or in the base.',
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
      `A ring ${s.mm('heightMm')} high at the ${s.word('where') === 'pit_edge' ? 'edge of the pit' : 'edge of the ball'}.`,
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
  mulch: (s) =>
    said(
      'Mulch',
      `${cap(nameOf(mulchMaterials, s.word('material')))}: ring of ${s.mm('ringMm')}, ${s.mm('thicknessMm')} thick, thin over the ball, ${s.mm('gapMm')} clear of the trunk: ${s.L('litres')}.`,
      'The flare can be seen.',
      'Mulch against the bark: it rots and hides gnawing.',
    ),
  guard: () =>
    said(
      'Guard',
      'Put the guard on, wide enough for two years of growth.',
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
