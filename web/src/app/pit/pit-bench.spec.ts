import { fieldDefault, formatQuantity, pitPlan, presets, sayReason, unknownAssessment } from '@sombra/core';
import { BenchRig, container, detailOf, kept, loam } from '../../../testing/bench-rig';
import { PitBench } from './pit-bench';

let rig: BenchRig<PitBench>;
beforeEach(() => {
  rig = new BenchRig();
});

const measures = async (change: Record<string, string> = {}) => {
  const values = {
    'Ball diameter': '450',
    'Ball height as received': '400',
    'Topmost roots below the surface': '60',
    Caliper: '50',
    Height: '3',
    ...change,
  };
  for (const [label, value] of Object.entries(values)) await rig.type(label, value);
};

describe('pit bench', () => {
  it('draws nothing before the measures are complete, then plans as they are typed', async () => {
    await rig.show(PitBench, [kept('ground', loam)]);
    expect(rig.text).toContain('The pit is drawn as soon as the measures are complete.');
    await measures();
    expect(rig.text).toContain('Dig 300 mm deep, 1125 mm wide');
    expect(rig.element.querySelector('svg')?.getAttribute('aria-label')).toContain('300 mm deep');
    await rig.type('Topmost roots below the surface', '100');
    expect(rig.text).toContain('Dig 260 mm deep');
  });

  it('says beside each number why', async () => {
    await rig.show(PitBench, [kept('ground', loam), kept('stock', container)]);
    expect(rig.text).toContain('Ball 400 mm high less 60 mm of soil over the topmost roots: 340 mm.');
    expect(rig.text).toContain('2.5 × the ball of 450 mm.');
    expect(rig.text).toContain('Field default: flare 40 mm above grade.');
  });

  it('says why there is no plan', async () => {
    await rig.show(PitBench, [kept('ground', { ...loam, stripWidthMm: 400 }), kept('stock', container)]);
    expect(rig.text).toContain('No pit plan');
    expect(rig.text).toContain('The ball, 450 mm, is wider than the strip, 400 mm.');
  });

  it('names rock above the base of the pit, and whether the spot may move away from it', async () => {
    const seen = kept('assessment', { ...unknownAssessment('2026-06-01'), rockAtMm: 250 });
    await rig.show(PitBench, [kept('ground', loam), kept('stock', container), seen]);
    expect(rig.text).toContain('Rock at 250 mm, the pit goes down 300 mm');
    expect(rig.element.querySelector('.caution')?.textContent).toContain('No locate ticket covers this spot');
    // A ball so flat that its pit ends above the rock.
    await rig.type('Ball height as received', '340');
    expect(rig.text).not.toContain('Rock at');
  });

  it('takes roots of the buried stem with their thickness, and keeps how the tree came', async () => {
    const arrival = { covered: true, moist: true, wateredEveryDays: 2 };
    await rig.show(PitBench, [kept('ground', loam), kept('stock', { ...container, arrival })]);
    await rig.type('Roots from the buried stem', '8');
    await rig.submit();
    expect(rig.outbox.sent).toEqual([]);
    await rig.type('the thickest of them', '6');
    await rig.choose('Crown can point', 'bare on one side');
    // Six and more stay for now: 25 mm higher.
    expect(rig.text).toContain('8 roots of the buried stem, up to 6 mm thick, stay for now');
    expect(rig.text).toContain('Dig 275 mm deep');
    await rig.submit();
    expect(rig.outbox.sent[0]?.record.facts).toEqual({
      ...container,
      adventitious: { count: 8, thickestMm: 6 },
      face: 'one_sided',
      arrival,
    });
  });

  it('refuses roots deeper than the ball before anything is sent', async () => {
    await rig.show(PitBench, [kept('ground', loam)]);
    await measures({ 'Topmost roots below the surface': '400' });
    await rig.submit();
    expect(rig.text).toContain('Must be less than the ball height, 400 mm, got 400 mm');
    expect(rig.outbox.sent).toEqual([]);
  });

  it('sends a correction of the newest measures, with the version it read', async () => {
    const stock = kept('stock', container);
    await rig.show(PitBench, [kept('ground', loam), stock]);
    await rig.type('Caliper', '62');
    await rig.submit();
    expect(rig.outbox.sent).toHaveLength(1);
    expect(rig.outbox.sent[0]).toMatchObject({
      spotVersion: 1,
      record: { kind: 'stock', supersedes: stock.id, facts: { ...container, caliperMm: 62 } },
    });
  });

  it('switches to the measures bare roots have', async () => {
    await rig.show(PitBench, [kept('ground', loam)]);
    await rig.choose('Kind', 'bare-root');
    await rig.type('Root spread', '500');
    await rig.type('Flare to lowest root', '300');
    await rig.type('Caliper', '25');
    await rig.type('Height', '2');
    expect(rig.text).toContain('Dig 260 mm deep, 800 mm wide');
  });

  it('sends the same record again after a refusal, and shows the refusal at its field', async () => {
    await rig.show(PitBench, [kept('ground', loam)]);
    await measures();
    const issues = [{ path: 'record.facts.caliperMm', message: 'must be within 8–400 mm, got 50' }];
    rig.outbox.answer = {
      kind: 'refused',
      problem: { type: 'x', title: 'A value is outside its limits', status: 400, code: 'invalid_input', issues },
    };
    await rig.submit();
    expect(rig.text).toContain('Must be within 8–400 mm, got 50');
    await rig.submit();
    const ids = rig.outbox.sent.map(({ record }) => record.id);
    expect(new Set(ids).size).toBe(1);
    expect(rig.outbox.comingBack).toEqual(ids);
  });

  it('lays both versions side by side in a conflict, and goes on from theirs', async () => {
    const first = kept('stock', container);
    await rig.show(PitBench, [kept('ground', loam), first]);
    await rig.type('Caliper', '62');
    const theirs = kept('stock', { ...container, caliperMm: 55 }, first.id);
    const current = detailOf([kept('ground', loam), first, theirs], 2);
    rig.outbox.answer = {
      kind: 'refused',
      problem: { type: 'x', title: 'Ann changed this spot', status: 409, code: 'conflict', current },
    };
    await rig.submit();
    expect(rig.text).toContain('Ann changed this spot');
    expect(rig.text).toMatch(/Caliper\s*55 mm\s*62 mm/);
    await rig.press('Go on with mine');
    await rig.submit();
    expect(rig.outbox.sent[1]).toMatchObject({
      spotVersion: 2,
      record: { supersedes: theirs.id, facts: { caliperMm: 62 } },
    });
  });
});

