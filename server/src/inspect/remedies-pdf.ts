import {
  proofTapNames,
  remedyProofs,
  remedyWords,
  remedyWork,
  sayIsoDay,
  sayReason,
  workToolNames,
  type RemedyProof,
} from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';
import { drawTable, type PaperColumn } from '../paper/table';
import type { WorkSheet } from './remedies-service';

const columns: readonly PaperColumn[] = [
  { name: '', width: 24, align: 'right' },
  { name: 'Tree', width: 92 },
  { name: 'Do', width: 120 },
  { name: 'Because', width: 150 },
  { name: 'Measured', width: 112 },
];

/** What is written down, before and once it was done. */
const after = {
  measure: {
    flareDepthMm: 'flare before ______ deep,\nafter ______',
    mulchDepthMm: 'mulch before ______ deep,\nafter ______',
  },
  roots: '[  ] cut: roots no. ______',
  word: '[  ] done',
} as const;

function toWrite(proof: RemedyProof): string {
  if (proof.kind === 'measure') return after.measure[proof.fact];
  if (proof.kind === 'taps') return proof.taps.map((tap) => `[  ] ${proofTapNames[tap]}`).join('\n');
  return after[proof.kind];
}

/** A crew's sheet on A4: tools, how each thing is done and with what care, then the trees in walking order. */
export function remediesPdf({ programme, today, units, remedies, stops }: WorkSheet): PDFKit.PDFDocument {
  const doc = openDocument({ size: 'A4', margin: 48, info: { Title: 'Crew sheet', Author: programme } });
  doc.font('head').fontSize(18).text('Crew sheet');
  doc.font('text').fontSize(10).moveDown(0.3);
  doc.text(plain(`${programme}, ${sayIsoDay(today)}. ${stops.length} trees, in walking order.`)).moveDown(0.5);
  const tools = [...new Set(remedies.flatMap((remedy) => remedyWork[remedy].tools))].map((tool) => workToolNames[tool]);
  if (tools.length > 0) doc.text(plain(`Take along: ${tools.join(', ')}.`)).moveDown(0.5);
  for (const remedy of remedies) {
    const { act, how, who, caution } = remedyWords[remedy];
    doc.font('strong').text(plain(`${act}, by ${who}`));
    doc.font('text').text(plain(how));
    if (caution) doc.font('botanical').text(plain(caution));
    doc.font('text').moveDown(0.3);
  }
  doc.moveDown(0.5);
  const rows = stops.flatMap(({ tree, asks }, i) =>
    asks.map(({ remedy, because }, k) => {
      const proof = remedyProofs[remedy];
      return [
        k === 0 ? String(i + 1) : '',
        k === 0 ? [tree.ref, tree.place, tree.species ?? ''].filter(Boolean).join('\n') : '',
        remedyWords[remedy].act,
        because.map((reason) => sayReason(reason, units)).join(' '),
        toWrite(proof),
      ];
    }),
  );
  drawTable(doc, columns, rows);
  doc.moveDown().font('text').fontSize(9);
  doc.text(
    'Mind traffic. Local codes and licensed practice come before this sheet; what is not safe is left and said.',
    48,
  );
  doc.end();
  return doc;
}
