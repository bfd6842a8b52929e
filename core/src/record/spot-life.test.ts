import { fieldDefault as byDefault, withChoice, type Practice } from '../practice';
import { unknownAssessment, unknownGround, type GroundFacts } from '../ground';
import type { RecordFacts, RecordKind } from './kinds';
import type { FieldRecord } from './record';
import { spotLife } from './spot-life';

/** Nothing is pruned by the calendar: what else is asked for stands by itself. */
const fieldDefault = withChoice(byDefault, 'pruning.structural', 'none');

let made = 0;
function rec<K extends RecordKind>(kind: K, facts: RecordFacts[K], supersedes: string | null = null): FieldRecord {
  made += 1;
  return {
    id: `r${String(made).padStart(4, '0')}`,
    kind,
    facts,
    supersedes,
    recordedAt: new Date(1.8e12 + made * 60_000).toISOString(),
  } as FieldRecord;
}

const ground: GroundFacts = {
  ...unknownGround,
  soil: 'loam',
  slopePct: 0,
  percolation: [0, 1, 2, 3].map((i) => ({ minute: i * 30, levelMm: 300 - 20 * i })),
};
const stock: RecordFacts['stock'] = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};
const planting: RecordFacts['planting'] = {
  plantedOn: '2026-01-10',
  flareAboveGradeMm: [40],
  holeWidthMm: 1125,
  firstWaterL: 52,
  practiceId: 'field-default',
  practiceVersion: 1,
};
const look = (change: Partial<RecordFacts['inspection']>): RecordFacts['inspection'] => ({
  inspectedOn: '2026-02-10',
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
  ...change,
});
const life = (...records: FieldRecord[]) => spotLife(records, { practice: fieldDefault });
const remedies = (...records: FieldRecord[]) =>
  life(...records)
    .decisions.filter((d) => d.kind === 'do_remedy')
    .map((d) => d.remedy)
    .sort();

