import type { FindHit } from '@sombra/contract';
import { sayIsoDay } from '@sombra/core';
import { withStandingTree } from '../spots/repository';
import { escapeLike, type Db } from '../platform/db';

const each = 6;

/** A number as it is said: letters and figures alone. */
const saidRef = `regexp_replace(spot.ref, '[^[:alnum:]]', '', 'g')`;

/** Trees and spots whose number holds the words, those that begin with them first; `w163` finds W-0163 too. */
export async function findTrees(db: Db, words: string): Promise<FindHit[]> {
  const [, letters, figures] = /^([a-z]*)[^a-z0-9]*0*(\d*)$/i.exec(words.trim()) ?? [];
  const said = letters || figures ? `^${letters ?? ''}0*${figures ?? ''}` : null;
  const rows = await withStandingTree(db, db('spot').join('place', 'place.id', 'spot.place_id'))
    .whereNull('spot.withdrawn_on')
    .where((or) => {
      void or.whereILike('spot.ref', `%${escapeLike(words)}%`);
      if (said) void or.orWhereRaw(`${saidRef} ~* ?`, [said]);
    })
    .orderByRaw('(spot.ref ilike ?) desc', [`${escapeLike(words)}%`])
    .orderBy('spot.ref')
    .limit(each)
    .select<{ id: string; ref: string; place: string; species: string | null }[]>(
      'spot.id',
      'spot.ref',
      'place.name as place',
      'tree.species',
    );
  return rows.map(({ id, ref, place, species }) => ({
    kind: 'tree',
    name: ref,
    detail: [place, species].filter(Boolean).join(' · '),
    path: `/town/${id}`,
    query: {},
  }));
}

export async function findPlaces(db: Db, words: string): Promise<FindHit[]> {
  const rows = await db('place')
    .join('spot', 'spot.place_id', 'place.id')
    .whereILike('place.name', `%${escapeLike(words)}%`)
    .groupBy('place.name')
    .orderBy('place.name')
    .limit(each)
    .select<{ name: string; count: number }[]>('place.name', db.raw('count(*)::int as count'));
  return rows.map(({ name, count }) => hit('place', name, `${count} spots`, { place: name }));
}

export async function findSpecies(db: Db, words: string): Promise<FindHit[]> {
  const rows = await db('tree')
    .where({ standing: true })
    .whereILike('species', `%${escapeLike(words)}%`)
    .groupBy('species')
    .orderBy('species')
    .limit(each)
    .select<{ name: string; count: number }[]>('species as name', db.raw('count(*)::int as count'));
  return rows.map(({ name, count }) => hit('species', name, `${count} trees`, { species: name }));
}

export async function findPeople(db: Db, words: string): Promise<FindHit[]> {
  const rows = await db('app_user')
    .whereILike('name', `%${escapeLike(words)}%`)
    .orderBy('name')
    .limit(each)
    .select<{ name: string; role: string }[]>('name', 'role');
  return rows.map(({ name, role }) =>
    hit('person', name, `${role.replace('_', ' ')}; what they recorded`, { recordedBy: name }),
  );
}

export async function findDays(db: Db, words: string): Promise<FindHit[]> {
  const rows = await db('planting_day')
    .where((or) =>
      or
        .whereILike('title', `%${escapeLike(words)}%`)
        .orWhereRaw(`to_char(on_day, 'YYYY-MM-DD') like ?`, [`${words}%`]),
    )
    .orderBy('on_day', 'desc')
    .limit(each)
    .select<{ id: string; title: string; on_day: string }[]>('id', 'title', 'on_day');
  return rows.map(({ id, title, on_day }) =>
    hit('day', title, `planting day, ${sayIsoDay(on_day)}`, { day: id, on: on_day }),
  );
}

const hit = (kind: FindHit['kind'], name: string, detail: string, query: Record<string, string>): FindHit => ({
  kind,
  name,
  detail,
  path: '/town',
  query,
});
