import type { DayPerson, KeepTeams } from '@sombra/contract';
import type { PlannedTeam } from '@sombra/core';

export interface Piece {
  readonly kind: 'person' | 'tree';
  readonly id: string;
}

/** Everybody who goes along: a minor with their guardian, a guardian with their minors. */
function goAlong(people: readonly DayPerson[], id: string): string[] {
  const person = people.find((one) => one.id === id);
  const head = person?.minor && person.guardianId ? person.guardianId : id;
  return [head, ...people.filter(({ guardianId }) => guardianId === head).map((one) => one.id)];
}

/** Teams with one person, or one tree, in another team; `to` −1 is out of all. Who loses its lead gets the next. */
export function moved(
  teams: readonly PlannedTeam[],
  people: readonly DayPerson[],
  piece: Piece,
  to: number,
  at = Number.POSITIVE_INFINITY,
): PlannedTeam[] {
  if (piece.kind === 'tree') {
    return teams.map((team, i) => {
      const spotIds = team.spotIds.filter((id) => id !== piece.id);
      return { ...team, spotIds: i === to ? spotIds.toSpliced(Math.min(at, spotIds.length), 0, piece.id) : spotIds };
    });
  }
  const ids = goAlong(people, piece.id);
  return teams.map((team, i) => {
    const rest = team.helperIds.filter((id) => !ids.includes(id));
    const helperIds =
      i === to
        ? [...rest, ...ids.filter((id) => people.some((one) => one.id === id && one.state === 'confirmed'))]
        : rest;
    return {
      ...team,
      helperIds,
      leadId: helperIds.includes(team.leadId) ? team.leadId : nextLead(people, helperIds, team.leadId),
    };
  });
}

function nextLead(people: readonly DayPerson[], helperIds: readonly string[], before: string): string {
  const grown = helperIds.flatMap((id) => people.find((one) => one.id === id && !one.minor) ?? []);
  return (grown.find(({ skill }) => skill === 'leads') ?? grown[0])?.id ?? before;
}

/** A team nobody is in is no team. */
export const withoutEmpty = (teams: readonly PlannedTeam[]): KeepTeams['teams'] =>
  teams
    .filter(({ helperIds }) => helperIds.length > 0)
    .map(({ leadId, helperIds, spotIds }) => ({ leadId, helperIds: [...helperIds], spotIds: [...spotIds] }));
