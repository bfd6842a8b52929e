import { FormControl, FormGroup } from '@angular/forms';
import { TestBed } from '@angular/core/testing';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { FormDraft } from './form-draft';

const makeForm = () => new FormGroup({ a: new FormControl<number | null>(null), b: new FormControl('') });
let session: FakeSession;
const draft = () => TestBed.inject(FormDraft);

beforeEach(() => {
  localStorage.clear();
  session = new FakeSession();
  TestBed.configureTestingModule({ providers: [FormDraft, provideFakeSession(session)] });
});

/** Types into a bound form. */
function type(value: object): void {
  const form = makeForm();
  draft().bind(form, 'stock.1', { a: 1, b: 'stored' });
  form.patchValue(value);
}

describe('draft of a form', () => {
  it('shows what is stored where nothing was typed', () => {
    const form = makeForm();
    draft().bind(form, 'stock.1', { a: 1, b: 'stored' });
    expect(form.getRawValue()).toEqual({ a: 1, b: 'stored' });
    expect(draft().restored()).toBe(false);
  });

  it('puts typing back over what is stored', () => {
    type({ a: 7 });
    const form = makeForm();
    draft().bind(form, 'stock.1', { a: 1, b: 'stored' });
    expect(form.getRawValue()).toEqual({ a: 7, b: 'stored' });
    expect(draft().restored()).toBe(true);
  });

  it('forgets once the record is safe', () => {
    type({ a: 7 });
    draft().clear();
    const form = makeForm();
    draft().bind(form, 'stock.1', { a: 1, b: 'stored' });
    expect(form.value.a).toBe(1);
  });

  it('is none when the typing was taken back', () => {
    type({ a: 7 });
    type({ a: 1 });
    const form = makeForm();
    draft().bind(form, 'stock.1', { a: 1, b: 'stored' });
    expect(draft().restored()).toBe(false);
  });

  it('keeps each spot and each person apart', () => {
    type({ a: 7 });
    const other = makeForm();
    draft().bind(other, 'stock.2', { a: 2, b: '' });
    expect(other.value.a).toBe(2);
    session.user.update((user) => (user ? { ...user, id: 'u2' } : user));
    const theirs = makeForm();
    draft().bind(theirs, 'stock.1', { a: 1, b: 'stored' });
    expect(theirs.value.a).toBe(1);
  });

  it.each(['not json', 'null', '{"savedAt":"x"}', '[]'])('survives a storage that holds %s', (text) => {
    localStorage.setItem('sombra.draft.u1.stock.1', text);
    const form = makeForm();
    draft().bind(form, 'stock.1', { a: 1, b: 'stored' });
    expect(form.value.a).toBe(1);
  });
});
