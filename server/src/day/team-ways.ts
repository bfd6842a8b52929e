import type { DayDetail } from '@sombra/contract';
import { nameOfTeam } from '@sombra/core';
import type { Way } from '../streets/way-files';

/** Each team's trees in their order, from the gathering place where one is known. */
export function waysOf({ teams, people, trees, gathering, arrangements }: DayDetail): Way[] {
  const byId = new Map(trees.map((tree) => [tree.spotId, tree]));
  return teams.map(({ leadId, spotIds }, i) => ({
    name: `Team ${nameOfTeam(people.find(({ id }) => id === leadId)?.name, i)}`,
    stops: [
      ...(gathering ? [{ ref: arrangements.gathering || 'Gathering place', position: gathering }] : []),
      ...spotIds.flatMap((id) => byId.get(id) ?? []),
    ],
  }));
}
