import { feelQuestion, feelTest, firstFeelQuestion, type FeelStep } from './feel-test';
import { soilClasses, type SoilClass } from './soil';

/** Every way through the test. */
function paths(step: FeelStep, seen: readonly string[] = []): { soil: SoilClass; steps: number }[] {
  if (step.kind === 'soil') return [{ soil: step.soil, steps: seen.length }];
  expect(seen).not.toContain(step.id);
  return feelQuestion(step.id).answers.flatMap(({ leadsTo }) => paths(leadsTo, [...seen, step.id]));
}

describe('the feel test', () => {
  it('ends in a class within three questions, whatever is answered', () => {
    expect(Math.max(...paths(firstFeelQuestion).map(({ steps }) => steps))).toBeLessThanOrEqual(3);
  });

  it('can end in every class there is', () => {
    expect(new Set(paths(firstFeelQuestion).map(({ soil }) => soil))).toEqual(new Set(soilClasses));
  });

  it('asks no question nobody is led to', () => {
    const led = feelTest.flatMap(({ answers }) => answers.map(({ leadsTo }) => leadsTo));
    const asked = new Set(led.flatMap((step) => (step.kind === 'ask' ? [step.id] : [])));
    expect(feelTest.map(({ id }) => id).filter((id) => id !== 'ball' && !asked.has(id))).toEqual([]);
    expect(() => feelQuestion('smell')).toThrow('no such question');
  });

  it('tells a long ribbon from a short one', () => {
    const [, short, long, longest] = feelQuestion('ribbon').answers;
    expect(short?.leadsTo).toEqual({ kind: 'ask', id: 'grit' });
    expect(long?.leadsTo).toEqual({ kind: 'ask', id: 'shine' });
    expect(longest?.leadsTo).toEqual({ kind: 'soil', soil: 'clay' });
  });
});
