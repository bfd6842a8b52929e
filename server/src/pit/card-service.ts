import { currentRules } from '../rules/repository';
import type { CardsQuery, Rules } from '@sombra/contract';
import {
  digCover,
  sayIsoDay,
  sayReason,
  spotLife,
  wholePlan,
  windsOf,
  type GroundRules,
  type IsoDate,
  type UnitSystem,
} from '@sombra/core';
import type { Knex } from 'knex';
import QRCode from 'qrcode';
import type { Writable } from 'node:stream';
import { once } from 'node:events';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { openDocument } from '../paper/document';
import { asActor, type Db } from '../platform/db';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis, type ProgrammeBasis } from '../record/spot-context';
import { keepPrinted, planHash } from './printed-cards-repository';
import { spotsByIds, spotsToPlant, type CardSpot } from './repository';
import { cardPt, drawCard, type Card } from './spot-card';
import { programmeToday } from '../programme/today';
import { coversOf } from '../tickets/cover-repository';
import { offersOf } from '../record/plans-repository';

/** Cards are made so many at a time: memory holds these and the page being written. */
const chunk = 10;

/** The spots cards are asked for: those named, those of a day, or all that are ready to plant. */
export async function cardSpots(db: Db, { spots, day }: CardsQuery): Promise<CardSpot[]> {
  const today = await programmeToday(db);
  return spots ? spotsByIds(db, today, spots) : spotsToPlant(db, today, day);
}

async function makeCards(
  db: Db,
  spots: readonly CardSpot[],
  with_: { programme: ProgrammeBasis; rules: Rules; today: IsoDate; origin: string; units: UnitSystem },
): Promise<Card[]> {
  const { programme, rules, today, origin, units } = with_;
  const ids = spots.map(({ spotId }) => spotId);
  const records = await recordsOfSpots(db, ids);
  const offers = await offersOf(
    db,
    spots.map(({ species }) => species),
  );
  const covers = await coverLines(db, spots, { today, units, rules: rules.ground });
  return Promise.all(
    spots.map(async ({ spotId, ref, place, treeId, species, plantOn }): Promise<Card> => {
      const known = records.get(spotId) ?? [];
      const context = contextOf(programme, spotId, known, { plantOn, offers: offers.get(species ?? '') });
      const life = spotLife(known, context);
      const { stock, ground, assessment } = life;
      const plan = wholePlan(life, { work: rules.work });
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
        windsDeg: windsOf(assessment),
        pavementDeg: assessment?.pavementDeg ?? null,
        ticket: covers.get(spotId) ?? '',
        qr: await QRCode.toBuffer(address, { margin: 1, width: 180, errorCorrectionLevel: 'M' }),
        address,
        units,
      };
    }),
  );
}

/** Who may dig at each spot on the day it is booked for, else today, in one line. */
async function coverLines(
  db: Db,
  spots: readonly CardSpot[],
  { today, units, rules }: { today: IsoDate; units: UnitSystem; rules: GroundRules },
): Promise<Map<string, string>> {
  const lines = new Map<string, string>();
  const days = new Map(spots.map(({ spotId, plantOn }) => [spotId, plantOn ?? today]));
  const covers = await coversOf(db, [...days.keys()], today);
  for (const [spotId, leave] of covers) {
    const day = days.get(spotId) ?? today;
    const cover = digCover(leave, day, rules);
    const because = cover.because.map((reason) => sayReason(reason, units)).join(' ');
    const on = day === today ? 'today' : `on ${sayIsoDay(day)}`;
    if (cover.kind === 'none') lines.set(spotId, `NOBODY MAY DIG HERE ${on.toUpperCase()}. ${because}`);
    else
      lines.set(spotId, `${cover.kind === 'ticket' ? `Ticket ${cover.number}, ${on}` : `Cleared ${on}`}: ${because}`);
  }
  return lines;
}

export interface CardsAsked {
  readonly spots: readonly CardSpot[];
  readonly onPage: 'one' | 'four';
  readonly origin: string;
  readonly units: UnitSystem;
  readonly stopped: () => boolean;
  readonly by: string;
}

/**
 * Writes cards into a stream, page by page as they are made and no faster than it takes them; `stopped` ends it early.
 * Four on an A4 sheet, or one on A5.
 */
export async function writeCards(db: Knex, out: Writable, asked: CardsAsked): Promise<void> {
  const doc = openDocument({
    size: asked.onPage === 'four' ? 'A4' : 'A5',
    margin: 0,
    autoFirstPage: false,
    info: { Title: 'Spot cards' },
  });
  doc.pipe(out);
  await addCards(db, doc, asked, out);
  doc.end();
}

/** Adds pages of cards to a document that goes into `out`. */
export async function addCards(db: Knex, doc: PDFKit.PDFDocument, asked: CardsAsked, out: Writable): Promise<void> {
  const [programme, today, rules] = [await programmeBasis(db), await programmeToday(db), await currentRules(db)];
  const four = asked.onPage === 'four';
  for (let at = 0; at < asked.spots.length && !asked.stopped(); at += chunk) {
    const part = asked.spots.slice(at, at + chunk);
    const cards = await makeCards(db, part, { programme, rules, today, origin: asked.origin, units: asked.units });
    for (const [i, card] of cards.entries()) {
      if (asked.stopped()) break;
      const place = (at + i) % 4;
      if (!four || place === 0) doc.addPage({ size: four ? 'A4' : 'A5', margin: 0 });
      if (four) placeQuarter(doc, place, card);
      else drawCard(doc, card);
      // Between cards others are answered, and the file goes no faster than it is taken.
      await nextTurn();
      if (out.writableNeedDrain) await Promise.race([once(out, 'drain'), once(out, 'close')]);
    }
    const said = cards.flatMap(({ plan }, i) => {
      const spotId = part[i]?.spotId;
      return plan.kind === 'plan' && spotId ? [{ spotId, hash: planHash(plan) }] : [];
    });
    if (!asked.stopped()) await asActor(db, asked.by, (trx) => keepPrinted(trx, said, asked.by));
  }
}

function placeQuarter(doc: PDFKit.PDFDocument, place: number, card: Card): void {
  const scale = doc.page.width / 2 / cardPt.width;
  doc.save();
  doc.translate((place % 2) * (doc.page.width / 2), Math.floor(place / 2) * (doc.page.height / 2)).scale(scale);
  drawCard(doc, card);
  doc.restore();
}
