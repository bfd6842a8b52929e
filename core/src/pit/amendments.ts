import { fillMaterials, fillPlaces, type FillMaterial, type FillPlace, type MixedIn, type Practice } from '../practice';
import { because, type PitReason } from './reasons';

/** One thing mixed in at a tree. L */
export interface Amendment {
  readonly material: FillMaterial;
  readonly place: FillPlace;
  readonly litres: number;
  /** Of that, what lies in the fill and takes the room of site soil. */
  readonly inFillL: number;
  /** Ground dug over for it, where it goes into an area. */
  readonly turnedL: number;
}

export interface Amendments {
  readonly each: readonly Amendment[];
  readonly inFillL: number;
  /** Why each is there, and why one is not. */
  readonly because: readonly PitReason[];
}

export interface AmendmentSite {
  readonly backfillL: number;
  readonly ringMm: number;
  /** Of the ring, outside the pit and with it. m² */
  readonly outsideM2: number;
  readonly wholeM2: number;
  readonly pitM2: number;
  readonly slow: boolean;
  readonly fast: boolean;
  /** Planted in autumn: what feeds makes growth that frost takes. */
  readonly autumn: boolean;
  readonly soilPh: number | null;
}

/** No more than this of the fill is anything but site soil, whatever is asked together. */
const mostOfFill = 0.6;
/** Soil under this is acid, over the other alkaline; a material that lies wholly beyond makes it more so. */
const acidUnder = 6;
const alkalineOver = 7.5;

/** What the practice mixes in at this place, each with its reason, and what it leaves out here. */
export function amendmentsOf({ backfill }: Practice, site: AmendmentSite): Amendments {
  const asked = [backfill, backfill.second, backfill.third].filter(
    ({ material, share, bags }) => fillMaterials[material].bagL !== null && (share > 0 || bags > 0),
  );
  if (asked.length === 0) return { each: [], inFillL: 0, because: [because('amendment_none', {})] };
  const each: Amendment[] = [];
  const why: PitReason[] = [];
  let roomL = mostOfFill * site.backfillL;
  for (const one of asked) {
    const refused = refusal(one, site);
    if (refused) {
      why.push(refused);
      continue;
    }
    const found = amount(one, backfill.areaDepthMm, site);
    const inFillL = Math.min(found.inFillL, roomL);
    const cut = found.inFillL > roomL + 1e-9;
    const litres = cut ? inFillL + (found.litres - found.inFillL) : found.litres;
    why.push(found.because, ...cautions(one, site));
    if (cut) why.push(because('amendment_capped', { material: one.material, mostPct: 100 * mostOfFill, litres }));
    roomL -= inFillL;
    if (litres > 0) each.push({ material: one.material, place: one.place, litres, inFillL, turnedL: found.turnedL });
  }
  return { each, inFillL: each.reduce((sum, { inFillL }) => sum + inFillL, 0), because: why };
}

function refusal({ material }: MixedIn, site: AmendmentSite): PitReason | null {
  const { wicks, fertilised } = fillMaterials[material];
  if (site.slow && wicks) return because('amendment_refused', { material });
  if (site.autumn && fertilised) return because('amendment_fed_in_autumn', { material });
  return null;
}

function amount(
  { material, share, bags, place }: MixedIn,
  areaDepthMm: number,
  site: AmendmentSite,
): { readonly litres: number; readonly inFillL: number; readonly turnedL: number; readonly because: PitReason } {
  const { into, fromShare } = fillPlaces[place];
  const bagL = fillMaterials[material].bagL ?? 0;
  const m2 = into === 'ring_and_pit' ? site.wholeM2 : site.outsideM2;
  const litres = bags > 0 ? bags * bagL : into === 'fill' ? site.backfillL * share : m2 * areaDepthMm * share;
  const inFill = into === 'fill' ? fromShare !== null : into === 'ring_and_pit';
  const pitShare = into === 'ring_and_pit' && site.wholeM2 > 0 ? site.pitM2 / site.wholeM2 : 1;
  const facts = { material, place, litres };
  const why =
    bags > 0
      ? because('amendment_bags', { ...facts, bags, bagL })
      : into === 'fill'
        ? because('amendment_share', { ...facts, sharePct: share * 100 })
        : because('amendment_area', { ...facts, sharePct: share * 100, ringMm: site.ringMm, depthMm: areaDepthMm });
  const turnedL = into === 'fill' ? 0 : m2 * areaDepthMm;
  return { litres, inFillL: inFill ? litres * pitShare : 0, turnedL, because: why };
}

/** What is known of the material against what is known of the ground. */
function cautions({ material }: MixedIn, { soilPh, fast }: AmendmentSite): PitReason[] {
  const { ph, waterHolding, fertilised } = fillMaterials[material];
  const found: PitReason[] = [];
  if (soilPh !== null && ph !== null) {
    const facts = { material, soilPh, phFrom: ph[0], phTo: ph[1] };
    if (soilPh < acidUnder && ph[1] <= acidUnder + 0.5) found.push(because('amendment_acid_on_acid', facts));
    if (soilPh > alkalineOver && ph[0] >= 7) found.push(because('amendment_alkaline_on_alkaline', facts));
  }
  if (ph === null) found.push(because('amendment_ph_unknown', { material }));
  if (fast && waterHolding === 'low') found.push(because('amendment_dries', { material }));
  if (fertilised) found.push(because('amendment_fertilised', { material }));
  return found;
}
