import type {} from 'pdfkit';
import { plain } from './paint-drawing';

export interface PaperColumn {
  readonly name: string;
  /** Points. */
  readonly width: number;
  readonly align?: 'left' | 'right';
}

const rule = '#bbbbbb';

/** A table with its heads, a hairline under each row; it goes over pages by itself. */
export function drawTable(
  doc: PDFKit.PDFDocument,
  columns: readonly PaperColumn[],
  rows: readonly (readonly string[])[],
): void {
  const cells = (texts: readonly string[], head: boolean): PDFKit.Mixins.CellOptions[] =>
    texts.map((text, i) => ({
      text: plain(text),
      type: head ? 'TH' : 'TD',
      font: { src: head ? 'strong' : 'text', size: 10 },
      align: { x: columns[i]?.align ?? 'left', y: 'top' },
    }));
  doc.table({
    columnStyles: columns.map(({ width }) => width),
    defaultStyle: { border: [0, 0, 0.5, 0], borderColor: rule, padding: [3, 4, 3, 0] },
    data: [
      cells(
        columns.map(({ name }) => name),
        true,
      ),
      ...rows.map((row) => cells(row, false)),
    ],
  });
}
