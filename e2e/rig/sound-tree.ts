/** Every tap at a sound tree, from the stop to its last question, in walking order. */
export const soundTree = [
  'It is this tree',
  'Green, nothing wrong',
  'no stake',
  'nothing moves',
  'Nothing wrong',
  'clear of the trunk',
  '50 mm',
  'free of grass',
  '0 mm',
  'none seen',
  'moist',
] as const;