const bermLine = () =>
  [...rig.element.querySelectorAll('s-pit-numbers tr')]
    .map((row) => row.textContent.replace(/\s+/g, ' ').trim())
    .find((row) => row.startsWith('Berm'));
const presetOf = (id: string) => presets.find((one) => one.id === id) ?? fieldDefault;

describe('pit bench under other practices', () => {
  it.each(presets.filter(({ appliesTo }) => appliesTo.includes('container')).map(({ id }) => id))(
    'shows the very plan the core makes, under %s',
    async (id) => {
      rig.detail = { practice: presetOf(id) };
      await rig.show(PitBench, [kept('ground', loam), kept('stock', container)]);
      const pit = pitPlan({ ground: loam, stock: container, practice: presetOf(id) });
      if (pit.kind !== 'plan') throw new Error('no plan');
      const mm = (value: number) => formatQuantity(value, 'lengthMm', 'metric');
      expect(rig.text).toContain(`Dig ${mm(pit.depthMm.value)} deep, ${mm(pit.widthMm.value)} wide`);
      for (const reason of [...pit.bermBecause, ...pit.proudMm.because, ...pit.firstWaterL.because]) {
        expect(rig.text).toContain(sayReason(reason, 'metric'));
      }
    },
  );

  it('says that Heavy clay builds no berm, on ground that drains well too', async () => {
    rig.detail = { practice: presetOf('heavy-clay') };
    await rig.show(PitBench, [kept('ground', loam), kept('stock', container)]);
    expect(bermLine()).toMatch(/^Berm *none *The practice builds none\.$/);
  });

  it('says where an override puts the berm', async () => {
    const override = { decidedOn: '2026-06-01', path: 'berm.where', value: 'pit_edge', reason: 'draws roots out' };
    await rig.show(PitBench, [kept('ground', loam), kept('stock', container), kept('override', override)]);
    expect(bermLine()).toContain('Ring at the edge of the pit, 90 mm high: holds 89 L over the pit.');
  });

  it('says what would fit where the ball does not, from what nurseries have', async () => {
    const offer = { nursery: 'Viveiro Azul', species: 'Celtis australis', available: 4 };
    rig.detail = {
      offers: [
        { ...offer, kind: 'container', caliperMm: 38 },
        { ...offer, kind: 'container', caliperMm: 45 },
      ],
    };
    await rig.show(PitBench, [kept('ground', { ...loam, stripWidthMm: 400 }), kept('stock', container)]);
    expect(rig.text).toContain('The largest ball that fits is 400 mm across.');
    expect(rig.text).toContain('Viveiro Azul offers it container, caliper 38 mm, with a ball of about 380 mm.');
  });
});
