import type { Delivery, Lot } from '@sombra/contract';
import { isBad, judgeReceived, sayIsoDay, sayReason, stockNames, type ReceivingRules } from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';
import { claimedLots, type ClaimedLot } from './claims';

const margin = 48;
/** Pictures printed of a lot: the rest are named. */
const mostPhotos = 4;

export interface ClaimContext {
  readonly programme: string;
  readonly currency: string;
  /** Files by the id of their tree. */
  readonly photos: ReadonlyMap<string, string>;
}

/**
 * The claim to one nursery on A4, over one or several of its deliveries: counts, findings tree by tree, pictures,
 * value and the terms they are claimed under.
 */
export function claimPdf(nursery: string, deliveries: readonly Delivery[], of: ClaimContext): PDFKit.PDFDocument {
  const numbers = deliveries.map(({ orderNumber }) => orderNumber).join(', ');
  const doc = openDocument({ size: 'A4', margin, info: { Title: `Claim ${numbers}`, Author: of.programme } });
  const width = doc.page.width - 2 * margin;
  const title = deliveries.length === 1 ? `claim on order ${numbers}` : `claim on orders ${numbers}`;
  doc
    .font('head')
    .fontSize(18)
    .text(plain(`${of.programme}: ${title}`));
  doc
    .font('text')
    .fontSize(10)
    .moveDown(0.3)
    .text(plain(`To ${nursery}.`));
  let total = 0;
  for (const delivery of deliveries) total += writeDelivery(doc, delivery, of);
  doc.font('strong').fontSize(11);
  doc.text(`Claimed: ${total.toFixed(2)} ${of.currency}`, margin, doc.y, { width, align: 'right' });
  doc.moveDown().fontSize(10).text('Terms agreed', margin);
  const terms = new Set(deliveries.map((one) => one.terms).filter((text) => text !== ''));
  doc.font('text').text(plain([...terms].join('\n') || 'None were written down with the order.'), { width });
  doc.end();
  return doc;
}

/** Returns the value claimed of it. */
function writeDelivery(doc: PDFKit.PDFDocument, delivery: Delivery, of: ClaimContext): number {
  const came = [
    `Order ${delivery.orderNumber}, delivered on ${sayIsoDay(delivery.arrivedOn)}, received by ${delivery.madeBy}.`,
    delivery.covered === false ? 'The load came uncovered.' : '',
    delivery.moist === false ? 'Roots and balls came dry.' : '',
    delivery.note,
  ].filter((text) => text !== '');
  doc
    .font('text')
    .fontSize(10)
    .text(plain(came.join(' ')), margin);
  doc.moveDown();
  return claimedLots(delivery).reduce(
    (sum, claimed) => sum + writeLot(doc, claimed, { ...of, rules: delivery.rules }),
    0,
  );
}

function writeLot(
  doc: PDFKit.PDFDocument,
  { lot, returned, missing }: ClaimedLot,
  of: ClaimContext & { rules: ReceivingRules },
): number {
  const width = doc.page.width - 2 * margin;
  const value = (missing + returned) * lot.price;
  const bad = badTrees(lot, of.rules);
  if (doc.y > doc.page.height - 260) doc.addPage();
  doc.font('strong').fontSize(11);
  doc.text(plain(`${lot.species}, ${stockNames[lot.stockKind]}, caliper ${lot.caliperMm} mm`), margin, doc.y, {
    width,
  });
  doc.font('text').fontSize(10);
  const counts = [
    `ordered ${lot.expected}`,
    `arrived ${lot.arrived ?? 0}`,
    `opened ${lot.trees.length}`,
    `bad ${bad.length}`,
    `returned ${returned}`,
    `missing ${missing}`,
  ];
  doc.text(plain(`${counts.join(', ')}; ${value.toFixed(2)} ${of.currency}`), { width });
  if (lot.reason) doc.text(plain(lot.reason), { width });
  for (const { number, words } of bad) doc.text(plain(`Tree ${number}: ${words}`), { width });
  writePhotos(doc, lot, of);
  doc.moveDown();
  return value;
}

/** Bad trees by their place in the order they were opened, with what was found. */
function badTrees(lot: Lot, rules: ReceivingRules): { number: number; words: string }[] {
  return lot.trees.flatMap(({ tree }, i) => {
    const judged = judgeReceived(tree, { kind: lot.stockKind, caliperMm: lot.caliperMm }, rules);
    const words = judged.because.map((reason) => sayReason(reason, 'metric')).join(' ');
    return isBad(judged) ? [{ number: i + 1, words }] : [];
  });
}

const photoPt = { width: 118, height: 100, gap: 8 };

function writePhotos(doc: PDFKit.PDFDocument, lot: Lot, { photos }: ClaimContext): void {
  const shown = lot.trees.flatMap(({ id }, i) => {
    const file = photos.get(id);
    return file ? [{ file, number: i + 1 }] : [];
  });
  if (shown.length === 0) return;
  if (doc.y > doc.page.height - margin - photoPt.height - 40) doc.addPage();
  const y = doc.y + 4;
  shown.slice(0, mostPhotos).forEach(({ file, number }, i) => {
    const x = margin + i * (photoPt.width + photoPt.gap);
    doc.image(file, x, y, { fit: [photoPt.width, photoPt.height] });
    doc.text(`Tree ${number}`, x, y + photoPt.height + 2, { width: photoPt.width });
  });
  const more = shown.length - mostPhotos;
  doc.x = margin;
  if (more > 0) doc.text(`and ${more} more on record`, margin);
}
