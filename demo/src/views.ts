import type { IsoDate } from '@sombra/core';

export interface DemoView {
  readonly signIn: string;
  readonly name: string;
  readonly path: string;
  readonly query: Readonly<Record<string, string>>;
}

/** Views people of the town keep, so that each finds something of theirs. */
export function demoViews(today: IsoDate): DemoView[] {
  const season = Number(today.slice(0, 4)) - (today.slice(5) < '07-01' ? 1 : 0);
  return [
    {
      signIn: 'ines',
      name: 'Stakes past their time',
      path: '/inspect',
      query: { remedy: 'remove_stake', sort: 'plantedOn' },
    },
    { signIn: 'ines', name: 'Planted this season', path: '/town', query: { season: String(season), as: 'map' } },
    {
      signIn: 'ines',
      name: 'Deep flares on Weavers Row',
      path: '/inspect',
      query: { place: 'Weavers Row', level: 'act,urgent', as: 'list' },
    },
    { signIn: 'bento', name: 'Ready for the next day', path: '/day', query: { place: 'Tramway Avenue', as: 'both' } },
    { signIn: 'marta', name: 'Looks due this week', path: '/inspect', query: { due: 'week', sort: 'dueOn' } },
    { signIn: 'marta', name: 'Waterlogged or wet', path: '/inspect', query: { probe: 'wet,saturated', as: 'both' } },
    { signIn: 'visitor', name: 'Everything urgent', path: '/town', query: { level: 'urgent', as: 'map' } },
  ];
}
