import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { defaultReceivingRules, unseenTree, type ReceivedTree } from '@sombra/core';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { TreeQuestion } from './tree-question';
import { questionsFor, type Question } from './tree-questions';

let fixture: ComponentFixture<TreeQuestion>;
let session: FakeSession;
let answers: Partial<ReceivedTree>[];
let nexts: number;
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const ask = async (key: Question['key'], tree: Partial<ReceivedTree> = {}) => {
  const seen = { ...unseenTree, ...tree };
  const question = questionsFor({ kind: 'container', caliperMm: 40 }, seen, defaultReceivingRules).find(
    (one) => one.key === key,
  );
  if (!question) throw new Error(`${key} is not asked`);
  fixture.componentRef.setInput('question', question);
  fixture.componentRef.setInput('tree', seen);
  await fixture.whenStable();
};
const press = async (name: string) => {
  const button = [...element().querySelectorAll('button')].find((one) => one.textContent.trim() === name);
  if (!button) throw new Error(name);
  button.click();
  await fixture.whenStable();
};
const next = async () => {
  fixture.componentInstance.take();
  await fixture.whenStable();
};

beforeEach(() => {
  session = new FakeSession();
  TestBed.configureTestingModule({ providers: [provideFakeSession(session)] });
  fixture = TestBed.createComponent(TreeQuestion);
  [answers, nexts] = [[], 0];
  fixture.componentInstance.answered.subscribe((part) => answers.push(part));
  fixture.componentInstance.next.subscribe(() => (nexts += 1));
  fixture.componentRef.setInput('orderedMm', 50);
});

describe('a question about a tree', () => {
  it('takes a number from the pad', async () => {
    await ask('caliperMm');
    await press('4');
    await press('8');
    await next();
    expect([answers, nexts]).toEqual([[{ caliperMm: 48 }], 1]);
  });

  it('takes it in the units of the reader', async () => {
    session.units.set('us');
    await ask('caliperMm');
    await press('2');
    await next();
    expect(answers).toEqual([{ caliperMm: 50.8 }]);
  });

  it('asks whether a small caliper was meant in inches, and takes what is said', async () => {
    await ask('caliperMm');
    await press('2');
    await next();
    expect([answers, nexts]).toEqual([[], 0]);
    expect(text()).toContain('2 mm, and 50 mm were ordered. Inches? 2 in are 51 mm.');
    await press('Yes, inches');
    expect([answers, nexts]).toEqual([[{ caliperMm: 51 }], 1]);
  });

  it('names field, value and limit of what cannot be, and keeps what was typed', async () => {
    await ask('heightM');
    await press('4');
    await press('0');
    await next();
    expect(text()).toContain('Height must be within 0.2–25 m, got 40.');
    expect([element().querySelector('input')?.value, answers, nexts]).toEqual(['40', [], 0]);
  });

  it('goes on from a tapped word by itself', async () => {
    await ask('ball');
    await press('washed out');
    expect([answers, nexts]).toEqual([[{ ball: 'washed_out' }], 1]);
    await ask('kinked', { ball: 'firm' });
    await press('no');
    expect(answers.at(-1)).toEqual({ kinked: false });
  });

  it('takes several probes, each with the nature of its root', async () => {
    await ask('probes', { probes: [{ depthMm: 30, nature: 'structural' }] });
    await press('9');
    await press('0');
    await press('adventitious');
    expect([answers, nexts]).toEqual([
      [
        {
          probes: [
            { depthMm: 30, nature: 'structural' },
            { depthMm: 90, nature: 'adventitious' },
          ],
        },
      ],
      0,
    ]);
    await press('structural');
    expect(text()).toContain('enter a number of mm, got nothing');
  });

  it('holds a picture of circling beside the ball', async () => {
    await ask('circlingPct');
    await press('75 %');
    expect(answers).toEqual([{ circlingPct: 75 }]);
  });
});

describe('what is asked', () => {
  const keys = (kind: 'container' | 'balled' | 'bare_root', tree: Partial<ReceivedTree> = {}) =>
    questionsFor({ kind, caliperMm: 40 }, { ...unseenTree, ...tree }, defaultReceivingRules).map(({ key }) => key);
  it('follows the kind that came, not the one that was ordered', () => {
    expect(keys('container', { kind: 'balled' })).toContain('wrap');
    expect(keys('balled', { kind: 'bare_root' })).toContain('rootSpreadMm');
  });
  it.each([
    [40, null, '150 mm above the flare'],
    [40, 104, 'At 300 mm above the flare'],
    [120, null, 'At 300 mm above the flare'],
  ])('says where the caliper of a trunk ordered with %p mm and measured %p is taken', (ordered, caliperMm, words) => {
    const asked = questionsFor(
      { kind: 'balled', caliperMm: ordered },
      { ...unseenTree, caliperMm },
      defaultReceivingRules,
    );
    expect(asked.find(({ key }) => key === 'caliperMm')?.hint).toContain(words);
  });
  it('tells where a caliper is taken in the units of the reader', () => {
    const asked = questionsFor({ kind: 'balled', caliperMm: 40 }, unseenTree, defaultReceivingRules, 'us');
    expect(asked.find(({ key }) => key === 'caliperMm')?.hint).toMatch(/^6 in above the flare; .*over 4 in.*12 in/);
  });
  it('fits the kind of stock', () => {
    expect(keys('container')).toEqual(expect.arrayContaining(['circlingPct', 'soilShows', 'probes']));
    expect(keys('balled')).toEqual(expect.arrayContaining(['wrap', 'ball', 'probes']));
    expect(keys('bare_root')).toEqual(expect.not.arrayContaining(['probes', 'ball', 'circlingPct', 'wrap']));
  });
  it('follows what was found: surplus is asked about where there is some, circling where there is any', () => {
    expect(keys('container')).not.toContain('surplusLeftMm');
    expect(keys('container', { probes: [{ depthMm: 80, nature: 'structural' }] })).toContain('surplusLeftMm');
    expect(keys('container', { probes: [{ depthMm: 80, nature: 'fine' }] })).not.toContain('surplusLeftMm');
    expect(keys('container', { circlingPct: 0 })).not.toContain('thickestCirclingMm');
  });
});
