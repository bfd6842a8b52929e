import { closeDownOf, type CloseDownItem } from './close-down';

const trees = [
  { spotId: 'a', planted: true },
  { spotId: 'b', planted: false },
];
const tasks = (list: readonly CloseDownItem[]) => list.map(({ task, spotId }) => (spotId ? `${task} ${spotId}` : task));

describe('what is done before the last one leaves', () => {
  it('is each tree that was not planted, its hole, and what went out', () => {
    expect(tasks(closeDownOf({ kind: 'volunteers', trees }, []))).toEqual([
      'heeled_in b',
      'holes_fenced',
      'tools_back',
      'containers_back',
      'all_home',
    ]);
  });
  it('has no hole to fence where all are planted', () => {
    const done = trees.map((tree) => ({ ...tree, planted: true }));
    expect(tasks(closeDownOf({ kind: 'volunteers', trees: done }, []))).toEqual([
      'tools_back',
      'containers_back',
      'all_home',
    ]);
  });
  it('leaves a contractor their own tools and people, and digs nothing at a hand-out', () => {
    expect(tasks(closeDownOf({ kind: 'contractor', trees }, []))).toEqual([
      'heeled_in b',
      'holes_fenced',
      'containers_back',
    ]);
    expect(tasks(closeDownOf({ kind: 'hand_out', trees }, []))).toEqual(['heeled_in b']);
  });
  it('is ticked item by item', () => {
    const list = closeDownOf({ kind: 'volunteers', trees }, [
      { task: 'heeled_in', spotId: 'b' },
      { task: 'tools_back', spotId: null },
      { task: 'heeled_in', spotId: 'a' },
    ]);
    expect(tasks(list.filter(({ done }) => done))).toEqual(['heeled_in b', 'tools_back']);
  });
});
