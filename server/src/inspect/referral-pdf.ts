import {
  collarDial,
  formatQuantity,
  isPressing,
  levelNames,
  referWhyNames,
  remedyWords,
  sayFacts,
  sayIsoDay,
  sayReason,
  stagedCuts,
  warrantyEnds,
  type InspectionVerdict,
  type Inspection,
  type Practice,
  type Stock,
  type UnitSystem,
} from '@sombra/core';
import { openDocument } from '../paper/document';
import { paintDrawing, plain } from '../paper/paint-drawing';

export interface Referral {
  readonly programme: string;
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  readonly plantedOn: string;
  readonly stock: Stock | null;
  readonly practice: Practice;
  /** Newest first. */
  readonly looks: readonly { readonly facts: Inspection; readonly verdict: InspectionVerdict; readonly by: string }[];
  /** Remedies done, newest first. */
  readonly done: readonly { readonly on: string; readonly act: string }[];
  /** JPEG, newest first. */
  readonly photos: readonly { readonly bytes: Buffer; readonly said: string }[];
  readonly askedBy: string;
  readonly today: string;
  readonly units: UnitSystem;
}

const margin = 48;
const inner = 595.28 - 2 * margin;
const shownLooks = 4;

/** Another tree asked for within its warranty: what was found, the collar drawn, its history, photos. A4 */
export function claimPdf(referral: Referral): PDFKit.PDFDocument {
  const { ref, programme, plantedOn, practice, looks, units } = referral;
  const doc = openDocument({ size: 'A4', margin, info: { Title: `Warranty claim: ${ref}`, Author: programme } });
  head(doc, referral, 'claim within the warranty');
  title(doc, 'What is claimed');
  const endsOn = warrantyEnds(plantedOn, practice);
  line(
    doc,
    endsOn
      ? `Another tree of the kind ordered. The warranty ends on ${sayIsoDay(endsOn)}.`
      : 'No warranty is on record.',
  );
  for (const { level, because, remedy } of looks[0]?.verdict.findings ?? []) {
    if (level === 'act' || level === 'urgent') line(doc, `${sayReason(because, units)} ${remedyWords[remedy].act}.`);
  }
  collar(doc, referral);
  history(doc, referral);
  photos(doc, referral);
  doc.end();
  return doc;
}

/** A tree for an arborist: what is asked and why, the collar drawn, its history, photos. A4 */
export function referralPdf(referral: Referral): PDFKit.PDFDocument {
  const { ref, programme } = referral;
  const doc = openDocument({ size: 'A4', margin, info: { Title: `Referral: ${ref}`, Author: programme } });
  head(doc, referral, 'for an arborist');
  asked(doc, referral);
  collar(doc, referral);
  history(doc, referral);
  photos(doc, referral);
  answer(doc);
  doc.end();
  return doc;
}

const title = (doc: PDFKit.PDFDocument, text: string): void => {
  doc.moveDown(0.7).font('strong').fontSize(12).text(plain(text), margin).moveDown(0.2);
  doc.font('text').fontSize(10);
};
const line = (doc: PDFKit.PDFDocument, text: string): void =>
  void doc.text(plain(text), margin, undefined, { width: inner });

function head(doc: PDFKit.PDFDocument, referral: Referral, what: string): void {
  const { ref, place, species, plantedOn, stock, programme, askedBy, today, units } = referral;
  doc
    .font('head')
    .fontSize(20)
    .text(plain(`${ref}: ${what}`));
  doc.font('text').fontSize(10).moveDown(0.3);
  line(doc, `${programme}, ${sayIsoDay(today)}, asked by ${askedBy}.`);
  const size = stock ? `, caliper ${formatQuantity(stock.caliperMm, 'lengthMm', units)} when it came` : '';
  line(doc, `${place}. ${species ?? 'Species not recorded'}, planted ${sayIsoDay(plantedOn)}${size}.`);
}

function asked(doc: PDFKit.PDFDocument, { looks, units }: Referral): void {
  title(doc, 'What is asked');
  const [last] = looks;
  const forArborist = (last?.verdict.findings ?? []).filter(
    ({ remedy }) => remedyWords[remedy].who === remedyWords.refer_arborist.who,
  );
  for (const { level, because, remedy } of forArborist) {
    line(doc, `${levelNames[level]}. ${sayReason(because, units)} ${remedyWords[remedy].act}.`);
  }
  if (forArborist.length === 0) line(doc, 'The newest look asks for no arborist; judge it for its own sake.');
  line(doc, 'Please judge how it is held, its prognosis and cost against replacement, and answer below.');
}

