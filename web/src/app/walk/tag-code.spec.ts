import { readTag } from './tag-code';

const id = '0190a5c2-0000-7000-8000-000000000001';

it.each([
  [`https://shade.example/tree/${id}`, { kind: 'tree', id }],
  [`http://127.0.0.1:4310/tree/${id.toUpperCase()}?on=2026-01-01`, { kind: 'tree', id }],
  [`https://shade.example/inspect/${id}`, { kind: 'spot', id }],
  [' A-0105 ', { kind: 'ref', ref: 'A-0105' }],
  [`https://shade.example/people/${id}`, null],
  ['https://elsewhere.example/', null],
  ['', null],
  ['WIFI:S:guest;T:WPA;P:secret;;', null],
])('a tag that says %s names %j', (text, named) => {
  expect(readTag(text)).toEqual(named);
});
