import type { Drawing, Role, Shape } from '@sombra/core';

interface Ink {
  readonly fill?: string;
  readonly stroke?: string;
  readonly width?: number;
  readonly dash?: readonly [number, number];
}

/** Inks for white paper; every part differs in tone as well, so that a copy in grey can be read. */
const inks: Partial<Readonly<Record<Role, Ink>>> = {
  ground: { fill: '#e6d5b5' },
  backfill: { fill: '#f1e3c6' },
  ball: { fill: '#b58a5c' },
  root: { stroke: '#54402f', width: 1.6 },
  trunk: { fill: '#5f4a36' },
  mulch: { fill: '#7b6650' },
  berm: { fill: '#cfae7c' },
  grade: { stroke: '#1d2b28', width: 1 },
  flare: { stroke: '#7a2a63', width: 1.3, dash: [5, 3] },
  pit: { stroke: '#1d2b28', width: 1, dash: [3, 2] },
  stake: { fill: '#c9a56a', stroke: '#4a3824', width: 3 },
  tie: { stroke: '#7a2a63', width: 1.6 },
  amendment: { fill: '#2c3a1e' },
  surplus: { fill: '#dcc3a0' },
  put_back: { fill: '#b98d5c' },
  layer: { stroke: '#7a5230', width: 1, dash: [6, 3] },
  face: { stroke: '#7a2a63', width: 2 },
  dimension: { stroke: '#1d2b28', width: 0.7 },
  dial_ground: { fill: '#f1e7d2' },
  dial_tick: { stroke: '#8b8471', width: 0.6 },
  dial_anchor: { fill: '#c2a078' },
  dial_before: { stroke: '#8a7358', width: 1.6, dash: [1, 3] },
  dial_clear: { fill: '#dcc7a2' },
  dial_touching: { fill: '#b58a5c' },
  dial_pressing: { fill: '#7d5433' },
  dial_grown: { fill: '#3a2415' },
  dial_chosen: { fill: '#7d5433' },
  dial_pressed: { stroke: '#d9a13a', width: 4 },
  dial_cut: { stroke: '#ffffff', width: 2.2 },
  dial_number: { fill: '#1d2b28' },
  dial_season: { fill: '#7a2a63' },
  dial_share: { fill: '#ffffff' },
  label: { fill: '#1d2b28' },
  note: { fill: '#3f4843', stroke: '#6b716c', width: 0.5 },
};

/** The narrow space between a number and its unit is in no face that prints. */
export const plain = (text: string): string => text.replace(/[\u202f\u2009]/g, '\u00a0');

/** Paints a drawing of the core onto a page, `widthPt` wide with its upper left corner at `at`; returns its height. */
export function paintDrawing(
  doc: PDFKit.PDFDocument,
  drawing: Drawing,
  at: { readonly x: number; readonly y: number; readonly widthPt: number },
): number {
  const scale = at.widthPt / drawing.widthPx;
  doc.save().translate(at.x, at.y).scale(scale);
  for (const shape of drawing.shapes) paint(doc, shape);
  doc.restore();
  doc.fillColor('#000000').strokeColor('#000000');
  return drawing.heightPx * scale;
}

function paint(doc: PDFKit.PDFDocument, shape: Shape): void {
  const ink = inks[shape.role] ?? { stroke: '#000000', width: 0.5 };
  if (shape.kind === 'text') {
    doc
      .font(shape.strong ? 'strong' : 'text')
      .fontSize(shape.sizePx)
      .fillColor(ink.fill ?? '#000000');
    const text = plain(shape.text);
    const width = doc.widthOfString(text);
    const shift = shape.align === 'middle' ? width / 2 : shape.align === 'end' ? width : 0;
    doc.text(text, shape.at[0] - shift, shape.at[1] - shape.sizePx * 0.76, { lineBreak: false });
    return;
  }
  const [first, ...rest] = shape.points;
  if (!first) return;
  doc.moveTo(first[0], first[1]);
  for (const point of rest) doc.lineTo(point[0], point[1]);
  if (shape.kind === 'polygon') {
    doc.closePath().fill(ink.fill ?? '#dddddd');
    return;
  }
  doc.lineWidth(ink.width ?? 0.7);
  if (ink.dash) doc.dash(ink.dash[0], { space: ink.dash[1] });
  doc.stroke(ink.stroke ?? '#000000');
  if (ink.dash) doc.undash();
}
