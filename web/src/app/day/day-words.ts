import type { DayDetail } from '@sombra/contract';
import type { LeftWhy, ReadinessTopic, Skill } from '@sombra/core';

export const dayKindNames: Readonly<Record<DayDetail['kind'], string>> = {
  volunteers: 'with volunteers',
  contractor: 'by a contractor',
  hand_out: 'hand-out to residents',
};
export const dayStateNames: Readonly<Record<DayDetail['state'], string>> = {
  planned: 'planned',
  called_off: 'called off',
  closed: 'closed',
};
export const skillNames: Readonly<Record<Skill, string>> = {
  leads: 'leads a team',
  has_planted: 'has planted',
  first_time: 'first time',
};
export const leftWords: Readonly<Record<LeftWhy, string>> = {
  no_waiver: 'no signed waiver',
  no_guardian: 'a minor without a grown-up of theirs',
  together_too_many: 'more together than a team holds',
  no_lead: 'nobody who leads',
  no_room: 'no room in a team',
  no_time: 'no time for it',
  too_heavy: 'too heavy for the team',
};
export const topicNames: Readonly<Record<ReadinessTopic, string>> = {
  cover: 'Leave to dig',
  leave: 'Consent and permits',
  stock: 'Trees',
  plans: 'Pit plans',
  people: 'People',
  teams: 'Teams',
  tools: 'Tools',
  materials: 'Materials',
  cards: 'Cards',
  arrangements: 'Arrangements',
  weather: 'Weather',
};
/** What cures each, as an act, and where it is done; parts are those of the day's own page. */
export const topicCures: Readonly<
  Record<ReadinessTopic, { readonly act: string; readonly path?: string; readonly part?: string }>
> = {
  cover: { act: 'Raise or renew a ticket', path: '/tickets' },
  leave: { act: 'Ask the owner, record the permit', path: '/ground' },
  stock: { act: 'Look at the deliveries', path: '/deliveries' },
  plans: { act: 'Measure what is missing', path: '/stock' },
  people: { act: 'Invite people', part: 'people' },
  teams: { act: 'Make teams', part: 'teams' },
  tools: { act: 'Count the tools', part: 'tools' },
  materials: { act: 'Look at the store', path: '/materials' },
  cards: { act: 'Print the cards', path: '/materials' },
  arrangements: { act: 'Write them down', part: 'plan' },
  weather: { act: 'Decide and tell everybody', part: 'run' },
};

/** Minutes since midnight where the programme is, whatever zone the device stands in. */
export function minuteOf(at: Date, timeZone: string | undefined): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(at);
  const of = (type: 'hour' | 'minute') => Number(parts.find((part) => part.type === type)?.value ?? 0);
  return of('hour') * 60 + of('minute');
}
