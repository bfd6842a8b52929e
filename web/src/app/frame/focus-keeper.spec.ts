import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { FocusKeeper } from './focus-keeper';

const drawn = (html: string): HTMLElement => {
  document.body.innerHTML = html;
  // Nothing has a size where nothing is laid out.
  for (const one of document.querySelectorAll<HTMLElement>('*')) one.getClientRects = () => [{}] as never;
  return document.body;
};
const at = (selector: string) => document.querySelector<HTMLElement>(selector);
const later = () => new Promise((done) => setTimeout(done));

describe('the focus', () => {
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideRouter([])] });
    TestBed.inject(FocusKeeper);
  });
  afterEach(() => {
    document.body.innerHTML = '';
  });

  it('goes on to the next line where its line is done, and back where that was the last', async () => {
    drawn(
      '<ol><li><button id="a">a</button></li><li><button id="b">b</button></li><li><button id="c">c</button></li></ol>',
    );
    at('#b')?.focus();
    at('#b')?.parentElement?.remove();
    await later();
    expect(document.activeElement?.id).toBe('c');
    at('#c')?.parentElement?.remove();
    await later();
    expect(document.activeElement?.id).toBe('a');
  });

  it('goes to the work where nothing of it is left', async () => {
    drawn('<main id="work" tabindex="-1"><section><button id="undo">Undo</button></section></main>');
    at('#undo')?.focus();
    at('section')?.remove();
    await later();
    expect(document.activeElement?.id).toBe('work');
  });

  it('is left alone where somebody has moved it', async () => {
    drawn('<button id="a">a</button><input id="b" />');
    at('#a')?.focus();
    at('#b')?.focus();
    at('#a')?.remove();
    await later();
    expect(document.activeElement?.id).toBe('b');
  });
});
