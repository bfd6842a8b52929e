import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { defaultPercolationLimits, type PercolationReading } from '@sombra/core';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { PercolationField, readRows, rowsOf, type PercolationRows } from './percolation-field';

const row = (minute: string, level: string, levelMm: number | null) => ({ minute, level, levelMm });

describe('percolation rows', () => {
  it('read where they are complete, and passed over where they are empty', () => {
    const rows = [row('0', '300', 300), row('', '', null), row('30', '280,5', 280.5)];
    expect(readRows(rows, 'metric')).toEqual([
      { minute: 0, levelMm: 300 },
      { minute: 30, levelMm: 280.5 },
    ]);
  });

  it.each([
    [row('30', '', null), 'metric', 'Reading 1 needs a minute and a level, as numbers'],
    [row('noon', '280', 280), 'metric', 'Reading 1 needs a minute and a level, as numbers'],
    [row('9999', '280', 280), 'metric', 'Reading 1: minute must be within 0–2880, got 9999'],
    [row('30', '5000', 5000), 'metric', 'Reading 1: level must be within 0–2000 mm, got 5000 mm'],
    [row('30', '100', 2540), 'us', 'Reading 1: level must be within 0–78 3/4 in, got 100 in'],
  ] as const)('are questioned: %j', (one, units, fault) => {
    expect(readRows([one], units)).toBe(fault);
  });
});

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PercolationField, ReactiveFormsModule],
  template: `<s-percolation-field [formControl]="control" [classes]="classes" />`,
})
class Host {
  readonly control = new FormControl<PercolationRows>([]);
  readonly classes = defaultPercolationLimits;
}

describe('the readings of a test, in the units of the reader', () => {
  const stored: PercolationReading[] = [300, 296, 292, 288].map((levelMm, i) => ({ minute: 10 * i, levelMm }));
  let session: FakeSession;
  let fixture: ComponentFixture<Host>;
  const levels = () => [
    ...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLInputElement>('input[aria-label^="Level"]'),
  ];
  const readings = () => readRows(fixture.componentInstance.control.value ?? [], session.units());
  const type = async (input: HTMLInputElement | undefined, text: string) => {
    if (!input) throw new Error('no such level');
    input.value = text;
    input.dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    session = new FakeSession();
    session.units.set('us');
    TestBed.configureTestingModule({ providers: [provideFakeSession(session)] });
    fixture = TestBed.createComponent(Host);
    fixture.componentInstance.control.setValue(rowsOf(stored, 'us'));
    await fixture.whenStable();
  });

  it('are kept to the millimetre where nobody typed', async () => {
    expect(levels().map(({ value }) => value)).toEqual(['11 3/4', '11 5/8', '11 1/2', '11 3/8']);
    await type(levels()[3], '11 1/4');
    expect(readings()).toEqual([...stored.slice(0, 3), { minute: 30, levelMm: 285.75 }]);
  });

  it('are the same levels after a change of units, typed ones too', async () => {
    await type(levels()[3], '11 1/4');
    session.units.set('metric');
    await fixture.whenStable();
    expect(levels().map(({ value }) => value)).toEqual(['300', '296', '292', '285.8']);
    await type(levels()[0], '301');
    expect(readings()).toMatchObject([{ levelMm: 301 }, { levelMm: 296 }, { levelMm: 292 }, { levelMm: 285.75 }]);
  });

  it('keep what is no number as it was typed, in either units', async () => {
    await type(levels()[2], 'eleven');
    session.units.set('metric');
    await fixture.whenStable();
    expect(levels()[2]?.value).toBe('eleven');
    expect(readings()).toBe('Reading 3 needs a minute and a level, as numbers');
  });

  it('read a draft of an older Sombra, which kept the text alone', async () => {
    fixture.componentInstance.control.setValue([{ minute: '0', level: '10' }] as unknown as PercolationRows);
    await type(levels()[0], '10');
    expect(readings()).toEqual([{ minute: 0, levelMm: 254 }]);
  });
});