function collar(doc: PDFKit.PDFDocument, { looks, practice, units }: Referral): void {
  const seen = looks.map(({ facts }) => facts).filter(({ circlingRoots }) => circlingRoots !== null);
  const [last, before] = seen;
  const roots = last?.circlingRoots ?? [];
  if (!last || roots.length === 0) return;
  title(doc, `Roots at the collar, as found on ${sayIsoDay(last.inspectedOn)}`);
  const anchors = last.anchors ?? [];
  const { seasonCapPct, referRootOverMm } = practice.inspection.roots;
  const plan = roots.some(isPressing) ? stagedCuts({ roots, anchors, seasonCapPct, referRootOverMm }) : undefined;
  const drawing = collarDial({ roots, anchors, before: before?.circlingRoots ?? [], plan, units, sidePx: 400 });
  if (doc.y > 500) doc.addPage();
  const top = doc.y;
  const height = paintDrawing(doc, drawing, { x: margin, y: top, widthPt: 230 });
  doc.font('text').fontSize(9.5);
  let y = top;
  const right = { x: margin + 250, width: inner - 250 };
  const put = (text: string): void => {
    doc.text(plain(text), right.x, y, { width: right.width });
    y = doc.y + 2;
  };
  roots.forEach((root, i) => {
    const { arc, diameterMm } = root;
    const said = sayFacts<'inspection'>({ ...last, circlingRoots: [root] }, units).find(
      ({ key }) => key === 'circlingRoots',
    );
    put(
      `${i + 1}. ${said?.value ?? `${formatQuantity(diameterMm, 'lengthMm', units)} over ${arc.fromDeg}-${arc.toDeg}°`}`,
    );
  });
  for (const { root, why } of plan?.referred ?? []) put(`Root ${root + 1}: ${referWhyNames[why]}.`);
  plan?.seasons.forEach(({ cuts, relievedDeg }, i) => {
    const which = cuts.map(({ root }) => root + 1).join(', ');
    put(`If you agree, the crew in season ${i + 1}: root ${which}; ${Math.round(relievedDeg)}° free by then.`);
  });
  if (anchors.length === 0) put('Nobody recorded what holds the tree.');
  doc.x = margin;
  doc.y = Math.max(top + height, y) + 4;
}

function history(doc: PDFKit.PDFDocument, { looks, done, units }: Referral): void {
  title(doc, 'History');
  for (const { facts, verdict, by } of looks.slice(0, shownLooks)) {
    const said = sayFacts<'inspection'>(facts, units).filter(({ key }) => key !== 'inspectedOn');
    const words = said.map(({ name, value }) => `${name.toLowerCase()} ${value}`).join('; ');
    line(
      doc,
      `${sayIsoDay(facts.inspectedOn)}, ${by}, ${verdict.level ? levelNames[verdict.level] : 'nothing looked at'}: ${words}.`,
    );
  }
  if (looks.length > shownLooks) line(doc, `And ${looks.length - shownLooks} looks before.`);
  for (const { on, act } of done.slice(0, 6)) line(doc, `${on}: done: ${act}.`);
}

function photos(doc: PDFKit.PDFDocument, { photos: all }: Referral): void {
  if (all.length === 0) return;
  title(doc, 'Photos');
  const width = (inner - 12) / 2;
  let top = doc.y;
  all.forEach(({ bytes, said }, i) => {
    if (i % 2 === 0 && top + 190 > 790) {
      doc.addPage();
      top = margin;
    }
    const x = margin + (i % 2) * (width + 12);
    doc.image(bytes, x, top, { fit: [width, 160] });
    doc.fontSize(8).text(plain(said), x, top + 163, { width });
    if (i % 2 === 1 || i === all.length - 1) top += 182;
  });
  doc.x = margin;
  doc.y = top;
}

function answer(doc: PDFKit.PDFDocument): void {
  if (doc.y > 690) doc.addPage();
  title(doc, 'Answer of the arborist');
  for (const what of [
    'Held by',
    'Prognosis',
    'To be done, by whom, by when',
    'Cost, and that of replacement',
    'Name, licence, date',
  ]) {
    line(doc, `${what}: ${'_'.repeat(60)}`);
    doc.moveDown(0.5);
  }
  line(doc, 'Local codes and licensed practice come before anything written here.');
}
