import { speciesChoices, type speciesColumns } from '@sombra/contract';

export type SpeciesColumn = (typeof speciesColumns)[number];

export interface SpeciesField {
  readonly column: SpeciesColumn;
  readonly name: string;
  readonly unit?: string;
  readonly choices?: readonly string[];
  readonly long?: boolean;
}

const field = (column: SpeciesColumn, name: string, more: { unit?: string; long?: boolean } = {}): SpeciesField => {
  const choices: readonly string[] | undefined = (speciesChoices as Partial<Record<SpeciesColumn, readonly string[]>>)[
    column
  ];
  return { column, name, ...more, ...(choices ? { choices } : {}) };
};

/** The sheet of a species, in the order a person fills it in. */
export const speciesSheet: readonly { readonly name: string; readonly fields: readonly SpeciesField[] }[] = [
  {
    name: 'Name',
    fields: [
      field('botanical', 'Botanical name'),
      field('common', 'Common name'),
      field('family', 'Family'),
      field('native', 'Native to'),
    ],
  },
  {
    name: 'Size and shape',
    fields: [
      field('height_min_m', 'Mature height, from', { unit: 'm' }),
      field('height_max_m', 'Mature height, to', { unit: 'm' }),
      field('spread_min_m', 'Mature spread, from', { unit: 'm' }),
      field('spread_max_m', 'Mature spread, to', { unit: 'm' }),
      field('growth', 'Growth'),
      field('form', 'Form'),
      field('foliage', 'Foliage'),
    ],
  },
  {
    name: 'What it bears',
    fields: [
      field('frost_c', 'Frost down to', { unit: '°C' }),
      field('heat', 'Heat'),
      field('drought', 'Drought'),
      field('wet', 'Standing water'),
      field('salt', 'Salt'),
      field('ph_min', 'Soil pH, from'),
      field('ph_max', 'Soil pH, to'),
      field('sun', 'Least light'),
      field('wind_firm', 'Firm in wind'),
    ],
  },
  {
    name: 'What it asks and burdens',
    fields: [
      field('water_use', 'Water use'),
      field('root_aggression', 'Roots lift paving'),
      field('litter', 'Litter'),
      field('pollen', 'Allergy from pollen'),
      field('toxic', 'Toxic'),
      field('thorns', 'Thorns'),
      field('pests', 'Pests to watch', { long: true }),
    ],
  },
  {
    name: 'What it gives',
    fields: [
      field('pollinators', 'Pollinators'),
      field('birds', 'Birds'),
      field('flower', 'Flowers in months'),
      field('fruit', 'Fruit in months'),
      field('autumn_colour', 'Autumn colour in months'),
      field('pollination', 'Needs a partner'),
    ],
  },
  {
    name: 'Planting',
    fields: [
      field('container', 'From container'),
      field('balled', 'Balled'),
      field('bare_root', 'Bare root'),
      field('planting', 'Best planted in'),
      field('notes', 'Notes', { long: true }),
      field('source', 'Source of these facts', { long: true }),
    ],
  },
];
