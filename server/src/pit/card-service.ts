import { clearancesOf, ticketsOver } from '../ground/leave-repository';
import { currentRules } from '../rules/repository';
import type { CardsQuery } from '@sombra/contract';
import {
  digCover,
  plantingPlan,
  sayReason,
  spotLife,
  type FieldRecord,
  type IsoDate,
  type Practice,
  type UnitSystem,
} from '@sombra/core';
import type { Knex } from 'knex';
import QRCode from 'qrcode';
import type { Writable } from 'node:stream';
import { once } from 'node:events';
import { openDocument } from '../paper/document';
import { programmeToday } from '../people/service';
import type { Db } from '../platform/db';
import { currentPractice, recordsOfSpots } from '../record/repository';
import { spotsByIds, spotsToPlant, type CardSpot } from './repository';
import { cardPt, drawCard, type Card } from './spot-card';

/** Cards are made so many at a time: memory holds these and the page being written. */
const chunk = 25;

/** The spots cards are asked for: those named, those of a day, or all that are ready to plant. */
export async function cardSpots(db: Db, { spots, day }: CardsQuery): Promise<CardSpot[]> {
  return spots ? spotsByIds(db, spots) : spotsToPlant(db, day);
}

async function makeCards(
  db: Db,
  spots: readonly CardSpot[],
  with_: { practice: Practice; today: IsoDate; origin: string; units: UnitSystem },
): Promise<Card[]> {
  const { practice, today, origin, units } = with_;
  const ids = spots.map(({ spotId }) => spotId);
  const records = await recordsOfSpots(db, ids);
  const covers = await coverLines(db, ids, today);
  return Promise.all(
    spots.map(async ({ spotId, ref, place, treeId, species }): Promise<Card> => {
      const life = spotLife((records.get(spotId) ?? []) as FieldRecord[], practice);
      const { stock, ground, assessment } = life;
      const plan = stock ? plantingPlan({ practice: life.practice, stock, ground, assessment }) : null;
      const address = `${origin}${treeId ? `/tree/${treeId}` : `/town/${spotId}`}`;
      const why =
        plan?.kind === 'no_plan'
          ? plan.because.map((reason) => sayReason(reason, units)).join(' ')
          : 'Stock not measured.';
      return {
        ref,
        place,
        species,
        plan: plan?.kind === 'plan' ? plan : { kind: 'no_plan', why },
        stock,
        ground,
        practice: life.practice,
        ticket: covers.get(spotId) ?? '',
        qr: await QRCode.toBuffer(address, { margin: 1, width: 180, errorCorrectionLevel: 'M' }),
        address,
        units,
      };
    }),
  );
}

/** Who may dig at each spot on a day, in one line. */
async function coverLines(db: Db, spotIds: readonly string[], today: IsoDate): Promise<Map<string, string>> {
  const { ground } = await currentRules(db);
  const lines = new Map<string, string>();
  for (const spotId of spotIds) {
    const tickets = await ticketsOver(db, { spotId }, today);
    const clearances = await clearancesOf(db, spotId);
    const cover = digCover({ tickets, clearances }, today, ground);
    const because = cover.because.map((reason) => sayReason(reason, 'metric')).join(' ');
    lines.set(spotId, cover.kind === 'none' ? `NOBODY MAY DIG HERE TODAY. ${because}` : because);
  }
  return lines;
}

/**
 * Writes cards into a stream, page by page as they are made and no faster than it takes them; `stopped` ends it early.
 * Four on an A4 sheet, or one on A5.
 */
export async function writeCards(
  db: Knex,
  out: Writable,
  asked: {
    spots: readonly CardSpot[];
    onPage: 'one' | 'four';
    origin: string;
    units: UnitSystem;
    stopped: () => boolean;
  },
): Promise<void> {
  const [practice, today] = [await currentPractice(db), await programmeToday(db)];
  const four = asked.onPage === 'four';
  const doc = openDocument({
    size: four ? 'A4' : 'A5',
    margin: 0,
    autoFirstPage: false,
    info: { Title: 'Spot cards' },
  });
  doc.pipe(out);
  for (let at = 0; at < asked.spots.length && !asked.stopped(); at += chunk) {
    const part = asked.spots.slice(at, at + chunk);
    const cards = await makeCards(db, part, { practice, today, origin: asked.origin, units: asked.units });
    cards.forEach((card, i) => {
      const place = (at + i) % 4;
      if (!four || place === 0) doc.addPage();
      if (four) placeQuarter(doc, place, card);
      else drawCard(doc, card);
    });
    if (out.writableNeedDrain) await Promise.race([once(out, 'drain'), once(out, 'close')]);
  }
  doc.end();
}

function placeQuarter(doc: PDFKit.PDFDocument, place: number, card: Card): void {
  const scale = doc.page.width / 2 / cardPt.width;
  doc.save();
  doc.translate((place % 2) * (doc.page.width / 2), Math.floor(place / 2) * (doc.page.height / 2)).scale(scale);
  drawCard(doc, card);
  doc.restore();
}
