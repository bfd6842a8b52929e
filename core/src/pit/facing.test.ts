import { unknownAssessment, type Assessment } from '../ground';
import { facingOf } from './facing';

const seen = (change: Partial<Assessment>): Assessment => ({ ...unknownAssessment('2026-11-01'), ...change });
const wall = { thing: 'building', distanceM: 3, by: 'map', towardsDeg: 90 } as const;
const wire = { thing: 'wire', distanceM: 2, by: 'map', towardsDeg: 200 } as const;

describe('how a tree is turned', () => {
  it('looks to where people pass, else to the street, else to the light', () => {
    const kerb = { thing: 'kerb', distanceM: 1, by: 'map', towardsDeg: 300 } as const;
    expect(facingOf({ assessment: seen({ pavementDeg: 120, clearances: [kerb] }) }).bestFaceDeg).toBe(120);
    expect(facingOf({ assessment: seen({ clearances: [kerb] }), sunDeg: 180 }).bestFaceDeg).toBe(300);
    expect(facingOf({ assessment: null, sunDeg: 180 }).bestFaceDeg).toBe(180);
    expect(facingOf({ assessment: null })).toMatchObject({ bestFaceDeg: null, because: [{ code: 'face_by_eye' }] });
  });
  it('turns its flat side to the wall, and away from the nearest of wall and wire', () => {
    expect(facingOf({ assessment: seen({ pavementDeg: 10, clearances: [wall] }), face: 'one_sided' }).bestFaceDeg).toBe(
      270,
    );
    expect(facingOf({ assessment: seen({ pavementDeg: 10, clearances: [wall, wire] }) }).bestFaceDeg).toBe(20);
  });
  it('heeds no wall that is far, or whose side nobody recorded', () => {
    const far = { ...wall, distanceM: 6.1 };
    const { towardsDeg: _side, ...unsaid } = wall;
    for (const clearances of [[far], [unsaid]]) {
      expect(facingOf({ assessment: seen({ pavementDeg: 10, clearances }) }).bestFaceDeg).toBe(10);
    }
  });
  it('gives the full side of a bare crown to the light where nothing takes its room', () => {
    expect(facingOf({ assessment: seen({ pavementDeg: 10 }), face: 'one_sided', sunDeg: 0 }).bestFaceDeg).toBe(0);
    const tree = { thing: 'tree', distanceM: 4, by: 'map', towardsDeg: 45 } as const;
    expect(facingOf({ assessment: seen({ clearances: [tree] }), face: 'one_sided', sunDeg: 0 }).bestFaceDeg).toBe(225);
  });
});
