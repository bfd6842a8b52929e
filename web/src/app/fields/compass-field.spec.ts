import { TestBed } from '@angular/core/testing';
import { CompassField } from './compass-field';

describe('a direction', () => {
  it('is tapped on the rose, taken off by a second tap, and kept as fine as it came', async () => {
    const fixture = TestBed.createComponent(CompassField);
    fixture.componentRef.setInput('label', 'Falls towards');
    const given: (number | null)[] = [];
    fixture.componentInstance.registerOnChange((value) => given.push(value));
    fixture.componentInstance.writeValue(112);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const said = () => page.querySelector('output')?.textContent.trim();
    expect(said()).toBe('ESE 112°');
    expect(page.querySelector('[aria-pressed=true]')).toBeNull();
    const south = [...page.querySelectorAll('button')].find(({ textContent }) => textContent === 'S');
    south?.click();
    await fixture.whenStable();
    expect([said(), south?.getAttribute('aria-pressed')]).toEqual(['S', 'true']);
    south?.click();
    await fixture.whenStable();
    expect([said(), ...given]).toEqual(['?', 180, null]);
  });
});
