import type { RecordFacts, RecordKind } from './kinds';
import type { FieldRecord } from './record';
import { measuredDrop } from './measured-drop';

let made = 0;
const rec = <K extends RecordKind>(kind: K, facts: RecordFacts[K]): FieldRecord => {
  made += 1;
  const recordedAt = new Date(1.8e12 + made * 60_000).toISOString();
  return { id: `r${made}`, kind, facts, supersedes: null, recordedAt } as FieldRecord;
};
const planting = (putBackMm?: number) =>
  rec('planting', {
    plantedOn: '2026-01-10',
    flareAboveGradeMm: [55, 50],
    holeWidthMm: 1100,
    firstWaterL: 50,
    practiceId: 'field-default',
    practiceVersion: 1,
    putBackMm,
  });
const look = (inspectedOn: string, flareDepthMm: number | null) =>
  rec('inspection', {
    inspectedOn,
    flareDepthMm,
    mulchDepthMm: null,
    mulchContact: null,
    stake: null,
    probe: null,
    circlingRoots: null,
  });

describe('how far a ball sank', () => {
  it('is the lowest flare as built less the flare of the first look that measured it', () => {
    // Stood 50 mm above grade, is found 38 mm above it: sank 12.
    const records = [planting(100), look('2026-03-10', -20), look('2026-02-10', -38), look('2026-01-20', null)];
    expect(measuredDrop(records)).toEqual({ fillMm: 100, dropMm: 12 });
  });
  it('begins before the soak, where somebody measured then', () => {
    // 62 before the soak, 50 after it, 38 at the first look.
    const built = planting(100);
    const soaked = { ...built, facts: { ...built.facts, flareBeforeSoakMm: [70, 62] } } as FieldRecord;
    expect(measuredDrop([soaked])).toEqual({ fillMm: 100, dropMm: 12 });
    expect(measuredDrop([soaked, look('2026-02-10', -38)])).toEqual({ fillMm: 100, dropMm: 24 });
  });
  it('is unknown on undisturbed ground, before planting, and before a look', () => {
    expect(measuredDrop([planting(), look('2026-02-10', -38)])).toBeNull();
    expect(measuredDrop([planting(100)])).toBeNull();
    expect(measuredDrop([])).toBeNull();
  });
});
