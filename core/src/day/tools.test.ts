import { sumTools, toolsOfTeam, type ToolTree } from './tools';

const tree = (change: Partial<ToolTree> = {}): ToolTree => ({
  soil: 'loam',
  stony: false,
  compacted: false,
  kind: 'bare_root',
  cutsWire: false,
  correctsRoots: false,
  stakes: 0,
  carriedBy: 'people',
  atStreet: false,
  materials: {},
  ...change,
});
const of = (change: Partial<ToolTree>) => toolsOfTeam({ people: 3, trees: [tree(), tree(change)] });

describe('tools of a team', () => {
  it.each([
    ['clay', { soil: 'clay' as const }, ['narrow_spade', 'pick']],
    ['compacted ground', { compacted: true }, ['narrow_spade', 'pick']],
    ['stones', { stony: true }, ['bar']],
    ['a wire basket the practice cuts', { kind: 'balled' as const, cutsWire: true }, ['bolt_cutter']],
    ['a container whose roots are corrected', { kind: 'container' as const, correctsRoots: true }, ['root_saw']],
    ['stakes', { stakes: 2 }, ['driver']],
    ['a heavy tree', { carriedBy: 'trolley' as const }, ['trolley']],
    ['a street', { atStreet: true }, ['cones', 'vest']],
  ])('bring what %s asks for, and nothing of it otherwise', (_name, change, codes) => {
    const [plain, asked] = [toolsOfTeam({ people: 3, trees: [tree()] }), of(change)];
    expect(Object.keys(asked).filter((code) => !(code in plain))).toEqual(codes);
  });
  it('leave a basket alone where the practice does', () => {
    expect(of({ kind: 'balled', cutsWire: false })).not.toHaveProperty('bolt_cutter');
  });
  it('protect each person', () => {
    expect(toolsOfTeam({ people: 5, trees: [tree()] })).toMatchObject({
      gloves: 5,
      glasses: 5,
      spade: 2,
      first_aid: 1,
    });
  });
  it('add up', () => {
    const one = toolsOfTeam({ people: 2, trees: [tree({ soil: 'clay' })] });
    expect(sumTools([one, one])).toMatchObject({ gloves: 4, pick: 2, tape: 2 });
  });
});
