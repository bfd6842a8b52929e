import { orderSpecification, sayIsoDay, stockNames } from '@sombra/core';
import { openDocument } from '../paper/document';
import { csvTable } from '../platform/csv';
import type { Order, OrderLine } from '../orders/repository';

const columns = [
  'order',
  'nursery',
  'species',
  'stock_kind',
  'caliper_mm',
  'height_m',
  'count',
  'price',
  'total',
  'spots',
] as const;

/** An order as CSV, one line a kind and size. */
export function orderCsv({ number, nursery, body }: Order): string {
  const rows = body.lines.map((line) => [
    number,
    nursery,
    line.species,
    line.stockKind,
    line.caliperMm,
    line.heightM ?? '',
    line.count,
    line.price.toFixed(2),
    (line.count * line.price).toFixed(2),
    line.spots.join(' '),
  ]);
  return csvTable(columns, rows);
}

const margin = 48;

/** An order as a request sheet on A4: the lines, what each is held to, and the warranty. */
export function orderPdf(order: Order, programme: string): PDFKit.PDFDocument {
  const doc = openDocument({ size: 'A4', margin, info: { Title: `Order ${order.number}`, Author: programme } });
  const width = doc.page.width - 2 * margin;
  doc.font('head').fontSize(18).text(`${programme}: request for trees ${order.number}`);
  doc.font('text').fontSize(10).moveDown(0.3);
  doc.text(
    `To ${order.nursery}. Made on ${sayIsoDay(order.madeOn)} by ${order.madeBy}. Planting from ${sayIsoDay(order.body.plantOn)}.`,
  );
  doc.moveDown();
  for (const line of order.body.lines) drawLine(doc, line, order.body.currency, width);
  const trees = order.body.lines.reduce((sum, { count }) => sum + count, 0);
  const total = order.body.lines.reduce((sum, { count, price }) => sum + count * price, 0);
  doc.moveDown(0.5).font('strong').fontSize(11);
  doc.text(`${trees} trees, ${total.toFixed(2)} ${order.body.currency}`, margin, doc.y, { width, align: 'right' });
  doc.moveDown().font('strong').fontSize(10).text('Warranty', margin);
  doc.font('text').text(order.body.terms || 'To be agreed in writing before delivery.', { width });
  doc.moveDown(0.5);
  const close =
    'Stock is inspected on arrival against this sheet: trees that are deeper in their ball, pot-bound, wounded or not true to name are returned or claimed, with counts and pictures. Transport covered, roots moist and shaded, balls never lifted by the trunk.';
  doc.text(close, { width });
  doc.end();
  return doc;
}

function drawLine(doc: PDFKit.PDFDocument, line: OrderLine, currency: string, width: number): void {
  const spec = orderSpecification(line);
  if (doc.y > doc.page.height - margin - 40 - 12 * spec.length) doc.addPage();
  doc.font('strong').fontSize(11);
  const top = doc.y;
  doc.text(`${line.count} × ${line.species}`, margin, top, { width: width * 0.62 });
  const price = `${line.price.toFixed(2)} each, ${(line.count * line.price).toFixed(2)} ${currency}`;
  doc
    .font('text')
    .fontSize(10)
    .text(price, margin + width * 0.62, top, { width: width * 0.38, align: 'right' });
  doc.text(`${stockNames[line.stockKind]}, caliper ${line.caliperMm} mm`, margin, doc.y, { width });
  doc.fontSize(8.5).fillColor('#444444');
  for (const { item, ask } of spec) doc.text(`${item}: ${ask}`, margin + 12, doc.y, { width: width - 12 });
  doc.text(`For ${line.spots.join(', ')}`, margin + 12, doc.y, { width: width - 12 });
  doc.fillColor('#000000').fontSize(10).moveDown(0.5);
}
