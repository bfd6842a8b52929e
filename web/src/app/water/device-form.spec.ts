import { ComponentRef } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { KeptDevice, SaveDevice } from '@sombra/contract';
import { deviceCatalogue } from '@sombra/core';
import { of } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { DeviceForm } from './device-form';
import { DevicesService } from './devices.service';

const [bag] = deviceCatalogue.filter(({ form }) => form === 'stem');
let fixture: ComponentFixture<DeviceForm>;
let ref: ComponentRef<DeviceForm>;
let sent: SaveDevice[];
const page = () => fixture.nativeElement as HTMLElement;
const field = (label: string) => {
  const found = [...page().querySelectorAll('label')].find(({ textContent }) => textContent.trim().startsWith(label));
  const input = found?.querySelector('input') ?? (found?.htmlFor ? page().querySelector(`#${found.htmlFor}`) : null);
  if (!(input instanceof HTMLInputElement)) throw new Error(`no field ${label}`);
  return input;
};
async function type(label: string, text: string): Promise<void> {
  field(label).value = text;
  field(label).dispatchEvent(new Event('input'));
  field(label).dispatchEvent(new Event('blur'));
  await fixture.whenStable();
}
async function store(): Promise<void> {
  page().querySelector('form')?.dispatchEvent(new Event('submit'));
  await fixture.whenStable();
}

async function open(device: KeptDevice | null, units: 'metric' | 'us' = 'metric'): Promise<void> {
  const session = new FakeSession();
  session.units.set(units);
  sent = [];
  const save = (asked: SaveDevice) => {
    sent.push(asked);
    return of([]);
  };
  TestBed.configureTestingModule({
    providers: [provideFakeSession(session), { provide: DevicesService, useValue: { save } }],
  });
  fixture = TestBed.createComponent(DeviceForm);
  ref = fixture.componentRef;
  ref.setInput('device', device);
  await fixture.whenStable();
}

describe('a device of one’s own', () => {
  it('is sent with an id of its name, its litres from gallons, and nothing made up', async () => {
    await open(null, 'us');
    await type('Name', 'Öl drum, Nº 2');
    await type('Holds', '10');
    await store();
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({
      id: 'o-l-drum-n-2',
      name: 'Öl drum, Nº 2',
      version: 0,
      outlets: 1,
      retired: false,
    });
    expect(sent[0]?.volumeL).toBeCloseTo(37.854_117_84, 6);
    expect(sent[0]?.labelledLPerH).toBeNull();
  });
  it.each([
    ['Name', '', 'Give it a name'],
    ['Name', '…', 'Give it a name'],
    ['Holds', '5000', 'Holds is missing or outside its limits.'],
    ['Minutes to fill', '', 'Minutes to fill is missing or outside its limits.'],
  ])('with %s %s is not sent, and says why', async (label, text, why) => {
    await open(null);
    await type('Name', 'Drum');
    await type(label, text);
    await store();
    expect(sent).toEqual([]);
    expect(page().querySelector('[role="alert"]')?.textContent).toContain(why);
    expect(field('Name').value).toBe(label === 'Name' ? text : 'Drum');
  });
  it('that is changed keeps its id and what nobody touched, to the last digit', async () => {
    if (!bag) throw new Error('no bag');
    await open({ ...bag, retired: false, version: 3, measured: null, atTrees: 2 }, 'us');
    await type('Upkeep', 'rinse in autumn');
    await store();
    expect(sent).toEqual([{ ...bag, upkeep: 'rinse in autumn', retired: false, version: 3 }]);
  });
});
