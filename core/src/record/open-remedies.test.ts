import type { Inspection, RemedySeen } from '../inspect';
import { remedyProofs, tapSeen } from '../inspect';
import type { RemedyCode } from '../practice';
import { doneOn, lived, lookOn, pressing } from '../../testing/remedy-cases';
import { rec } from '../../testing/water-cases';
import type { FieldRecord } from './record';

const open = (...more: readonly FieldRecord[]) =>
  lived(...more)
    .decisions.filter(({ kind }) => kind === 'do_remedy')
    .map(({ remedy, level, dueOn, because }) => ({ remedy, level, dueOn, codes: because.map(({ code }) => code) }));
const asked = (...more: readonly FieldRecord[]) => open(...more).map(({ remedy }) => remedy);

describe('a remedy', () => {
  it.each<[string, RemedySeen, RemedyCode, RemedySeen]>([
    ['soil over the flare', { flareDepthMm: 60 }, 'clear_to_flare', { flareDepthMm: 0 }],
    ['soil over one side', { flareDepthMm: 60, flareRoundMm: [0, 60] }, 'clear_to_flare', { flareDepthMm: 0 }],
    ['a tree too deep', { flareDepthMm: 200 }, 'lift_and_replant', { flareDepthMm: -20 }],
    ['mulch heaped on', { mulchContact: 'heaped' }, 'pull_back_mulch', tapSeen.mulch_clear],
    ['mulch too thick', { mulchDepthMm: 140 }, 'thin_mulch', { mulchDepthMm: 70 }],
    ['mulch too thin', { mulchDepthMm: 10 }, 'top_up_mulch', { mulchDepthMm: 75 }],
    ['a tie that bites', { stake: 'biting' }, 'free_tie_now', tapSeen.off_and_firm],
    ['a tight tie', { stake: 'tight' }, 'loosen_tie', tapSeen.tie_loose],
    ['a broken stake', { stake: 'broken' }, 'mend_stake', tapSeen.staked_firm],
    ['a tight guard', { guard: 'tight' }, 'refit_guard', tapSeen.guard_fits],
    ['a wrap left on', { leftOn: ['wrap'] }, 'take_things_off', tapSeen.nothing_left_on],
    ['grass in the ring', { turf: 'creeping' }, 'clear_turf', tapSeen.ring_clear],
    ['leaves that hang', { signs: ['wilting'] }, 'probe_first', tapSeen.felt_moist],
    ['a root that presses', { circlingRoots: [pressing(0, 40)] }, 'cut_root', { circlingRoots: [] }],
  ])('for %s is closed by what shows it', (_what, found, remedy, seen) => {
    const look = lookOn('2026-06-01', found);
    expect(asked(look)).toContain(remedy);
    expect(asked(look, doneOn('2026-06-05', remedy, seen))).not.toContain(remedy);
  });

  it('takes wood that was felt anew, whatever was felt at each height before', () => {
    const look = lookOn('2026-06-01', { alive: 'dry', aliveAt: { top: 'dry', middle: 'green' }, stake: 'none' });
    const felt = lived(look, doneOn('2026-06-05', 'probe_first', { probe: 'moist', alive: 'green' }));
    expect(felt.decisions.map(({ remedy }) => remedy)).not.toContain('probe_first');
  });

  it('stays open, less pressing, where only somebody’s word says it was done', () => {
    const look = lookOn('2026-06-01', { stake: 'biting' });
    expect(open(look)).toEqual([
      { remedy: 'free_tie_now', level: 'urgent', dueOn: '2026-06-03', codes: ['stake_biting'] },
    ]);
    expect(open(look, doneOn('2026-06-02', 'free_tie_now'))).toEqual([
      { remedy: 'free_tie_now', level: 'act', dueOn: '2026-06-16', codes: ['stake_biting', 'remedy_unshown'] },
    ]);
  });

  it('stays open where the measure says that it was not done, with what is so now', () => {
    const [still] = open(
      lookOn('2026-06-01', { flareDepthMm: 70 }),
      doneOn('2026-06-05', 'clear_to_flare', { flareDepthMm: 40 }),
    );
    expect(still).toMatchObject({ remedy: 'clear_to_flare', level: 'act', dueOn: '2026-06-15' });
  });

  it('of which nothing can be measured is closed by word', () => {
    const look = lookOn('2026-06-01', { signs: ['broken_branches'] });
    expect(asked(look)).toEqual(['prune_broken']);
    expect(asked(look, doneOn('2026-06-05', 'prune_broken'))).toEqual([]);
  });

  it('asks for what shows up as it is carried out', () => {
    const look = lookOn('2026-06-01', { stake: 'tight' });
    expect(asked(look, doneOn('2026-06-05', 'loosen_tie', tapSeen.off_ball_moves))).toEqual(['mend_stake']);
  });

  it('leaves alone what else was found of the same thing', () => {
    const look = lookOn('2026-06-01', { mulchContact: 'heaped', turf: 'creeping' });
    expect(asked(look, doneOn('2026-06-05', 'pull_back_mulch', tapSeen.mulch_clear))).toEqual(['clear_turf']);
  });

  it('does not close what a later look finds again, nor what one of the same day finds after it', () => {
    const [look, done] = [
      lookOn('2026-06-01', { stake: 'tight' }),
      doneOn('2026-06-05', 'loosen_tie', tapSeen.tie_loose),
    ];
    expect(asked(look, done, lookOn('2026-07-01', { stake: 'tight' }))).toEqual(['loosen_tie']);
    expect(open(look, done, lookOn('2026-06-05', { stake: 'biting' }))).toMatchObject([{ remedy: 'free_tie_now' }]);
  });

  it('counts for nothing once it is taken back', () => {
    const done = doneOn('2026-06-05', 'loosen_tie', tapSeen.tie_loose);
    const back = { ...rec('retraction', { reason: 'wrong tree' }), supersedes: done.id };
    expect(asked(lookOn('2026-06-01', { stake: 'tight' }), done, back)).toEqual(['loosen_tie']);
  });

  it('has taps and measures that close it, each of them', () => {
    const found: Partial<Record<RemedyCode, RemedySeen>> = {
      remove_stake: { stake: 'in_place' },
      find_drainage: { probe: 'saturated' },
      level_the_ball: { signs: ['leans'] },
      watch_yearly_clear: { flareDepthMm: 12 },
    };
    for (const [remedy, seen] of Object.entries(found) as [RemedyCode, Inspection][]) {
      const proof = remedyProofs[remedy];
      const shows = proof.kind === 'taps' ? proof.taps.map((tap) => tapSeen[tap]) : [{ flareDepthMm: 0 }];
      const look = lookOn('2027-06-10', seen);
      expect(asked(look)).toContain(remedy);
      expect(shows.some((one) => !asked(look, doneOn('2027-06-12', remedy, one)).includes(remedy))).toBe(true);
    }
  });
});

