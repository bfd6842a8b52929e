import {
  compassPoint,
  formatNumber,
  formatQuantity,
  pitSection,
  pitTop,
  sayReason,
  sayStep,
  type GroundFacts,
  type PlantingPlan,
  type Practice,
  type Quantity,
  type Stock,
  type UnitSystem,
} from '@sombra/core';
import { paintDrawing, plain } from '../paper/paint-drawing';

export interface Card {
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  readonly plan: PlantingPlan | { readonly kind: 'no_plan'; readonly why: string };
  readonly stock: Stock | null;
  readonly ground: GroundFacts;
  readonly practice: Practice;
  /** Bearings the recorded winds come from. */
  readonly windsDeg: readonly number[];
  /** Which way the pavement lies; `null` where nobody recorded it. */
  readonly pavementDeg: number | null;
  /** Who may dig, in one line. */
  readonly ticket: string;
  readonly qr: Buffer;
  readonly address: string;
  readonly units: UnitSystem;
}

/** A5, upright, in points. */
export const cardPt = { width: 419.53, height: 595.28 } as const;
const margin = 20;
const addressPt = 146;
const inner = cardPt.width - 2 * margin;

/** Draws one card in a box of A5 whose upper left corner is the origin of the page as it is translated now. */
export function drawCard(doc: PDFKit.PDFDocument, card: Card): void {
  const { plan } = card;
  const headEnd = head(doc, card);
  if (plan.kind === 'no_plan' || !card.stock) {
    const why = plan.kind === 'no_plan' ? plan.why : 'Stock not measured.';
    doc
      .font('strong')
      .fontSize(12)
      .text(plain(`No plan. ${why}`), margin, 110, { width: inner });
    return;
  }
  const drawing = pitSection({
    plan: plan.pit,
    stock: card.stock,
    ground: card.ground,
    practice: card.practice,
    stakes: plan.stakes,
    windsDeg: card.windsDeg,
    units: card.units,
    widthPx: 520,
    heightPx: 250,
  });
  let y = headEnd + paintDrawing(doc, drawing, { x: margin, y: headEnd, widthPt: inner }) + 4;
  y = stretched(plan) ? besideTop(doc, card, plan, y) : numbers(doc, card, plan, { top: y, columns: 2 });
  y += 5;
  y = cautions(doc, card, plan, y) + 5;
  steps(doc, card, plan, y);
  doc.font('text').fontSize(5.8).fillColor('#444444');
  const foot = `${plan.pit.practiceId === card.practice.id ? card.practice.name : plan.pit.practiceId}, version ${plan.pit.practiceVersion}. Local codes, permits and licensed practice come first.`;
  const line = { lineBreak: false, ellipsis: true, height: 8 };
  doc.text(plain(foot), margin, cardPt.height - 18, { ...line, width: inner - addressPt - 8 });
  // Whole, so that it can be typed where the code cannot be read.
  doc.fontSize(5).text(card.address.replace(/^https?:\/\//, ''), margin + inner - addressPt, cardPt.height - 17, {
    ...line,
    width: addressPt,
    align: 'right',
  });
  doc.fillColor('#000000');
}

/** Returns where the head ends: below the code, or below what is said of the ticket where that is longer. */
function head(doc: PDFKit.PDFDocument, { ref, place, species, ticket, qr }: Card): number {
  const qrPt = 58;
  doc.font('head').fontSize(24).fillColor('#000000').text(ref, margin, margin, { lineBreak: false });
  doc.font('text').fontSize(10.5);
  doc.text(plain(place), margin + 110, margin + 2, { width: inner - 110 - qrPt - 8 });
  doc
    .font('botanical')
    .fontSize(12)
    .text(plain(species ?? 'species not chosen'), margin + 110, margin + 15, {
      width: inner - 110 - qrPt - 8,
    });
  doc
    .font('strong')
    .fontSize(8.5)
    .text(plain(ticket), margin, margin + 33, { width: inner - qrPt - 8 });
  const end = Math.max(margin - 6 + qrPt, doc.y) + 6;
  doc.image(qr, margin + inner - qrPt, margin - 6, { width: qrPt, height: qrPt });
  return end;
}

/** A pit nearly as long as wide needs no second view. */
const stretched = ({ pit }: PlantingPlan): boolean => pit.shape.lengthMm > 1.15 * pit.shape.widthMm;
const topMostPt = 150;

/** Where a strip stretches the pit: the numbers in one column, and the pit from above beside them. */
function besideTop(doc: PDFKit.PDFDocument, card: Card, plan: PlantingPlan, top: number): number {
  const half = inner / 2 - 6;
  const { ground, windsDeg, pavementDeg, units } = card;
  const drawing = pitTop({
    plan: plan.pit,
    stakes: plan.stakes,
    ground,
    windsDeg,
    pavementDeg,
    bestFaceDeg: plan.facing.bestFaceDeg,
    units,
    widthPx: 290,
  });
  const widthPt = Math.min(half, (topMostPt * drawing.widthPx) / drawing.heightPx);
  const drawn = paintDrawing(doc, drawing, { x: margin + inner - (half + widthPt) / 2, y: top, widthPt });
  return Math.max(top + drawn, numbers(doc, card, plan, { top, columns: 1 }));
}

