import { number, option, type ChoiceGroup } from './choice';
import { nurseryTies, rootCorrections, wrapRemovals } from './tree-options';

/** What arrives, how it is lifted, and what is done to roots and wrap. */
export const stockChoices: readonly ChoiceGroup[] = [
  {
    name: 'What arrives',
    choices: [
      number(
        'receiving.circlingCorrectPct',
        'Circling roots: corrected from',
        [0, 100, '%'],
        'Nursery inspectors; some correct every container.',
        'Counted on the face of the ball: small shares seldom girdle.',
      ),
      number(
        'receiving.circlingReturnPct',
        'sent back from',
        [0, 100, '%'],
        'Programmes with a written specification.',
        'Potting-on hides old circling: open a sample.',
      ),
      number(
        'receiving.circlingRootReturnMm',
        'a circling root sent back from',
        [0, 100, 'mm'],
        'Arborists: a thick one cannot be cut without harm.',
        'Large cuts at planting cost stability and decay inward.',
      ),
      number(
        'receiving.deepRootsMm',
        'Topmost roots: noted deeper than',
        [0, 300, 'mm'],
        'Inspectors who probe every lot.',
        'Stock is often 50–150 mm too deep in its ball.',
      ),
      number(
        'receiving.deepRootsReturnShare',
        'sent back deeper than, of the ball',
        [0, 0.9, 'share'],
        'Buyers: what is left of the ball is not what was paid for.',
        'Surplus soil carries few roots that matter.',
      ),
      number(
        'receiving.ballPerCaliper',
        'Ball at least, times the caliper',
        [2, 20, '×'],
        'Nursery standards: eight to twelve.',
        'A small ball holds too few roots for its crown.',
      ),
      number(
        'receiving.ballHeightLeastShare',
        'ball height at least, of its width',
        [0, 1, 'share'],
        'Nursery standards: half to three quarters.',
        'Flat balls dry first at their edge.',
      ),
      number(
        'receiving.caliperShortShare',
        'caliper may fall short by',
        [0, 0.5, 'share'],
        'Buyers: within the grade that was ordered.',
        'Small trees catch up; the price does not.',
      ),
      number(
        'receiving.lotBadPct',
        'A lot may hold bad trees up to',
        [1, 50, '%'],
        'Buyers: what replacement costs less than inspection.',
        'With what is borne the sample grows smaller.',
      ),
      number(
        'receiving.lotSurePct',
        'found with a certainty of',
        [50, 99.9, '%'],
        'Quality control by samples: mostly 90 or 95.',
        'The rest is the chance to take a bad lot.',
      ),
    ],
  },
  {
    name: 'Lifting',
    choices: [
      number(
        'lifting.onePersonKg',
        'One person lifts up to',
        [5, 50, 'kg'],
        'Safety officers; local rules come first.',
        'What is safe falls with reach, twist and repetition.',
      ),
      number(
        'lifting.twoPeopleKg',
        'two lift up to',
        [5, 80, 'kg'],
        'Safety officers.',
        'What one lifts does not add up in a team.',
      ),
      number(
        'lifting.threePeopleKg',
        'three lift up to',
        [5, 100, 'kg'],
        'Safety officers; more people than three are in each other’s way.',
        'Team capacity grows slower than the team.',
      ),
      number(
        'lifting.trolleyMostKg',
        'on a trolley up to',
        [20, 1000, 'kg'],
        'Crews with a ball trolley; its plate says what it bears.',
        'Loss of control is what hurts.',
      ),
      number(
        'lifting.trolleySteepestPct',
        'trolley held up to a slope of',
        [0, 30, '%'],
        'Crews on hills.',
        'Push grows with slope; beyond a seventh nobody holds a ball.',
      ),
    ],
  },
  {
    name: 'Roots and wrap',
    choices: [
      option(
        'roots.correction',
        'Container roots',
        rootCorrections,
        'Circling roots keep circling; shaving gives most new radial roots.',
      ),
      number(
        'roots.shaveOverPct',
        'shave where circling covers more than',
        [0, 100, '%'],
        'Programmes that judge each ball: a fifth of its face.',
        'Where few roots circle, slits cost less.',
      ),
      number(
        'roots.clearMostMm',
        'surplus taken off at planting at most',
        [0, 600, 'mm'],
        'Crews whose balls broke; others take off all there is.',
        'Clearing more at once may break the ball or dry what fed the crown.',
      ),
      number(
        'roots.clearLaterMonths',
        'the rest after',
        [1, 48, 'months'],
        'Inspectors: once the ball is held by new roots.',
        'New roots hold a ball after one growing season.',
      ),
      option(
        'roots.wrap',
        'Basket and burlap',
        wrapRemovals,
        'What stays may girdle or wick; whole removal may break the ball. Synthetic wrap and all strings always come off.',
      ),
      option(
        'roots.ties',
        'Nursery stake, tags and trunk wrap',
        nurseryTies,
        'Forgotten ties strangle within two seasons; wrap hides decay.',
      ),
    ],
  },
];
