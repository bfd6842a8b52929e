import { because, type GroundReason } from './reasons';
import { clearanceOf, requireAssessment, rootingVolumeM3, soilNeededM3, type Assessment } from './assessment';
import { isUnsettled, type PercolationLimits } from './percolation';
import { groundPercolation, requireGround, type GroundFacts } from './ground-facts';
import { sizeClasses, sizeClassOf, siteThings, type GroundRules, type SiteThing, type SizeClass } from './ground-rules';

export const siteVerdicts = ['plant', 'plant_if', 'move', 'not_here'] as const;
export type SiteVerdict = (typeof siteVerdicts)[number];

/** What one finding does to the place. */
export type SiteEffect = 'fine' | 'unknown' | 'smaller' | 'change' | 'move' | 'refuse';

export interface SiteLimit {
  readonly effect: SiteEffect;
  readonly because: GroundReason;
}

export interface SiteJudgement {
  /** What the findings add up to; the coordinator decides. */
  readonly verdict: SiteVerdict;
  /** Largest size class that keeps every clearance; `null` where not even a small tree does. */
  readonly allows: SizeClass | null;
  /** Tallest mature height the wire allows at its distance; `null` where nothing limits it. m */
  readonly tallestM: number | null;
  /** Greatest height of a crown that reaches under the wire; `null` where there is none near. m */
  readonly underWireM: number | null;
  /** Widest mature crown the soil carries; `null` while the soil volume is unknown. m */
  readonly widestM: number | null;
  /** Worst first. */
  readonly limits: readonly SiteLimit[];
}

const order: readonly SiteEffect[] = ['refuse', 'move', 'change', 'unknown', 'smaller', 'fine'];

/** Things that stand everywhere or whose absence says nothing: not asked for when nobody measured them. */
const asked: readonly SiteThing[] = ['building', 'kerb', 'junction', 'tree'];

/** Mature spread of the least tree worth planting, for the soil it asks. m */
const leastCrownM = 4;

/**
 * What a spot allows, by the programme's rules: each finding with its effect and its because. Unknown facts never
 * make a spot better: they are named, and the verdict is `plant_if` at best until they are known.
 * @throws InvalidInputError for facts outside `limits`
 */
export function judgeSite(input: {
  ground: GroundFacts;
  assessment: Assessment | null;
  rules: GroundRules;
  /** Of the practice the programme plants by. */
  drainage: PercolationLimits;
}): SiteJudgement {
  const { ground, assessment, rules } = input;
  requireGround(ground);
  if (assessment) requireAssessment(assessment);
  const clearances = siteThings.flatMap((thing) => clearanceLimit(thing, assessment, rules));
  const wire = wireLimit(ground, assessment, rules);
  const room = stripLimit(ground, rules);
  const soil = soilLimit(assessment, rules);
  const limits = [...clearances, ...wire.limits, ...room, ...soil.limits, ...groundLimits(input)]
    .concat(assessment ? surroundings(assessment, rules) : [])
    .sort((a, b) => order.indexOf(a.effect) - order.indexOf(b.effect));
  return {
    verdict: verdictOf(limits),
    allows: allowedSize(ground, assessment, rules, wire.tallestM),
    tallestM: wire.tallestM,
    underWireM: wire.underWireM,
    widestM: soil.widestM,
    limits,
  };
}

function verdictOf(limits: readonly SiteLimit[]): SiteVerdict {
  const worst = limits[0]?.effect ?? 'unknown';
  if (worst === 'refuse') return 'not_here';
  if (worst === 'move') return 'move';
  return worst === 'change' || worst === 'unknown' ? 'plant_if' : 'plant';
}

const limit = (effect: SiteEffect, reason: GroundReason): SiteLimit => ({ effect, because: reason });

