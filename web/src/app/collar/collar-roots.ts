import {
  formatQuantity,
  rootNatureNames,
  rootTouchNames,
  type Anchor,
  type CirclingRoot,
  type Practice,
  type UnitSystem,
} from '@sombra/core';

/** What somebody found at a collar. `anchors` is left out where nobody looked for what holds the tree. */
export interface CollarRoots {
  readonly roots: readonly CirclingRoot[];
  readonly anchors?: readonly Anchor[];
}

/** How much of its roots a practice lets a crew cut, and how thick. */
export type CutLimits = Pick<Practice['inspection']['roots'], 'seasonCapPct' | 'referRootOverMm'>;

export const noRoots: CollarRoots = { roots: [] };

export const growsNames = { away: 'away from the stem', towards: 'towards the stem' } as const;

/** A root in a line, for a list of them. */
export function rootWords({ arc, diameterMm, touch = 'pressing', nature }: CirclingRoot, units: UnitSystem): string {
  const what = nature ? `, ${rootNatureNames[nature]}` : '';
  return `${arc.fromDeg}° to ${arc.toDeg}°, ${formatQuantity(diameterMm, 'lengthMm', units)}, ${rootTouchNames[touch]}${what}`;
}

/** How thick that is, beside one's hand. A finger is taken for 17 mm. */
export function fingers(mm: number): string {
  if (mm < 5) return 'as a straw';
  if (mm < 11) return 'as a pencil';
  if (mm < 22) return 'as a finger';
  if (mm < 30) return 'as a thumb';
  return `as ${Math.round(mm / 17)} fingers side by side`;
}

/** What a draft or an answer held; `null` where it is nothing of the kind. */
export function readRoots(kept: unknown): CollarRoots | null {
  const value = typeof kept === 'string' ? parsed(kept) : kept;
  const roots = (value as Partial<CollarRoots> | null)?.roots;
  return Array.isArray(roots) ? (value as CollarRoots) : null;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Of a practice's choices on roots, what a plan of cuts goes by. */
export const limitsOf = ({ seasonCapPct, referRootOverMm }: CutLimits): CutLimits => ({
  seasonCapPct,
  referRootOverMm,
});
