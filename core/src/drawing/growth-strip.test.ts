import { shippedSpecies, sunAt, type Species } from '../match';
import { growthStrip, stripOf, stripYears, type GrowthStripInput } from './growth-strip';

const species = (name: string): Species => {
  const found = shippedSpecies.find(({ botanical }) => botanical === name);
  if (!found) throw new Error(name);
  return found;
};

const input: GrowthStripInput = {
  species: species('Celtis australis'),
  room: { tallestM: 6, wireM: null, wallM: 4, nextTreeM: null },
  wireHeightM: 7.5,
  pavement: { towardsDeg: 0, distanceM: 1, widthM: 2 },
  sun: sunAt('2026-06-21T16:00:00Z', [-25.4, 36.9]),
  heightAtPlantingM: 3,
  units: 'metric',
  widthPx: 700,
  heightPx: 220,
};

describe('growth strip', () => {
  it('shows the tree at planting and after 5, 10, 20 and 30 years, never smaller than before', () => {
    const years = stripOf(input);
    expect(years.map(({ year }) => year)).toEqual([...stripYears]);
    expect(years[0]?.heightM).toBe(3);
    for (let i = 1; i < years.length; i++) {
      expect(years[i]?.heightM ?? 0).toBeGreaterThanOrEqual(years[i - 1]?.heightM ?? 0);
    }
  });

  it('draws every tree within its sheet, and marks those that meet something', () => {
    const { shapes, description } = growthStrip(input);
    for (const shape of shapes) {
      const points = shape.kind === 'text' ? [shape.at] : shape.points;
      for (const [x, y] of points) {
        expect(x).toBeGreaterThanOrEqual(-1);
        expect(x).toBeLessThanOrEqual(input.widthPx + 1);
        expect(y).toBeGreaterThanOrEqual(-1);
        expect(y).toBeLessThanOrEqual(input.heightPx + 1);
      }
    }
    expect(shapes.filter(({ role }) => role === 'crown' || role === 'crown_conflict')).toHaveLength(5);
    expect(shapes.some(({ role }) => role === 'crown_conflict')).toBe(true);
    expect(description).toMatch(/^Celtis australis: .* first meets the (wire|wall) in year \d+\.$/);
  });

  it('meets nothing where nothing stands', () => {
    const free = { ...input, room: { tallestM: null, wireM: null, wallM: null, nextTreeM: null }, wireHeightM: null };
    const { shapes, description } = growthStrip(free);
    expect(shapes.some(({ role }) => role === 'crown_conflict' || role === 'wire')).toBe(false);
    expect(description).toContain('meets nothing');
  });
});
