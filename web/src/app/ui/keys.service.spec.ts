import { DestroyRef } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { KeysService } from './keys.service';

let keys: KeysService;
let pressed: string[];
const press = (key: string, init: KeyboardEventInit = {}, target: EventTarget = document.body) =>
  target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init }));
const binding = (of: string) => ({ keys: of, where: 'Test', does: of, run: () => pressed.push(of) });

beforeEach(() => {
  keys = TestBed.inject(KeysService);
  pressed = [];
  keys.bind(['/', 'd', 'g d'].map(binding), TestBed.inject(DestroyRef));
});

describe('keys of the desk', () => {
  it('answer one key or two in a row', () => {
    press('/');
    press('g');
    press('d');
    press('d');
    expect(pressed).toEqual(['/', 'g d', 'd']);
  });

  it('are reached over the keys one holds for them, as on a real keyboard', () => {
    keys.bind(['?'].map(binding), TestBed.inject(DestroyRef));
    press('Shift', { shiftKey: true });
    press('?', { shiftKey: true });
    press('Shift', { shiftKey: true });
    press('/', { shiftKey: true });
    press('AltGraph');
    press('/', { ctrlKey: true, altKey: true, modifierAltGraph: true });
    press('g');
    press('Shift', { shiftKey: true });
    press('d');
    expect(pressed).toEqual(['?', '/', '/', 'g d']);
  });

  it('follow keys that are bound to nothing', () => {
    press('x');
    press('d');
    press('g');
    press('x');
    press('d');
    expect(pressed).toEqual(['d', 'd']);
  });

  it('rest while somebody types, holds a modifier, or answers a dialog', () => {
    const input = document.body.appendChild(document.createElement('input'));
    press('/', {}, input);
    press('d', { ctrlKey: true });
    const dialog = document.body.appendChild(document.createElement('div'));
    dialog.setAttribute('aria-modal', 'true');
    press('d');
    dialog.remove();
    input.remove();
    expect(pressed).toEqual([]);
  });

  it('leave Enter to the button that has the focus', () => {
    keys.bind([binding('Enter')], TestBed.inject(DestroyRef));
    const button = document.body.appendChild(document.createElement('button'));
    press('Enter', {}, button);
    button.remove();
    press('Enter');
    expect(pressed).toEqual(['Enter']);
  });

  it('go to the page that bound them last', () => {
    keys.bind([{ ...binding('d'), run: () => pressed.push('mine') }], TestBed.inject(DestroyRef));
    press('d');
    expect(pressed).toEqual(['mine']);
  });
});
