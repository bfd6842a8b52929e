import { dayParts, type DayKind } from './day-kinds';

/** What is done before the last one leaves; `heeled_in` for each tree that was not planted. */
export const closeDownTasks = ['heeled_in', 'holes_fenced', 'tools_back', 'containers_back', 'all_home'] as const;
export type CloseDownTask = (typeof closeDownTasks)[number];

export interface CloseDownItem {
  readonly task: CloseDownTask;
  /** The tree that was not planted; `null` for what is done once. */
  readonly spotId: string | null;
}

const sameItem = (a: CloseDownItem, b: CloseDownItem): boolean => a.task === b.task && a.spotId === b.spotId;

/** The list of a day as it stands: what is left of trees and holes first, and whether somebody ticked it. */
export function closeDownOf(
  day: { readonly kind: DayKind; readonly trees: readonly { readonly spotId: string; readonly planted: boolean }[] },
  ticked: readonly CloseDownItem[],
): readonly (CloseDownItem & { readonly done: boolean })[] {
  const { people, teams, handsOut } = dayParts[day.kind];
  const left = day.trees.filter(({ planted }) => !planted);
  const once: readonly (CloseDownTask | false)[] = [
    left.length > 0 && !handsOut && 'holes_fenced',
    teams && 'tools_back',
    !handsOut && 'containers_back',
    people && 'all_home',
  ];
  const items: CloseDownItem[] = [
    ...left.map(({ spotId }) => ({ task: 'heeled_in' as const, spotId })),
    ...once.filter((task) => task !== false).map((task) => ({ task, spotId: null })),
  ];
  return items.map((item) => ({ ...item, done: ticked.some((one) => sameItem(one, item)) }));
}
