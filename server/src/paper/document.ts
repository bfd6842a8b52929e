import type {} from 'pdfkit';
import { createRequire } from 'node:module';

type DocumentMaker = new (options: PDFKit.PDFDocumentOptions) => PDFKit.PDFDocument;
let maker: DocumentMaker | undefined;

/**
 * Opens a PDF with the library as Node knows it: its ES entry is made for browsers, holds no fonts and knows no Node
 * streams. The running script leads to the installed packages, in the built server as in its tests; it is loaded with
 * the first document.
 */
export function openDocument(options: PDFKit.PDFDocumentOptions): PDFKit.PDFDocument {
  maker ??= createRequire(process.argv[1] ?? process.execPath)('pdfkit') as DocumentMaker;
  return new maker(options);
}
