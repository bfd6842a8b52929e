import type { IsoDate } from '../calendar';
import { crownSpreadM } from '../match';
import type { ProbeClass } from '../inspect';
import { daysBetween } from '../calendar';
import type { Position } from './kinds';
import { happenedOn, ofKind, recordsUpTo, standing, type FieldRecord } from './record';
import type { SpotContext } from './spot-basis';
import { emptyMemory, spotLife, type SpotLife } from './spot-life';

/** A stretch of days in which nothing new was recorded at a spot. */
export interface SpotPeriod {
  readonly fromDay: IsoDate;
  /** First day of the next period; `null` for the last one, which also holds for the future. */
  readonly untilDay: IsoDate | null;
  readonly life: SpotLife;
  readonly position: Position;
  readonly plantedOn: IsoDate | null;
  /** Its last look. */
  readonly lookedOn: IsoDate | null;
  /** When somebody signed the tree off as established. */
  readonly establishedOn: IsoDate | null;
  /** The last probe reading at ball depth. */
  readonly probe: ProbeClass | null;
  /** Crown at the start of the period; `null` before planting. Metres. */
  readonly crownM: number | null;
}

/**
 * Cuts a spot's time into stretches between recorded days, each with where the spot stood by then: what a
 * view of a past date shows. What is due is kept as dates, so the last stretch forecasts too.
 * @param addedOn the day the spot came into the programme; records of earlier days begin it earlier
 * @param position where the spot is now; moves tell where it was
 */
export function spotPeriods(
  records: readonly FieldRecord[],
  context: SpotContext & { readonly addedOn: IsoDate; readonly position: Position },
): SpotPeriod[] {
  const kept = standing(records);
  const days = kept.map(happenedOn).filter((day) => day !== null);
  const starts = [...new Set([...days, ...days.concat(context.addedOn).sort().slice(0, 1)])].sort();
  const memory = emptyMemory();
  return starts.map((fromDay, i) => {
    const known = recordsUpTo(records, fromDay);
    const life = spotLife(known, context, memory);
    const plantedOn = life.planting?.record.facts.plantedOn ?? null;
    const probes = life.inspections.map(({ record }) => record.facts.probe).filter((probe) => probe !== null);
    return {
      fromDay,
      untilDay: starts[i + 1] ?? null,
      life,
      // Where it stands now is known; where it stood before, the moves tell.
      position: i + 1 < starts.length ? positionOn(kept, fromDay, context.position) : context.position,
      plantedOn,
      lookedOn: life.inspections.at(-1)?.record.facts.inspectedOn ?? null,
      establishedOn: life.establishment?.signedOn ?? null,
      probe: probes.at(-1) ?? null,
      crownM:
        plantedOn && life.stock
          ? crownSpreadM({ heightAtPlantingM: life.stock.heightM, years: daysBetween(plantedOn, fromDay) / 365.25 })
          : null,
    };
  });
}

/** Where a spot was on a day: the last move by then, or where the first later move took it from. */
export function positionOn(kept: readonly FieldRecord[], day: IsoDate, now: Position): Position {
  const moves = ofKind(kept, 'move').sort((a, b) => a.facts.movedOn.localeCompare(b.facts.movedOn));
  const done = moves.filter((move) => move.facts.movedOn <= day).at(-1);
  return done?.facts.to ?? moves[0]?.facts.from ?? now;
}
