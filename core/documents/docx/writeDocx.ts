import {
  AlignmentType,
  Document,
  Footer,
  Header,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  PageNumber,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type FileChild,
} from 'docx'
import { strToU8, unzipSync, zipSync } from 'fflate'
import type {
  WrittenBlock,
  WrittenDocument,
  WrittenParagraph,
  WrittenPicture,
  WrittenRun,
} from '../../form/written'
import { textOf } from './openDocx'

/** What was written as a template, as a DOCX with its tags in it: the same bytes each time. */
export async function writeDocx(written: WrittenDocument): Promise<Uint8Array> {
  const { header, footer, numbered, body } = written
  const below = footerOf(footer, numbered === true)
  const document = new Document({
    styles: STYLES,
    numbering: { config: [NUMBERED] },
    sections: [
      {
        headers: header === undefined ? {} : { default: new Header({ children: [edgeLine(header)] }) },
        footers: below.length === 0 ? {} : { default: new Footer({ children: below }) },
        children: body.map((block, i) => blockOf(block, body[i - 1]?.is === 'table')),
      },
    ],
  })
  const bytes = new Uint8Array(await Packer.toArrayBuffer(document))
  return withoutTimes(bytes)
}

/** When a file was written stands in it, and in its archive: left out, the same template is the same file. */
function withoutTimes(bytes: Uint8Array): Uint8Array {
  const files = unzipSync(bytes)
  const facts = textOf(files, FACTS).replaceAll(/>\d{4}-\d\d-\d\dT[\d:.]+Z</g, '>2026-01-01T00:00:00Z<')
  return zipSync({ ...files, [FACTS]: strToU8(facts) }, { mtime: new Date(1980, 0, 1) })
}
const FACTS = 'docProps/core.xml'

const FONT = 'Calibri'
const heading = (size: number) => ({
  run: { size: size * 2, bold: true, font: FONT, color: '000000' },
  paragraph: { spacing: { before: 200, after: 80 } },
})
/** Sizes in half points, distances in twentieths of a point. */
const STYLES = {
  default: {
    document: { run: { font: FONT, size: 22 }, paragraph: { spacing: { after: 100 } } },
    heading1: heading(17),
    heading2: heading(14),
    heading3: heading(12),
  },
}
const NUMBERED = {
  reference: 'numbers',
  levels: [
    {
      level: 0,
      format: LevelFormat.DECIMAL,
      text: '%1.',
      alignment: AlignmentType.START,
      style: { paragraph: { indent: { left: 480, hanging: 360 } } },
    },
  ],
}
const HEADINGS = [HeadingLevel.HEADING_1, HeadingLevel.HEADING_2, HeadingLevel.HEADING_3]
const ALIGNED = { center: AlignmentType.CENTER, right: AlignmentType.RIGHT }

const edgeLine = (text: string) => new Paragraph({ children: [new TextRun({ text, size: 18 })] })

function footerOf(text: string | undefined, isNumbered: boolean): Paragraph[] {
  const line = text === undefined ? [] : [edgeLine(text)]
  if (!isNumbered) return line
  const numbers = new TextRun({ size: 18, children: [PageNumber.CURRENT, ' / ', PageNumber.TOTAL_PAGES] })
  return [...line, new Paragraph({ alignment: AlignmentType.CENTER, children: [numbers] })]
}

function blockOf(block: WrittenBlock, isBehindTable: boolean): FileChild {
  if (block.is === 'paragraph') return paragraphOf(block, isBehindTable ? BEHIND_TABLE : {})
  if (block.is === 'picture') return pictureOf(block)
  const rows = block.rows.map(
    cells =>
      new TableRow({
        children: cells.map(
          cell => new TableCell({ margins: MARGINS, children: cell.map(p => paragraphOf(p, IN_CELL)) }),
        ),
      }),
  )
  return new Table({ rows, width: { size: 100, type: WidthType.PERCENTAGE } })
}
/** Distances in twentieths of a point; what a paragraph’s style says else. */
const BEHIND_TABLE = { spacing: { before: 140, after: 100 } }
const IN_CELL = { spacing: { after: 0 } }
const MARGINS = { top: 40, bottom: 40, left: 100, right: 100 }

function paragraphOf(
  { level, list, align, runs }: WrittenParagraph,
  spacing: { spacing?: { before?: number; after: number } },
): Paragraph {
  const style = level === undefined ? {} : { heading: HEADINGS[level - 1] ?? HeadingLevel.HEADING_3 }
  const numbered = list === 'numbers' ? { numbering: { reference: 'numbers', level: 0 } } : {}
  return new Paragraph({
    ...(level === undefined ? spacing : {}),
    ...style,
    ...numbered,
    ...(list === 'bullets' ? { bullet: { level: 0 } } : {}),
    ...(align === undefined ? {} : { alignment: ALIGNED[align] }),
    children: runs.flatMap(runsOf),
  })
}

/** A run, one for each of its lines. */
function runsOf({ text, bold, italic, underline }: WrittenRun): TextRun[] {
  const format = {
    ...(bold ? { bold } : {}),
    ...(italic ? { italics: true } : {}),
    ...(underline ? { underline: {} } : {}),
  }
  return text
    .split('\n')
    .map((line, i) => new TextRun({ text: line, ...format, ...(i > 0 ? { break: 1 } : {}) }))
}

/** Pixels of a point, of which the library counts 96 in an inch. */
const PIXELS = 96 / 72

function pictureOf({ type, data, width, height }: WrittenPicture): Paragraph {
  const bytes = Uint8Array.from(atob(data), sign => sign.charCodeAt(0))
  const transformation = { width: Math.round(width * PIXELS), height: Math.round(height * PIXELS) }
  return new Paragraph({ children: [new ImageRun({ type, data: bytes, transformation })] })
}
