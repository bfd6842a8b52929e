import type {} from 'pdfkit';
import { createRequire } from 'node:module';

/** Faces of everything printed: the same families as on screen. */
export const faces = {
  text: '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
  strong: '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf',
  head: '@expo-google-fonts/bitter/700Bold/Bitter_700Bold.ttf',
  botanical: '@expo-google-fonts/bitter/400Regular_Italic/Bitter_400Regular_Italic.ttf',
  /** For letters the others lack: Greek, Cyrillic, signs. */
  wide: 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  wideStrong: 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
} as const;
export type Face = keyof typeof faces;

/** What the faces of the screen do not all have: letters beyond Latin, and some signs. */
export const beyondLatin =
  /[^\n\r\t\u0020-\u007e\u00a0-\u00ac\u00ae-\u00b4\u00b6-\u0107\u010a-\u0113\u0116-\u011b\u011e-\u0123\u0126-\u0127\u012a-\u012b\u012e-\u0133\u0136-\u0137\u0139-\u013e\u0141-\u0148\u0150-\u0155\u0158-\u015b\u015e-\u0165\u016a-\u016b\u016e-\u017e\u0218-\u021b\u1e80-\u1e85\u2009\u2013-\u2014\u2018-\u201a\u201c-\u201e\u2020-\u2022\u2026\u2030\u2039-\u203a\u20ac\u2122\u2212\u2260\u2264-\u2265]/u;

type TextOptions = PDFKit.Mixins.TextOptions;
type Library = new (options: PDFKit.PDFDocumentOptions) => PDFKit.PDFDocument;
let maker: Library | undefined;

/**
 * Opens a PDF with the faces of the application in it, so that every name prints. The library is loaded as Node knows it
 * (its ES entry is made for browsers and knows no Node streams), with the first document; the running script leads to the
 * installed packages, in the built server as in its tests.
 */
export function openDocument(options: PDFKit.PDFDocumentOptions): PDFKit.PDFDocument {
  maker ??= makerOf(createRequire(process.argv[1] ?? process.execPath));
  return new maker(options);
}

function makerOf(load: NodeJS.Require): Library {
  const Plain = load('pdfkit') as Library;
  const path = (face: Face): string => load.resolve(faces[face]);
  return class extends Plain {
    private face: string | undefined;

    constructor(options: PDFKit.PDFDocumentOptions) {
      super({ ...options, font: path('text') });
      for (const face of Object.keys(faces) as Face[]) this.registerFont(face, path(face));
      this.font('text');
    }

    override font(src: PDFKit.Mixins.PDFFontSource, ...rest: never[]): this {
      if (typeof src === 'string') this.face = src;
      return super.font(src, ...rest);
    }

    // A text with letters its face lacks is set in one that has them.
    override text(text: string, x?: number | TextOptions, y?: number, options?: TextOptions): this {
      const set = (): this => (typeof x === 'object' ? super.text(text, x) : super.text(text, x, y, options));
      const before = this.face;
      if (!beyondLatin.test(text)) return set();
      this.font(before === 'strong' || before === 'head' ? 'wideStrong' : 'wide');
      set();
      return before === undefined ? this : this.font(before);
    }
  };
}