describe('a spot from its records', () => {
  it('waits in each stage in work order', () => {
    const g = rec('ground', ground);
    const s = rec('stock', stock);
    const p = rec('planting', planting);
    expect(life().stage).toBe('ground');
    const seen = rec('assessment', unknownAssessment('2026-01-02'));
    const verdict = rec('verdict', { decidedOn: '2026-01-03', verdict: 'plant', reason: 'clear all round' });
    const choice = rec('choice', {
      chosenOn: '2026-01-04',
      species: 'Quercus ilex',
      stockKind: null,
      caliperMm: null,
      reason: '',
    });
    expect(life(g).decisions[0]).toMatchObject({ kind: 'measure_ground', because: [{ code: 'assessment_missing' }] });
    expect(life(g, seen).decisions[0]).toMatchObject({ kind: 'settle_ground', stage: 'ground' });
    expect(life(g, seen, verdict).decisions[0]).toMatchObject({ kind: 'choose_species', stage: 'match' });
    expect(life(g, seen, verdict, choice)).toMatchObject({ stage: 'stock', choice: { species: 'Quercus ilex' } });
    expect(life(g, s).stage).toBe('day');
    expect(life(g, s, p).stage).toBe('inspect');
    expect(life(rec('ground', { ...ground, stripWidthMm: 400 }), s).stage).toBe('pit');
  });

  it('puts the day stakes come off on the desk by itself, until they are off', () => {
    const built = [rec('ground', ground), rec('stock', stock), rec('planting', { ...planting, stakes: 2 })];
    const off = { kind: 'do_remedy', remedy: 'remove_stake', dueOn: '2027-01-10', level: 'watch' };
    expect(life(...built).decisions).toContainEqual(expect.objectContaining(off));
    // Known from the first day, it makes no tree look worse than it is.
    expect(life(...built).level).toBe('good');
    expect(remedies(...built, rec('inspection', look({ stake: 'none' })))).toEqual([]);
    expect(
      remedies(...built, rec('remedy', { remedy: 'remove_stake', doneOn: '2026-11-01', seen: { stake: 'none' } })),
    ).toEqual([]);
    expect(remedies(rec('ground', ground), rec('stock', stock), rec('planting', { ...planting, stakes: 0 }))).toEqual(
      [],
    );
  });

  it('counts a choice made otherwise for the spot, the last word on it, until it is taken back', () => {
    const override = (value: string) =>
      rec('override', { decidedOn: '2026-01-05', path: 'berm.where', value, reason: 'ponds here' });
    const [none, pit] = [override('none'), override('pit_edge')];
    const bare = [rec('ground', ground), rec('stock', stock)];
    expect(life(...bare, none).plan).toMatchObject({ berm: null });
    expect(life(...bare, none, pit).practice.berm.where).toBe('pit_edge');
    expect(life(...bare, none, rec('retraction', { reason: 'a slip' }, none.id)).overrides).toEqual([]);
  });

  it.each([
    ['plant_if', 'change_ground', 'act'],
    ['move', 'move_spot', 'act'],
  ] as const)('waits for what a verdict of %s asks', (verdict, kind, level) => {
    const said = rec('verdict', { decidedOn: '2026-01-03', verdict, reason: 'the pavement goes first' });
    const facts = { reason: 'the pavement goes first' };
    expect(life(rec('ground', ground), said).decisions).toMatchObject([{ kind, level, because: [{ facts }] }]);
  });

  it('leaves a place alone that is no place for a tree, until the spot is moved', () => {
    const said = rec('verdict', { decidedOn: '2026-01-03', verdict: 'not_here', reason: 'gas main under it' });
    const g = rec('ground', ground);
    expect(life(g, said)).toMatchObject({ stage: 'ground', decisions: [] });
    const move = { movedOn: '2026-01-05', from: [0, 0], to: [0, 0.001], reason: 'off the main' } as const;
    expect(life(g, said, rec('move', move))).toMatchObject({ verdict: null, decisions: [{ kind: 'measure_ground' }] });
  });

  it('takes the readings of a test run since the ground was written down', () => {
    const dry = rec('ground', { ...ground, percolation: [] });
    const test = rec('percolation', {
      testedOn: '2026-01-02',
      holeDepthMm: 400,
      soakedAt: null,
      filledAt: '2026-01-02T10:00:00Z',
      readings: [0, 30, 60, 90].map((m, i) => ({
        at: new Date(Date.UTC(2026, 0, 2, 10, m)).toISOString(),
        levelMm: 300 - 20 * i,
      })),
    });
    expect(life(dry).decisions[0]).toMatchObject({ because: [{ code: 'percolation_missing' }] });
    expect(life(dry, test).ground.percolation).toEqual(ground.percolation);
    expect(life(test, dry).ground.percolation).toEqual(ground.percolation);
  });

  it('sees a test it cannot trust as ground still to measure', () => {
    const doubtful = rec('ground', {
      ...ground,
      percolation: [
        { minute: 0, levelMm: 300 },
        { minute: 30, levelMm: 280 },
        { minute: 60, levelMm: 290 },
      ],
    });
    expect(life(doubtful).decisions[0]).toMatchObject({
      kind: 'measure_ground',
      because: [{ code: 'percolation_questioned' }],
    });
  });

  it('goes by the correction and keeps what was corrected', () => {
    const first = rec('stock', { ...stock, ballDiameterMm: 900 });
    const second = rec('stock', stock, first.id);
    expect(life(rec('ground', ground), first, second).stock).toEqual(stock);
  });

  it('gives the same answer whatever order the records arrive in', () => {
    const records = [
      rec('ground', ground),
      rec('stock', stock),
      rec('planting', planting),
      rec('inspection', look({ stake: 'tight' })),
      rec('inspection', look({ inspectedOn: '2026-04-10', probe: 'dry' })),
    ];
    expect(life(...[...records].reverse())).toEqual(life(...records));
  });

  it('keeps a remedy open until it is done or a later look finds it good', () => {
    const base = [
      rec('ground', ground),
      rec('stock', stock),
      rec('planting', planting),
      rec('inspection', look({ stake: 'tight', mulchContact: 'heaped' })),
    ] as const;
    expect(remedies(...base)).toEqual(['loosen_tie', 'pull_back_mulch']);
    expect(
      remedies(...base, rec('remedy', { remedy: 'loosen_tie', doneOn: '2026-02-12', seen: { stake: 'in_place' } })),
    ).toEqual(['pull_back_mulch']);
    const later = rec('inspection', look({ inspectedOn: '2026-04-10', mulchContact: 'clear', mulchDepthMm: 70 }));
    expect(remedies(...base, later)).toEqual(['loosen_tie']);
  });

  it('opens a remedy again when a later look finds the same trouble', () => {
    const done = rec('remedy', { remedy: 'loosen_tie', doneOn: '2026-02-12', seen: { stake: 'in_place' } });
    const again = rec('inspection', look({ inspectedOn: '2026-04-10', stake: 'tight' }));
    expect(
      remedies(
        rec('ground', ground),
        rec('stock', stock),
        rec('planting', planting),
        rec('inspection', look({ stake: 'tight' })),
        done,
        again,
      ),
    ).toEqual(['loosen_tie']);
  });

  it('holds the planting against the practice it was planted under, and care against the one of today', () => {
    const higher: Practice = {
      ...fieldDefault,
      id: 'ours',
      flareAboveGrade: { ...fieldDefault.flareAboveGrade, baseMm: 75 },
      staking: { ...fieldDefault.staking, offAfterMonths: 6 },
    };
    const records = [rec('ground', ground), rec('stock', stock), rec('planting', { ...planting, stakes: 1 })];
    const raised = (programmes: Practice, plantedUnder?: Practice) =>
      spotLife(records, { practice: programmes, plantedUnder })
        .decisions.filter(({ kind }) => kind === 'do_remedy')
        .map(({ remedy, dueOn }) => [remedy, dueOn]);
    expect(raised(fieldDefault)).toEqual([['remove_stake', '2027-01-10']]);
    // 40 mm proud is 35 short of the 75 the other school wants; its stakes come off after half a year.
    expect(raised(fieldDefault, higher)).toEqual([
      ['replant_higher', '2026-01-24'],
      ['remove_stake', '2026-07-10'],
    ]);
    expect(raised(higher, fieldDefault)).toEqual([['remove_stake', '2027-01-10']]);
    const planted = spotLife(records, { practice: higher, plantedUnder: fieldDefault });
    expect([planted.practice.id, planted.care.id]).toEqual(['field-default', 'ours']);
  });

  it('books the clearing of surplus that stayed on the ball, until it is done', () => {
    const deep: RecordFacts['stock'] = { ...stock, kind: 'balled', topRootsDepthMm: 90, surplusLeftMm: 40 };
    const built = { ...planting, flareAboveGradeMm: [65] };
    const base = [rec('ground', ground), rec('stock', deep), rec('planting', built)] as const;
    const booked = life(...base).decisions.find(({ remedy }) => remedy === 'clear_to_flare');
    expect([booked?.dueOn, booked?.because[0]?.code]).toEqual(['2027-01-10', 'clear_later']);
    const done = rec('remedy', { remedy: 'clear_to_flare', doneOn: '2026-12-01', seen: { flareDepthMm: 0 } });
    expect(remedies(...base, done)).toEqual([]);
  });

  it('expects a tree on put-back soil to stand higher by what that still settles', () => {
    // 100 mm put back and firmed settles a tenth: 10 mm more than 40.
    const built = (mm: number) => rec('planting', { ...planting, flareAboveGradeMm: [mm], putBackMm: 100 });
    const findings = (mm: number) =>
      life(rec('ground', ground), rec('stock', stock), built(mm)).planting?.judgement.findings[0]?.because.facts;
    expect(findings(50)).toMatchObject({ plannedMm: 50 });
    expect(remedies(rec('ground', ground), rec('stock', stock), built(30))).toEqual(['replant_higher']);
  });

  it('books the first look a month after planting, and raises what was built wrong', () => {
    const low = rec('planting', { ...planting, flareAboveGradeMm: [5] });
    const now = life(rec('ground', ground), rec('stock', stock), low);
    expect(now.nextLook?.on).toBe('2026-02-10');
    expect(now.decisions.map((d) => [d.kind, d.remedy, d.dueOn])).toEqual([
      ['do_remedy', 'replant_higher', '2026-01-24'],
      ['look', null, '2026-02-10'],
    ]);
  });
});

