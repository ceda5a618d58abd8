import { setPicture } from './setPicture'
import type { Content, Column, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type {
  ContentBlock,
  ContentParagraph,
  ContentRun,
  ContentTable,
  DocumentContent,
  PictureRun,
} from '../documents/content'

/** How large headings are set, by their level from 1 on. */
const SIZES = [18, 15, 13, 12, 11.5, 11]
const INDENT = 18

/** Numbers of the pages, where a header or footer tells them. */
interface Pages {
  page: number
  pages: number
}

/**
 * A document as pages (A4): its text with headings, lists, tables and pictures, but not set exactly as its template has it.
 * What is set into a PDF file by whoever has the fonts.
 */
export const setDocument = (
  { header, body, footer }: DocumentContent,
  title: string,
): TDocumentDefinitions => ({
  pageSize: 'A4',
  pageMargins: [56, 64, 56, 64],
  info: { title },
  defaultStyle: { fontSize: 10.5, lineHeight: 1.15 },
  header: (page, pages) => ({
    stack: setBlocks(header, { page, pages }),
    margin: [56, 24, 56, 0],
    fontSize: 9,
  }),
  footer: (page, pages) => ({
    stack: setBlocks(footer, { page, pages }),
    margin: [56, 16, 56, 0],
    fontSize: 9,
  }),
  content: setBlocks(body, null),
})

/** Blocks as they are set; items of a list that follow each other are one list. */
function setBlocks(blocks: readonly ContentBlock[], pages: Pages | null): Content[] {
  const done: Content[] = []
  for (let i = 0; i < blocks.length;) {
    const block = blocks[i]
    if (!block) break
    const items = listFrom(blocks, i)
    if (items.length > 0) {
      const lines = items.map(item => setParagraph(item, pages))
      const margin: [number, number, number, number] = [INDENT * (items[0]?.depth ?? 0), 2, 0, 4]
      done.push(items[0]?.list === 'numbers' ? { ol: lines, margin } : { ul: lines, margin })
      i += items.length
      continue
    }
    done.push(block.is === 'table' ? setTable(block, pages) : setParagraph(block, pages))
    i += 1
  }
  return done
}

/** The items of one list, of one depth, that begin at a block. */
function listFrom(blocks: readonly ContentBlock[], from: number): ContentParagraph[] {
  const first = blocks[from]
  if (first?.is !== 'paragraph' || first.list === null) return []
  const items: ContentParagraph[] = []
  for (const block of blocks.slice(from)) {
    const belongs = block.is === 'paragraph' && block.list === first.list && block.depth === first.depth
    if (!belongs) break
    items.push(block)
  }
  return items
}

function setParagraph({ level, align, newPage, runs }: ContentParagraph, pages: Pages | null): Content {
  const alignment = align
  const pictures = runs.filter(run => run.is === 'picture')
  const words = runs.filter(run => run.is !== 'picture').map(run => setRun(run, pages))
  const size = level > 0 ? { fontSize: SIZES[level - 1] ?? 11, bold: true } : {}
  const before = newPage ? { pageBreak: 'before' as const } : {}
  const above = level > 0 ? 8 : 0
  const text: Content = { text: words, alignment, ...size, margin: [0, above, 0, 4], ...before }
  if (pictures.length === 0) return words.length > 0 ? text : { text: ' ', fontSize: 5, ...before }
  const shown = pictures.map((picture): Column => setPicture(picture))
  const row: Content = { columns: shown, columnGap: 8, margin: [0, 2, 0, 4] }
  return words.length > 0 ? { stack: [text, row] } : { ...row, ...before }
}

function setRun(run: Exclude<ContentRun, PictureRun>, pages: Pages | null): Content {
  if (run.is === 'field') return { text: pages ? String(run.of === 'page' ? pages.page : pages.pages) : '' }
  const { text, bold, italic, underline, mark } = run
  return {
    text,
    ...(bold ? { bold } : {}),
    ...(italic ? { italics: true } : {}),
    ...(underline ? { decoration: 'underline' } : {}),
    ...(mark ? { background: '#fff2a8' } : {}),
  }
}

/** A table; a row that is short of cells is filled up, since every row must have as many. */
function setTable({ rows }: ContentTable, pages: Pages | null): Content {
  const width = Math.max(1, ...rows.map(row => row.reduce((sum, cell) => sum + cell.span, 0)))
  const body = rows.map((row): TableCell[] => {
    const cells = row.flatMap(({ span, blocks }): TableCell[] => [
      { stack: setBlocks(blocks, pages), ...(span > 1 ? { colSpan: span } : {}) },
      ...Array.from({ length: span - 1 }, (): TableCell => ({})),
    ])
    return [...cells, ...Array.from({ length: width - cells.length }, (): TableCell => ({ text: '' }))]
  })
  if (body.length === 0) return { text: '' }
  return {
    table: { widths: Array.from({ length: width }, () => '*'), body },
    layout: { hLineWidth: () => 0.5, vLineWidth: () => 0.5, hLineColor: '#888888', vLineColor: '#888888' },
    margin: [0, 4, 0, 8],
  }
}
