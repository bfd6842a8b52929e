import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { TermNote } from './term-note';

it('a word explains itself where it stands, with its drawing', async () => {
  TestBed.configureTestingModule({ providers: [provideRouter([])] });
  const fixture = TestBed.createComponent(TermNote);
  fixture.componentRef.setInput('code', 'girdling');
  await fixture.whenStable();
  (fixture.nativeElement as HTMLElement).querySelector('button')?.click();
  for (let i = 0; i < 50 && !document.querySelector('ngb-modal-window svg'); i++) {
    await new Promise((done) => setTimeout(done));
    await fixture.whenStable();
  }
  const dialog = document.querySelector('ngb-modal-window');
  expect(dialog?.querySelector('h2')?.textContent).toBe('Girdling root');
  expect(dialog?.querySelector('svg')?.getAttribute('aria-label')).toBe('Girdling root');
});
