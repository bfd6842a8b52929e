import {
  ballStateNames,
  crownFaceNames,
  labelKindNames,
  saySign,
  signNames,
  leaderNames,
  limits,
  measuredFacts,
  stockNames,
  structuralDepthMm,
  woundNames,
  wrapKindNames,
  type MeasuredName,
  type NameSign,
  type NumberRange,
  type Quantity,
  type ReceivedTree,
  type ReceivingRules,
  type StockKind,
  type UnitSystem,
} from '@sombra/core';

type KeysOf<T> = { [K in keyof ReceivedTree]: ReceivedTree[K] extends T | null ? K : never }[keyof ReceivedTree];
export type NumberKey = KeysOf<number>;
export type YesNoKey = KeysOf<boolean>;
export type WordKey = Exclude<KeysOf<string>, NumberKey | YesNoKey>;

interface Asked {
  readonly title: string;
  readonly hint: string;
}
export type Question = Asked &
  (
    | { readonly kind: 'number'; readonly key: NumberKey; readonly quantity: Quantity; readonly range: NumberRange }
    | { readonly kind: 'probes'; readonly key: 'probes' }
    | { readonly kind: 'circling'; readonly key: 'circlingPct' }
    | { readonly kind: 'words'; readonly key: WordKey; readonly names: Readonly<Record<string, string>> }
    | { readonly kind: 'yes_no'; readonly key: YesNoKey }
    | { readonly kind: 'photo'; readonly key: 'photo' }
  );

/** A measure asked by the name, the unit and the limits it has everywhere. */
function measure(
  key: NumberKey & MeasuredName,
  hint: string,
  change: Partial<{ title: string; range: NumberRange }> = {},
) {
  const { name, quantity, measure: measured } = measuredFacts[key];
  return {
    kind: 'number' as const,
    key,
    title: name,
    hint,
    quantity,
    range: limits[measured] as NumberRange,
    ...change,
  };
}
const words = (key: WordKey, title: string, names: Readonly<Record<string, string>>, hint = ''): Question => ({
  kind: 'words',
  key,
  title,
  names,
  hint,
});
const yesNo = (key: YesNoKey, title: string, hint = ''): Question => ({ kind: 'yes_no', key, title, hint });

/** Trunks thicker than this are measured higher. mm */
const thickMm = 100;
/** Where a caliper is taken, in the round numbers either trade uses. */
const caliperAt = {
  metric: { low: '150 mm', high: '300 mm', thick: '100 mm' },
  us: { low: '6 in', high: '12 in', thick: '4 in' },
} as const satisfies Record<UnitSystem, unknown>;
export const caliperNote = (units: UnitSystem): string => {
  const { low, high, thick } = caliperAt[units];
  return `${low} above the flare; at ${high} once over ${thick} thick.`;
};
const caliperHint = (isThick: boolean, units: UnitSystem): string => {
  const { low, high, thick } = caliperAt[units];
  return isThick
    ? `At ${high} above the flare: it is over ${thick} thick.`
    : `${low} above the flare; if it is over ${thick} thick there, measure again at ${high}.`;
};

/** What is asked of one tree, in the order a hand goes over it: stem, ball, roots, crown. */
export function questionsFor(
  ordered: {
    readonly kind: StockKind;
    readonly caliperMm: number;
    readonly species?: string;
    readonly sign?: NameSign | null;
  },
  tree: ReceivedTree,
  rules: ReceivingRules,
  units: UnitSystem = 'metric',
): Question[] {
  const kind = tree.kind ?? ordered.kind;
  const thick = (tree.caliperMm ?? ordered.caliperMm) > thickMm;
  const ball = kind !== 'bare_root';
  const deepMm = structuralDepthMm(tree) ?? 0;
  const circles = (tree.circlingPct ?? 1) > 0;
  const asked: readonly (Question | false)[] = [
    words('kind', 'Kind of stock', stockNames, `Ordered: ${stockNames[ordered.kind]}.`),
    measure('caliperMm', caliperHint(thick, units)),
    measure('heightM', 'From the flare to the tip.'),
    ball && measure('ballDiameterMm', 'At its widest.'),
    ball && measure('ballHeightMm', 'Surplus on top included.'),
    !ball && measure('rootSpreadMm', 'Roots laid out as they grew.'),
    !ball && measure('rootDepthMm', 'Roots spread.'),
    ball && {
      kind: 'probes',
      key: 'probes',
      title: 'Topmost roots',
      hint: 'Push the probe in at three or more points, a hand from the stem. Adventitious roots grew from a buried stem, fine ones bend under the probe: neither sets the depth.',
    },
    ball &&
      tree.probes.some(({ nature }) => nature === 'adventitious') && {
        kind: 'number',
        key: 'stemRoots',
        title: 'Roots from the buried stem',
        hint: 'Those that grow from the stem above the flare; 0 where there are none.',
        quantity: 'roots',
        range: { min: 0, max: limits.rootCount.max, unit: 'roots' },
      },
    ball &&
      (tree.stemRoots ?? 0) > 0 && {
        kind: 'number',
        key: 'stemRootMm',
        title: 'Thickest of them',
        hint: '',
        quantity: 'lengthMm',
        range: limits.rootDiameterMm,
      },
    ball &&
      deepMm > rules.deepRootsMm &&
      measure('surplusLeftMm', 'What cannot come off at planting without breaking the ball; 0 where all of it can.', {
        title: 'Surplus that must stay on',
        range: { min: 0, max: deepMm, unit: 'mm' },
      }),
    kind === 'container' && {
      kind: 'circling',
      key: 'circlingPct',
      title: 'Circling roots',
      hint: 'Slide the container off and hold a picture beside the face of the ball. Potting-on hides old circling.',
    },
    kind === 'container' && yesNo('soilShows', 'Does soil show between the roots?'),
    ball &&
      circles && {
        kind: 'number',
        key: 'thickestCirclingMm',
        title: 'Thickest circling root',
        hint: '',
        quantity: 'lengthMm',
        range: { min: 0, max: 100, unit: 'mm' },
      },
    yesNo('kinked', 'Roots kinked or folded at the stem?'),
    ball && words('ball', 'The ball is', ballStateNames, 'Rock the stem: it and the ball should move as one.'),
    kind === 'balled' && words('wrap', 'Wrap', wrapKindNames, 'Burn or pull a thread: synthetic melts and stretches.'),
    words('ties', 'Ties', wrapKindNames, 'Strings, tape, labels around the stem.'),
    measure('graftHeightMm', 'Skip it on own roots.'),
    words('leader', 'Leader', leaderNames),
    words('wounds', 'Wounds on the trunk', woundNames, 'Large: more than a third of the way round.'),
    yesNo('brokenBranches', 'Broken, dead or diseased branches?'),
    measure('firstBranchM', 'Above the flare.'),
    words('face', 'The crown is', crownFaceNames, 'Mark the best face with tape: the crew turns it as the card says.'),
    words(
      'label',
      'The label says',
      labelKindNames,
      `Ordered: ${ordered.species ?? 'see the order'}. A trade name may mean two species.`,
    ),
    words('sign', 'The sign of the species', signNames, saySign(ordered.sign ?? null)),
    { kind: 'photo', key: 'photo', title: 'Photo', hint: 'Of what speaks for or against the tree.' },
  ];
  return asked.filter((question) => question !== false);
}
