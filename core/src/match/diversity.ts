import { genusOf } from './species';

export const ranks = ['species', 'genus', 'family'] as const;
export type Rank = (typeof ranks)[number];

/** Trees of each species; family by species where it is known. */
export interface PopulationCount {
  readonly species: string;
  readonly family: string;
  readonly count: number;
}

export interface Share {
  readonly taxon: string;
  readonly count: number;
  /** Of all trees, %. */
  readonly pct: number;
}

export const taxonOf = (tree: { species: string; family: string }, rank: Rank): string =>
  rank === 'species' ? tree.species : rank === 'genus' ? genusOf(tree.species) : tree.family;

/** Shares of a population at one rank, largest first; equal ones by name. */
export function sharesOf(population: readonly PopulationCount[], rank: Rank): Share[] {
  const counts = new Map<string, number>();
  let total = 0;
  for (const tree of population) {
    const taxon = taxonOf(tree, rank);
    counts.set(taxon, (counts.get(taxon) ?? 0) + tree.count);
    total += tree.count;
  }
  return [...counts]
    .map(([taxon, count]) => ({ taxon, count, pct: total > 0 ? (count / total) * 100 : 0 }))
    .sort((a, b) => b.count - a.count || a.taxon.localeCompare(b.taxon));
}
