import { execFileSync } from 'node:child_process'

/** The text of a PDF file as an independent reader has it, its lines as they stand on the pages. */
export const textOfPdf = (bytes: Uint8Array): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' })