function clearanceLimit(thing: SiteThing, assessment: Assessment | null, rules: GroundRules): SiteLimit[] {
  if (thing === 'wire') return [];
  const distanceM = clearanceOf(assessment, thing);
  const least = rules.leastM[thing];
  if (distanceM === null) return asked.includes(thing) ? [limit('unknown', because('site_unmeasured', { thing }))] : [];
  const largest = [...sizeClasses].reverse().find((size) => distanceM >= least[size]);
  if (largest === undefined) {
    return [limit('move', because('site_too_near', { thing, distanceM, leastM: least.small }))];
  }
  if (largest === 'large') return [limit('fine', because('site_clear', { thing, distanceM, leastM: least.large }))];
  const next = largest === 'small' ? 'medium' : 'large';
  return [limit('smaller', because('site_allows', { thing, distanceM, size: largest, next, leastM: least[next] }))];
}

function wireLimit(
  ground: GroundFacts,
  assessment: Assessment | null,
  rules: GroundRules,
): { tallestM: number | null; underWireM: number | null; limits: SiteLimit[] } {
  const { wireHeightM } = ground;
  const free = (found: SiteLimit) => ({ tallestM: null, underWireM: null, limits: [found] });
  if (wireHeightM === null) return free(limit('unknown', because('wire_unmeasured', {})));
  if (wireHeightM === 'none') return free(limit('fine', because('wire_none', {})));
  const distanceM = clearanceOf(assessment, 'wire');
  const least = rules.leastM.wire;
  if (distanceM !== null && distanceM >= least.large) {
    return free(limit('fine', because('site_clear', { thing: 'wire', distanceM, leastM: least.large })));
  }
  const underWireM = wireHeightM - rules.wireHeadroomM;
  const beside = distanceM === null ? undefined : freeBeside(distanceM, rules);
  if (beside && distanceM !== null && beside.toM > underWireM) {
    const { size, next, toM: tallestM } = beside;
    const facts = { wireHeightM, distanceM, size, tallestM, next, leastM: least[next] };
    return { tallestM, underWireM, limits: [limit('smaller', because('wire_beside', facts))] };
  }
  const facts = { wireHeightM, headroomM: rules.wireHeadroomM, tallestM: underWireM };
  const found =
    underWireM < 2
      ? limit('move', because('wire_too_low', facts))
      : limit('smaller', because('wire_limits_height', facts));
  return { tallestM: underWireM, underWireM, limits: [found] };
}

/**
 * The largest size class below large whose height is free this far beside a wire; a class of which the rules ask no
 * distance may stand under it, and is held by its height alone.
 */
function freeBeside(distanceM: number, { leastM, smallToM, mediumToM }: GroundRules) {
  const keeps = (size: 'small' | 'medium') => leastM.wire[size] > 0 && distanceM >= leastM.wire[size];
  if (keeps('medium')) return { size: 'medium', next: 'large', toM: mediumToM } as const;
  return keeps('small') ? ({ size: 'small', next: 'medium', toM: smallToM } as const) : undefined;
}

function stripLimit(ground: GroundFacts, rules: GroundRules): SiteLimit[] {
  const { stripWidthMm } = ground;
  if (stripWidthMm === null) return [limit('unknown', because('strip_unmeasured', {}))];
  if (stripWidthMm === 'open') return [];
  const least = rules.leastStripMm;
  if (stripWidthMm < least.small) {
    return [limit('refuse', because('strip_too_narrow', { stripWidthMm, leastMm: least.small }))];
  }
  const size = stripWidthMm < least.medium ? 'small' : stripWidthMm < least.large ? 'medium' : 'large';
  if (size === 'large') return [limit('fine', because('strip_wide', { stripWidthMm, leastMm: least.large }))];
  const next = size === 'small' ? 'medium' : 'large';
  return [limit('smaller', because('strip_allows', { stripWidthMm, size, next, leastMm: least[next] }))];
}

function soilLimit(assessment: Assessment | null, rules: GroundRules): { widestM: number | null; limits: SiteLimit[] } {
  const volumeM3 = rootingVolumeM3(assessment, rules);
  if (volumeM3 === null) return { widestM: null, limits: [limit('unknown', because('soil_volume_unknown', {}))] };
  const widestM = Math.sqrt((volumeM3 * 4) / Math.PI / rules.soilM3PerCrownM2);
  const neededM3 = soilNeededM3(leastCrownM, rules);
  const reason = because(volumeM3 < neededM3 ? 'soil_volume_short' : 'soil_volume', { volumeM3, widestM, neededM3 });
  return { widestM, limits: [limit(volumeM3 < neededM3 ? 'change' : 'fine', reason)] };
}