describe('what is booked from the planting on', () => {
  const g = rec('ground', ground);
  const planted = rec('planting', planting);
  const booked = (practice: Practice, ...records: FieldRecord[]) =>
    spotLife(records, { practice }).decisions.flatMap(({ remedy, dueOn }) => (remedy ? [[remedy, dueOn]] : []));
  const stemRoots = (count: number, thickestMm: number) =>
    rec('stock', { ...stock, kind: 'balled', adventitious: { count, thickestMm } });

  it('roots of a buried stem that stayed, many or thick, once; thin few ones are cut at planting', () => {
    const higher = rec('planting', { ...planting, flareAboveGradeMm: [65] });
    expect(booked(fieldDefault, g, stemRoots(3, 8), planted)).toEqual([]);
    expect(booked(fieldDefault, g, stemRoots(3, 12), higher)).toEqual([['cut_stem_roots', '2027-01-10']]);
    const many = stemRoots(6, 5);
    expect(booked(fieldDefault, g, many, higher)).toEqual([['cut_stem_roots', '2027-01-10']]);
    const done = rec('remedy', { remedy: 'cut_stem_roots', doneOn: '2027-01-20' });
    expect(booked(fieldDefault, g, many, higher, done)).toEqual([]);
  });
  it('and the tree that keeps them stands higher, by what the practice adds for what comes off later', () => {
    const proud = (stocked: FieldRecord) => {
      const { plan } = spotLife([g, stocked], { practice: fieldDefault });
      return plan?.kind === 'plan' ? plan.proudMm.value : null;
    };
    expect(proud(stemRoots(3, 8))).toBe(40);
    expect(proud(stemRoots(3, 12))).toBe(65);
  });
  it('short branches kept for a season', () => {
    const kept = withChoice(fieldDefault, 'pruning.stubs', 'kept');
    const s = rec('stock', stock);
    expect(booked(kept, g, s, planted)).toEqual([['cut_stubs', '2027-01-10']]);
    expect(booked(fieldDefault, g, s, planted)).toEqual([]);
  });
  it('a guard, anew each season until the bark is rough', () => {
    const guarded = withChoice(fieldDefault, 'guard', 'always');
    // 50 mm and about 10 mm a year: under 75 mm for two more seasons.
    const until = withChoice(guarded, 'guardUntilMm', 75);
    const s = rec('stock', stock);
    const fitted = (doneOn: string) => rec('remedy', { remedy: 'refit_guard', doneOn, seen: { guard: 'fits' } });
    expect(booked(until, g, s, planted)).toEqual([['refit_guard', '2027-01-10']]);
    expect(booked(until, g, s, planted, fitted('2027-01-05'))).toEqual([['refit_guard', '2028-01-05']]);
    expect(booked(until, g, s, planted, fitted('2027-01-05'), fitted('2028-01-05'))).toEqual([]);
    expect(booked(withChoice(guarded, 'guardUntilMm', 50), g, s, planted)).toEqual([]);
    expect(booked(fieldDefault, g, s, planted)).toEqual([]);
  });
});

