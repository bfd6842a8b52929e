import { TestBed } from '@angular/core/testing';
import { BenchRig, container, detailOf, kept, loam, planted, treeId } from '../../../testing/bench-rig';
import type { WaterBasis } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { TreePage } from './tree-page';

const unseen = {
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
};

/** Warm and dry from the planting on. */
const weather: WaterBasis = {
  station: { latDeg: 36.9, elevationM: 20 },
  recorded: Array.from({ length: 157 }, (_, i) => ({
    day: addDaysTo('2026-01-10', i),
    rainMm: 0,
    tMinC: 12,
    tMaxC: 24,
    humidityMinPct: null,
    humidityMaxPct: null,
    windMs: null,
    radiationMj: null,
  })),
  forecast: [],
  species: [],
};

/** The tree's page brings a store of its own: answer what it asks. */
async function show(records: readonly object[]): Promise<BenchRig<TreePage>> {
  const rig = new BenchRig<TreePage>();
  await rig.show(TreePage, records, async (fixture) => {
    fixture.componentRef.setInput('treeId', treeId);
    fixture.detectChanges();
    await Promise.resolve();
    rig.http.expectOne(`/api/trees/${treeId}`).flush(detailOf(records));
    // A planted tree asks for the weather once it is worked out.
    for (let i = 0; i < 5; i++) {
      fixture.detectChanges();
      await Promise.resolve();
      rig.http.match('/api/water/basis').forEach((asked) => asked.flush(weather));
      rig.http.match(({ url }) => url.endsWith('/care')).forEach((asked) => asked.flush([]));
    }
  });
  return rig;
}

describe("a tree's page", () => {
  afterEach(() => TestBed.resetTestingModule());

  it('tells its life newest first, by the day things happened', async () => {
    const rig = await show([
      kept('ground', loam),
      kept('stock', container),
      kept('planting', planted),
      kept('inspection', { ...unseen, inspectedOn: '2026-04-10', stake: 'none' }),
      kept('inspection', { ...unseen, inspectedOn: '2026-02-10', probe: 'moist' }),
    ]);
    const days = [...rig.element.querySelectorAll('.stamp b')].map((day) => day.textContent);
    expect(days.slice(0, 3)).toEqual(['10 Apr 2026', '10 Feb 2026', '10 Jan 2026']);
  });

  it('shows what is open, with its last day and the way to settle it', async () => {
    const rig = await show([
      kept('ground', loam),
      kept('stock', container),
      kept('planting', planted),
      kept('inspection', { ...unseen, inspectedOn: '2026-06-10', stake: 'biting' }),
    ]);
    expect(rig.text).toContain('Free the biting tie by Fri 12 Jun 2026');
    await rig.press('they are off, but the ball moves');
    expect(rig.outbox.sent[0]?.record.facts).toEqual({
      remedy: 'free_tie_now',
      doneOn: '2026-06-15',
      seen: { stake: 'none', rocks: 'ball_moves' },
    });
  });

  it('keeps a corrected record in sight and says so', async () => {
    const first = kept('stock', { ...container, caliperMm: 99 });
    const rig = await show([kept('ground', loam), first, kept('stock', container, first.id)]);
    expect(rig.element.querySelectorAll('li.corrected')).toHaveLength(1);
    expect(rig.text).toContain('99 mm');
    expect(rig.text).toContain('corrected later');
  });

  it('asks for water once months were dry, and takes a watering with what it was typed as', async () => {
    const rig = await show([kept('ground', loam), kept('stock', container), kept('planting', planted)]);
    expect(rig.text).toContain('Water now');
    const field = rig.element.querySelector<HTMLInputElement>('input[aria-label="Watered today"]');
    const type = async (text: string) => {
      if (!field) throw new Error('no field');
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await rig.press('Store the watering');
    };
    await type('0');
    expect(rig.text).toContain('Watered today must be within');
    await type('40');
    expect(rig.outbox.sent.map(({ record }) => record.facts)).toEqual([{ wateredOn: '2026-06-15', litres: 40 }]);
    const write = (label: string, text: string) => {
      const input = rig.element.querySelector<HTMLInputElement>(`input[aria-label="${label}"]`);
      if (!input) throw new Error(`no ${label}`);
      input.value = text;
      input.dispatchEvent(new Event('input'));
    };
    write('Water in the ring', '90');
    await type('30');
    expect(rig.text).toContain('Empty after must be within 1 to 2880 min, got nothing.');
    write('Empty after, min', '180');
    await type('30');
    expect(rig.outbox.sent.at(-1)?.record.facts).toEqual({
      wateredOn: '2026-06-15',
      litres: 30,
      ringMm: 90,
      ringMinutes: 180,
    });
  });

  it('says when there is nothing to do', async () => {
    const rig = await show([kept('ground', loam), kept('stock', container), kept('planting', planted)]);
    expect(rig.text).toContain('Nothing is open on this tree.');
    expect(rig.text).toContain('Next look Tue 10 Feb 2026.');
  });
});
