import { percolationPlot } from './percolation-plot';

const readings = [
  { minute: 0, levelMm: 300 },
  { minute: 30, levelMm: 280 },
  { minute: 60, levelMm: 150 },
];
const draw = (given = readings) => percolationPlot({ readings: given, units: 'metric', widthPx: 360, heightPx: 170 });

describe('percolation plot', () => {
  it('keeps every point inside and falls with the water', () => {
    const line = draw().shapes.find((shape) => shape.kind === 'line' && shape.role === 'level');
    if (line?.kind !== 'line') throw new Error('no line');
    expect(line.points).toHaveLength(3);
    for (const [x, y] of line.points) expect(x >= 0 && x <= 360 && y >= 0 && y <= 170).toBe(true);
    const ys = line.points.map(([, y]) => y);
    expect([...ys].sort((a, b) => a - b)).toEqual(ys);
  });

  it('draws half the level at half the height', () => {
    const line = draw().shapes.find((shape) => shape.kind === 'line' && shape.role === 'level');
    const axis = draw().shapes.find((shape) => shape.kind === 'line' && shape.role === 'dimension');
    if (line?.kind !== 'line' || axis?.kind !== 'line') throw new Error('not drawn');
    const [top, corner] = [axis.points[0]?.[1] ?? 0, axis.points[1]?.[1] ?? 0];
    expect(line.points[2]?.[1]).toBeCloseTo((top + corner) / 2, 6);
  });

  it('says what it shows, and draws nothing of a single reading', () => {
    expect(draw().description).toBe('Water level from 300 mm at 0 min to 150 mm at 60 min.');
    expect(draw(readings.slice(0, 1)).shapes).toEqual([]);
    expect(draw([]).description).toBe('No readings yet.');
  });
});
