import { readFileSync } from 'node:fs';
import path from 'node:path';
import { firstSteps } from './first-steps';
import { manualText } from './manual';
import { roles } from './session';

describe('the manual', () => {
  it('is the one that the texts of the application make', () => {
    const kept = readFileSync(path.join(__dirname, '../../docs/manual.md'), 'utf8');
    expect(kept).toBe(manualText());
  });

  it('begins with steps for every role, each with a screen to walk to', () => {
    for (const role of roles) {
      expect(firstSteps[role].length).toBeGreaterThan(1);
      expect(firstSteps[role].every((step) => step.path.startsWith('/'))).toBe(true);
    }
  });
});
