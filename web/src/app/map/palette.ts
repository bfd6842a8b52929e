/** Colours of the map, read from the theme's variables so that light and dark have one source. */
const names = [
  'land',
  'water-area',
  'shore',
  'park',
  'contour',
  'street',
  'street-edge',
  'building',
  'building-edge',
  'tram',
  'wire',
  'ink',
  'quiet',
  'sheet',
  'paper',
  'chosen',
  'water',
  'soil',
  'leaf',
  'urgent',
  'act',
  'watch',
] as const;

export type Palette = Readonly<Record<(typeof names)[number], string>>;

export function readPalette(root: HTMLElement = document.documentElement): Palette {
  const style = getComputedStyle(root);
  return Object.fromEntries(
    names.map((name) => [name, style.getPropertyValue(`--${name}`).trim() || '#888']),
  ) as Palette;
}
