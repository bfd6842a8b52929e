import type { DayDetail } from '@sombra/contract';
import { nameOfTeam } from '@sombra/core';
import QRCode from 'qrcode';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';

const mm = 72 / 25.4;
/** Two columns of four on A4; each is folded at its middle line, so that the name reads from both sides. */
const tag = { width: 95 * mm, height: 66 * mm, columns: 2, rows: 4 };
/** Read by a lead's phone at check-in. */
const codePt = 15 * mm;
const margin = { x: 10 * mm, y: 16 * mm };

/** Name tags of everybody who comes: first name large, team, and what leads must see, a code for check-in; upside down on the upper half. */
export async function nameTags(
  { id: dayId, title, people, teams }: DayDetail,
  { programme, origin }: { readonly programme: string; readonly origin: string },
): Promise<PDFKit.PDFDocument> {
  const doc = openDocument({
    size: 'A4',
    margin: 0,
    autoFirstPage: false,
    info: { Title: plain(`Name tags: ${title}`), Author: plain(programme) },
  });
  const all = people.filter(({ state }) => state === 'confirmed');
  const perPage = tag.columns * tag.rows;
  const codes = await Promise.all(
    all.map(({ id }) => QRCode.toBuffer(`${origin}/days/${dayId}?person=${id}`, { margin: 1, width: 180 })),
  );
  if (all.length === 0) doc.addPage().font('text').fontSize(12).text('Nobody is registered yet.', 50, 50);
  all.forEach((person, i) => {
    if (i % perPage === 0) doc.addPage();
    const place = i % perPage;
    const x = margin.x + (place % tag.columns) * tag.width;
    const y = margin.y + Math.floor(place / tag.columns) * tag.height;
    const team = teams.findIndex(({ helperIds }) => helperIds.includes(person.id));
    const lead = people.find(({ id }) => id === teams[team]?.leadId)?.name;
    const words = [
      team >= 0 ? `Team ${nameOfTeam(lead, team)}` : 'No team yet',
      person.id === teams[team]?.leadId ? 'leads' : '',
      person.minor ? 'minor' : '',
      person.noLifting ? 'no lifting' : '',
      person.photos ? '' : 'no photos',
    ].filter((word) => word !== '');
    doc.save().lineWidth(0.4).strokeColor('#999999').rect(x, y, tag.width, tag.height).stroke();
    doc
      .dash(3, { space: 3 })
      .moveTo(x, y + tag.height / 2)
      .lineTo(x + tag.width, y + tag.height / 2)
      .stroke()
      .undash();
    half(doc, { x, y: y + tag.height / 2 }, person.name, words.join(' · '));
    const code = codes[i];
    if (code) doc.image(code, x + tag.width - codePt - 4, y + tag.height - codePt - 4, { width: codePt });
    doc.rotate(180, { origin: [x + tag.width / 2, y + tag.height / 4] });
    half(doc, { x, y }, person.name, words.join(' · '));
    doc.restore();
  });
  doc.end();
  return doc;
}

function half(doc: PDFKit.PDFDocument, at: { x: number; y: number }, name: string, words: string): void {
  const [first = '', ...rest] = name.split(' ');
  const room = {
    width: tag.width - 16,
    height: tag.height / 2,
    align: 'center' as const,
    lineBreak: false,
    ellipsis: true,
  };
  doc
    .fillColor('#1d2b28')
    .font('head')
    .fontSize(26)
    .text(plain(first), at.x + 8, at.y + 12, room);
  doc
    .font('text')
    .fontSize(12)
    .text(plain(rest.join(' ')), at.x + 8, at.y + 44, room);
  doc.fontSize(11).text(plain(words), at.x + 8, at.y + 62, room);
}
