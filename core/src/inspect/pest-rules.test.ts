import { readPest } from './pest-rules';

it.each([
  ['Longhorn beetle: plant health office, 112 233', { pest: 'Longhorn beetle', tell: 'plant health office, 112 233' }],
  ['  Red weevil :  island vet  ', { pest: 'Red weevil', tell: 'island vet' }],
  ['Canker: office: room 4', { pest: 'Canker', tell: 'office: room 4' }],
  ['Longhorn beetle', null],
  ['Longhorn beetle:', null],
  [': plant health office', null],
  [`Beetle: ${'x'.repeat(121)}`, null],
  ['', null],
])('%j is read as %j', (line, read) => {
  expect(readPest(line)).toEqual(read);
});
