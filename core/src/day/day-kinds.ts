import { readinessTopics, type ReadinessTopic } from './readiness';

/** A day of volunteers; of a contractor's crew, who bring their own people and tools; or one on which trees are handed out. */
export const dayKinds = ['volunteers', 'contractor', 'hand_out'] as const;
export type DayKind = (typeof dayKinds)[number];

export interface DayParts {
  /** Whether people register, and are checked in. */
  readonly people: boolean;
  /** Whether Sombra puts teams together, counts tools out and shows their run. */
  readonly teams: boolean;
  /** Whether trees go to residents, who plant them by themselves. */
  readonly handsOut: boolean;
  /** What has to be right before the day. */
  readonly topics: readonly ReadinessTopic[];
}

const without = (...out: readonly ReadinessTopic[]): readonly ReadinessTopic[] =>
  readinessTopics.filter((topic) => !out.includes(topic));

/** The same day with other parts. */
export const dayParts: Readonly<Record<DayKind, DayParts>> = {
  volunteers: { people: true, teams: true, handsOut: false, topics: readinessTopics },
  contractor: { people: false, teams: false, handsOut: false, topics: without('people', 'teams', 'tools') },
  hand_out: { people: false, teams: false, handsOut: true, topics: without('people', 'teams', 'tools', 'materials') },
};
