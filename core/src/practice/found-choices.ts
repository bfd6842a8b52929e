import { number, option, type ChoiceGroup } from './choice';
import { deepTreeRules, girdlingRules } from './care-options';

/** How the finished work and later finds are judged. */
export const foundChoices: readonly ChoiceGroup[] = [
  {
    name: 'As built',
    choices: [
      number(
        'asBuilt.flareToleranceMm',
        'Flare off plan by at most',
        [0, 100, 'mm'],
        'Crews by hand: 15 mm. Inspectors would have 10.',
        'What a straight edge reads is good to about 5 mm.',
      ),
      number(
        'asBuilt.flareSpreadMm',
        'one side above the other by at most',
        [0, 150, 'mm'],
        'Whoever checks a plumb tree.',
        'A tilted ball dries at its high edge.',
      ),
      number(
        'asBuilt.leastWidthShare',
        'hole at least, of its width',
        [0, 1, 'share'],
        'Payers by the hole.',
        'A tenth less width changes little.',
      ),
      number(
        'asBuilt.leastWaterShare',
        'first water at least, of the dose',
        [0, 1, 'share'],
        'Payers by the truck.',
        'Half a soak leaves the base dry.',
      ),
    ],
  },
  {
    name: 'Found later',
    choices: [
      number(
        'mulch.acceptedDepthMm.min',
        'Mulch thick enough from',
        [0, 150, 'mm'],
        'Inspectors: 25 mm still keeps weeds down.',
        'It loses about half in two years.',
      ),
      number(
        'mulch.acceptedDepthMm.max',
        'too thick over',
        [0, 300, 'mm'],
        'Inspectors: 100 mm.',
        'Thick mulch draws roots up round the stem.',
      ),
      number(
        'inspection.moistureEveryDays',
        'Ball felt in the first growing season every',
        [0, 30, 'days'],
        'Inspectors: each week. 0: only at looks and rounds.',
        'A ball dries or drowns within days in its first summer; the leaves tell weeks later.',
      ),
      number(
        'inspection.firstLooks.everyDays',
        'Looked at in the first weeks every',
        [0, 30, 'days'],
        'Warranty crews and first summers: every few days. 0: by the calendar of months alone.',
        'Most losses of the first season begin in its first weeks.',
      ),
      number(
        'inspection.firstLooks.weeks',
        'for so many',
        [1, 26, 'weeks'],
        'Until the first roots are out: a month or two.',
        'New roots leave the ball within two to eight weeks of growth.',
      ),
      number(
        'inspection.flare.clearFromMm',
        'Flare cleared when deeper than',
        [0, 200, 'mm'],
        'Most: 25 mm; less is watched.',
        'Soil washes and mulch rots: a little comes and goes.',
      ),
      number(
        'inspection.flare.examineFromMm',
        'roots examined from',
        [0, 300, 'mm'],
        'Arborists: 75 mm.',
        'Deeper flares come with girdling roots.',
      ),
      number(
        'inspection.flare.liftOverMm',
        'counts as too deep over',
        [0, 500, 'mm'],
        'Arborists: 150 mm.',
        'Few trees recover by themselves from there.',
      ),
      option(
        'inspection.deepTree',
        'What is done with it',
        deepTreeRules,
        'Early lifting does best; clearing alone helps shallow cases.',
      ),
      number(
        'inspection.replantWithinMonths',
        'young enough to lift for',
        [0, 60, 'months'],
        'Two growing seasons: most.',
        'Later the roots outside the old ball are lost.',
      ),
      number(
        'inspection.exposedMm',
        'flare may stand clear by',
        [0, 300, 'mm'],
        'Inspectors: a hand’s breadth.',
        'Fine roots dry in bare air.',
      ),
      option(
        'inspection.roots.rule',
        'Girdling root',
        girdlingRules,
        'Relief against loss of anchorage and supply; trials are few.',
      ),
      number(
        'inspection.roots.stagedFromPct',
        'pressed share that counts as heavy, from',
        [0, 100, '%'],
        'Arborists: a quarter of the girth.',
        'Decline shows from about a third.',
      ),
      number(
        'inspection.roots.seasonCapPct',
        'removed in one season at most, of root area',
        [1, 100, '%'],
        'Arborists: a quarter.',
        'Cutting more at once costs growth and hold.',
      ),
      number(
        'inspection.roots.referOverPct',
        'past correction from',
        [0, 100, '%'],
        'Arborists: half of the girth.',
        'Where roots ring most of the stem cutting seldom saves it.',
      ),
      number(
        'inspection.roots.referRootOverMm',
        'a root for an arborist over',
        [5, 200, 'mm'],
        'Crews without saw training.',
        'Large roots carry the tree.',
      ),
    ],
  },
];
