import type { Dice } from './seed';

/** Trees of a mild dry-summer coast by how often the programme planted them; hackberry is past its share. */
const shares: readonly (readonly [species: string, weight: number])[] = [
  ['Celtis australis', 14],
  ['Tipuana tipu', 8],
  ['Jacaranda mimosifolia', 7],
  ['Metrosideros excelsa', 7],
  ['Ceratonia siliqua', 6],
  ['Olea europaea', 6],
  ['Quercus suber', 5],
  ['Quercus ilex', 4],
  ['Fraxinus angustifolia', 5],
  ['Koelreuteria paniculata', 4],
  ['Tilia tomentosa', 4],
  ['Prunus lusitanica', 3],
  ['Ginkgo biloba', 3],
  ['Pistacia lentiscus', 2],
  ['Arbutus unedo', 3],
  ['Laurus nobilis', 3],
  ['Cercis siliquastrum', 3],
  ['Melia azedarach', 2],
  ['Zelkova serrata', 2],
  ['Acer monspessulanum', 2],
  ['Gleditsia triacanthos', 2],
  ['Morella faya', 2],
  ['Persea indica', 1],
  ['Ilex perado', 1],
  ['Brachychiton populneus', 2],
  ['Schinus molle', 1],
  ['Parrotia persica', 1],
  ['Cupressus sempervirens', 2],
];

const total = shares.reduce((sum, [, weight]) => sum + weight, 0);

export function pickSpecies(from: Dice): string {
  let left = from.next() * total;
  for (const [species, weight] of shares) {
    left -= weight;
    if (left < 0) return species;
  }
  return 'Celtis australis';
}
