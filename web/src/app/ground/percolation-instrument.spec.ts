import type { PercolationTest } from '@sombra/core';
import { BenchRig, kept, loam, spotId } from '../../../testing/bench-rig';
import { PercolationInstrument } from './percolation-instrument';

let rig: BenchRig<PercolationInstrument>;
const draft = `sombra.draft.u1.percolation.${spotId}`;
const begun = Date.parse('2026-06-15T08:00:00Z');
const at = (minute: number) => new Date(begun + minute * 60_000).toISOString();
const run = (levels: readonly (readonly [minute: number, levelMm: number])[], change: object = {}) => ({
  holeMm: 400,
  soakedAt: at(-120),
  filledAt: at(0),
  readings: levels.map(([minute, levelMm]) => ({ at: at(minute), levelMm })),
  ...change,
});

/** 20 mm each half hour. */
const falling = [
  [0, 300],
  [30, 280],
  [60, 260],
] as const;

/** Shows the instrument as it stands after these taps: the test is kept on the device after each. */
async function show(standing: object | null = null, units: 'metric' | 'us' = 'metric'): Promise<void> {
  rig.session.units.set(units);
  await rig.show(PercolationInstrument, [kept('ground', loam)], (fixture) => {
    if (standing) localStorage.setItem(draft, JSON.stringify({ savedAt: begun, value: standing }));
    return fixture.whenStable();
  });
}
const runningNow = () => (JSON.parse(localStorage.getItem(draft) ?? '{}') as { value?: ReturnType<typeof run> }).value;
const verdict = () => rig.element.querySelector('.verdict')?.textContent.replace(/\s+/g, ' ').trim() ?? '';

beforeEach(() => {
  rig = new BenchRig();
});
afterEach(() => rig.fixture.destroy());

describe('the percolation test', () => {
  it('asks for the hole first, and names what no hole can be', async () => {
    await show();
    await rig.type('Depth of the hole', '40');
    await rig.press('Filled: start reading');
    expect(rig.text).toContain('Depth of the hole must be within 100 mm to 2000 mm');
    expect(rig.text).not.toContain('Reading 1');
  });

  it('goes from soak to fill to the first reading, each kept on the device as it is tapped', async () => {
    await show();
    await rig.type('Depth of the hole', '400');
    await rig.press('Start the soak now');
    expect(rig.text).toMatch(/Soaking for 0 min of 60/);
    expect(runningNow()).toMatchObject({ holeMm: 400, filledAt: null });
    await rig.press('Filled: start reading');
    expect(rig.text).toContain('Reading 1');
    for (const key of ['3', '0', '0']) await rig.press(key);
    await rig.press('Read now');
    expect(runningNow()?.readings.map(({ levelMm }) => levelMm)).toEqual([300]);
    expect(rig.text).toContain('Reading 2');
    expect(verdict()).toContain('1 of 3 readings.');
  });

  it('refuses water above the hole, and nothing typed', async () => {
    await show(run([]));
    await rig.press('Read now');
    expect(rig.text).toContain('Water level must be within 0 to 400 mm, the depth of the hole');
    await rig.type('Water above the bottom of the hole', '401');
    await rig.press('Read now');
    expect(runningNow()?.readings).toEqual([]);
  });

  it('says the rate with its error and its class as soon as three readings hold: 20 mm each half hour are 40 mm/h', async () => {
    await show(
      run([
        [0, 300],
        [30, 280],
        [60, 260],
        [90, 240],
      ]),
    );
    // A tape good to 1 mm over four half hours: 2 · 2 mm/h · √(1/5) either side.
    expect(verdict()).toMatch(/^40 mm\/h, between 38 mm\/h and 42 mm\/h: good/);
    expect(rig.element.querySelector('s-drawing')).not.toBeNull();
  });

  it('says it in inches to who reads inches, and takes levels in them', async () => {
    await show(run(falling, { holeMm: 406.4 }), 'us');
    // 40 mm/h are 1.57 in/h.
    expect(verdict()).toMatch(/^1\.57 in\/h/);
    await rig.type('Water above the bottom of the hole', '10');
    await rig.press('Read now');
    expect(runningNow()?.readings.at(-1)?.levelMm).toBe(254);
  });

  it('says what standing water means for planting here', async () => {
    await show(
      run([
        [0, 300],
        [60, 299],
        [120, 298],
        [180, 297],
      ]),
    );
    expect(verdict()).toMatch(/^1 mm\/h, between 0 mm\/h and \d mm\/h: water stands/);
    expect(rig.text).toMatch(/berm/i);
  });

  it('doubts a reading that rises, and lets it be taken back', async () => {
    await show(
      run([
        [0, 300],
        [30, 280],
        [60, 290],
      ]),
    );
    expect(verdict()).toContain('Reading 3 is in doubt.');
    await rig.press('Take back the last');
    expect(runningNow()?.readings).toHaveLength(2);
    expect(verdict()).toContain('2 of 3 readings.');
  });

  it('names a soak that was too short', async () => {
    await show(run(falling, { soakedAt: at(-20) }));
    expect(rig.text).toMatch(/20 min.*60 min/);
  });

  it('stores the whole series as it was tapped, and forgets the draft', async () => {
    await show(run(falling));
    await rig.submit();
    const { record } = rig.outbox.sent[0] ?? {};
    expect(record?.kind).toBe('percolation');
    expect(record?.facts as PercolationTest).toMatchObject({
      holeDepthMm: 400,
      soakedAt: at(-120),
      filledAt: at(0),
      readings: [300, 280, 260].map((levelMm, i) => ({ at: at(30 * i), levelMm })),
    });
    expect(localStorage.getItem(draft)).toBeNull();
    expect(rig.text).toContain('Start the soak now');
  });

  it('keeps the series where the server refuses it', async () => {
    rig.outbox.answer = {
      kind: 'refused',
      problem: { type: 'x', title: 'The spot was withdrawn', status: 409, code: 'conflict' },
    };
    await show(run(falling));
    await rig.submit();
    expect(rig.text).toContain('The spot was withdrawn');
    expect(runningNow()?.readings).toHaveLength(3);
  });

  it('starts over where it is asked to', async () => {
    await show(run([[0, 300]]));
    await rig.press('Start over');
    expect(rig.text).toContain('Start the soak now');
    expect(localStorage.getItem(draft)).toBeNull();
  });
});
