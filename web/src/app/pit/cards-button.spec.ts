import { PageRig } from '../../../testing/page-rig';
import { CardsButton } from './cards-button';
import { CardStreamService, type CardsNews } from './card-stream.service';
import { Subject } from 'rxjs';

let rig: PageRig<CardsButton>;
let news: Subject<CardsNews>;
let asked: object[];
let handed: { name: string; size: number }[];
beforeEach(async () => {
  rig = new PageRig();
  news = new Subject();
  asked = [];
  handed = [];
  URL.createObjectURL = (blob: Blob) => `blob:${blob.size}`;
  URL.revokeObjectURL = () => undefined;
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    handed.push({ name: this.download, size: Number(this.href.split(':')[1]) });
  });
  const stream = {
    cards: (ask: object) => {
      asked.push(ask);
      return news;
    },
  };
  await rig.show(CardsButton, {
    inputs: { ask: { day: 'day-1' } },
    providers: [{ provide: CardStreamService, useValue: stream }],
  });
});
afterEach(() => jest.restoreAllMocks());

describe('printing spot cards', () => {
  it('says how many are drawn and hands the file over', async () => {
    await rig.press('four a sheet');
    expect(asked).toEqual([{ day: 'day-1', layout: 'four' }]);
    expect(rig.text).toContain('Drawing cards…');
    news.next({ kind: 'drawing', done: 120, of: 500 });
    await rig.settle();
    expect(rig.text).toContain('120 of 500 cards');
    expect(rig.element.querySelector('progress')?.value).toBe(120);
    news.next({ kind: 'done', pdf: new Blob(['pdf']) });
    await rig.settle();
    expect([handed, rig.text]).toEqual([[{ name: 'spot-cards.pdf', size: 3 }], 'Spot cardsfour a sheet']);
  });

  it('stops when it is cancelled', async () => {
    await rig.press('Spot cards');
    expect(news.observed).toBe(true);
    await rig.press('Cancel');
    expect([news.observed, rig.text]).toEqual([false, 'Spot cardsfour a sheet']);
  });

  it('is ready again after a fault', async () => {
    await rig.press('Spot cards');
    news.error(new TypeError('The server cannot be reached.'));
    await rig.settle();
    expect([rig.text, handed]).toEqual(['Spot cardsfour a sheet', []]);
  });
});
