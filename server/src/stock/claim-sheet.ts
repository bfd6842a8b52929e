import type { Delivery, Lot } from '@sombra/contract';
import { judgeReceived, sayReason, stockNames } from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';

const margin = 48;

/** What is claimed of a delivery: lots sent back, and trees that did not come. */
export const claimedLots = ({ lots }: Delivery): Lot[] =>
  lots.filter(({ verdict, arrived, expected }) => verdict === 'return' || (arrived !== null && arrived < expected));

/** The claim to the nursery on A4: counts, findings, pictures, value and the terms they are claimed under. */
export function claimPdf(
  delivery: Delivery,
  of: { programme: string; currency: string; photos: ReadonlyMap<string, string> },
): PDFKit.PDFDocument {
  const doc = openDocument({
    size: 'A4',
    margin,
    info: { Title: `Claim ${delivery.orderNumber}`, Author: of.programme },
  });
  const width = doc.page.width - 2 * margin;
  doc
    .font('Times-Bold')
    .fontSize(18)
    .text(plain(`${of.programme}: claim on order ${delivery.orderNumber}`));
  doc.font('Helvetica').fontSize(10).moveDown(0.3);
  doc.text(plain(`To ${delivery.nursery}. Delivered on ${delivery.arrivedOn}, received by ${delivery.madeBy}.`));
  const came = [
    delivery.covered === false ? 'The load came uncovered.' : '',
    delivery.moist === false ? 'Roots and balls came dry.' : '',
    delivery.note,
  ].filter((text) => text !== '');
  if (came.length > 0) doc.text(plain(came.join(' ')));
  doc.moveDown();
  let total = 0;
  for (const lot of claimedLots(delivery)) {
    const missing = Math.max(0, lot.expected - (lot.arrived ?? 0));
    const returned = lot.verdict === 'return' ? (lot.arrived ?? 0) : 0;
    const value = (missing + returned) * lot.price;
    total += value;
    if (doc.y > doc.page.height - 260) doc.addPage();
    doc.font('Helvetica-Bold').fontSize(11);
    doc.text(plain(`${lot.species}, ${stockNames[lot.stockKind]}, caliper ${lot.caliperMm} mm`), margin, doc.y, {
      width,
    });
    doc.font('Helvetica').fontSize(10);
    const counts = [
      `ordered ${lot.expected}`,
      `arrived ${lot.arrived ?? 0}`,
      `opened ${lot.opened}`,
      `bad ${lot.bad}`,
      `returned ${returned}`,
      `missing ${missing}`,
    ];
    doc.text(plain(`${counts.join(', ')}; ${value.toFixed(2)} ${of.currency}`), { width });
    if (lot.verdict === 'return') {
      const found = lot.tree ? judgeReceived(lot.tree, { kind: lot.stockKind, caliperMm: lot.caliperMm }).because : [];
      doc.text(plain(found.map((reason) => sayReason(reason, 'metric')).join(' ')), { width });
      doc.text(plain(lot.reason), { width });
    }
    const photo = of.photos.get(lot.id);
    if (photo) doc.image(photo, margin, doc.y + 4, { fit: [220, 160] }).moveDown(0.5);
    doc.moveDown();
  }
  doc.font('Helvetica-Bold').fontSize(11);
  doc.text(`Claimed: ${total.toFixed(2)} ${of.currency}`, margin, doc.y, { width, align: 'right' });
  doc.moveDown().fontSize(10).text('Terms agreed', margin);
  doc.font('Helvetica').text(plain(delivery.terms || 'None were written down with the order.'), { width });
  doc.end();
  return doc;
}
