import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { MeasureField } from './measure-field';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MeasureField, ReactiveFormsModule],
  template: `<s-measure-field [formControl]="control" fact="ballDiameterMm" />`,
})
class Host {
  readonly control = new FormControl<number | null>(null);
}

let fixture: ComponentFixture<Host>;
let session: FakeSession;
const input = () => (fixture.nativeElement as HTMLElement).querySelector('input') as HTMLInputElement;
const note = () => (fixture.nativeElement as HTMLElement).querySelector('small')?.textContent.trim();

async function type(text: string, options: { leave: boolean } = { leave: true }): Promise<void> {
  input().value = text;
  input().dispatchEvent(new Event('input'));
  if (options.leave) input().dispatchEvent(new Event('blur'));
  await fixture.whenStable();
}

beforeEach(async () => {
  session = new FakeSession();
  TestBed.configureTestingModule({ providers: [provideFakeSession(session)] });
  fixture = TestBed.createComponent(Host);
  await fixture.whenStable();
});

describe('measure field', () => {
  it('holds what is typed in metric', async () => {
    await type('450');
    expect(fixture.componentInstance.control.value).toBe(450);
    expect(fixture.componentInstance.control.valid).toBe(true);
  });

  it('takes a decimal comma', async () => {
    await type('450,5');
    expect(fixture.componentInstance.control.value).toBe(450.5);
  });

  it('names the limits and the value, in the units of the reader', async () => {
    await type('4000');
    expect(note()).toBe('Must be within 100–3000 mm, got 4000');
    expect(fixture.componentInstance.control.valid).toBe(false);
    session.units.set('us');
    await fixture.whenStable();
    await type('2');
    expect(note()).toBe('Must be within 3 7/8–118 1/8 in, got 2');
  });

  it('waits with "too small" until the person has left the field', async () => {
    await type('4', { leave: false });
    expect(note()).toBe('');
    await type('4');
    expect(note()).toContain('Must be within 100–3000 mm');
  });

  it('says at once what more digits cannot mend', async () => {
    await type('45000', { leave: false });
    expect(note()).toContain('got 45\u202f000');
  });

  it('asks for a number where words were typed, and keeps them', async () => {
    await type('wide');
    expect(note()).toBe('Enter a number of mm');
    expect(input().value).toBe('wide');
    expect(fixture.componentInstance.control.value).toBeNull();
  });

  it('shows the same length when the units change', async () => {
    await type('254');
    session.units.set('us');
    await fixture.whenStable();
    expect(input().value).toBe('10');
    expect(fixture.componentInstance.control.value).toBe(254);
  });

  it('keeps the exact length where nothing was typed, and takes fractions of an inch', async () => {
    session.units.set('us');
    fixture.componentInstance.control.setValue(450);
    await fixture.whenStable();
    // 17.717 in, to the nearest eighth.
    expect(input().value).toBe('17 3/4');
    await type('17 1/2');
    expect(fixture.componentInstance.control.value).toBeCloseTo(444.5, 9);
    await type('17 3/4');
    expect(fixture.componentInstance.control.value).toBe(450);
  });

  it('takes the limits it names', async () => {
    session.units.set('us');
    await type('118 1/8');
    expect([fixture.componentInstance.control.value, fixture.componentInstance.control.valid]).toEqual([3000, true]);
  });

  it('tells screen readers of a fault', async () => {
    await type('4000');
    expect(input().getAttribute('aria-invalid')).toBe('true');
    const described = input().getAttribute('aria-describedby') ?? '';
    expect(document.getElementById(described)?.textContent).toContain('Must be within');
  });
});

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MeasureField, ReactiveFormsModule],
  template: `<s-measure-field [formControl]="control" fact="caliperMm" />`,
})
class CaliperHost {
  readonly control = new FormControl<number | null>(null);
}

describe('a caliper too small for millimetres', () => {
  let host: ComponentFixture<CaliperHost>;
  const within = (): HTMLElement => host.nativeElement as HTMLElement;
  const enter = async (text: string) => {
    const field = within().querySelector('input') as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('blur'));
    await host.whenStable();
  };
  beforeEach(async () => {
    host = TestBed.createComponent(CaliperHost);
    await host.whenStable();
  });

  it('is refused and asked about, and taken in inches only when somebody says so', async () => {
    await enter('2');
    expect(host.componentInstance.control.valid).toBe(false);
    const ask = within().querySelector<HTMLElement>('.btn');
    expect(ask?.textContent.trim()).toBe('Inches? Take 51 mm');
    ask?.click();
    await host.whenStable();
    expect([host.componentInstance.control.value, host.componentInstance.control.valid]).toEqual([51, true]);
    expect(within().querySelector<HTMLElement>('.btn')).toBeNull();
  });

  it.each(['50', '0', '0.1', ''])('is not asked about for %s', async (text) => {
    await enter(text);
    expect(within().querySelector<HTMLElement>('.btn')).toBeNull();
  });

  it('is not asked about where inches are the unit', async () => {
    session.units.set('us');
    await enter('2');
    expect([host.componentInstance.control.value, within().querySelector<HTMLElement>('.btn')]).toEqual([50.8, null]);
  });
});
