import type { Act } from '@sombra/contract';
import { stageNames } from '@sombra/core';
import { openStages, type OpenStage } from '../ui/open-stages';

export interface Page {
  readonly path: string;
  readonly name: string;
  /** Pressed after `g`. */
  readonly key: string;
  /** What one must be allowed to do to be shown it; everybody may see the others. */
  readonly act?: Act;
  /** Other words somebody may look for it by, small. */
  readonly words?: string;
}

/** Pages that belong together and stand in one row. */
export interface PageGroup {
  readonly name: string;
  /** The stage whose spots stand first in the row; `null` for what is of no stage. */
  readonly stage: OpenStage | null;
  readonly pages: readonly Page[];
}

/** Where the work of a stage is besides its spots. A new stage brings its own here. */
const pagesOfStage: Partial<Record<OpenStage, readonly Page[]>> = {
  ground: [
    { path: '/tickets', name: 'Locate tickets', key: 'k', words: 'utilities digging cover' },
    { path: '/rules', name: 'Rules', key: 'r', words: 'distances limits weights' },
  ],
  match: [
    { path: '/lists', name: "Season's lists", key: 'l', words: 'order budget' },
    { path: '/species', name: 'Species library', key: 's' },
    { path: '/nurseries', name: 'Nurseries', key: 'n', words: 'offers availability' },
  ],
  stock: [{ path: '/deliveries', name: 'Deliveries', key: 'v', words: 'receive lots claims' }],
  pit: [
    { path: '/practices', name: 'Practices', key: 'p', words: 'schools adopt compare' },
    { path: '/materials', name: 'Materials and hours', key: 'm', words: 'store mulch compost' },
  ],
};

const programmePages: readonly Page[] = [
  { path: '/programme', name: 'Programme', key: 'o', words: 'settings time zone holidays windows' },
  { path: '/people', name: 'People', key: 'e', words: 'roles passwords rights', act: 'manage_people' },
  { path: '/base-map', name: 'Base map', key: 'b', words: 'layers geojson pmtiles', act: 'change_base_map' },
];

export const pageGroups: readonly PageGroup[] = [
  ...openStages.map((stage) => ({ name: stageNames[stage], stage, pages: pagesOfStage[stage] ?? [] })),
  { name: 'Programme', stage: null, pages: programmePages },
];
export const allPages: readonly Page[] = pageGroups.flatMap(({ pages }) => pages);

/** The group an address belongs to, by its first part; `undefined` for the desk, the town and what is one's own. */
export function groupOf(url: string): PageGroup | undefined {
  const first = `/${url.split(/[/?#]/)[1] ?? ''}`;
  return pageGroups.find(({ stage, pages }) => first === `/${stage}` || pages.some(({ path }) => path === first));
}

const small = (text: string): string => text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');

/** Pages whose name, or another word for it, begins with what was typed. */
export function pagesLike(words: string): Page[] {
  const typed = small(words.trim());
  if (typed.length < 2) return [];
  return allPages.filter(({ name, words: more = '' }) =>
    ` ${small(name)} ${more}`.replaceAll("'", ' ').includes(` ${typed}`),
  );
}
