import { inflateSync } from 'node:zlib';

/** What each glyph of a face stands for. */
type Letters = ReadonlyMap<number, string>;

/** The words of each page of a PDF whose faces are embedded, in the order they were written. */
export function pdfText(bytes: Uint8Array): string[] {
  const file = Buffer.from(bytes);
  const streams = streamsOf(file);
  const faces = facesOf(file.toString('latin1'), streams);
  return [...streams.values()].map((content) => wordsOf(content, faces)).filter((text) => text !== '');
}

/** The streams of a file by the number of their object, unpacked; what is no text is left out. */
function streamsOf(file: Buffer): Map<number, string> {
  const streams = new Map<number, string>();
  for (let at = file.indexOf('stream\n'); at >= 0; at = file.indexOf('stream\n', at + 7)) {
    if (file.subarray(at - 3, at).toString('latin1') === 'end') continue;
    const head = file.subarray(Math.max(0, at - 400), at).toString('latin1');
    const number = Number([...head.matchAll(/(\d+) 0 obj/g)].at(-1)?.[1] ?? NaN);
    try {
      streams.set(number, inflateSync(file.subarray(at + 7, file.indexOf('endstream', at))).toString('latin1'));
    } catch {
      continue;
    }
  }
  return streams;
}

function facesOf(file: string, streams: ReadonlyMap<number, string>): Map<string, Letters> {
  const faces = new Map<string, Letters>();
  for (const [, name = '', object = ''] of file.matchAll(/\/(F\d+) (\d+) 0 R/g)) {
    const body = new RegExp(`\\n${object} 0 obj([\\s\\S]*?)endobj`).exec(file)?.[1] ?? '';
    const map = streams.get(Number(/\/ToUnicode (\d+) 0 R/.exec(body)?.[1] ?? NaN));
    if (map) faces.set(name, lettersOf(map));
  }
  return faces;
}

const utf16 = (hex: string): string =>
  String.fromCharCode(...(hex.match(/.{4}/g) ?? []).map((unit) => parseInt(unit, 16)));

function lettersOf(map: string): Letters {
  const letters = new Map<number, string>();
  for (const [, from = '', list = ''] of map.matchAll(/<([0-9a-f]+)> <[0-9a-f]+> \[([^\]]*)\]/gi)) {
    [...list.matchAll(/<([0-9a-f ]*)>/gi)].forEach(([, hex = ''], i) => {
      letters.set(parseInt(from, 16) + i, utf16(hex.replaceAll(' ', '')));
    });
  }
  return letters;
}

function wordsOf(content: string, faces: ReadonlyMap<string, Letters>): string {
  let letters: Letters = new Map();
  const runs: string[] = [];
  for (const [, face, run] of content.matchAll(/\/(F\d+) [\d.]+ Tf|\[([^\]]*)\] TJ/g)) {
    if (face) letters = faces.get(face) ?? new Map();
    if (run === undefined) continue;
    const glyphs = [...run.matchAll(/<([0-9a-f]*)>/g)].flatMap(([, hex = '']) => hex.match(/.{4}/g) ?? []);
    runs.push(glyphs.map((glyph) => letters.get(parseInt(glyph, 16)) ?? '').join(''));
  }
  return runs
    .join(' ')
    .replace(/\u00a0/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}
