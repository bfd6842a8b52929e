import { circlingFace, circlingSteps } from './circling-scale';

const lines = (pct: number) =>
  circlingFace(pct, 100).shapes.flatMap((shape) =>
    shape.kind === 'line' && shape.role === 'root' ? [shape.points] : [],
  );
const ballOf = (pct: number) => {
  const ball = circlingFace(pct, 100).shapes.find(({ role }) => role === 'ball');
  const ys = ball && ball.kind !== 'text' ? ball.points.map(([, y]) => y) : [];
  return { top: Math.min(...ys), base: Math.max(...ys) };
};

describe('the picture scale of circling roots', () => {
  it('shows a bare face and ever more of it circled', () => {
    const counts = circlingSteps.map((pct) => lines(pct).length);
    expect(counts[0]).toBe(0);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(new Set(counts).size).toBe(counts.length);
  });
  it.each([30, 50, 75])('draws roots from the base up over about %d %% of the face', (pct) => {
    const { top, base } = ballOf(pct);
    const highest = Math.min(
      ...lines(pct)
        .flat()
        .map(([, y]) => y),
    );
    const shown = (100 * (base - highest)) / (base - top);
    // A root is as thick as a seventh of a tenth: the eye does not read closer than that.
    expect(Math.abs(shown - pct)).toBeLessThan(9);
  });
  it('keeps every root on the face, and says in words what it shows', () => {
    for (const pct of circlingSteps) {
      const { top, base } = ballOf(pct);
      for (const [x, y] of lines(pct).flat()) {
        expect(x).toBeGreaterThan(0);
        expect(x).toBeLessThan(100);
        expect(y).toBeGreaterThanOrEqual(top);
        expect(y).toBeLessThanOrEqual(base + 1);
      }
      expect(circlingFace(pct).description).toContain(`${pct} % of the face`);
    }
  });
});
