import type { WaterRound } from '@sombra/contract';
import { formatNumber, formatQuantity, type UnitSystem } from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';
import { drawTable, type PaperColumn } from '../paper/table';

const columns: readonly PaperColumn[] = [
  { name: '', width: 28, align: 'right' },
  { name: 'Stop', width: 110 },
  { name: 'Place', width: 150 },
  { name: 'Water', width: 70, align: 'right' },
  { name: 'Given', width: 70 },
  { name: 'Why not, what was seen', width: 80 },
];

type Truck = WaterRound['plan']['trucks'][number];

/** A round on A4, a sheet for each truck: stops and fillings in their order, with room to write what was given. */
export function roundPdf(round: WaterRound, programme: string, units: UnitSystem): PDFKit.PDFDocument {
  const doc = openDocument({ size: 'A4', margin: 48, info: { Title: round.title, Author: programme } });
  round.plan.trucks.forEach((truck, i) => {
    if (i > 0) doc.addPage();
    drawTruck(doc, { round, truck, programme }, units);
  });
  doc.end();
  return doc;
}

function drawTruck(
  doc: PDFKit.PDFDocument,
  { round, truck, programme }: { readonly round: WaterRound; readonly truck: Truck; readonly programme: string },
  units: UnitSystem,
): void {
  const litres = (value: number): string => formatQuantity(value, 'volumeL', units);
  const who = round.given.find(({ truckId }) => truckId === truck.truckId)?.userName;
  const stops = truck.steps.filter(({ kind }) => kind === 'stop').length;
  doc
    .font('head')
    .fontSize(18)
    .text(plain(`${round.title}: ${truck.name}`));
  doc.font('text').fontSize(10).moveDown(0.3);
  const way = formatQuantity(truck.driveM, 'distanceM', units);
  const hours = formatNumber(truck.minutes / 60, 1);
  const facts = [round.onDay, who ?? 'not given yet', `${stops} stops`, litres(truck.litres), way, `${hours} h`];
  doc.text(plain(`${programme}. ${facts.join(', ')}.`)).moveDown();
  let at = 0;
  const rows = truck.steps.map((step) => {
    if (step.kind === 'fill') return ['', plain(`Fill: ${step.name}`), '', litres(step.litres), '', ''];
    at += 1;
    const { state = 'open', litres: given = null, why = null } = round.stops[step.spotId] ?? {};
    const done = state === 'watered' ? litres(given ?? step.litres) : state === 'not_needed' ? 'not needed' : '';
    return [String(at), step.ref, step.place, litres(step.litres), done, why ?? ''];
  });
  drawTable(doc, columns, rows);
  doc.moveDown().font('text').fontSize(9);
  doc.text('Mind traffic; never stand between the truck and the lane. A ball that is wet is not watered: say so.', 48);
}
