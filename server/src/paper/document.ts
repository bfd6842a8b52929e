import type {} from 'pdfkit';
import { createRequire } from 'node:module';

/**
 * The PDF library as Node knows it. Its ES entry is made for browsers: it holds no fonts and knows no Node streams.
 * The running script leads to the installed packages, in the built server as in its tests.
 */
const PDFDocument = createRequire(process.argv[1] ?? process.execPath)('pdfkit') as new (
  options: PDFKit.PDFDocumentOptions,
) => PDFKit.PDFDocument;

export const openDocument = (options: PDFKit.PDFDocumentOptions): PDFKit.PDFDocument => new PDFDocument(options);
