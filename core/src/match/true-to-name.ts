import { genusOf, type Foliage, type Species } from './species';

/** What tells a species from those that are sold under the same name. */
export interface NameSign {
  readonly common: string;
  readonly foliage: Foliage;
  /** Others a trade name may mean, those first that leaves alone tell apart. */
  readonly others: readonly { readonly botanical: string; readonly foliage: Foliage }[];
}

const most = 3;
/** The name of the trade is often the last word alone: maple, plane, oak. */
const tradeName = ({ common }: Pick<Species, 'common'>): string => common.split(' ').at(-1)?.toLowerCase() ?? '';

/** The sign of an ordered species; `null` where the library does not know it, or nothing else bears its name. */
export function nameSign(botanical: string, library: readonly Species[]): NameSign | null {
  const ordered = library.find((one) => one.botanical === botanical);
  if (!ordered) return null;
  const alike = library.filter(
    (one) =>
      one.botanical !== botanical &&
      (tradeName(one) === tradeName(ordered) || genusOf(one.botanical) === genusOf(botanical)),
  );
  if (alike.length === 0) return null;
  const differs = (one: Species) => Number(one.foliage !== ordered.foliage);
  const sameName = (one: Species) => Number(tradeName(one) === tradeName(ordered));
  const others = [...alike].sort((a, b) => sameName(b) - sameName(a) || differs(b) - differs(a)).slice(0, most);
  return {
    common: ordered.common,
    foliage: ordered.foliage,
    others: others.map(({ botanical: name, foliage }) => ({ botanical: name, foliage })),
  };
}
