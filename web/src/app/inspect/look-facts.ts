import { worstWood, type Inspection } from '@sombra/core';
import type { CollarRoots } from '../collar/collar-roots';

/** What a look asks for, by form or by questions; `null` where nobody looked. */
export interface LookValues {
  readonly alive: Inspection['alive'] | null;
  /** Height by height; where given, `alive` is the worst of it. */
  readonly aliveAt?: Inspection['aliveAt'] | null;
  readonly signs: Inspection['signs'] | null;
  readonly diebackPct: number | null;
  readonly shootMm: number | null;
  readonly shootBeforeMm: number | null;
  readonly stake: Inspection['stake'];
  readonly rocks: Inspection['rocks'] | null;
  readonly guard: Inspection['guard'] | null;
  readonly leftOn: Inspection['leftOn'] | null;
  readonly mulchContact: Inspection['mulchContact'];
  readonly mulchDepthMm: number | null;
  readonly turf: Inspection['turf'] | null;
  readonly flareDepthMm: number | null;
  /** Other points round the trunk, where somebody scraped at more than one. */
  readonly otherFlaresMm?: readonly (number | null)[];
  readonly flareBy: Inspection['flareBy'] | null;
  readonly bark: Inspection['bark'] | null;
  readonly barkPct: number | null;
  readonly collar: CollarRoots | null;
  readonly probe: Inspection['probe'];
  readonly finger: Inspection['finger'] | null;
  readonly instruments?: Inspection['instruments'] | null;
}

/** A look as it is stored: what nobody looked at is left out, or `null` where older records have it so. */
export function lookFacts(v: LookValues, inspectedOn: string): Inspection {
  const flares = [v.flareDepthMm, ...(v.otherFlaresMm ?? [])].filter((depth) => depth !== null);
  const seen = {
    alive: (v.aliveAt && worstWood(v.aliveAt)) ?? v.alive,
    aliveAt: v.aliveAt && worstWood(v.aliveAt) ? v.aliveAt : null,
    signs: v.signs,
    diebackPct: v.diebackPct,
    shootMm: v.shootMm,
    shootBeforeMm: v.shootBeforeMm,
    rocks: v.rocks,
    guard: v.guard,
    leftOn: v.leftOn,
    turf: v.turf,
    flareRoundMm: flares.length > 1 ? flares : null,
    flareBy: flares.length === 0 ? null : v.flareBy,
    bark: v.bark,
    // A share is of bark that is not sound.
    barkPct: v.bark === null || v.bark === 'sound' ? null : v.barkPct,
    anchors: v.collar?.anchors ?? null,
    finger: v.probe === null ? v.finger : null,
    instruments: v.instruments?.length ? v.instruments : null,
  };
  return {
    inspectedOn,
    flareDepthMm: flares.length === 0 ? null : Math.max(...flares),
    mulchDepthMm: v.mulchDepthMm,
    mulchContact: v.mulchContact,
    stake: v.stake,
    probe: v.probe,
    circlingRoots: v.collar?.roots ?? null,
    ...(Object.fromEntries(
      Object.entries(seen).filter(([, value]) => value !== null && value !== undefined),
    ) as Partial<Inspection>),
  };
}
