import type { GroundReasonFacts } from '../ground';
import { percolationNames, questionNames, siteThingNames, soilNames } from './names';
import { days, capital, sentence, lower, type Sentences, sayIsoDay } from './sentence';

export const groundSentences: Sentences<GroundReasonFacts> = {
  soil_missing: () => 'Soil class not recorded.',
  percolation_missing: () => 'No percolation test.',
  percolation_questioned: (f) => `Percolation test in doubt: ${lower(questionNames[f.question])}.`,
  percolation_unsettled: (f, s) =>
    `Percolation ${s.rate(f.rateMmPerH)} so far, but the falls still change: between ${s.rate(f.lowMmPerH)} and ${s.rate(f.highMmPerH)}. Read on until they agree, or soak and test again.`,
  percolation_stands: (f, s) =>
    `Water stands: ${s.rate(f.rateMmPerH)}. Roots drown; consider another spot or drainage.`,
  slope_missing: () => 'Slope not measured.',
  percolation_rate: (f, s) => `Percolation ${s.rate(f.rateMmPerH)}: ${percolationNames[f.class]}.`,
  presoak_short: (f) =>
    `Soaked ${Math.round(f.minutes)} min before the first reading, ${f.leastMin} min are asked for: dry ground drinks faster than it drains.`,
  site_unmeasured: (f) => `Distance to the ${siteThingNames[f.thing]} not measured.`,
  site_clear: (f, s) =>
    `${capital(siteThingNames[f.thing])} ${s.near(f.distanceM)} away, ${s.near(f.leastM)} is enough for any tree.`,
  site_allows: (f, s) =>
    `${capital(siteThingNames[f.thing])} ${s.near(f.distanceM)} away: room for a ${f.size} tree; a ${f.next} one asks ${s.near(f.leastM)}.`,
  site_too_near: (f, s) =>
    f.thing === 'junction'
      ? `Stands in the sight triangle of the junction: it reaches ${s.near(f.leastM)} along both kerbs, the place is in at ${s.near(f.distanceM)}.`
      : `${capital(siteThingNames[f.thing])} ${s.near(f.distanceM)} away; even a small tree asks ${s.near(f.leastM)}.`,
  wire_unmeasured: () => 'Nobody has looked up for wires.',
  wire_none: () => 'No wire overhead.',
  wire_limits_height: (f, s) =>
    `Wire ${s.m(f.wireHeightM)} up less ${s.m(f.headroomM)} headroom: ${s.m(f.tallestM)} of mature height at most. Work near conductors is for the utility's qualified people.`,
  wire_beside: (f, s) =>
    `Wire ${s.m(f.wireHeightM)} up, ${s.near(f.distanceM)} beside the place: a ${f.size} tree passes it, up to ${s.m(f.tallestM)}; a ${f.next} one asks ${s.near(f.leastM)}. Work near conductors is for the utility's qualified people.`,
  wire_too_low: (f, s) =>
    `Wire ${s.m(f.wireHeightM)} up leaves ${s.m(Math.max(0, f.tallestM))} of mature height: no tree stays under that. Ask the utility's qualified people.`,
  strip_unmeasured: () => 'Room for the pit not measured.',
  strip_wide: (f, s) => `Strip ${s.mm(f.stripWidthMm)} wide, ${s.mm(f.leastMm)} is enough for any tree.`,
  strip_allows: (f, s) =>
    `Strip ${s.mm(f.stripWidthMm)} wide: room for a ${f.size} tree; a ${f.next} one asks ${s.mm(f.leastMm)}.`,
  strip_too_narrow: (f, s) => `Strip ${s.mm(f.stripWidthMm)} wide; even a small tree asks ${s.mm(f.leastMm)}.`,
  soil_volume_unknown: () => 'Soil the roots can reach not measured.',
  soil_volume: (f, s) => `${s.m3(f.volumeM3)} of soil carries a crown up to ${s.m(f.widestM)} wide.`,
  soil_volume_short: (f, s) =>
    `${s.m3(f.volumeM3)} of soil; the smallest crown asks ${s.m3(f.neededM3)}. Open more soil or build rooting space under the paving.`,
  ground_compacted: (f, s) =>
    f.stopsMm === null
      ? 'Compacted: loosen it wider than the pit before planting.'
      : `The hand probe stops at ${s.mm(f.stopsMm)}, ${s.mm(f.leastMm)} is asked for: loosen it wider than the pit before planting.`,
  building_planned: () => 'A building is planned here.',
  private_lines_unasked: () => 'Nobody has asked about private lines: irrigation, low-voltage cable, drains.',
  private_lines_found: () => 'Private lines are here: have the owner show and mark them, then measure the distance.',
  salt_high: (f, s) =>
    `Salt ${s.n(f.saltDsM, 1)} dS/m${f.testedOn ? `, tested ${sayIsoDay(f.testedOn)}` : ''}, over ${s.n(f.mostDsM, 1)}: leach or exchange the soil first.`,
  ticket_room: (f, s) =>
    f.roomM > 0
      ? `Rock or a root: the spot may move ${s.m(f.roomM)} and still be covered; further asks for a new ticket.`
      : 'The spot stands at the edge of the ticket: moved at all, it asks for a new one.',
  horizon_slow: (f, s) =>
    `${f.fill ? 'Filled ground: ' : ''}${f.fill ? soilNames[f.soil] : capital(soilNames[f.soil])} from ${s.mm(f.fromMm)} down is the slowest layer, ${percolationNames[f.class]}, and rules how the pit drains.`,
  rock_shallow: (f, s) => `Rock at ${s.mm(f.rockAtMm)}; a ball asks ${s.mm(f.leastMm)}.`,
  sun_short: (f, s) =>
    `${s.n(f.sunHours, 1)} h of sun on midsummer day, under ${s.n(f.leastH, 1)}: only trees that bear shade.`,
  owner_unknown: () => 'Whose ground it is is not recorded.',
  owner_consent_needed: () => 'Yard: the owner has to consent in writing before planting.',
  road_permit_needed: () => "Street: the road authority's permit is needed before planting.",
  ticket_withdrawn: () => 'The ticket was withdrawn.',
  ticket_unsent: () => 'The locate centre has not taken the ticket yet.',
  ticket_expired: (f) => `The ticket ended on ${sayIsoDay(f.validUntil)}, ${days(f.days)} before.`,
  ticket_conflict: (f) => `${f.utilities}: a line in the dig area is in conflict. Settle it with them; nobody digs.`,
  ticket_waits: (f) => `Replies open: ${f.utilities || 'all'}. Digging from ${sayIsoDay(f.validFrom)} at the earliest.`,
  ticket_reply_missing: (f) =>
    `Reply missing from ${f.utilities || 'every utility'}, due by ${sayIsoDay(f.validFrom)}: no reply is not a yes.`,
  ticket_not_yet: (f) => `All replies are in; digging from ${sayIsoDay(f.validFrom)}.`,
  ticket_valid: (f) => `Every utility replied; valid until ${sayIsoDay(f.validUntil)}.`,
  ticket_renew: (f) =>
    `Valid until ${sayIsoDay(f.validUntil)}, ${f.workingDays === 1 ? '1 working day' : `${f.workingDays} working days`} left: renew now.`,
  hand_dig_zone: (f, s) => `Marked lines: dig by hand within ${s.mm(f.toleranceMm)} either side.`,
  clearance_attached: (f) =>
    `Lawful clearance: ${sentence(f.document)} By ${f.clearedBy}, until ${sayIsoDay(f.validUntil)}.`,
  no_ticket: (f) => `No locate ticket covers this spot; for this day one has to be raised by ${sayIsoDay(f.raiseBy)}.`,
};
