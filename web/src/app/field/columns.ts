import type { SpotLine, SpotSort } from '@sombra/contract';
import { levelNames, preparingStages, probeNames, stageNames, type Stage } from '@sombra/core';
import { sayDay, sayLateness } from '../ui/say-date';

export interface Column {
  readonly key: SpotSort;
  readonly name: string;
  /** What the heading explains when pointed at. */
  readonly help: string;
  readonly cell: (line: SpotLine, on: string) => string;
}

const date = (day: string | null): string => (day ? sayDay(day) : '');
const lateness = (day: string | null, on: string): string =>
  day ? sayLateness(Math.round((Date.parse(on) - Date.parse(day)) / 86_400_000)) : '';

export const columns: readonly Column[] = [
  { key: 'ref', name: 'Number', help: 'Number of the spot', cell: ({ ref }) => ref },
  {
    key: 'place',
    name: 'Place',
    help: 'Street, park or yards',
    cell: ({ place }) => place,
  },
  {
    key: 'species',
    name: 'Species',
    help: 'Botanical name',
    cell: ({ species }) => species ?? 'no tree yet',
  },
  {
    key: 'stage',
    name: 'Stage',
    help: 'Where in its life the spot stands',
    cell: ({ stage }) => stageNames[stage],
  },
  {
    key: 'level',
    name: 'Level',
    help: 'The worst finding that is still open',
    cell: ({ level }) => levelNames[level],
  },
  {
    key: 'decisions',
    name: 'Open',
    help: 'Decisions open on this day',
    cell: ({ decisions }) => String(decisions),
  },
  {
    key: 'dueOn',
    name: 'Due',
    help: 'The earliest last day of its decisions',
    cell: ({ dueOn }, on) => lateness(dueOn, on),
  },
  {
    key: 'plantedOn',
    name: 'Planted',
    help: 'Day of planting',
    cell: ({ plantedOn }) => date(plantedOn),
  },
  {
    key: 'nextLookOn',
    name: 'Next look',
    help: 'Day of the next inspection',
    cell: ({ nextLookOn }) => date(nextLookOn),
  },
  {
    key: 'probe',
    name: 'Probe',
    help: 'Last probe at ball depth',
    cell: ({ probe }) => (probe ? probeNames[probe] : ''),
  },
];

const inPreparation: readonly SpotSort[] = ['ref', 'place', 'species'];
const planted: readonly SpotSort[] = ['ref', 'place', 'species', 'level', 'dueOn'];

/** What a list shows until somebody chooses otherwise. */
export const usualColumns = (stage: Stage | null): readonly SpotSort[] =>
  (preparingStages as readonly (Stage | null)[]).includes(stage) ? inPreparation : planted;
