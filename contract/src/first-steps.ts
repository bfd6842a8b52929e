import type { Role } from './session';

export interface FirstStep {
  readonly title: string;
  /** What one sees there and does. */
  readonly what: string;
  /** The screen it walks to. */
  readonly path: string;
}

/** The first hour with Sombra, for each role: steps that walk the real screens. */
export const firstSteps: Readonly<Record<Role, readonly FirstStep[]>> = {
  administrator: [
    {
      title: 'Say where you are',
      what: 'Name, place, time zone, days off and planting windows: every date and every drop of water is worked out from them.',
      path: '/programme',
    },
    {
      title: 'Invite people',
      what: 'Each gets a role and a link that opens once. Rights follow the role; nobody shares a password.',
      path: '/people',
    },
    {
      title: 'Put a map under it',
      what: 'Streets, buildings, parks and utilities from your own files. Without one, spots stand on plain paper.',
      path: '/base-map',
    },
    {
      title: 'Choose what you hold right',
      what: 'Practices are schools, not settings hidden in code: compare them, adopt one, change a choice and see what it does.',
      path: '/practices',
    },
    {
      title: 'Bring in what you have',
      what: 'A CSV or GeoJSON of spots and trees. What does not fit is said by line and column, and nothing is half stored.',
      path: '/import',
    },
  ],
  coordinator: [
    {
      title: 'Begin at the desk',
      what: 'What needs a person today, the most costly to leave first. Each line says why; one tap settles what one tap can.',
      path: '/desk',
    },
    {
      title: 'Look at the town',
      what: 'Every spot on the map and in one list. Choose several with boxes or the lasso, and act on all of them at once.',
      path: '/town',
    },
    {
      title: 'Measure the ground',
      what: 'Soil, slope, wires, a percolation test: what is missing holds up the pit, and the stage says which.',
      path: '/ground',
    },
    {
      title: 'Write the season’s list',
      what: 'Places without a species get one each by site, budget and variety; the list becomes orders.',
      path: '/lists',
    },
    {
      title: 'Plan a planting day',
      what: 'Spots, date, people. Readiness shows red lines first, each with the act that cures it.',
      path: '/days',
    },
    {
      title: 'Send people round',
      what: 'Water where the balance says so, looks where they are worth most, remedies in batches with their tools.',
      path: '/looks',
    },
  ],
  crew_lead: [
    {
      title: 'Take it along',
      what: 'Open this page on the phone while there is a network: it says when the phone may leave the depot.',
      path: '/along',
    },
    {
      title: 'Run the day',
      what: 'Teams, their trees in order, safety first; what happens is recorded as it happens, with or without a signal.',
      path: '/days',
    },
    {
      title: 'Record as built',
      what: 'Flare above grade at four points, hole width, first water: each number is held against the plan at once.',
      path: '/day',
    },
    {
      title: 'Carry out remedies',
      what: 'What is to be done, with which tools, and the measure that closes it.',
      path: '/remedies',
    },
    {
      title: 'See what waits to be sent',
      what: 'Nothing is lost without a network: it waits on this device and goes out by itself.',
      path: '/waiting',
    },
  ],
  inspector: [
    {
      title: 'Take your round along',
      what: 'Trees in walking order with their last look and photos; the phone says when it is ready.',
      path: '/along',
    },
    {
      title: 'Make a look',
      what: 'Eight steps, one tap each where all is well. What you do not look at is never called good.',
      path: '/inspect',
    },
    {
      title: 'See how looks are judged',
      what: 'Worked cases: what is found, the verdict, the remedy, who may do it and by when.',
      path: '/judgement',
    },
  ],
  waterer: [
    {
      title: 'Take your round along',
      what: 'Stops in order, the litres of each, where to fill up. It works all day without a network.',
      path: '/along',
    },
    {
      title: 'See who is dry by when',
      what: 'Each tree by the day its ball runs dry, and why. A probe in the ball decides.',
      path: '/water',
    },
  ],
  viewer: [
    {
      title: 'Look at the town',
      what: 'Every tree and its state today, or on any day on the band above.',
      path: '/town',
    },
    {
      title: 'See what the desk sees',
      what: 'What waits, most costly to leave first, with its reasons. You look; others act.',
      path: '/desk',
    },
  ],
};
