import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { DateInput } from './date-input';
import { readDay } from './read-day';

describe('a day as people write it', () => {
  it.each([
    ['27 Nov 2026', '2026-11-27'],
    ['Fri 27 Nov 2026', '2026-11-27'],
    ['27.11.2026', '2026-11-27'],
    ['3/4/2026', '2026-04-03'],
    ['2026-02-28', '2026-02-28'],
    ['5 dec', '2026-12-05'],
    [' 1 March 2027 ', '2027-03-01'],
  ])('%s is read', (text, day) => {
    expect(readDay(text, 2026)).toBe(day);
  });

  it.each(['31 Feb 2026', '2026-02-30', '11/27/2026', 'soon', '', '1 Jan 26', '27/11', '12 Foo 2026'])(
    '%s is none',
    (text) => {
      expect(readDay(text, 2026)).toBeNull();
    },
  );
});

describe('the entry of a day', () => {
  let fixture: ComponentFixture<DateInput>;
  const element = () => fixture.nativeElement as HTMLElement;
  const entry = () => element().querySelector<HTMLInputElement>('input[type=text]') ?? fail('no entry');
  const picked: string[] = [];
  const type = async (text: string) => {
    entry().value = text;
    entry().dispatchEvent(new Event('input'));
    entry().dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };
  beforeEach(async () => {
    fixture = TestBed.createComponent(DateInput);
    fixture.componentRef.setInput('value', '2026-11-27');
    fixture.componentRef.setInput('name', 'on');
    picked.length = 0;
    fixture.componentInstance.picked.subscribe((day) => picked.push(day));
    fixture.detectChanges();
    await fixture.whenStable();
    await fixture.whenStable();
  });

  it('shows it in the order of the programme, and tells the ISO day', async () => {
    expect(entry().value).toBe('27 Nov 2026');
    await type('1.2.2027');
    expect(picked.at(-1)).toBe('2027-02-01');
    expect(entry().value).toBe('1 Feb 2027');
    expect(element().querySelector<HTMLInputElement>('input[name="on"]')?.value).toBe('2027-02-01');
  });

  it('keeps what is no day, and says so', async () => {
    await type('31 Feb 2026');
    fixture.componentRef.setInput('value', '');
    await fixture.whenStable();
    expect(picked.at(-1)).toBe('');
    expect(entry().value).toBe('31 Feb 2026');
    expect(element().textContent).toContain('“31 Feb 2026” is not a day: write 27 Nov 2026.');
    await type('28 Feb 2026');
    expect(element().querySelector('.fault')).toBeNull();
  });

  it('opens a calendar', async () => {
    element().querySelector<HTMLButtonElement>('button.open')?.click();
    await fixture.whenStable();
    expect(document.querySelector('ngb-datepicker')?.textContent).toContain('Nov');
  });
});
