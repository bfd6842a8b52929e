import { inflateSync } from 'node:zlib';

/** The words of each page of a PDF set in the standard fonts, in the order they were written. */
export function pdfText(bytes: Uint8Array): string[] {
  const file = Buffer.from(bytes);
  const pages: string[] = [];
  for (let at = file.indexOf('stream\n'); at >= 0; at = file.indexOf('stream\n', at + 7)) {
    if (file.subarray(at - 3, at).toString('latin1') === 'end') continue;
    const end = file.indexOf('endstream', at);
    const text = wordsOf(file.subarray(at + 7, end));
    if (text !== '') pages.push(text);
  }
  return pages;
}

function wordsOf(stream: Buffer): string {
  let content: string;
  try {
    content = inflateSync(stream).toString('latin1');
  } catch {
    return '';
  }
  const runs = [...content.matchAll(/\[([^\]]*)\] TJ/g)].map(([, run = '']) =>
    [...run.matchAll(/<([0-9a-f]*)>/g)].map(([, hex = '']) => Buffer.from(hex, 'hex').toString('latin1')).join(''),
  );
  return runs
    .join(' ')
    .replace(/\u00a0/g, ' ')
    .replace(/\s+/g, ' ');
}
