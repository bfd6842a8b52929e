import { fieldDefault, withChoice } from '../practice';
import { lookOn, lived } from '../../testing/remedy-cases';
import { ground, planting, stock } from '../../testing/water-cases';
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
