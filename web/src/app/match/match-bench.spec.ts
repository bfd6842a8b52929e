import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import {
  defaultGroundRules,
  matureHeightM,
  shippedSpecies,
  unknownAssessment,
  type Assessment,
  type RecordFacts,
} from '@sombra/core';
import { BenchRig, container, kept, loam, planted, spotId } from '../../../testing/bench-rig';
import { MatchBench } from './match-bench';

let rig: BenchRig<MatchBench>;
const tape = (thing: 'building' | 'kerb' | 'tree' | 'junction', distanceM: number) => ({
  thing,
  distanceM,
  by: 'tape' as const,
});
const wide: Assessment = {
  ...unknownAssessment('2026-06-01'),
  clearances: [tape('building', 14), tape('kerb', 4), tape('tree', 12), tape('junction', 40)],
  sunHours: 9,
  openSoilM2: 90,
  soilDepthMm: 900,
  soilPh: 6.8,
  saltDsM: 0.5,
  soilTestedOn: '2026-05-01',
};
async function show(
  records: readonly object[] = [],
  { seen = wide, ground = loam }: { seen?: Assessment; ground?: RecordFacts['ground'] } = {},
) {
  await rig.show(MatchBench, [kept('ground', ground), kept('assessment', seen), ...records]);
  rig.http
    .expectOne('/api/species')
    .flush(shippedSpecies.map((species, i) => ({ species, version: 1, standing: i, chosen: 0 })));
  for (let i = 0; i < 4; i++) await rig.fixture.whenStable();
}
const table = () => rig.element.querySelectorAll('table')[0];
const rows = () => [...(table()?.querySelectorAll('tbody tr') ?? [])] as HTMLTableRowElement[];
const names = () => rows().map((row) => row.querySelector('i')?.textContent ?? '');
const fits = () => rows().map((row) => Number(row.querySelector('b')?.textContent));
const leftOut = () =>
  [...rig.element.querySelectorAll<HTMLTableRowElement>('details tr')].map((row) => row.textContent.trim());
const compare = async (name: string) => {
  const box = rig.element.querySelector<HTMLInputElement>(`[aria-label="Compare ${name}"]`);
  if (!box) throw new Error(`no ${name}`);
  box.checked = !box.checked;
  box.dispatchEvent(new Event('change'));
  for (let i = 0; i < 5; i++) await rig.fixture.whenStable();
};

beforeEach(() => {
  rig = new BenchRig();
});

describe('which tree for this place', () => {
  it('ranks what fits, the best first, and shows twelve until all are asked for', async () => {
    await show();
    expect(rows()).toHaveLength(12);
    expect(fits()).toEqual([...fits()].sort((a, b) => b - a));
    const all = Number(/(\d+) species fit/.exec(rig.text)?.[1]);
    await rig.press(`Show all ${all}`);
    expect(rows()).toHaveLength(all);
    expect(all + leftOut().length).toBe(shippedSpecies.length);
  });

  it('leaves out by hard limits first, each with its reason', async () => {
    const wireHeightM = 7;
    await show([], { ground: { ...loam, wireHeightM } });
    const more = /Show all \d+/.exec(rig.text)?.[0];
    if (more) await rig.press(more);
    expect(rows().length).toBeGreaterThan(0);
    const roomM = wireHeightM - defaultGroundRules.wireHeadroomM;
    for (const name of names()) {
      const species = shippedSpecies.find(({ botanical }) => botanical === name);
      expect(species && matureHeightM(species)).toBeLessThanOrEqual(roomM);
    }
    expect(leftOut().length).toBeGreaterThan(0);
    for (const line of leftOut()) expect(line).toMatch(/\.$/);
  });

  it('chooses one, with its fit as the reason, and goes on to the chosen place', async () => {
    await show();
    const [best, fit] = [names()[0], fits()[0]];
    await rig.press('Choose');
    expect(rig.outbox.sent[0]?.record).toMatchObject({
      kind: 'choice',
      facts: { chosenOn: '2026-06-15', species: best, reason: `Fit ${fit} of 100` },
    });
    expect(TestBed.inject(Router).url).toBe(`/match/${spotId}`);
  });

  it('puts up to three beside each other in the address, the last ones asked for', async () => {
    await show();
    const four = names().slice(0, 4);
    for (const name of four) await compare(name);
    const address = decodeURIComponent(TestBed.inject(Router).url);
    expect(address).toContain(`compare=${four.slice(1).join(',')}`);
    expect(rig.element.querySelector('s-growth-compare')).not.toBeNull();
    await compare(four[3] ?? '');
    expect(decodeURIComponent(TestBed.inject(Router).url)).toContain(`compare=${four.slice(1, 3).join(',')}`);
  });

  it('says what is chosen, on which day and why', async () => {
    const choice = kept('choice', {
      chosenOn: '2026-06-02',
      species: 'Celtis australis',
      stockKind: null,
      caliperMm: null,
      reason: 'shade for the stop',
    });
    await show([choice]);
    expect(rig.text).toMatch(/Chosen: Celtis australis, 2 Jun 2026: shade for the stop/);
  });

  it.each([
    ['once the tree stands', [kept('stock', container), kept('planting', planted)], 'coordinator'],
    ['to who does not decide', [], 'inspector'],
  ] as const)('offers no choice %s', async (_when, records, role) => {
    rig.session.user.update((user) => user && { ...user, role });
    await show(records);
    expect([...rig.element.querySelectorAll('button')].map((one) => one.textContent.trim())).not.toContain('Choose');
    expect(rows().length).toBeGreaterThan(0);
  });
});
