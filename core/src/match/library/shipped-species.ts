import type { Species } from '../species';
import { broadleavesAToL } from './broadleaves-a-l';
import { broadleavesLToZ } from './broadleaves-l-z';
import { conifers } from './conifers';
import { readRow } from './read-row';

/** The species Sombra ships with, by botanical name; a programme edits its own copy. */
export const shippedSpecies: readonly Species[] = [broadleavesAToL, broadleavesLToZ, conifers]
  .flatMap((block) => block.trim().split('\n').map(readRow))
  .sort((a, b) => a.botanical.localeCompare(b.botanical));
