import type { DayDetail } from '@sombra/contract';
import type { UnitSystem } from '@sombra/core';
import type { Knex } from 'knex';
import type { Writable } from 'node:stream';
import { addCards } from '../pit/card-service';
import { drawMaterials } from '../pit/materials-pdf';
import { seasonMaterials } from '../pit/materials-service';
import { spotsByIds } from '../pit/repository';
import { findProgramme } from '../programme/repository';
import { drawDaySheets, openDaySheets } from './day-sheet';

interface PacketAsked {
  readonly origin: string;
  readonly units: UnitSystem;
  readonly by: string;
  readonly stopped: () => boolean;
}

/** Everything of a day on paper, in one file: sheets, materials, and a card for each tree in the order of the teams. */
export async function writePacket(db: Knex, out: Writable, detail: DayDetail, asked: PacketAsked): Promise<void> {
  const programme = await findProgramme(db);
  const doc = openDaySheets(detail, programme?.name ?? 'Sombra');
  doc.pipe(out);
  drawDaySheets(doc, detail, asked.units);
  doc.addPage();
  drawMaterials(
    doc,
    await seasonMaterials(db, { day: detail.id, teams: Math.max(1, detail.teams.length) }),
    asked.units,
  );
  const inTeams = detail.teams.flatMap(({ spotIds }) => spotIds);
  const order = [...inTeams, ...detail.trees.map(({ spotId }) => spotId).filter((id) => !inTeams.includes(id))];
  const open = new Set(detail.trees.filter(({ planted }) => !planted).map(({ spotId }) => spotId));
  const spots = await spotsByIds(
    db,
    detail.onDay,
    order.filter((id) => open.has(id)),
  );
  const byId = new Map(spots.map((spot) => [spot.spotId, spot]));
  const inOrder = order.flatMap((id) => byId.get(id) ?? []);
  await addCards(db, doc, { ...asked, spots: inOrder, onPage: 'four' }, out);
  doc.end();
}
