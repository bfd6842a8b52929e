import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { DialFrame, type CirclingRoot } from '@sombra/core';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { fingers, readRoots, rootWords, type CollarRoots } from './collar-roots';
import { DialField } from './dial-field';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DialField],
  template: `<s-dial-field [value]="value()" [pathDeg]="pathDeg()" (changed)="value.set($event)" />`,
})
class Host {
  readonly value = signal<CollarRoots>({ roots: [] });
  readonly pathDeg = signal<number | null>(null);
}

let fixture: ComponentFixture<Host>;
const element = () => fixture.nativeElement as HTMLElement;
const sheet = () => element().querySelector('.sheet') as HTMLElement;
const value = () => fixture.componentInstance.value();
/** On the screen the dial is half as large as it is drawn, and stands somewhere down the page. */
const [left, top, sidePx, drawnPx] = [30, 200, 200, 400];
const frame = new DialFrame(drawnPx);

function point(type: string, deg: number, out = 0.5): void {
  const [x, y] = frame.at(deg, (drawnPx / 2) * out);
  const at = { clientX: left + (x * sidePx) / drawnPx, clientY: top + (y * sidePx) / drawnPx, bubbles: true };
  sheet().dispatchEvent(Object.assign(new MouseEvent(type, at), { pointerId: 1 }));
}
async function stroke(...degs: readonly number[]): Promise<void> {
  point('pointerdown', degs[0] ?? 0);
  for (const deg of degs.slice(1)) point('pointermove', deg);
  point('pointerup', degs.at(-1) ?? 0);
  await fixture.whenStable();
}
async function press(name: string): Promise<void> {
  const found = [...element().querySelectorAll('button')].find((button) => button.textContent.trim().startsWith(name));
  if (!found) throw new Error(`no button ${name}`);
  found.click();
  await fixture.whenStable();
}

beforeEach(async () => {
  localStorage.clear();
  TestBed.configureTestingModule({ providers: [provideFakeSession(new FakeSession())] });
  fixture = TestBed.createComponent(Host);
  await fixture.whenStable();
  sheet().getBoundingClientRect = () => new DOMRect(left, top, sidePx, sidePx);
  sheet().setPointerCapture = () => undefined;
});

describe('a dial with the path up', () => {
  it('draws where one stands, and stores bearings from north all the same', async () => {
    fixture.componentInstance.pathDeg.set(90);
    await fixture.whenStable();
    await press('Path up');
    expect(element().querySelector('svg')?.getAttribute('aria-label')).toContain('from above, E up');
    // What is up is east: a stroke that begins at the top of the sheet begins at 90°.
    await stroke(0, 20, 40);
    expect(value().roots[0]?.arc).toEqual({ fromDeg: 90, toDeg: 130 });
    await press('North up');
    expect(element().querySelector('svg')?.getAttribute('aria-label')).toContain('north up');
  });
  it('is offered only where somebody said which way the path runs; any is turned by hand', async () => {
    expect([...element().querySelectorAll('button')].map(({ textContent }) => textContent.trim())).not.toContain(
      'Path up',
    );
    await press('Turn');
    await press('Turn');
    expect(element().textContent).toContain('E up');
    await stroke(0, 20, 40);
    expect(value().roots[0]?.arc).toEqual({ fromDeg: 90, toDeg: 130 });
  });
});

describe('a root that is drawn', () => {
  it.each([
    ['clockwise', [80, 120, 180, 240], { fromDeg: 80, toDeg: 240 }],
    ['the other way round, which is told clockwise all the same', [240, 180, 120, 80], { fromDeg: 80, toDeg: 240 }],
    ['over north', [340, 355, 10, 40], { fromDeg: 340, toDeg: 40 }],
    ['back over north', [40, 10, 355, 340], { fromDeg: 340, toDeg: 40 }],
    ['most of the way round', [0, 90, 180, 270, 330], { fromDeg: 0, toDeg: 330 }],
  ])('%s', async (_how, degs, arc) => {
    await stroke(...degs);
    expect(value().roots).toEqual([{ arc, diameterMm: 15, touch: 'pressing' }]);
  });
  it('is chosen again by a tap on it, and taken out', async () => {
    await stroke(80, 160, 240);
    await press('1');
    expect(element().querySelector('section.one')).toBeNull();
    await stroke(150);
    expect(element().querySelector('section.one')).not.toBeNull();
    await press('grown into it');
    expect(value().roots[0]?.touch).toBe('grown_in');
    await press('Take this root out');
    expect(value().roots).toEqual([]);
  });
  it('is none where nobody drew: a tap says what to do, a stroke off the dial does nothing', async () => {
    await stroke(150);
    expect(element().textContent).toContain('Draw along the root');
    point('pointerdown', 90, 1.2);
    point('pointerup', 90, 1.2);
    await fixture.whenStable();
    expect(element().querySelector('[role="alert"]')?.textContent).toContain('Begin beside the trunk');
    expect(value().roots).toEqual([]);
  });
  it('ends where the pointer is lost, with nothing put down', async () => {
    point('pointerdown', 80);
    point('pointermove', 160);
    sheet().dispatchEvent(new Event('pointercancel'));
    point('pointerup', 160);
    await fixture.whenStable();
    expect(value().roots).toEqual([]);
  });
});

it('what holds the tree is tapped in', async () => {
  await press('Tap holding');
  await stroke(120);
  await stroke(300);
  expect(value()).toEqual({
    roots: [],
    anchors: [
      { bearingDeg: 120, diameterMm: 30 },
      { bearingDeg: 300, diameterMm: 30 },
    ],
  });
});

it('takes forty roots, and says so at the next', async () => {
  const root: CirclingRoot = { arc: { fromDeg: 0, toDeg: 40 }, diameterMm: 9 };
  fixture.componentInstance.value.set({ roots: Array.from({ length: 40 }, () => root) });
  await fixture.whenStable();
  await press('Add a root by numbers');
  expect(value().roots).toHaveLength(40);
  expect(element().querySelector('[role="alert"]')?.textContent).toContain('40 roots are the most one look takes.');
});

it.each([
  [3, 'as a straw'],
  [8, 'as a pencil'],
  [17, 'as a finger'],
  [25, 'as a thumb'],
  [51, 'as 3 fingers side by side'],
])('%d mm is %s', (mm, words) => {
  expect(fingers(mm)).toBe(words);
});

it('a root in a line says what it is; what is no draft of roots is none', () => {
  const root: CirclingRoot = { arc: { fromDeg: 350, toDeg: 40 }, diameterMm: 18, nature: 'structural' };
  expect(rootWords(root, 'metric')).toMatch(/^350° to 40°, 18.mm, presses on it, structural$/);
  expect(readRoots({ roots: [root] })).toEqual({ roots: [root] });
  expect(readRoots(JSON.stringify({ roots: [root] }))).toEqual({ roots: [root] });
  for (const kept of [null, undefined, 3, '{', '[]', { roots: 'x' }]) expect(readRoots(kept)).toBeNull();
});
