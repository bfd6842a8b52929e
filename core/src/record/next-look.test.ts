import { fieldDefault, withChoice } from '../practice';
import { lookOn, lived, pressing } from '../../testing/remedy-cases';
import { ground, planting, rec, stock } from '../../testing/water-cases';
import type { RecordFacts } from './kinds';
import { spotLife } from './spot-life';

/** Planted on 1 May 2026. */
describe('the yearly look', () => {
  it('uncovers the first roots once they were not seen for three years', () => {
    expect(lived(lookOn('2027-06-01', { stake: 'none' })).nextLook?.because.code).toBe('look_yearly');
    expect(lived(lookOn('2028-06-01', { stake: 'none' })).nextLook).toEqual({
      on: '2029-06-01',
      because: { code: 'look_roots', facts: { years: 3 } },
    });
  });
  it('counts from when roots were seen last, or found cut', () => {
    const looks = [lookOn('2027-06-01', { circlingRoots: [] }), lookOn('2028-06-01', { stake: 'none' })];
    expect(lived(...looks).nextLook?.because.code).toBe('look_yearly');
    expect(lived(...looks, lookOn('2029-06-02', { stake: 'none' })).nextLook?.because.code).toBe('look_roots');
  });
  it('leaves them covered where the practice never uncovers them', () => {
    const practice = withChoice(fieldDefault, 'inspection.rootsEveryYears', 0);
    const life = spotLife([ground(), stock(), planting(), lookOn('2032-06-01', { stake: 'none' })], { practice });
    expect(life.nextLook?.because.code).toBe('look_yearly');
  });
});

describe('the look at a tree that was taken over', () => {
  const over = { on: '2026-10-01', from: 'Dock Office' };
  const life = (...looks: ReturnType<typeof lookOn>[]) =>
    spotLife(
      [
        ground(),
        stock(),
        rec('planting', { ...planting().facts, takenOver: over } as RecordFacts['planting']),
        ...looks,
      ],
      {
        practice: fieldDefault,
      },
    );
  it('is due on the day it was taken over, whatever the calendar says', () => {
    expect(life().nextLook).toEqual({ on: over.on, because: { code: 'look_hand_over', facts: over } });
    expect(life(lookOn('2026-09-20', { stake: 'none' })).nextLook?.because.code).toBe('look_hand_over');
    expect(life(lookOn('2026-10-01', { stake: 'none' })).nextLook?.because.code).not.toBe('look_hand_over');
  });
  it('waits for no warranty, and claims nothing: nobody sold it to us', () => {
    const bad = life(lookOn('2026-11-02', { bark: 'decayed' }));
    expect(bad.decisions.map(({ kind }) => kind)).not.toContain('claim');
    const claims = lived(lookOn('2026-11-02', { bark: 'decayed' })).decisions.map(({ kind }) => kind);
    expect(claims).toContain('claim');
    expect(life(lookOn('2026-11-02', { stake: 'none' })).nextLook?.because.code).not.toBe('look_warranty');
    expect(lived(lookOn('2026-11-02', { stake: 'none' })).nextLook?.because.code).toBe('look_warranty');
  });
  it('is said at the desk, and how it was planted asks for nothing', () => {
    expect(life().decisions.map(({ kind }) => kind)).toContain('look');
    expect(life().decisions.map(({ remedy }) => remedy)).not.toContain('widen_hole');
  });
});

describe('the look in spring', () => {
  const sprung = (years: number, latDeg: number | undefined, ...looks: ReturnType<typeof lookOn>[]) =>
    spotLife([ground(), stock(), planting(), ...looks], {
      practice: withChoice(fieldDefault, 'inspection.springFlareYears', years),
      latDeg,
    }).nextLook;

  // Planted on 1 May 2026; after this look the next is a month before the warranty ends on 1 May 2027.
  const autumn = lookOn('2026-11-02', { stake: 'none' });
  it('clears the flare each spring for as many years as the practice says', () => {
    expect(sprung(2, 40, autumn)).toEqual({
      on: '2027-03-15',
      because: { code: 'look_spring_flare', facts: { years: 2 } },
    });
    expect(sprung(0, 40, autumn)?.on).toBe('2027-04-01');
    // 15 March 2029 is in its third year.
    const late = lookOn('2028-06-20', { stake: 'none' });
    expect(sprung(2, 40, late)?.because.code).not.toBe('look_spring_flare');
    expect(sprung(3, 40, late)?.on).toBe('2029-03-15');
  });
  it('comes half a year later in the south, and not at all where there is no spring', () => {
    const winter = lookOn('2027-05-20', { stake: 'none' });
    expect(sprung(3, -33, winter)?.on).toBe('2027-09-15');
    expect(sprung(3, 5, winter)?.because.code).not.toBe('look_spring_flare');
    expect(sprung(3, undefined, winter)?.because.code).not.toBe('look_spring_flare');
  });
  it('is left out where somebody has looked in the six weeks before, and never puts off what a finding asks for', () => {
    expect(sprung(3, 40, lookOn('2027-02-20', { stake: 'none' }))?.on).not.toBe('2027-03-15');
    const found = lookOn('2026-11-02', { circlingRoots: [pressing(0, 60)] });
    expect(sprung(0, 40, found)?.because.code).toBe('look_follow_up');
    expect(sprung(3, 40, found)).toEqual(sprung(0, 40, found));
  });
});
