/** Words of the work that explain themselves where they stand. */
export const termCodes = [
  'caliper',
  'flare',
  'grade',
  'proud',
  'ball',
  'berm',
  'mulch_ring',
  'percolation',
  'probe',
  'circling',
  'girdling',
  'staged',
  'collar',
  'ticket',
  'established',
] as const;
export type TermCode = (typeof termCodes)[number];

export interface Term {
  readonly name: string;
  /** One or two sentences: what it is, and how one finds or measures it. */
  readonly what: string;
}

export const glossary: Readonly<Record<TermCode, Term>> = {
  caliper: {
    name: 'Caliper',
    what: 'How thick the trunk is, 150 mm above the flare; 300 mm above it where it is thicker than 100 mm. Measured twice, crosswise, and halved.',
  },
  flare: {
    name: 'Root flare',
    what: 'Where the trunk widens into its topmost roots. It belongs in sight, at the surface or a little above: a trunk that goes into the ground like a pole is planted or buried too deep.',
  },
  grade: {
    name: 'Grade',
    what: 'The surface of the ground as it is to stay; on a slope, its uphill edge at the hole.',
  },
  proud: {
    name: 'Proud',
    what: 'How far the flare stands above grade after planting, so that it is still in sight once the soil under the ball has settled.',
  },
  ball: {
    name: 'Ball',
    what: 'Roots and soil as they came: in a pot, a bag or a wrap. Its height counts from the flare, once the surplus on top is scraped away.',
  },
  berm: {
    name: 'Berm',
    what: 'A low ring of soil that holds the water over the ball until it has soaked in. Around the ball at first, further out as roots grow; none where water stands.',
  },
  mulch_ring: {
    name: 'Mulch ring',
    what: 'Bark, chips or leaves over the ground that is kept free of grass, as thick as the practice says and never against the trunk.',
  },
  percolation: {
    name: 'Percolation',
    what: 'How fast water sinks away in a test hole that was soaked before, in mm an hour. It decides how deep the ball sits, whether there is a berm, and how often to water.',
  },
  probe: {
    name: 'Probe',
    what: 'A thin corer pushed into the ball to its base: what sticks to it tells how wet the roots stand. Leaves cannot tell dry from drowned.',
  },
  circling: {
    name: 'Circling root',
    what: 'A root that follows the wall of its pot instead of growing outward. Cut or straightened at planting, before it thickens.',
  },
  girdling: {
    name: 'Girdling root',
    what: 'A root that lies across the trunk or its roots and presses as both thicken. The share of the girth it presses decides what is done.',
  },
  staged: {
    name: 'Staged cuts',
    what: 'Girdling roots cut over several seasons, never two neighbouring ones in one, so that the tree keeps its hold and its supply meanwhile.',
  },
  collar: {
    name: 'Collar',
    what: 'The foot of the trunk with the roots that leave it: what is uncovered by hand, and never scraped into, to look for the flare and for girdling roots.',
  },
  ticket: {
    name: 'Locate ticket',
    what: 'The request to all utilities to mark their lines where somebody will dig. Nobody digs without an answer from each of them, valid on that day.',
  },
  established: {
    name: 'Established',
    what: 'A tree that needs no more help: it grows as usual, stands firm without a stake, lives by the soil around it, and its last look asked for nothing. A person says so.',
  },
};
