import type { SeasonMaterials } from '@sombra/contract';
import { formatNumber, materials, sayAmount, sayPack, type UnitSystem } from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';

const margin = 48;
const columns = [
  { name: 'Material', x: 0, width: 150, right: false },
  { name: 'Needed', x: 150, width: 90, right: true },
  { name: 'In store', x: 240, width: 90, right: true },
  { name: 'To buy', x: 340, width: 160, right: false },
] as const;

/** The shopping list on A4, with the spots it is for. */
export function materialsPdf(sum: SeasonMaterials, programme: string, units: UnitSystem): PDFKit.PDFDocument {
  const doc = openDocument({ size: 'A4', margin, info: { Title: `Materials: ${sum.title}`, Author: programme } });
  const row = (cells: readonly string[]) => {
    const y = doc.y;
    columns.forEach(({ x, width, right }, i) =>
      doc.text(plain(cells[i] ?? ''), margin + x, y, { width, align: right ? 'right' : 'left' }),
    );
    doc.x = margin;
    doc.moveDown(0.3);
  };
  doc
    .font('Times-Bold')
    .fontSize(18)
    .text(plain(`Materials: ${sum.title}`));
  doc.font('Helvetica').fontSize(10).moveDown(0.3);
  doc.text(plain(`${sum.spots.length} trees by ${sum.practice.name}, ${formatNumber(sum.hours, 1)} person-hours.`));
  doc.moveDown().font('Helvetica-Bold');
  row(columns.map(({ name }) => name));
  doc.font('Helvetica');
  for (const { code, needed, inStore, packs, packSize } of sum.lines) {
    const { name } = materials[code];
    const pack = sayPack(code, packSize, units);
    const amount = (value: number) => sayAmount(code, value, units);
    row([name, amount(needed), amount(inStore), packs > 0 ? `${packs} × ${pack}` : '-']);
  }
  doc.moveDown().font('Helvetica-Bold').text('For', margin);
  doc.font('Helvetica').text(sum.spots.map(({ ref }) => ref).join(', ') || 'no spot', { width: 500 });
  for (const { ref, why } of sum.without) doc.text(plain(`${ref} is not counted: ${why}`), { width: 500 });
  doc.end();
  return doc;
}
