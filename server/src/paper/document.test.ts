import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { beyondLatin, faces, openDocument, type Face } from './document';

interface OpenedFont {
  hasGlyphForCodePoint(point: number): boolean;
}
const load = createRequire(process.argv[1] ?? process.execPath);
const opened = (face: Face) =>
  (load('fontkit') as { create: (data: Buffer) => OpenedFont }).create(readFileSync(load.resolve(faces[face])));

async function printed(write: (doc: PDFKit.PDFDocument) => void): Promise<string> {
  const doc = openDocument({ compress: false });
  const parts: Buffer[] = [];
  doc.on('data', (part: Buffer) => parts.push(part));
  const ended = new Promise((done) => doc.on('end', done));
  write(doc);
  doc.end();
  await ended;
  return Buffer.concat(parts).toString('latin1');
}
const embedded = (pdf: string) =>
  [...new Set([...pdf.matchAll(/\/BaseFont \/[A-Z]{6}\+([\w-]+)/g)].map(([, name]) => name ?? ''))].sort();

describe('paper', () => {
  it('holds its faces itself, and none of those that readers bring', async () => {
    const pdf = await printed((doc) => doc.text('Acer').font('head').text('Weavers Row'));
    expect(embedded(pdf)).toEqual(['AtkinsonHyperlegibleNext-Regular', 'Bitter-Bold']);
    expect(pdf).not.toMatch(/Helvetica|Times/);
    expect(pdf).toContain('/FontFile');
  });

  it('sets what its faces lack in one that has it, and goes on as before', async () => {
    const pdf = await printed((doc) => doc.font('strong').text('Ελένη Ξένου').text('Željko Śląski'));
    expect(embedded(pdf)).toEqual(['AtkinsonHyperlegibleNext-Bold', 'DejaVuSans-Bold']);
  });

  it.each(['text', 'strong', 'head', 'botanical'] as const)(
    'knows what %s has: nothing it is left to set is missing',
    (face) => {
      const font = opened(face);
      const missing = Array.from({ length: 0x2300 - 0x20 }, (_, i) => i + 0x20).filter(
        (point) => !beyondLatin.test(String.fromCodePoint(point)) && !font.hasGlyphForCodePoint(point),
      );
      expect(missing.map((point) => point.toString(16))).toEqual([]);
    },
  );

  it('has a wide face for names and signs beyond Latin', () => {
    const font = opened('wide');
    expect([...'ЖанноЕлένηλ→⅓≤±×µ'].filter((one) => !font.hasGlyphForCodePoint(one.codePointAt(0) ?? 0))).toEqual([]);
  });
});