describe('a device at a tree', () => {
  const g = rec('ground', ground);
  const s = rec('stock', stock);
  const bag = (setOn: string, offBy: string | null) =>
    rec('device', { setOn, deviceId: 'stem-bag', deviceName: 'Bag round the trunk', joined: 1, offBy });
  const off = (doneOn: string) => rec('remedy', { remedy: 'take_off_device', doneOn });
  const booked = (...records: FieldRecord[]) =>
    spotLife([g, s, rec('planting', planting), ...records], { practice: fieldDefault })
      .decisions.filter(({ remedy }) => remedy === 'take_off_device')
      .map(({ dueOn }) => dueOn);
  it.each([
    ['comes off by its day', [bag('2026-03-01', '2026-11-01')], ['2026-11-01']],
    ['is not asked for where it may stay', [bag('2026-03-01', null)], []],
    ['is not asked for once it is off', [bag('2026-03-01', '2026-11-01'), off('2026-10-20')], []],
    [
      'is asked for again once it is set anew',
      [bag('2026-03-01', '2026-11-01'), off('2026-10-20'), bag('2027-04-01', '2027-11-01')],
      ['2027-11-01'],
    ],
    ['of the tree that stood here before asks for nothing', [bag('2020-03-01', '2020-11-01')], []],
  ])('%s', (_words, records, due) => {
    expect(booked(...records)).toEqual(due);
  });
});

describe('a ring that was seen to empty', () => {
  const ring = (ringMm: number, ringMinutes: number) =>
    rec('watering', { wateredOn: '2026-06-01', litres: 40, ringMm, ringMinutes });
  const drains = (...records: FieldRecord[]) => spotLife(records, { practice: fieldDefault }).percolation;
  it('says how the ground drains where nobody ran a test, and no more where somebody did', () => {
    const g = rec('ground', { ...ground, percolation: [] });
    // 60 mm in 6 h are 10 mm/h.
    expect(drains(g)).toBeUndefined();
    expect(drains(g, ring(60, 360))).toBe('slow');
    const tested = rec('ground', ground);
    expect(drains(tested, ring(60, 360))).toBe(drains(tested));
  });
});