describe('root cuts', () => {
  const look = lookOn('2027-06-01', { circlingRoots: [pressing(0, 60), pressing(100, 150)] });
  const cut = (roots: Inspection['circlingRoots']) => doneOn('2027-06-20', 'stage_root_cuts', { circlingRoots: roots });

  it('leave the rest to the next season, and book a look by themselves', () => {
    const life = lived(look, cut([pressing(100, 150)]));
    expect(open(look, cut([pressing(100, 150)]))).toEqual([
      { remedy: 'cut_root', level: 'watch', dueOn: '2028-06-20', codes: ['roots_pressing', 'roots_next_season'] },
    ]);
    expect(life.nextLook).toEqual({
      on: '2027-12-17',
      because: { code: 'look_after_remedy', facts: { inDays: 180, remedy: 'stage_root_cuts', doneOn: '2027-06-20' } },
    });
  });
  it('leave what holds the tree on record, so that the next season is planned with it', () => {
    const anchors = [0, 120, 240].map((bearingDeg) => ({ bearingDeg, diameterMm: 30 }));
    const held = lookOn('2027-06-01', { circlingRoots: [pressing(0, 60), pressing(100, 150)], anchors });
    const { collar } = lived(held, cut([pressing(100, 150)]));
    expect(collar?.look).toMatchObject({ circlingRoots: [pressing(100, 150)], anchors });
    // More than a collar is told of: what is seen now goes first.
    const many = Array.from({ length: 38 }, (_, i) => pressing(i, i + 1));
    const before = lookOn('2027-06-01', { circlingRoots: [pressing(0, 60)], anchors });
    expect(lived(before, cut(many)).collar?.look).toMatchObject({ circlingRoots: many, anchors: undefined });
  });
  it('are not done where as much presses as before', () => {
    expect(open(look, cut([pressing(0, 60), pressing(100, 150)]))).toMatchObject([
      { remedy: 'stage_root_cuts', level: 'act', dueOn: '2027-07-31' },
    ]);
  });
  it('are over where nothing presses any more', () => {
    expect(asked(look, cut([]))).toEqual([]);
    expect(asked(look, cut([{ ...pressing(0, 60), touch: 'clear' }]))).toEqual([]);
  });
});

it('after roots were examined the flare is cleared, or an arborist asked', () => {
  const look = lookOn('2026-06-01', { flareDepthMm: 100 });
  expect(asked(look)).toEqual(['examine_roots']);
  const examined = (roots: Inspection['circlingRoots']) =>
    asked(look, doneOn('2026-06-05', 'examine_roots', { circlingRoots: roots }));
  expect(examined([])).toEqual(['clear_to_flare']);
  expect(examined([pressing(0, 300)])).toContain('refer_arborist');
});