function groundLimits({ ground, assessment, rules, drainage }: Parameters<typeof judgeSite>[0]): SiteLimit[] {
  const found: SiteLimit[] = [];
  if (ground.soil === null) found.push(limit('unknown', because('soil_missing', {})));
  const percolation = groundPercolation(ground, drainage);
  if (!percolation) found.push(limit('unknown', because('percolation_missing', {})));
  else if (percolation.kind === 'questioned') {
    found.push(limit('unknown', because('percolation_questioned', { question: percolation.question })));
  } else if (isUnsettled(percolation)) {
    const { rateMmPerH, lowMmPerH, highMmPerH } = percolation;
    found.push(limit('unknown', because('percolation_unsettled', { rateMmPerH, lowMmPerH, highMmPerH })));
  } else if (percolation.class === 'stands') {
    found.push(limit('change', because('percolation_stands', { rateMmPerH: percolation.rateMmPerH })));
  } else {
    const { rateMmPerH, class: name } = percolation;
    found.push(limit('fine', because('percolation_rate', { rateMmPerH, class: name })));
  }
  if (ground.slopePct === null) found.push(limit('unknown', because('slope_missing', {})));
  const stopsMm = assessment?.probeStopsMm ?? null;
  if (ground.compacted || (stopsMm !== null && stopsMm < rules.probeStopsMm)) {
    const short = stopsMm !== null && stopsMm < rules.probeStopsMm;
    const facts = { stopsMm: short ? stopsMm : null, leastMm: rules.probeStopsMm };
    found.push(limit('change', because('ground_compacted', facts)));
  }
  return found;
}

function surroundings(assessment: Assessment, rules: GroundRules): SiteLimit[] {
  const found: SiteLimit[] = [];
  const { saltDsM, soilTestedOn, rockAtMm, sunHours } = assessment;
  if (assessment.plannedBuilding) found.push(limit('refuse', because('building_planned', {})));
  if (assessment.privateLines === null) found.push(limit('unknown', because('private_lines_unasked', {})));
  if (assessment.privateLines === 'found' && clearanceOf(assessment, 'private_line') === null) {
    found.push(limit('change', because('private_lines_found', {})));
  }
  if (saltDsM !== null && saltDsM > rules.saltMostDsM) {
    found.push(
      limit('change', because('salt_high', { saltDsM, mostDsM: rules.saltMostDsM, testedOn: soilTestedOn ?? '' })),
    );
  }
  if (rockAtMm !== null && rockAtMm < rules.rockLeastMm) {
    found.push(limit('move', because('rock_shallow', { rockAtMm, leastMm: rules.rockLeastMm })));
  }
  if (sunHours !== null && sunHours < rules.sunLeastH) {
    found.push(limit('smaller', because('sun_short', { sunHours, leastH: rules.sunLeastH })));
  }
  if (assessment.owner === null) found.push(limit('unknown', because('owner_unknown', {})));
  if (assessment.owner === 'yard') found.push(limit('fine', because('owner_consent_needed', {})));
  if (assessment.owner === 'road') found.push(limit('fine', because('road_permit_needed', {})));
  return found;
}

function allowedSize(
  ground: GroundFacts,
  assessment: Assessment | null,
  rules: GroundRules,
  tallestM: number | null,
): SizeClass | null {
  const fits = (size: SizeClass): boolean => {
    const clear = siteThings.every((thing) => {
      if (thing === 'wire') return true;
      const distanceM = clearanceOf(assessment, thing);
      return distanceM === null || distanceM >= rules.leastM[thing][size];
    });
    const wide = typeof ground.stripWidthMm !== 'number' || ground.stripWidthMm >= rules.leastStripMm[size];
    const low = tallestM === null || sizeClasses.indexOf(sizeClassOf(tallestM, rules)) >= sizeClasses.indexOf(size);
    return clear && wide && low;
  };
  return [...sizeClasses].reverse().find(fits) ?? null;
}
