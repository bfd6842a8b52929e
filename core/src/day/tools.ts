import type { SoilClass } from '../ground';
import type { StockKind } from '../stock';
import type { MaterialCode } from '../pit';

/** What goes out with the teams and comes back. */
export const tools = {
  spade: 'Digging spade',
  narrow_spade: 'Narrow spade',
  shovel: 'Shovel',
  pick: 'Pick',
  bar: 'Digging bar',
  bolt_cutter: 'Bolt cutter',
  knife: 'Knife',
  root_saw: 'Root saw',
  pruners: 'Hand pruners',
  rake: 'Rake',
  sheet: 'Sheet for spoil',
  straight_edge: 'Straight edge',
  tape: 'Tape measure',
  probe: 'Soil probe',
  driver: 'Stake driver',
  barrow: 'Wheelbarrow',
  trolley: 'Ball trolley',
  bucket: 'Bucket',
  hose: 'Hose',
  cones: 'Traffic cones',
  gloves: 'Pair of gloves',
  glasses: 'Safety glasses',
  vest: 'High-visibility vest',
  first_aid: 'First-aid kit',
} as const;
export type ToolCode = keyof typeof tools;
export const toolCodes = Object.keys(tools) as readonly ToolCode[];

/** A tree as its tools see it. */
export interface ToolTree {
  readonly soil: SoilClass | null;
  readonly stony: boolean;
  readonly compacted: boolean;
  readonly kind: StockKind;
  /** The practice cuts a wire basket away. */
  readonly cutsWire: boolean;
  readonly correctsRoots: boolean;
  readonly stakes: number;
  readonly carriedBy: 'people' | 'trolley' | 'machine';
  readonly atStreet: boolean;
  readonly materials: Partial<Readonly<Record<MaterialCode, number>>>;
}
export interface ToolTeam {
  readonly people: number;
  readonly trees: readonly ToolTree[];
}
export type ToolCounts = Partial<Readonly<Record<ToolCode, number>>>;

const heavy: readonly (SoilClass | null)[] = ['clay', 'clay_loam'];

/**
 * What one team takes along: by its soils narrow spade and pick for clay, a bar for stones, by its stock bolt cutter for
 * baskets and root saw for containers, by the practice what corrects roots and sets stakes, and for each person what
 * protects them. Two may dig at one pit, so two of what digs.
 */
export function toolsOfTeam({ people, trees }: ToolTeam): ToolCounts {
  const any = (is: (tree: ToolTree) => boolean) => trees.some(is);
  const diggers = Math.min(2, people);
  const isHeavy = any(({ soil, compacted }) => heavy.includes(soil) || compacted);
  const counts: Record<ToolCode, number> = {
    spade: diggers,
    narrow_spade: isHeavy ? 1 : 0,
    shovel: 1,
    pick: isHeavy ? 1 : 0,
    bar: any(({ stony }) => stony) ? 1 : 0,
    bolt_cutter: any(({ kind, cutsWire }) => kind === 'balled' && cutsWire) ? 1 : 0,
    knife: 1,
    root_saw: any(({ kind, correctsRoots }) => kind === 'container' && correctsRoots) ? 1 : 0,
    pruners: 1,
    rake: 1,
    sheet: 1,
    straight_edge: 1,
    tape: 1,
    probe: 1,
    driver: any(({ stakes }) => stakes > 0) ? 1 : 0,
    barrow: any(({ materials }) => Object.keys(materials).length > 0) ? 1 : 0,
    trolley: any(({ carriedBy }) => carriedBy === 'trolley') ? 1 : 0,
    bucket: 2,
    hose: 0,
    cones: any(({ atStreet }) => atStreet) ? 4 : 0,
    gloves: people,
    glasses: people,
    vest: any(({ atStreet }) => atStreet) ? people : 0,
    first_aid: 1,
  };
  return Object.fromEntries(Object.entries(counts).filter(([, count]) => count > 0));
}

/** Of several teams together. */
export function sumTools(lists: readonly ToolCounts[]): ToolCounts {
  const sum: Partial<Record<ToolCode, number>> = {};
  for (const list of lists) for (const code of toolCodes) if (list[code]) sum[code] = (sum[code] ?? 0) + list[code];
  return sum;
}
