import type { Inspection } from '@sombra/core';
import type { Answers } from '../ask/ask';
import { lookOf, lookQuestions } from './walk-questions';

const today = '2026-06-15';
const asked = (answers: Answers, last: Inspection | null = null) =>
  lookQuestions({ answers, last, units: 'metric', pathDeg: null });
const keys = (answers: Answers) => asked(answers).map(({ key }) => key);
const sound: Answers = {
  signs: '',
  stake: 'none',
  rocks: 'firm',
  hangsOn: '',
  mulchContact: 'clear',
  mulchDepthMm: 70,
  turf: 'clear',
  flareDepthMm: 0,
  roots: 'none',
  probe: 'moist',
};

describe('a look by questions', () => {
  it('goes in walking order, and asks no more of a sound tree', () => {
    expect(keys(sound)).toEqual(Object.keys(sound));
  });
  it.each([
    [{ signs: 'leafless' }, 'aliveTop'],
    [{ signs: 'trunk_wound' }, 'photo'],
    [{ flareDepthMm: 40 }, 'bark'],
    [{ roots: 'some' }, 'collar'],
  ])('asks on after %j', (answer, key) => {
    expect(keys(sound)).not.toContain(key);
    expect(keys({ ...sound, ...answer })).toContain(key);
  });
  it('shows what the look before found beside each step', () => {
    const last = lookOf({ ...sound, mulchDepthMm: 40, stake: 'tight' }, '2026-01-10');
    const found = new Map(asked({}, last).map(({ key, last: before }) => [key, before]));
    expect(found.get('stake')).toBe('tie tight');
    expect(found.get('mulchDepthMm')).toBe('40 mm');
    expect(found.get('signs')).toBe('none seen');
    expect(asked({}).every(({ last: before }) => before === undefined)).toBe(true);
  });
});

describe('the answers as a look', () => {
  it('of a sound tree say that it is green and nothing was seen', () => {
    expect(lookOf(sound, today)).toEqual({
      inspectedOn: today,
      alive: 'green',
      signs: [],
      stake: 'none',
      rocks: 'firm',
      leftOn: [],
      mulchContact: 'clear',
      mulchDepthMm: 70,
      turf: 'clear',
      flareDepthMm: 0,
      flareBy: 'scraped',
      circlingRoots: [],
      probe: 'moist',
    });
  });
  it('that were skipped say nothing at all', () => {
    expect(lookOf({}, today)).toEqual({
      inspectedOn: today,
      stake: null,
      mulchContact: null,
      mulchDepthMm: null,
      flareDepthMm: null,
      probe: null,
      circlingRoots: null,
    });
  });
  it.each([
    [{}, ['aliveTop']],
    [{ aliveTop: 'green' }, ['aliveTop']],
    [{ aliveTop: 'brittle' }, ['aliveTop', 'aliveMiddle']],
    [{ aliveTop: 'brittle', aliveMiddle: 'green' }, ['aliveTop', 'aliveMiddle']],
    [{ aliveTop: 'brittle', aliveMiddle: 'dry' }, ['aliveTop', 'aliveMiddle', 'aliveBase']],
  ])('feel down the tree until there is green: after %j', (felt, expected) => {
    const wood = keys({ ...sound, signs: 'leafless', ...felt }).filter((key) => key.startsWith('alive'));
    expect(wood).toEqual(expected);
  });
  it('tell the heights apart, and the worst of them', () => {
    const felt = { signs: 'leafless', aliveTop: 'brittle', aliveMiddle: 'green', aliveBase: 'dry' };
    // Felt again and found green half-way: what was felt below it before is not asked for any more.
    const { alive, aliveAt } = lookOf(felt, today);
    expect([alive, aliveAt]).toEqual(['brittle', { top: 'brittle', middle: 'green' }]);
    expect(lookOf({ signs: 'leafless' }, today)).not.toHaveProperty('aliveAt');
  });
  it('tell the guard from what is left on', () => {
    const { guard, leftOn } = lookOf({ hangsOn: 'guard_tight,wrap,tags' }, today);
    expect([guard, leftOn]).toEqual(['tight', ['wrap', 'tags']]);
  });
  it('hold the roots that were drawn, and none that could not be read', () => {
    const drawn = {
      roots: [{ arc: { fromDeg: 0, toDeg: 90 }, diameterMm: 15 }],
      anchors: [{ bearingDeg: 10, diameterMm: 30 }],
    };
    const look = lookOf({ roots: 'some', collar: JSON.stringify(drawn) }, today);
    expect([look.circlingRoots, look.anchors]).toEqual([drawn.roots, drawn.anchors]);
    for (const collar of ['', '{', '[]', 'null', '{"roots":3}']) {
      expect(lookOf({ roots: 'some', collar }, today).circlingRoots).toBeNull();
    }
    expect(lookOf({ roots: 'unseen' }, today).circlingRoots).toBeNull();
  });
});
