import type { Surroundings } from '@sombra/contract';
import { unknownAssessment, type Assessment } from '@sombra/core';
import { BenchRig, kept, loam, spotId } from '../../../testing/bench-rig';
import { AssessmentForm } from './assessment-form';

let rig: BenchRig<AssessmentForm>;
const around: Surroundings = {
  distances: [
    { thing: 'building', distanceM: 6.42, towardsDeg: 110, heightM: 9 },
    { thing: 'kerb', distanceM: 0.04, towardsDeg: null, heightM: null },
  ],
  neighbours: [
    { spotId, ref: 'A-2', species: 'Celtis australis', distanceM: 8, crownNowM: 1.2, crownMatureM: 9 },
    { spotId, ref: 'A-3', species: null, distanceM: 12, crownNowM: 1, crownMatureM: 6 },
  ],
  streetDeg: 200,
  layersMissing: ['hydrants'],
};
async function show(records: readonly object[] = [], map: Surroundings | null = around): Promise<void> {
  await rig.show(AssessmentForm, [kept('ground', loam), ...records]);
  const asked = rig.http.expectOne(`/api/spots/${spotId}/surroundings`);
  if (map) asked.flush(map);
  else asked.error(new ProgressEvent('error'), { status: 0 });
  for (let i = 0; i < 4; i++) await rig.fixture.whenStable();
}
const value = (label: string) => {
  const found = [...rig.element.querySelectorAll('label')].find((one) => one.textContent.trim() === label);
  return rig.element.querySelector<HTMLInputElement>(`#${found?.htmlFor}`)?.value;
};
const wish = async (name: string) => {
  const found = [...rig.element.querySelectorAll('label.tick')].find((one) => one.textContent.trim() === name);
  const box = found?.querySelector('input');
  if (!box) throw new Error(`no wish ${name}`);
  box.checked = !box.checked;
  box.dispatchEvent(new Event('change'));
  await rig.fixture.whenStable();
};
const stored = () => rig.outbox.sent[0]?.record.facts as Assessment | undefined;

beforeEach(() => {
  rig = new BenchRig();
});

describe('surroundings of a spot', () => {
  it('take what the map knows where nobody measured, and say which is which', async () => {
    await show();
    expect(rig.text).toContain('The base map holds no hydrants: measure those by tape.');
    expect(rig.text).toContain('A-2 Celtis australis, 8.0 m away: crown 1.2 m wide, grown 9.0 m');
    expect(rig.text).toContain('Map: 6.42 m to the ESE, 9.0 m high');
    await rig.type('kerb', '0.6');
    await rig.press('Take 2 distances off the map');
    expect([value('building'), value('kerb')]).toEqual(['6.42', '0.6']);
    await rig.submit();
    expect(stored()?.clearances).toEqual([
      { thing: 'building', distanceM: 6.42, by: 'map', towardsDeg: 110 },
      { thing: 'kerb', distanceM: 0.6, by: 'tape' },
    ]);
    // The pavement lies away from the street: 200° + 180°.
    expect(stored()?.pavementDeg).toBe(20);
  });

  it('are measured by tape alone where the map cannot be asked', async () => {
    await show([], null);
    expect(rig.text).toContain('The map cannot be asked now; measure by tape.');
    await rig.type('building', '5');
    await rig.submit();
    expect(stored()?.clearances).toEqual([{ thing: 'building', distanceM: 5, by: 'tape' }]);
  });

  it('hold salty water and the roots of a neighbour, and keep what was stored when something else is changed', async () => {
    await show();
    await rig.type('Salt of the water it is given', '1.8');
    await rig.choose('Roots of another tree in the pit', 'Yes');
    await rig.type('Its trunk stands away', '4');
    await rig.submit();
    // Without its thickness it is half said.
    expect(stored()).toBeUndefined();
    await rig.type('Its thickest root here', '35');
    await rig.submit();
    const facts = stored();
    expect(facts).toMatchObject({
      irrigation: { saltDsM: 1.8, sodiumSar: null },
      neighbourRoots: { species: '', distanceM: 4, thickestMm: 35 },
    });
    rig = new BenchRig();
    await show(
      [
        kept('assessment', {
          ...unknownAssessment('2026-06-01'),
          ...facts,
          clearances: [{ thing: 'building', distanceM: 5, by: 'tape', towardsDeg: 70 }],
        }),
      ],
      null,
    );
    await rig.type('Rock at', '900');
    await rig.submit();
    expect(stored()).toMatchObject({
      rockAtMm: 900,
      irrigation: facts?.irrigation,
      neighbourRoots: facts?.neighbourRoots,
    });
    expect(stored()?.clearances).toEqual([{ thing: 'building', distanceM: 5, by: 'tape', towardsDeg: 70 }]);
  });

  it('hold a soil test only with the day it was made', async () => {
    await show();
    await rig.type('Sodium', '15');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    expect(rig.text).toContain('pH, salt and sodium ask for the day of the test');
    await rig.type('Soil tested on', '2026-05-02');
    await rig.submit();
    expect(stored()).toMatchObject({ sodiumSar: 15, saltDsM: null, soilTestedOn: '2026-05-02' });
  });

  it('name a value outside its limits, and keep what was typed', async () => {
    await show();
    await rig.type('Soil pH', '15');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    expect(rig.text).toMatch(/pH\s*Must be within 2–11 pH, got 15/);
    expect(value('Soil pH')).toBe('15');
  });

  it('hold one of evergreen and deciduous, the last wished for', async () => {
    await show();
    await wish('green all year');
    await wish('sun in winter');
    await rig.submit();
    expect(stored()?.wishes).toEqual(['deciduous']);
  });

  it('are corrected from the newest record, which stays on record', async () => {
    const seen = { ...unknownAssessment('2026-06-01'), sunHours: 6, rubbedBy: ['deer', 'mowers'] as const };
    const before = kept('assessment', seen);
    await show([before]);
    expect(value('Sun on midsummer day')).toBe('6');
    await rig.type('Sun on midsummer day', '7');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.supersedes).toBe(before.id);
    expect(stored()).toMatchObject({ sunHours: 7, rubbedBy: ['deer', 'mowers'], sodiumSar: null });
  });
});
