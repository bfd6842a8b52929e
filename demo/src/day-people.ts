import { seededUuid, type Dice } from './seed';

/** Somebody registered for a planting day, as the day keeps them. */
export interface DemoHelper {
  readonly id: string;
  readonly name: string;
  readonly skill: 'leads' | 'has_planted' | 'first_time';
  readonly minor: boolean;
  readonly guardianId: string | null;
  readonly together: string | null;
  readonly noLifting: boolean;
  readonly photos: boolean;
  readonly waiver: boolean;
  readonly state: 'confirmed' | 'waiting';
  /** Their sign-in, where they are of the programme. */
  readonly signIn: string | null;
}

const given = [
  'Alda',
  'Brás',
  'Celina',
  'Davi',
  'Elmo',
  'Fania',
  'Gil',
  'Hermia',
  'Iago',
  'Jacinta',
  'Kelmo',
  'Livia',
  'Moro',
  'Nélia',
  'Otília',
  'Paio',
  'Quita',
  'Remo',
  'Salva',
  'Telma',
  'Urbano',
  'Vasca',
  'Xana',
  'Zulmiro',
] as const;
const family = [
  'Arvelo',
  'Brumal',
  'Cantoria',
  'Dorval',
  'Esmeril',
  'Faroleiro',
  'Galhana',
  'Lastro',
  'Mareal',
  'Ondino',
  'Pedraluz',
  'Salgueda',
  'Vimieiro',
] as const;

/**
 * People of a day: one in four leads, some have planted before, two minors come with somebody, two want to stay
 * together, one may not lift, and two have not signed yet. The first is the crew lead of the programme.
 */
export function dayHelpers(from: Dice, { count, atMs }: { count: number; atMs: number }): DemoHelper[] {
  const names = new Set<string>();
  const helpers = Array.from({ length: count }, (_, i): DemoHelper => {
    let name = `${from.pick(given)} ${from.pick(family)}`;
    while (names.has(name)) name = `${from.pick(given)} ${from.pick(family)}`;
    names.add(name);
    return {
      id: seededUuid(atMs + i * 1000, from),
      name: i === 0 ? 'Bento Quarel' : name,
      skill: i === 0 || i % 4 === 1 ? 'leads' : from.chance(0.45) ? 'has_planted' : 'first_time',
      minor: false,
      guardianId: null,
      together: i === 6 || i === 8 ? 'neighbours' : null,
      noLifting: i === 11,
      photos: from.chance(0.8),
      waiver: i !== 10 && i !== 14,
      state: 'confirmed',
      signIn: i === 0 ? 'bento' : null,
    };
  });
  return helpers.map((one, i) =>
    i === 4 || i === 12
      ? {
          ...one,
          skill: 'first_time',
          minor: true,
          noLifting: true,
          guardianId: helpers[i - 1]?.id ?? null,
          waiver: true,
        }
      : one,
  );
}
