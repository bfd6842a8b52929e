import type { CollectionViewer, ListRange } from '@angular/cdk/collections';
import type { SpotLine, SpotList } from '@sombra/contract';
import { of, Subject, throwError } from 'rxjs';
import { SpotSource } from './spot-source';

const line = (i: number) => ({ spotId: `id-${i}`, ref: `R-${i}` }) as SpotLine;
const page = (offset: number, limit: number, total: number): SpotList => ({
  lines: Array.from({ length: Math.min(limit, total - offset) }, (_, i) => line(offset + i)),
  total,
});

class Viewer implements CollectionViewer {
  readonly viewChange = new Subject<ListRange>();
}

function rig(total = 50_000) {
  const asked: number[] = [];
  const source = new SpotSource((offset, limit) => {
    asked.push(offset);
    return of(page(offset, limit, total));
  });
  const viewer = new Viewer();
  let shown: readonly (SpotLine | undefined)[] = [];
  source.connect(viewer).subscribe((lines) => (shown = lines));
  return { source, viewer, asked, shown: () => shown };
}

describe('the lines of a long list', () => {
  it('come for what is seen, not for the whole', () => {
    const { viewer, asked, shown, source } = rig();
    expect([source.total(), asked]).toEqual([50_000, [0]]);
    viewer.viewChange.next({ start: 30_040, end: 30_080 });
    expect(asked).toEqual([0, 30_000]);
    expect(shown()).toHaveLength(50_000);
    expect(shown()[30_041]?.ref).toBe('R-30041');
    expect(shown()[20_000]).toBeUndefined();
  });

  it('are not asked for twice, until the list is read again', () => {
    const { viewer, asked, source } = rig();
    viewer.viewChange.next({ start: 90, end: 130 });
    viewer.viewChange.next({ start: 80, end: 120 });
    expect(asked).toEqual([0, 100]);
    source.refresh(90, 130);
    expect(asked).toEqual([0, 100, 0, 100]);
  });

  it('are not asked for beyond the end', () => {
    const { viewer, asked } = rig(150);
    viewer.viewChange.next({ start: 120, end: 400 });
    expect(asked).toEqual([0, 100]);
  });

  it('say what went wrong and can be read again', () => {
    let fails = true;
    const source = new SpotSource((offset, limit) =>
      fails ? throwError(() => new Error('away')) : of(page(offset, limit, 3)),
    );
    expect(source.problem()?.code).toBe('unexpected');
    fails = false;
    source.refresh(0, 3);
    expect([source.problem(), source.total()]).toEqual([null, 3]);
  });
});
