import type { SeasonMaterials } from '@sombra/contract';
import { formatNumber, materials, sayAmount, sayPack, type UnitSystem } from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';
import { drawTable, type PaperColumn } from '../paper/table';

const margin = 48;
const columns: readonly PaperColumn[] = [
  { name: 'Material', width: 150 },
  { name: 'Needed', width: 95, align: 'right' },
  { name: 'In store', width: 95, align: 'right' },
  { name: 'To buy', width: 155, align: 'right' },
];

/** The shopping list on A4, with the spots it is for. */
export function materialsPdf(sum: SeasonMaterials, programme: string, units: UnitSystem): PDFKit.PDFDocument {
  const doc = openDocument({ size: 'A4', margin, info: { Title: `Materials: ${sum.title}`, Author: programme } });
  drawMaterials(doc, sum, units);
  doc.end();
  return doc;
}

/** Draws the list on the page as it stands. */
export function drawMaterials(doc: PDFKit.PDFDocument, sum: SeasonMaterials, units: UnitSystem): void {
  doc
    .font('head')
    .fontSize(18)
    .text(plain(`Materials: ${sum.title}`));
  doc.font('text').fontSize(10).moveDown(0.3);
  doc.text(plain(`${sum.spots.length} trees by ${sum.practice.name}, ${formatNumber(sum.hours, 1)} person-hours.`));
  doc.moveDown();
  const rows = sum.lines.map(({ code, needed, inStore, packs, packSize }) => {
    const amount = (value: number) => sayAmount(code, value, units);
    const buy = packs > 0 ? `${packs} × ${sayPack(code, packSize, units)}` : '-';
    return [materials[code].name, amount(needed), amount(inStore), buy];
  });
  drawTable(doc, columns, rows);
  doc.moveDown().font('strong').text('For', margin);
  doc.font('text').text(sum.spots.map(({ ref }) => ref).join(', ') || 'no spot', { width: 500 });
  for (const { ref, why } of sum.without) doc.text(plain(`${ref} is not counted: ${why}`), { width: 500 });
}