function numbers(
  doc: PDFKit.PDFDocument,
  { units }: Card,
  { pit, stakes, labour, carry, facing }: PlantingPlan,
  { top, columns }: { top: number; columns: 1 | 2 },
): number {
  const say = (value: number, quantity: Quantity) => formatQuantity(value, quantity, units);
  const carried = carry.means === 'people' ? `${carry.people} carry` : `${carry.means}, ${carry.people} people`;
  const mixedL = pit.amendments.each.reduce((sum, { litres }) => sum + litres, 0);
  const winds = stakes?.bearingsDeg.map(compassPoint).join(', ');
  const rows: readonly (readonly [string, string])[] = [
    ['Depth at the uphill edge', say(pit.depthMm.value, 'lengthMm')],
    ['Width at grade', say(pit.widthMm.value, 'lengthMm')],
    ['Flare above grade', say(pit.proudMm.value, 'lengthMm')],
    ['Downhill edge stands', say(pit.downhillProudMm.value, 'lengthMm')],
    ['Backfill', say(pit.backfillL.value, 'volumeL')],
    mixedL > 0
      ? ['Mixed in', say(mixedL, 'volumeL')]
      : pit.soil.boughtL > 0
        ? ['Topsoil bought', say(pit.soil.boughtL, 'volumeL')]
        : ['Left over, loose', say(pit.spoilL.value, 'volumeL')],
    ['Mulch', say(pit.mulchL.value, 'volumeL')],
    ['First water', say(pit.firstWaterL.value, 'volumeL')],
    ['Weight', `${say(pit.massKg.value, 'massKg')}, ${carried}`],
    [
      'Stakes',
      stakes ? `${stakes.stakes}${winds ? ` to ${winds}` : ''}, tie at ${say(stakes.heightMm, 'lengthMm')}` : 'none',
    ],
    ['Person-hours', formatNumber(labour.hours, 1)],
    ['Best face', facing.bestFaceDeg === null ? 'where people see it' : `to ${compassPoint(facing.bestFaceDeg)}`],
    ['Berm', pit.berm ? say(pit.berm.heightMm, 'lengthMm') : 'none'],
  ];
  const column = inner / 2 - 6;
  const lineHeight = 12.5;
  doc.fontSize(8.5);
  rows.forEach(([name, value], i) => {
    const x = margin + (i % columns) * (column + 12);
    const y = top + Math.floor(i / columns) * lineHeight;
    doc.font('text').text(name, x, y, { lineBreak: false });
    doc.font('strong').text(plain(value), x, y, { width: column, align: 'right', lineBreak: false });
  });
  return top + Math.ceil(rows.length / columns) * lineHeight;
}

function cautions(doc: PDFKit.PDFDocument, { units }: Card, { pit, obstacles }: PlantingPlan, top: number): number {
  const said = [...obstacles, ...pit.cautions].map((reason) => sayReason(reason, units));
  const text = [
    'No digging without a valid ticket. Hand-dig near marks. Lift by the ball, never by the trunk.',
    ...said,
  ];
  doc.font('strong').fontSize(7.5);
  const height = doc.heightOfString(plain(text.join(' ')), { width: inner - 12 }) + 7;
  doc.rect(margin, top, inner, height).lineWidth(1).stroke('#8a5a00');
  doc.text(plain(text.join(' ')), margin + 6, top + 4, { width: inner - 12 });
  return top + height;
}

/** Steps in two columns: what to do and the number to hit; set as large as fits. */
function steps(doc: PDFKit.PDFDocument, { units }: Card, plan: PlantingPlan, top: number): void {
  const column = inner / 2 - 6;
  const room = cardPt.height - 24 - top;
  const said = plan.steps.map((step, i) => ({ ...sayStep(step, units), number: i + 1 }));
  // Measured in bold, which runs wider than the text will: a step never takes more than this.
  const heightOf = (step: (typeof said)[number], size: number) => {
    doc.font('strong').fontSize(size);
    return doc.heightOfString(plain(`${step.number}. ${step.title}. ${step.act}`), { width: column }) + 1.5;
  };
  const half = (size: number) => said.reduce((sum, step) => sum + heightOf(step, size), 0) / 2;
  const size = largestThat((one) => half(one) + 2 * one <= room, stepSizesPt);
  const middle = half(size);
  let [x, used] = [margin, 0];
  doc.y = top;
  for (const step of said) {
    const height = heightOf(step, size);
    if (x === margin && used > 0 && used + height / 2 > middle) {
      x += column + 12;
      doc.y = top;
    }
    doc
      .font('strong')
      .fontSize(size)
      .text(plain(`${step.number}. ${step.title}. `), x, doc.y, { width: column, continued: true });
    doc.font('text').text(plain(step.act), { width: column });
    doc.y += 1.5;
    used += height;
  }
}
const stepSizesPt = [10, 9.6, 9.2, 8.8, 8.4, 8, 7.6, 7.2, 6.8, 6.4, 6, 5.6, 5.2, 5];

/** The first of sizes from large to small that fits, the last where none does. Measuring is dear: halves, not one by one. */
function largestThat(fits: (size: number) => boolean, sizes: readonly number[]): number {
  let [from, to] = [0, sizes.length - 1];
  while (from < to) {
    const middle = Math.floor((from + to) / 2);
    if (fits(sizes[middle] ?? 0)) to = middle;
    else from = middle + 1;
  }
  return sizes[from] ?? 5;
}
